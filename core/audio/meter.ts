import type { Seconds } from '../time';
import { explainedShare } from './explained-share';
import { FRAME_RATE, frameTime } from './spectral-flux';
import { FEATURE_COUNT, TATUM_FEATURES } from './tatum-features';
import type { SongFeatures } from './song-features';
import type { TatumGrid } from './tatum-features';

/**
 * How a pulse is read as beats and bars.
 *
 * A pulse alone doesn't say which of its quarters or thirds is the beat, nor how many beats make a bar. So every
 * reading of every pulse (perhaps two thousand for a song) is described by a row of parameters: what happens on average
 * on its downbeats, mid-bars, other beats, half beats, thirds and finer places, how alike its bars and beats are, its
 * tempo and its number of onsets a beat. A log-linear model weighs them: score = weights · parameters. The weights are
 * in meter-weights.ts, fitted by `npm run fit:meter` to music with known beats as a conditional logit with an L2
 * penalty; docs/BEATS.md has its cross-validated results.
 * @see D. McFadden, "Conditional logit analysis of qualitative choice behavior", 1974 (the model)
 * @see F. Lerdahl, R. Jackendoff, "A Generative Theory of Tonal Music", 1983, chapter 4 (what marks a strong beat)
 */

/** Places in the bar that are told apart; a group of beats within the bar begins on a `middle`. */
export const PLACES = ['down', 'middle', 'beat', 'half', 'third', 'fine'] as const;
export const MIN_BPM = 40;
export const MAX_BPM = 240;

export interface Meter {
  readonly beats: number;
  /** Beats of the groups that a bar falls into. */
  readonly groups: readonly number[];
  /** Beats of the bars, where bars of several lengths come round together and are taken for one. */
  readonly bars?: readonly number[];
}

const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0);
const meter = (...groups: number[]): Meter => ({ beats: sum(groups), groups });
/** Bars that are told apart. Fives and sevens come in the groups that they are usually counted in. */
export const METERS: readonly Meter[] = [
  meter(2, 2),
  meter(3),
  meter(2),
  meter(3, 3),
  meter(3, 2),
  meter(2, 3),
  meter(2, 2, 3),
  meter(3, 2, 2),
  meter(2, 3, 2),
];

/** One reading of a tatum grid. */
export interface Reading {
  /** Tatums in a beat. */
  readonly perBeat: number;
  readonly meter: Meter;
  /** Tatum of the first downbeat, below perBeat · beats of the bar. */
  readonly phase: number;
}

/** Bars of these lengths one after another, as one. */
export function meterOfBars(bars: readonly number[]): Meter {
  const groups = bars.flatMap((beats) => METERS.find((m) => m.beats === beats)?.groups ?? [beats]);
  return { beats: sum(bars), groups, bars };
}

/** The bar that a beat (from 0) lies in, and which of its beats it is. */
export function barOfBeat(meter: Meter, beat: number): { beat: number; meter: Meter } {
  let start = 0;
  for (const beats of meter.bars ?? []) {
    if (beat < start + beats) return { beat: beat - start, meter: meterOfBars([beats]) };
    start += beats;
  }
  return { beat, meter };
}

function isBegin(beat: number, lengths: readonly number[]): boolean {
  let start = 0;
  for (const length of lengths) {
    if (beat === start) return true;
    start += length;
  }
  return false;
}

/** Index in {@link PLACES} of a beat of a bar, from 0. */
function placeOfBeat(beat: number, { beats, groups, bars = [beats] }: Meter): number {
  if (isBegin(beat, bars)) return 0;
  return isBegin(beat, groups) ? 1 : 2;
}

/** Index in {@link PLACES} of a tatum `position` tatums after a downbeat. */
export function placeOf(position: number, perBeat: number, meter: Meter): number {
  const inBeat = position % perBeat;
  if (inBeat === 0) return placeOfBeat(position / perBeat, meter);
  if (2 * inBeat === perBeat) return 3;
  if (perBeat % 3 === 0 && inBeat % (perBeat / 3) === 0) return 4;
  return 5;
}

/** Curves whose periodicity tells the level of the beat: a snare that comes back every second beat, a kick every fourth. */
const PERIODIC = ['low', 'mid', 'snap', 'high', 'harmony'] as const;
const LAGS = ['half', 'beat', 'two', 'bar'] as const;

