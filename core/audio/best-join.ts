import type { Hertz, Seconds } from '../time';

/** How far a join may be moved: within the tolerance in which a beat still sounds even. */
const MAX_SHIFT: Seconds = 0.004;
/** Length that is compared around the join. */
const COMPARED: Seconds = 0.03;

/**
 * Where the song should go on at a join, near `to`, so that what is heard before `at` runs on: the shift with the
 * highest normalised cross-correlation of the two sides.
 * @param samples - one channel of the song.
 * @returns Seconds of the song, within 4 ms of `to`.
 */
export function bestJoin(samples: Float32Array, rate: Hertz, at: Seconds, to: Seconds): Seconds {
  const half = Math.round((COMPARED / 2) * rate);
  const centre = Math.round(at * rate);
  let best = 0;
  let bestScore = -Infinity;
  for (let shift = -Math.round(MAX_SHIFT * rate); shift <= MAX_SHIFT * rate; shift++) {
    const other = Math.round(to * rate) + shift;
    let [dot, a2, b2] = [0, 0, 0];
    for (let k = -half; k < half; k++) {
      const a = samples[centre + k] ?? 0;
      const b = samples[other + k] ?? 0;
      dot += a * b;
      a2 += a * a;
      b2 += b * b;
    }
    // Ties (silence on both sides) keep the join where it was asked for.
    const score =
      a2 > 0 && b2 > 0 ? dot / Math.sqrt(a2 * b2) - 1e-4 * Math.abs(shift / rate / MAX_SHIFT) : -Math.abs(shift) * 1e-9;
    if (score > bestScore) {
      bestScore = score;
      best = shift;
    }
  }
  return to + best / rate;
}
