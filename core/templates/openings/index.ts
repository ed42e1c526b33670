import type { Piece } from '../../piece';
import { masthead, broadside, logbook, pennants, tally } from './lettering';
import { lantern, hoist, gate, swell, rose } from './shapes';

/** Opening titles: what it is called, in the first bars. */
export const OPENINGS: readonly Piece[] = [
  masthead,
  lantern,
  hoist,
  gate,
  broadside,
  logbook,
  swell,
  rose,
  pennants,
  tally,
];
