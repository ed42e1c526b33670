/** Seconds within which a beat counts as found, as in the beat kit. */
export const MATCH_WINDOW = 0.07;

/**
 * One-to-one matching of two ascending lists of times. @returns F-measure, and the mean of estimate less truth in
 * seconds (NaN without a match).
 */
export function matchBeats(truth: readonly number[], estimate: readonly number[]): { f: number; bias: number } {
  let hits = 0;
  let sum = 0;
  for (let i = 0, j = 0; i < truth.length && j < estimate.length;) {
    const gap = estimate[j]! - truth[i]!;
    if (Math.abs(gap) <= MATCH_WINDOW) {
      hits++;
      sum += gap;
      i++;
      j++;
    } else if (gap < 0) j++;
    else i++;
  }
  return { f: (2 * hits) / Math.max(1, truth.length + estimate.length), bias: hits ? sum / hits : NaN };
}
