import type { SongAnalysis } from './analysis';
import { FRAME_RATE } from './spectral-flux';
import type { Seconds } from '../time';

/** Quieter than this below the mean power, for at least this long, is silence. */
const BELOW_DECIBELS = 40;
const SHORTEST = 0.25;

/** @param power - mean square of each frame. */
export function findSilences(power: Float32Array): SongAnalysis['silences'] {
  let mean = 0;
  for (const p of power) mean += p / Math.max(1, power.length);
  if (mean <= 0) return [];
  const floor = mean * 10 ** (-BELOW_DECIBELS / 10);
  const out: { start: Seconds; end: Seconds }[] = [];
  let from = -1;
  for (let i = 0; i <= power.length; i++) {
    const isQuiet = i < power.length && power[i]! < floor;
    if (isQuiet && from < 0) from = i;
    if (!isQuiet && from >= 0) {
      if ((i - from) / FRAME_RATE >= SHORTEST) out.push({ start: from / FRAME_RATE, end: i / FRAME_RATE });
      from = -1;
    }
  }
  return out;
}
