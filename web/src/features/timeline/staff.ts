import type { SongAnalysis } from '@core/audio';
import type { Piece, ResolvedTimes } from '@core/piece';
import type { TimeAxis } from './time-axis';

/**
 * Heights of the music's staff, from the top: bar numbers over seconds, names of the parts, waveform, three lines of
 * hits.
 */
export const RULER = 30;
export const PARTS = 15;
export const WAVE = 36;
export const STAFF = 30;
export const MUSIC_HEIGHT = RULER + PARTS + WAVE + STAFF;

export interface LatticeScene {
  readonly axis: TimeAxis;
  readonly piece: Pick<Piece, 'music' | 'markers'>;
  readonly times: ResolvedTimes;
  readonly analysis: SongAnalysis | null;
  readonly loop: { readonly from: number; readonly to: number } | null;
  readonly height: number;
  readonly names: number;
  readonly showsCurves: boolean;
  readonly isMovingBeats: boolean;
}

/** The value of a custom property of the theme. */
export const colour = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(name).trim();
