import type { Json } from './index';

/**
 * Version 5 to 6: pieces within pieces, groups that are one shape, ways that layers go along, masks of several forms,
 * logos by their role.
 */
export const toVersion6 = (document: Json): Json => ({ ...document, version: 6 });
