import type { Json } from './index';

/** Version 4 to 5: groups may have a time of their own, drawn shapes further forms; parameters of effects may listen. */
export const toVersion5 = (document: Json): Json => ({ ...document, version: 5 });
