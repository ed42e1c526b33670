import type { Piece } from '../piece';
import { LOWER_THIRDS } from './lower-thirds';

/** The templates that come with the program. */
export const SHIPPED_TEMPLATES: readonly Piece[] = [...LOWER_THIRDS];
