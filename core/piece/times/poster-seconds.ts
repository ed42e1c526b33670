import type { Seconds } from '../../time';
import type { Piece } from '../document/schema';
import type { ResolvedTimes } from './resolve-times';

/** Where the poster of a piece lies that has chosen none: things have come in by then, and not gone out yet. */
const POSTER_SHARE = 0.375;

/** The moment whose frame stands for the piece, within it. */
export const posterSeconds = (piece: Pick<Piece, 'poster'>, { end, timeOf }: ResolvedTimes): Seconds =>
  piece.poster ? Math.min(Math.max(0, timeOf(piece.poster)), end) : end * POSTER_SHARE;