export const GLOBAL_PARAMETERS = [
  'tempo',
  'tempo²',
  'slow',
  'fast',
  'inThree',
  'inTwo',
  'inSix',
  'inFive',
  'inSeven',
  'ternary',
  'barLikeness',
  'halfBarLikeness',
  'twoBarLikeness',
  'beatLikeness',
  'density',
  'density²',
  'startsOnDown',
  'startsOnBeat',
  'fullStartsOnDown',
  'fullStartsOnBeat',
  'explained',
  ...PERIODIC.flatMap((f) => LAGS.map((lag) => `${f} every ${lag}` as const)),
] as const;
export const PARAMETER_NAMES: readonly string[] = [
  ...PLACES.flatMap((p) => TATUM_FEATURES.map((f) => `${p}.${f}`)),
  ...GLOBAL_PARAMETERS,
];
const PERIODIC_COLUMNS = PERIODIC.map((f) => TATUM_FEATURES.indexOf(f));
const FIRST_GLOBAL = PLACES.length * FEATURE_COUNT;

/** What the parameters of all readings of one grid share. */
export interface GridFacts {
  readonly grid: TatumGrid;
  /** Median length of a tatum in seconds. */
  readonly tatum: number;
  /** Onsets a second. */
  readonly onsetRate: number;
  /**
   * Where the first note lies, in tatums from the grid's first (fractional); null if the recording begins in mid-sound.
   */
  readonly start: number | null;
  /** The same of where the song is first as loud as usual. */
  readonly fullStart: number | null;
  /** How much of the onsets lies on the tatums, see {@link explainedShare}. */
  readonly explained: number;
  /** Of each feature, the mean product of values that lie `lag` tatums apart. */
  readonly periodicity: (lag: number) => Float64Array;
  /** The mean of these over all features. */
  readonly likeness: (lag: number) => number;
  /** Sums of the features by tatum index modulo `modulus`: [modulus × FEATURE_COUNT], and how many tatums each has. */
  readonly residues: (modulus: number) => { readonly sums: Float64Array; readonly counts: Float64Array };
}

function memo<T>(compute: (key: number) => T): (key: number) => T {
  const known = new Map<number, T>();
  return (key) => {
    let value = known.get(key);
    if (value === undefined) known.set(key, (value = compute(key)));
    return value;
  };
}

function tatumOfFrame(frames: Float64Array, frame: number): number {
  const last = frames.length - 1;
  if (last < 1) return 0;
  let i = 0;
  while (i < last - 1 && frames[i + 1]! <= frame) i++;
  return i + (frame - frames[i]!) / (frames[i + 1]! - frames[i]!);
}

export function gridFacts(
  grid: TatumGrid,
  song: Pick<SongFeatures, 'onsets' | 'onsetRate' | 'firstFrame' | 'fullFrame'>,
): GridFacts {
  const { frames, features } = grid;
  const { onsets, onsetRate, firstFrame, fullFrame } = song;
  const tatumOf = (frame: number | null) => (frame === null ? null : tatumOfFrame(frames, frame));
  const n = frames.length;
  const periodicity = memo((lag) => {
    const out = new Float64Array(FEATURE_COUNT);
    for (let i = 0; i < n - lag; i++)
      for (let f = 0; f < FEATURE_COUNT; f++)
        out[f]! += features[i * FEATURE_COUNT + f]! * features[(i + lag) * FEATURE_COUNT + f]!;
    return out.map((v) => (n > lag ? v / (n - lag) : 0));
  });
  const gaps = Float64Array.from({ length: Math.max(0, n - 1) }, (_, i) => frames[i + 1]! - frames[i]!).sort();
  return {
    grid,
    tatum: (gaps[gaps.length >> 1] ?? 1) / FRAME_RATE,
    onsetRate,
    start: tatumOf(firstFrame),
    fullStart: tatumOf(fullFrame),
    explained: explainedShare(frames, onsets),
    periodicity,
    likeness: (lag) => periodicity(lag).reduce((all, v) => all + v, 0) / FEATURE_COUNT,
    residues: memo((modulus) => {
      const sums = new Float64Array(modulus * FEATURE_COUNT);
      const counts = new Float64Array(modulus);
      for (let i = 0; i < n; i++) {
        const r = i % modulus;
        counts[r]!++;
        for (let f = 0; f < FEATURE_COUNT; f++) sums[r * FEATURE_COUNT + f]! += features[i * FEATURE_COUNT + f]!;
      }
      return { sums, counts };
    }),
  };
}

