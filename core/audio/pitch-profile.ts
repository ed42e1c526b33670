import { eachSpectrum } from './spectra';
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

/** Taps of the low-pass to each side of its middle. */
const REACH = 16;

const CUTOFF: Hertz = 2300;
/** Windowed sinc: the middle tap and those to one side, for the others are the same. */
const LOW_PASS = Float64Array.from({ length: REACH + 1 }, (_, k) => {
  const cutoff = CUTOFF / ANALYSIS_RATE;
  const sinc = k === 0 ? 2 * cutoff : Math.sin(2 * Math.PI * cutoff * k) / (Math.PI * k);
  return sinc * (0.5 + 0.5 * Math.cos((Math.PI * k) / (REACH + 1)));
});

function lowPassed(samples: Float32Array, centre: number): number {
  let sum = LOW_PASS[0]! * samples[centre]!;
  if (centre >= REACH && centre + REACH < samples.length)
    for (let k = 1; k <= REACH; k++) sum += LOW_PASS[k]! * (samples[centre - k]! + samples[centre + k]!);
  else for (let k = 1; k <= REACH; k++) sum += LOW_PASS[k]! * ((samples[centre - k] ?? 0) + (samples[centre + k] ?? 0));
  return sum;
}

/** Every fourth sample behind the low-pass. */
function decimated(samples: Float32Array): Float32Array {
  const out = new Float32Array(Math.ceil(samples.length / DECIMATION));
  for (let i = 0; i < out.length; i++) out[i] = lowPassed(samples, i * DECIMATION);
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
  const slotOf = new Int8Array(WINDOW / 2).fill(-1);
  for (let k = 1; k < slotOf.length; k++) {
    const f = (k * RATE) / WINDOW;
    const register = REGISTERS.findIndex(([from, to]) => f >= from && f < to);
    if (register >= 0) slotOf[k] = register * 12 + (((Math.round(12 * Math.log2(f / 440)) % 12) + 12) % 12);
  }
  // The registers meet: one stretch of the spectrum is looked at.
  const from = slotOf.findIndex((slot) => slot >= 0);
  const to = from + slotOf.filter((slot) => slot >= 0).length;
  eachSpectrum(slow, { window: WINDOW, hop: STEP / DECIMATION, count }, (row, magnitudes) => {
    if (row % 1024 === 0) onProgress(row / count);
    const profile = out.subarray(row * PROFILE_SIZE, (row + 1) * PROFILE_SIZE);
    for (let k = from; k < to; k++) profile[slotOf[k]!]! += Math.sqrt(magnitudes[k]!);
  });
  return out;
}

export const timeProfile = (seconds: Seconds): number => seconds * PROFILE_RATE;
