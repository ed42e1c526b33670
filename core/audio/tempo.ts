import type { Bpm } from '../time';
import { FRAME_RATE } from './spectral-flux';

export const MIN_BPM: Bpm = 50;
export const MAX_BPM: Bpm = 215;
/**
 * Perceptual prior: log-normal around the tempo people tap most readily. D. Moelants, "Preferred tempo reconsidered",
 * ICMPC 2002.
 */
const PREFERRED_BPM: Bpm = 120;
const PRIOR_OCTAVES = 0.75;

/** The curve minus its moving mean (±`radius` frames), negative parts dropped, scaled to unit standard deviation. */
export function normaliseOnsets(flux: Float32Array, radius = 40): Float32Array {
  const n = flux.length;
  const prefix = new Float64Array(n + 1);
  for (let i = 0; i < n; i++) prefix[i + 1] = prefix[i]! + flux[i]!;
  const out = new Float32Array(n);
  let squares = 0;
  for (let i = 0; i < n; i++) {
    const a = Math.max(0, i - radius);
    const b = Math.min(n, i + radius + 1);
    const value = Math.max(0, flux[i]! - (prefix[b]! - prefix[a]!) / (b - a));
    out[i] = value;
    squares += value * value;
  }
  const deviation = Math.sqrt(squares / Math.max(1, n));
  if (deviation > 0) for (let i = 0; i < n; i++) out[i]! /= deviation;
  return out;
}

/** Mean product of the curve with itself at lags 0…maxLag. */
function autocorrelation(curve: Float32Array, maxLag: number): Float64Array {
  const out = new Float64Array(maxLag + 1);
  for (let lag = 0; lag <= maxLag; lag++) {
    let sum = 0;
    for (let i = lag; i < curve.length; i++) sum += curve[i]! * curve[i - lag]!;
    out[lag] = sum / Math.max(1, curve.length - lag);
  }
  return out;
}

function interpolated(values: Float64Array, at: number): number {
  const i = Math.floor(at);
  const f = at - i;
  return (values[i] ?? 0) * (1 - f) + (values[i + 1] ?? 0) * f;
}

export interface TempoCandidate {
  readonly bpm: Bpm;
  /** Relative weight; the first candidate has 1. */
  readonly weight: number;
}

/**
 * Tempo by autocorrelation of the onset strength gathered over a comb of four multiples of the beat period, weighted by
 * a perceptual prior. @returns Candidates, best first; none for a curve without periodicity (silence).
 * @see D. P. W. Ellis, "Beat Tracking by Dynamic Programming", JNMR 36(1), 2007, section 3.
 */
export function tempoCandidates(onsets: Float32Array): TempoCandidate[] {
  const slowest = (60 * FRAME_RATE) / MIN_BPM;
  const ac = autocorrelation(onsets, Math.ceil(slowest * 4) + 2);
  if (!(ac[0]! > 0)) return [];
  const scored: TempoCandidate[] = [];
  let previous = -Infinity;
  let rising = true;
  let best: TempoCandidate | null = null;
  for (let bpm = MIN_BPM; bpm <= MAX_BPM; bpm *= 1.002) {
    const lag = (60 * FRAME_RATE) / bpm;
    const comb =
      interpolated(ac, lag) +
      0.5 * interpolated(ac, 2 * lag) +
      0.25 * interpolated(ac, 3 * lag) +
      0.5 * interpolated(ac, 4 * lag);
    const octaves = Math.log2(bpm / PREFERRED_BPM);
    const weight = comb * Math.exp(-0.5 * (octaves / PRIOR_OCTAVES) ** 2);
    if (weight > previous) {
      best = { bpm, weight };
      rising = true;
    } else if (rising) {
      if (best && best.weight > 0) scored.push(best);
      rising = false;
    }
    previous = weight;
  }
  scored.sort((a, b) => b.weight - a.weight);
  const top = scored[0]?.weight ?? 1;
  return scored.slice(0, 6).map((c) => ({ bpm: c.bpm, weight: c.weight / top }));
}
