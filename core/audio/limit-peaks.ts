import type { Hertz } from '../time';
import { TAPS_PER_PHASE, createLoudnessMeter, interpolators } from './loudness';
import type { Loudness } from './loudness';

/** Left and right, of the same length. */
export type Stereo = readonly [Float32Array, Float32Array];

/** Seconds over which the gain goes down before a peak and comes up after it, and in which it then comes back. */
const LOOK_AHEAD = 0.0015;
const RELEASE = 0.08;

/** The greatest magnitude at each sample and between it and its neighbours, of both channels. */
function peaksOf(sound: Stereo, ceiling: number): Float32Array {
  const { length } = sound[0];
  const out = new Float32Array(length);
  const phases = interpolators();
  const half = TAPS_PER_PHASE / 2;
  // No more than this can hide between samples that are so far below the ceiling.
  const loud = 0.4 * ceiling;
  for (const channel of sound)
    for (let i = 0; i < length; i++) {
      const here = Math.abs(channel[i]!);
      if (here > out[i]!) out[i] = here;
      if (here < loud && Math.abs(channel[i + 1] ?? 0) < loud) continue;
      for (const taps of phases) {
        let y = 0;
        for (let k = 0; k < TAPS_PER_PHASE; k++) y += taps[k]! * (channel[i + k - half + 1] ?? 0);
        y = Math.abs(y);
        if (y > out[i]!) out[i] = y;
        if (i + 1 < length && y > out[i + 1]!) out[i + 1] = y;
      }
    }
  return out;
}

/** The least of the values within `reach` of each, by a queue of those that can still become the least. */
function leastAround(values: Float32Array, reach: number): Float32Array {
  const { length } = values;
  const out = new Float32Array(length);
  const queue = new Int32Array(length);
  let [head, tail, next] = [0, 0, 0];
  for (let i = 0; i < length; i++) {
    for (; next <= Math.min(length - 1, i + reach); next++) {
      while (tail > head && values[queue[tail - 1]!]! >= values[next]!) tail--;
      queue[tail++] = next;
    }
    while (queue[head]! < i - reach) head++;
    out[i] = values[queue[head]!]!;
  }
  return out;
}

/**
 * Keeps true peaks (ITU-R BS.1770-4, Annex 2) at or below a ceiling by a gain that is the same for both channels, goes
 * down ahead of a peak and comes back slowly. As the gain itself moves, what comes out may lie a few hundredths of a
 * decibel above. @param ceiling - dBTP.
 */
export function limitPeaks(sound: Stereo, rate: Hertz, ceiling: number): Stereo {
  const most = 10 ** (ceiling / 20);
  const peaks = peaksOf(sound, most);
  const { length } = peaks;
  const wanted = peaks.map((peak) => (peak > most ? most / peak : 1));
  if (wanted.every((gain) => gain === 1)) return sound;
  const reach = Math.max(1, Math.round(LOOK_AHEAD * rate));
  const gain = leastAround(wanted, reach);
  const coming = 1 - Math.exp(-1 / (RELEASE * rate));
  for (let i = 1; i < length; i++) gain[i] = Math.min(gain[i]!, gain[i - 1]! + (1 - gain[i - 1]!) * coming);
  // The mean over the reach is at or below what each sample in it needs, and has no step.
  const out = [new Float32Array(length), new Float32Array(length)] as const;
  let [sum, count] = [0, 0];
  for (let i = -reach; i < length; i++) {
    if (i + reach < length) [sum, count] = [sum + gain[i + reach]!, count + 1];
    if (i - reach - 1 >= 0) [sum, count] = [sum - gain[i - reach - 1]!, count - 1];
    if (i < 0) continue;
    const now = sum / count;
    out[0][i] = sound[0][i]! * now;
    out[1][i] = sound[1][i]! * now;
  }
  return out;
}

/** Of a whole sound. */
export function loudnessOf(sound: Stereo, rate: Hertz): Loudness {
  const meter = createLoudnessMeter(rate, 2);
  const block = rate * 2;
  for (let from = 0; from < sound[0].length; from += block) {
    const count = Math.min(block, sound[0].length - from);
    const samples = new Float32Array(count * 2);
    for (let i = 0; i < count; i++) {
      samples[2 * i] = sound[0][from + i]!;
      samples[2 * i + 1] = sound[1][from + i]!;
    }
    meter.push(samples);
  }
  return meter.result();
}

const scaled = (sound: Stereo, gain: number): Stereo => [sound[0].map((x) => x * gain), sound[1].map((x) => x * gain)];

/** How near to the target is near enough, LU; and how often it is tried. */
const NEAR = 0.05;
const TRIES = 6;

/** Keeps what comes out under the ceiling too: where the gain moves, a limited peak can lie a little above it. */
function underCeiling(sound: Stereo, rate: Hertz, ceiling: number): Stereo {
  let peak = ceiling;
  let out = sound;
  for (let i = 0; i < TRIES; i++) {
    out = limitPeaks(sound, rate, peak);
    if (out === sound) break;
    const over = loudnessOf(out, rate).truePeak - ceiling;
    if (over < NEAR / 5) break;
    peak -= over;
  }
  return out;
}

/**
 * Brings a sound to a loudness with its true peaks under a ceiling: made louder or softer as a whole, and limited where
 * it would go over, which takes loudness away again: so it is tried until it is met. Silence, and what has too little
 * sound to be measured, stays as it is. @param target - LUFS; null for as loud as it is. @param ceiling - dBTP.
 */
export function toLoudness(sound: Stereo, rate: Hertz, target: number | null, ceiling: number): Stereo {
  if (target === null) return underCeiling(sound, rate, ceiling);
  const { integrated } = loudnessOf(sound, rate);
  if (!Number.isFinite(integrated)) return sound;
  let [gain, peak] = [target - integrated, ceiling];
  let out = sound;
  for (let i = 0; i < TRIES; i++) {
    out = limitPeaks(scaled(sound, 10 ** (gain / 20)), rate, peak);
    const now = loudnessOf(out, rate);
    const over = now.truePeak - ceiling;
    if (Math.abs(now.integrated - target) < NEAR && over < NEAR / 5) break;
    gain += target - now.integrated;
    if (over > 0) peak -= over;
  }
  return out;
}
