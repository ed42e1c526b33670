import type { Seconds } from '../time';
import { ANALYSIS_RATE } from './spectral-flux';

/** The sound is looked at in steps of so long. */
const STEP: Seconds = 0.5;
/** A shorter lead is not worth a word. */
const MIN_LEAD: Seconds = 2;
/** Hiss is as loud in each block of so many samples, up to this ratio of powers; what is struck dies away. */
const BLOCK = 441;
const MAX_RATIO = 3;
/** Lags at which tones of 37 to 550 Hz repeat, samples; noise repeats at none. */
const [MIN_LAG, MAX_LAG] = [40, 600];
const MAX_REPEATED = 0.4;
/** Mean power of what counts as silence: -70 dB. */
const SILENT = 1e-7;

/** Whether a stretch of samples is silence, or even noise: as loud throughout, and repeating itself at no lag. */
function isNoise(samples: Float32Array, from: number, length: number): boolean {
  let [power, softest, loudest] = [0, Infinity, 0];
  for (let start = from; start + BLOCK <= from + length; start += BLOCK) {
    let block = 0;
    for (let i = start; i < start + BLOCK; i++) block += samples[i]! * samples[i]!;
    power += block;
    softest = Math.min(softest, block);
    loudest = Math.max(loudest, block);
  }
  if (loudest / BLOCK < SILENT) return true;
  if (loudest > MAX_RATIO * softest) return false;
  for (let lag = MIN_LAG; lag <= MAX_LAG; lag += 1) {
    let sum = 0;
    for (let i = from; i + lag < from + length; i++) sum += samples[i]! * samples[i + lag]!;
    if (sum > MAX_REPEATED * power) return false;
  }
  return true;
}

/**
 * How long a song begins with nothing but hiss or silence, seconds; 0 for less than two. Nobody taps along there, however
 * well the beats of what follows can be counted back into it.
 */
export function noiseLead(samples: Float32Array): Seconds {
  const window = Math.round(STEP * ANALYSIS_RATE);
  let lead = 0;
  for (let from = 0; from + window <= samples.length && isNoise(samples, from, window); from += window)
    lead = (from + window) / ANALYSIS_RATE;
  return lead >= MIN_LEAD ? lead : 0;
}
