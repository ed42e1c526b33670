import FFT from 'fft.js';
import { ANALYSIS_RATE, HOP } from './spectral-flux';
import type { Hertz, Seconds } from '../time';

/** The spectrum is taken at a quarter of the rate: nothing above 2.2 kHz is looked at. */
const DECIMATION = 4;
const RATE: Hertz = ANALYSIS_RATE / DECIMATION;
/** 186 ms, longer than the onset window: half tones lie 6 Hz apart at 100 Hz. */
const WINDOW = 1024;
/** One profile every four onset frames, about 40 ms. */
const STEP = 4 * HOP;
export const PROFILE_RATE: Hertz = ANALYSIS_RATE / STEP;
/** Values of a profile: twelve pitch classes of the middle register, then twelve of the bass. */
export const PROFILE_SIZE = 24;
const REGISTERS: readonly (readonly [Hertz, Hertz])[] = [
  [180, 2200],
  [45, 180],
];

/** Low-pass at 2.3 kHz (windowed sinc, 33 taps) and every fourth sample. */
function decimated(samples: Float32Array): Float32Array {
  const taps = 33;
  const middle = (taps - 1) / 2;
  const cutoff = 2300 / ANALYSIS_RATE;
  const kernel = Float64Array.from({ length: taps }, (_, i) => {
    const x = i - middle;
    const sinc = x === 0 ? 2 * cutoff : Math.sin(2 * Math.PI * cutoff * x) / (Math.PI * x);
    return sinc * (0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 1)) / (taps + 1)));
  });
  const out = new Float32Array(Math.ceil(samples.length / DECIMATION));
  for (let i = 0; i < out.length; i++) {
    const start = i * DECIMATION - middle;
    const from = Math.max(0, -start);
    const to = Math.min(taps, samples.length - start);
    let sum = 0;
    for (let k = from; k < to; k++) sum += kernel[k]! * samples[start + k]!;
    out[i] = sum;
  }
  return out;
}

/**
 * How strongly each pitch class sounds, in the middle register and in the bass, over time. Magnitudes are
 * square-rooted, so that a loud voice doesn't drown the chord. Rows are [profile × PROFILE_SIZE]; {@link timeProfile}
 * gives a time's row.
 * @param samples - mono PCM at ANALYSIS_RATE. Not modified.
 */
export function pitchProfiles(samples: Float32Array, onProgress: (share: number) => void = () => {}): Float32Array {
  const slow = decimated(samples);
  const count = Math.floor(samples.length / STEP);
  const out = new Float32Array(count * PROFILE_SIZE);
  const fft = new FFT(WINDOW);
  const spectrum = fft.createComplexArray();
  const windowed = new Float64Array(WINDOW);
  const hann = Float64Array.from({ length: WINDOW }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / WINDOW));
  const slotOf = new Int8Array(WINDOW / 2).fill(-1);
  for (let k = 1; k < slotOf.length; k++) {
    const f = (k * RATE) / WINDOW;
    const register = REGISTERS.findIndex(([from, to]) => f >= from && f < to);
    if (register >= 0) slotOf[k] = register * 12 + (((Math.round(12 * Math.log2(f / 440)) % 12) + 12) % 12);
  }
  for (let row = 0; row < count; row++) {
    if (row % 1024 === 0) onProgress(row / count);
    const start = (row * STEP) / DECIMATION - WINDOW / 2;
    if (start >= 0 && start + WINDOW <= slow.length)
      for (let i = 0; i < WINDOW; i++) windowed[i] = slow[start + i]! * hann[i]!;
    else for (let i = 0; i < WINDOW; i++) windowed[i] = (slow[start + i] ?? 0) * hann[i]!;
    fft.realTransform(spectrum, windowed);
    for (let k = 1; k < slotOf.length; k++) {
      const slot = slotOf[k]!;
      if (slot >= 0)
        out[row * PROFILE_SIZE + slot]! += Math.sqrt(
          Math.sqrt(spectrum[2 * k]! * spectrum[2 * k]! + spectrum[2 * k + 1]! * spectrum[2 * k + 1]!),
        );
    }
  }
  return out;
}

export const timeProfile = (seconds: Seconds): number => seconds * PROFILE_RATE;
