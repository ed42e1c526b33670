/** Measures of rendered sound: mono samples at 48 kHz. */
export const RATE = 48000;

/**
 * By how much `heard` from `at` on lags `song` from `songAt` on, seconds within ±15 ms, by cross-correlation over
 * `length` seconds.
 */
export function lagOf(heard: Float32Array, at: number, song: Float32Array, songAt: number, length = 1): number {
  let [best, top] = [0, -Infinity];
  for (let lag = -720; lag <= 720; lag += 4) {
    let sum = 0;
    for (let i = 0; i < length * RATE; i += 3)
      sum += (heard[Math.round(at * RATE) + i + lag] ?? 0) * (song[Math.round(songAt * RATE) + i] ?? 0);
    if (sum > top) [best, top] = [lag, sum];
  }
  return best / RATE;
}

/** The sharpest bend of the wave between two times: what a click would raise. */
export function sharpest(sound: Float32Array, from: number, to: number): number {
  let top = 0;
  for (let i = Math.max(1, Math.round(from * RATE)); i < Math.min(sound.length - 1, to * RATE); i++)
    top = Math.max(top, Math.abs(sound[i + 1]! - 2 * sound[i]! + sound[i - 1]!));
  return top;
}
