import type { Json } from './index';

/**
 * Version 7 to 8: the method of analysis that a piece is timed by, how the beats of odd bars group, and effects and masks
 * of one format alone. Pieces of before are timed by what their song was first heard by.
 */
export const toVersion8 = (document: Json): Json => ({ ...document, version: 8 });
