import type { OnsetBands } from './spectral-flux';
import { frameTime } from './spectral-flux';
import { PROFILE_SIZE, timeProfile } from './pitch-profile';

/**
 * What is looked at on every tatum (the finest division of a pulse), in the order of the columns: onset strength in
 * four bands and in all, change of harmony and of the bass note over half a pulse, rise of loudness, change of chord
 * over two pulses.
 */
export const TATUM_FEATURES = ['low', 'mid', 'snap', 'high', 'all', 'harmony', 'bass', 'rise', 'chord'] as const;
export const FEATURE_COUNT = TATUM_FEATURES.length;

export interface TatumGrid {
  /** Frame (fractional) of each tatum, ascending. */
  readonly frames: Float64Array;
  /** Tatums in one pulse. */
  readonly perPulse: number;
  /** [tatum × FEATURE_COUNT], standardised over the song: mean 0, deviation 1, clipped to ±3. */
  readonly features: Float32Array;
}

/** Frames to each side in which a hit still belongs to its tatum. */
const REACH = 3;
/** Mean square below which all is silence: -70 dB. */
const SILENCE = 1e-7;

function peakAround(curve: Float32Array, frame: number): number {
  const centre = Math.round(frame);
  let best = 0;
  for (let i = Math.max(0, centre - REACH); i <= centre + REACH && i < curve.length; i++)
    if (curve[i]! > best) best = curve[i]!;
  return best;
}

/** Running sums, so that the mean over any stretch costs the same. */
export interface RunningSums {
  /** [(row + 1) × PROFILE_SIZE] of the pitch profiles. */
  readonly profiles: Float64Array;
  readonly rows: number;
  /** [frame + 1] of the power. */
  readonly power: Float64Array;
}

export function runningSums(bands: OnsetBands, profiles: Float32Array): RunningSums {
  const rows = profiles.length / PROFILE_SIZE;
  const sums = new Float64Array((rows + 1) * PROFILE_SIZE);
  for (let i = 0; i < rows * PROFILE_SIZE; i++) sums[i + PROFILE_SIZE] = sums[i]! + profiles[i]!;
  const power = new Float64Array(bands.frameCount + 1);
  for (let i = 0; i < bands.frameCount; i++) power[i + 1] = power[i]! + bands.power[i]!;
  return { profiles: sums, rows, power };
}

/**
 * 1 minus the cosine between the profiles of `reach` frames before and after a frame, for the pitch slots [from, to).
 */
export function profileChange(sums: RunningSums, frame: number, reach: number, from: number, to: number): number {
  const row = (f: number) => Math.max(0, Math.min(sums.rows, Math.round(timeProfile(frameTime(f))))) * PROFILE_SIZE;
  const [a, b, c] = [row(frame - reach), row(frame + 1), row(frame + reach)];
  let [dot, pp, qq] = [0, 0, 0];
  for (let i = from; i < to; i++) {
    const p = sums.profiles[b + i]! - sums.profiles[a + i]!;
    const q = sums.profiles[c + i]! - sums.profiles[b + i]!;
    dot += p * q;
    pp += p * p;
    qq += q * q;
  }
  return pp > 0 && qq > 0 ? Math.max(0, 1 - dot / Math.sqrt(pp * qq)) : 0;
}

/** Of the frames [from, to), as far as there are such; 0 where there are none. */
export function meanPower(sums: Pick<RunningSums, 'power'>, from: number, to: number): number {
  const last = sums.power.length - 1;
  const a = Math.max(0, Math.min(last, Math.round(from)));
  const b = Math.max(0, Math.min(last, Math.round(to)));
  return b > a ? (sums.power[b]! - sums.power[a]!) / (b - a) : 0;
}

/** Log-ratio of the mean power of `reach` frames after and before a frame. */
export const powerRise = (sums: RunningSums, frame: number, reach: number): number =>
  Math.log((meanPower(sums, frame, frame + reach) + SILENCE) / (meanPower(sums, frame - reach, frame) + SILENCE));

function standardise(features: Float32Array, count: number): void {
  for (let f = 0; f < FEATURE_COUNT; f++) {
    let mean = 0;
    let square = 0;
    for (let i = 0; i < count; i++) mean += features[i * FEATURE_COUNT + f]! / count;
    for (let i = 0; i < count; i++) square += (features[i * FEATURE_COUNT + f]! - mean) ** 2 / count;
    const deviation = Math.sqrt(square);
    for (let i = 0; i < count; i++) {
      const at = i * FEATURE_COUNT + f;
      features[at] = deviation > 1e-9 ? Math.max(-3, Math.min(3, (features[at]! - mean) / deviation)) : 0;
    }
  }
}

/** What changes at a frame, in the order of the features behind the onsets. */
function describeChange(features: Float32Array, at: number, sums: RunningSums, frame: number, pulse: number): void {
  features[at] = Math.sqrt(profileChange(sums, frame, pulse / 2, 0, 12));
  features[at + 1] = Math.sqrt(profileChange(sums, frame, pulse / 2, 12, 24));
  features[at + 2] = powerRise(sums, frame, pulse / 2);
  features[at + 3] = Math.sqrt(profileChange(sums, frame, pulse * 2, 0, 24));
}

/** @param pulses - frames of the pulses, ascending. */
export function tatumGrid(
  pulses: ArrayLike<number>,
  perPulse: number,
  bands: OnsetBands,
  sums: RunningSums,
): TatumGrid {
  const count = Math.max(0, pulses.length - 1) * perPulse;
  const frames = new Float64Array(count);
  for (let i = 0; i + 1 < pulses.length; i++)
    for (let k = 0; k < perPulse; k++)
      frames[i * perPulse + k] = pulses[i]! + (k * (pulses[i + 1]! - pulses[i]!)) / perPulse;
  const features = new Float32Array(count * FEATURE_COUNT);
  const curves = [bands.low, bands.mid, bands.snap, bands.high, bands.all];
  const typical = curves.map((curve) => {
    let square = 0;
    for (const frame of frames) square += peakAround(curve, frame) ** 2;
    return Math.sqrt(square / Math.max(1, count)) || 1;
  });
  for (let i = 0; i < count; i++) {
    const frame = frames[i]!;
    const row = i * FEATURE_COUNT;
    for (let f = 0; f < curves.length; f++)
      features[row + f] = Math.log1p((2 * peakAround(curves[f]!, frame)) / typical[f]!);
    const pulse = perPulse * ((frames[Math.min(count - 1, i + 1)]! - frames[Math.max(0, i - 1)]!) / 2);
    describeChange(features, row + curves.length, sums, frame, pulse);
  }
  standardise(features, count);
  return { frames, perPulse, features };
}
