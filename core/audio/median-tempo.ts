import type { Bpm, Seconds } from '../time';

/** Tempo of the interval in the middle of all, in BPM; 0 of fewer than two beats. @param beats - ascending. */
export function medianTempo(beats: readonly Seconds[]): Bpm {
  const intervals = beats
    .slice(1)
    .map((t, i) => t - beats[i]!)
    .sort((a, b) => a - b);
  const median = intervals[intervals.length >> 1];
  return median ? 60 / median : 0;
}
