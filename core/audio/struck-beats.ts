import type { Seconds } from '../time';
import { ANALYSIS_RATE } from './spectral-flux';

/** Samples of one step of the envelope: half a millisecond. */
const STEP = Math.round(ANALYSIS_RATE / 2000);
const STEP_SECONDS = STEP / ANALYSIS_RATE;
/** How far from its beat an attack is looked for: what is struck farther off is another note. */
const REACH: Seconds = 0.014;
/** What is struck rises this much (in power) above all that sounded right before it. */
const RISE = 10;
/** It rises within this many steps, after as many as these of what was there before. */
const [RISING, BEFORE] = [5, 24];
/** Power of the attack, as a share of the loudest of its surroundings: what is fainter is not what the beat is heard by. */
const LOUD_SHARE = 0.02;
const AROUND: Seconds = 0.4;
/** The attack begins where it reaches this share of its first peak. */
const BEGUN = 0.1;

/**
 * Mean power of the samples and of their differences, by steps. Differences bring out a click or a hat over a bass
 * that goes on.
 */
function envelopes(samples: Float32Array, from: number, steps: number): [Float64Array, Float64Array] {
  const [plain, bright] = [new Float64Array(steps), new Float64Array(steps)];
  for (let k = 0; k < steps; k++) {
    for (let i = from + k * STEP; i < from + (k + 1) * STEP; i++) {
      const [value, before] = [samples[i] ?? 0, samples[i - 1] ?? 0];
      plain[k]! += value * value;
      bright[k]! += (value - before) ** 2;
    }
  }
  return [plain, bright];
}

/** The step in which something is struck nearest to `centre`; null if nothing is. */
function attackStep(power: Float64Array, centre: number, reach: number): number | null {
  let loudest = 0;
  for (const value of power) loudest = Math.max(loudest, value);
  let best: number | null = null;
  for (let k = centre - reach; k <= centre + reach; k++) {
    let [before, after] = [0, 0];
    for (let i = k - BEFORE; i < k; i++) before = Math.max(before, power[i] ?? 0);
    for (let i = k; i < k + RISING; i++) after = Math.max(after, power[i] ?? 0);
    if (after < LOUD_SHARE * loudest || after < RISE * before || after <= 0) continue;
    if ((power[k] ?? 0) < BEGUN * after) continue;
    if (best === null || Math.abs(k - centre) < Math.abs(best - centre)) best = k;
  }
  return best;
}

/**
 * Beats or hits on the attack of what is struck at them: clicks, drums, plucked strings. The search goes by frames of
 * spectra and dates such attacks a few milliseconds early; the samples themselves say when they begin. Where nothing is
 * struck, times stay as they are.
 * @param times - seconds. @param samples - mono, at {@link ANALYSIS_RATE} Hz.
 * @returns As many, in the same order; each within 14 ms of where it was.
 */
export function onAttacks(times: readonly Seconds[], samples: Float32Array): Seconds[] {
  const reach = Math.round(REACH / STEP_SECONDS);
  const around = Math.round(AROUND / STEP_SECONDS);
  return times.map((time) => {
    const from = Math.round(time * ANALYSIS_RATE) - around * STEP;
    const steps = envelopes(samples, from, 2 * around + 1).flatMap((power) => attackStep(power, around, reach) ?? []);
    const [nearest] = steps.sort((a, b) => Math.abs(a - around) - Math.abs(b - around));
    return nearest === undefined ? time : Math.max(0, (from + nearest * STEP) / ANALYSIS_RATE);
  });
}
