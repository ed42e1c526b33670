import type { SongAnalysis } from '../../audio';
import type { Seconds } from '../../time';
import type { Piece } from '../document/schema';
import { shownLayers } from '../document/tree';
import { musicSpan } from '../song/arrange';
import type { ResolvedTimes } from './resolve-times';

/** Where a piece may end by itself: with what is heard, or with what is seen. */

/** Where the last of the music is heard, cuts and all; null without music or while its length is not known. */
export const musicEnd = (piece: Pick<Piece, 'music'>, analysis: SongAnalysis | null): Seconds | null =>
  piece.music && analysis ? musicSpan(piece.music, analysis.duration).to : null;

/** Where the last layer that is shown ends; null if there is none. */
export function layersEnd(piece: Pick<Piece, 'layers'>, times: ResolvedTimes): Seconds | null {
  const ends = shownLayers(piece.layers).map((layer) => times.timeOf(layer.end));
  return ends.length > 0 ? Math.max(...ends) : null;
}
