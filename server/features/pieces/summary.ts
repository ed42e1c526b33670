import type { SongAnalysis } from '@core/audio';
import { posterSeconds, resolveTimes } from '@core/piece';
import type { Piece } from '@core/piece';
import type { PieceRow } from '../../db/entities';

/** What the home shows of a piece: enough for a card, not the document. */
export type Summary = Pick<
  PieceRow,
  'duration' | 'layerCount' | 'formats' | 'leadFormatId' | 'frameRate' | 'beats' | 'poster'
>;

/** Beats shown on a card. */
const MOST_BEATS = 400;
const round = (seconds: number): number => Math.round(seconds * 1000) / 1000;

/** @param analysis - of the piece's song, null without music or while it is not known. */
export function summarise(piece: Piece, analysis: SongAnalysis | null): Summary {
  const times = resolveTimes(piece, analysis);
  const { grid, end } = times;
  const perBar = grid.meters[0]?.beatsPerBar ?? 4;
  const beats: number[] = [];
  for (const [i, t] of grid.beats.entries())
    if (t >= 0 && t < end && beats.length < MOST_BEATS)
      beats.push((i - grid.origin) % perBar === 0 ? round(t) : -round(t));
  return {
    duration: round(end),
    layerCount: piece.layers.length,
    formats: piece.formats,
    leadFormatId: piece.leadFormatId,
    frameRate: piece.frameRate,
    beats,
    poster: round(posterSeconds(piece, times)),
  };
}
