import type { SongAnalysis } from '@core/audio';
import { songToPieceAll } from '@core/piece';
import type { Music } from '@core/piece';
import type { BeatGrid } from '@core/time';

export interface Point {
  readonly x: number;
  readonly y: number;
}

/** Tempo from beat to beat, averaged over four: what an ear would follow. */
export function tempoCurve(grid: BeatGrid): Point[] {
  const { beats } = grid;
  const span = Math.min(4, beats.length - 1);
  return beats.slice(0, -span).map((t, i) => ({ x: t, y: (60 * span) / (beats[i + span]! - t) }));
}

/** Strength of the onsets of all bands over the piece, 0…1, at most `count` points. */
export function strengthCurve(analysis: SongAnalysis, music: Music, count: number): Point[] {
  const { low, mid, high } = analysis.curves;
  const step = Math.max(1, Math.floor(low.length / count));
  const out: Point[] = [];
  for (let i = 0; i < low.length; i += step) {
    let top = 0;
    for (let k = i; k < Math.min(low.length, i + step); k++) top = Math.max(top, low[k]! + mid[k]! + high[k]!);
    for (const x of songToPieceAll(music, i / analysis.curveRate)) out.push({ x, y: top / 765 });
  }
  return out.sort((a, b) => a.x - b.x);
}
