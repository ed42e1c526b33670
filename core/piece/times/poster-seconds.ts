import { frameToSeconds, secondsToFrame } from '../../time';
import type { Seconds } from '../../time';
import type { Piece } from '../document/schema';
import type { FrameSpan } from './excerpts';
import type { ResolvedTimes } from './resolve-times';

/** Where the poster of a piece lies that has chosen none: things have come in by then, and not gone out yet. */
const POSTER_SHARE = 0.375;

/** The moment whose frame stands for the piece, within it. */
export const posterSeconds = (piece: Pick<Piece, 'poster'>, { end, timeOf }: ResolvedTimes): Seconds =>
  piece.poster ? Math.min(Math.max(0, timeOf(piece.poster)), end) : end * POSTER_SHARE;

/** The frame that stands for a part of the piece: the poster's, or the nearest that is in it. */
export const posterFrame = (
  piece: Pick<Piece, 'poster' | 'frameRate'>,
  times: ResolvedTimes,
  { first, count }: FrameSpan,
): number => Math.max(first, Math.min(first + count - 1, secondsToFrame(posterSeconds(piece, times), piece.frameRate)));

const isSeenAtFirst = ({ layers }: Pick<Piece, 'layers'>, { timeOf }: ResolvedTimes): boolean =>
  layers.some(
    (layer) =>
      layer.kind !== 'group' &&
      !layer.hidden &&
      timeOf(layer.start) <= 0 &&
      !layer.gestures.some(({ role }) => role === 'entrance'),
  );

/** Where a piece is opened: at its start, or at its poster where one is chosen or the first frame shows nothing yet. */
export function openingSeconds(piece: Pick<Piece, 'poster' | 'layers' | 'frameRate'>, times: ResolvedTimes): Seconds {
  if (!piece.poster && (piece.layers.length === 0 || isSeenAtFirst(piece, times))) return 0;
  return frameToSeconds(secondsToFrame(posterSeconds(piece, times), piece.frameRate), piece.frameRate);
}
