import type { Piece } from '../../piece';
import { quayside, handle, landfall, corner } from './marked';
import { plumb, flagline, pair, live, logline, breakwater } from './plain';

/** Lower thirds: who speaks, and where to find them. */
export const LOWER_THIRDS: readonly Piece[] = [
  quayside,
  plumb,
  flagline,
  handle,
  pair,
  live,
  landfall,
  logline,
  breakwater,
  corner,
];
