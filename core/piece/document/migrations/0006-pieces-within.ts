import type { Json } from './index';

/**
 * Version 5 to 6: pieces within pieces, groups that are one shape, ways that layers go along, masks of several forms,
 * logos by their role, words that keep to a room, what is made from templates. Nothing was ever made from templates before.
 */
export const toVersion6 = (document: Json): Json => ({ ...document, version: 6, template: null, madeFrom: null });
