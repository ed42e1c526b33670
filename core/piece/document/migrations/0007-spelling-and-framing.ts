import type { Json } from './index';

/** Version 6 to 7: words of one's own, and pictures that fill their frame. Before, every picture was stretched to its frame. */
export const toVersion7 = (document: Json): Json => ({ ...document, version: 7, ownWords: [] });
