import type { Json } from './index';

/** Version 3 to 4: shapes may have gradients of many stops, strokes of any style and further paints; layers may hug others
 * and be repeated. All begin plain. */
export const toVersion4 = (document: Json): Json => ({ ...document, version: 4 });
