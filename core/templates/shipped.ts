import type { Piece } from '../piece';
import { CLOSINGS } from './closings';
import { LOWER_THIRDS } from './lower-thirds';
import { OPENINGS } from './openings';
import { OTHERS } from './others';
import { QUOTES } from './quotes';

/** The templates that come with the program. Each is a document of its own, written in beats, in roles alone. */
export const SHIPPED_TEMPLATES: readonly Piece[] = [...LOWER_THIRDS, ...OPENINGS, ...QUOTES, ...CLOSINGS, ...OTHERS];