/**
 * Tempo around which the parameters of tempo are centred, and where a beat begins to feel slow. Only their weights
 * carry a preference.
 */
const CENTRE_BPM = 115;
const SLOW_OCTAVES = 0.6;
const FAST_OCTAVES = 0.35;
/** A start this near to a place (in beats) is on it. */
const START_TOLERANCE = 0.15;

/** @returns One value for each of {@link PARAMETER_NAMES}. */
export function readingParameters(facts: GridFacts, reading: Reading): Float64Array {
  const { perBeat, meter, phase } = reading;
  const bar = perBeat * meter.beats;
  const { sums, counts } = facts.residues(bar);
  const out = new Float64Array(PARAMETER_NAMES.length);
  const total = new Float64Array(PLACES.length);
  for (let r = 0; r < bar; r++) {
    const place = placeOf((r - phase + bar) % bar, perBeat, meter);
    total[place]! += counts[r]!;
    for (let f = 0; f < FEATURE_COUNT; f++) out[place * FEATURE_COUNT + f]! += sums[r * FEATURE_COUNT + f]!;
  }
  for (let p = 0; p < PLACES.length; p++)
    for (let f = 0; f < FEATURE_COUNT; f++) if (total[p]! > 0) out[p * FEATURE_COUNT + f]! /= total[p]!;
  const octaves = Math.log2(60 / (facts.tatum * perBeat) / CENTRE_BPM);
  const density = Math.log2(Math.max(0.1, facts.onsetRate * facts.tatum * perBeat));
  const startsOn = (start: number | null, every: number) => {
    if (start === null) return 0;
    const off = start - phase;
    return Math.abs(off - every * Math.round(off / every)) < START_TOLERANCE * perBeat ? 1 : 0;
  };
  out.set(
    [
      octaves,
      octaves * octaves,
      3 * Math.max(0, -octaves - SLOW_OCTAVES),
      3 * Math.max(0, octaves - FAST_OCTAVES),
      +(meter.beats === 3),
      +(meter.beats === 2),
      +(meter.beats === 6),
      +(meter.beats === 5),
      +(meter.beats === 7),
      +(perBeat % 3 === 0),
      facts.likeness(bar),
      bar % 2 === 0 ? facts.likeness(bar / 2) : 0,
      facts.likeness(2 * bar),
      facts.likeness(perBeat),
      density,
      density * density,
      startsOn(facts.start, bar),
      startsOn(facts.start, perBeat),
      startsOn(facts.fullStart, bar),
      startsOn(facts.fullStart, perBeat),
      facts.explained,
      ...PERIODIC_COLUMNS.flatMap((column) =>
        [perBeat / 2, perBeat, 2 * perBeat, bar].map((lag) =>
          Number.isInteger(lag) ? facts.periodicity(lag)[column]! : 0,
        ),
      ),
    ],
    FIRST_GLOBAL,
  );
  return out;
}

/**
 * Every reading of a grid whose beats are {@link MIN_BPM} to {@link MAX_BPM} a minute: beats of half a pulse to two
 * pulses, plain or dotted.
 */
export function readingsOf(facts: GridFacts): Reading[] {
  const out: Reading[] = [];
  for (const perBeat of facts.grid.perPulse === 4 ? [2, 3, 4, 6, 8] : [2, 3, 6]) {
    const bpm = 60 / (facts.tatum * perBeat);
    if (bpm < MIN_BPM || bpm > MAX_BPM) continue;
    for (const meter of METERS)
      for (let phase = 0; phase < perBeat * meter.beats; phase++) out.push({ perBeat, meter, phase });
  }
  return out;
}

export function scoreReading(parameters: Float64Array, weights: ArrayLike<number>): number {
  let score = 0;
  for (let i = 0; i < parameters.length; i++) score += parameters[i]! * weights[i]!;
  return score;
}

/** What of the score comes from what sounds on the places, without how alike the bars are and the tempo. */
export const scorePlaces = (parameters: Float64Array, weights: ArrayLike<number>): number =>
  scoreReading(parameters.subarray(0, FIRST_GLOBAL), weights);

/** Seconds of the tatums of a grid. */
export const gridTimes = (grid: TatumGrid): Seconds[] => Array.from(grid.frames, frameTime);
