import type { Seconds } from '../time';
import type { GridFacts } from './grid-facts';
import { METERS, PLACES, placeOf } from './meter';
import type { Meter, Reading } from './meter';
import { frameTime } from './spectral-flux';
import { FEATURE_COUNT, TATUM_FEATURES } from './tatum-features';
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

export const MIN_BPM = 40;
export const MAX_BPM = 240;

/** Curves whose periodicity tells the level of the beat: a snare that comes back every second beat, a kick every fourth. */
const PERIODIC = ['low', 'mid', 'snap', 'high', 'harmony'] as const;
const LAGS = ['half', 'beat', 'two', 'bar'] as const;

const STARTS = ['startsOnDown', 'startsOnBeat', 'fullStartsOnDown', 'fullStartsOnBeat'] as const;

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
  ...STARTS,
  'explained',
  ...PERIODIC.flatMap((f) => LAGS.map((lag) => `${f} every ${lag}` as const)),
] as const;
export const PARAMETER_NAMES: readonly string[] = [
  ...PLACES.flatMap((p) => TATUM_FEATURES.map((f) => `${p}.${f}`)),
  ...GLOBAL_PARAMETERS,
];
const PERIODIC_COLUMNS = PERIODIC.map((f) => TATUM_FEATURES.indexOf(f));
const FIRST_GLOBAL = PLACES.length * FEATURE_COUNT;
const FIRST_START = FIRST_GLOBAL + GLOBAL_PARAMETERS.indexOf('startsOnDown');

/**
 * Tempo around which the parameters of tempo are centred, and where a beat begins to feel slow. Only their weights
 * carry a preference.
 */
const CENTRE_BPM = 115;
const SLOW_OCTAVES = 0.6;
const FAST_OCTAVES = 0.35;
/** A start this near to a place (in beats) is on it. */
const START_TOLERANCE = 0.15;

/**
 * What readings of a grid that differ in the phase alone have in common, in the order of {@link GLOBAL_PARAMETERS}; 0 for
 * where the song starts.
 */
function globalsOf(facts: GridFacts, perBeat: number, meter: Meter): number[] {
  const bar = perBeat * meter.beats;
  const octaves = Math.log2(60 / (facts.tatum * perBeat) / CENTRE_BPM);
  const density = Math.log2(Math.max(0.1, facts.onsetRate * facts.tatum * perBeat));
  return [
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
    ...STARTS.map(() => 0),
    facts.explained,
    ...PERIODIC_COLUMNS.flatMap((column) =>
      [perBeat / 2, perBeat, 2 * perBeat, bar].map((lag) =>
        Number.isInteger(lag) ? facts.periodicity(lag)[column]! : 0,
      ),
    ),
  ];
}

/** 1 if the start of a song (in tatums) lies on one of the places that come every so many tatums from `phase` on. */
function startsOn(start: number | null, phase: number, every: number, perBeat: number): number {
  if (start === null) return 0;
  const off = start - phase;
  return Math.abs(off - every * Math.round(off / every)) < START_TOLERANCE * perBeat ? 1 : 0;
}

/**
 * The parameters of all readings of a grid with these beats and bars.
 * @returns Of each phase (the tatum of the first downbeat), one value for each of {@link PARAMETER_NAMES}.
 */
export function parametersByPhase(facts: GridFacts, perBeat: number, meter: Meter): (phase: number) => Float64Array {
  const bar = perBeat * meter.beats;
  const { sums, counts } = facts.residues(bar);
  const places = Int8Array.from({ length: bar }, (_, position) => placeOf(position, perBeat, meter));
  const globals = globalsOf(facts, perBeat, meter);
  return (phase) => {
    const out = new Float64Array(PARAMETER_NAMES.length);
    const total = new Float64Array(PLACES.length);
    for (let r = 0; r < bar; r++) {
      const place = places[(r - phase + bar) % bar]!;
      total[place]! += counts[r]!;
      for (let f = 0; f < FEATURE_COUNT; f++) out[place * FEATURE_COUNT + f]! += sums[r * FEATURE_COUNT + f]!;
    }
    for (let p = 0; p < PLACES.length; p++)
      for (let f = 0; f < FEATURE_COUNT; f++) if (total[p]! > 0) out[p * FEATURE_COUNT + f]! /= total[p]!;
    out.set(globals, FIRST_GLOBAL);
    out[FIRST_START] = startsOn(facts.start, phase, bar, perBeat);
    out[FIRST_START + 1] = startsOn(facts.start, phase, perBeat, perBeat);
    out[FIRST_START + 2] = startsOn(facts.fullStart, phase, bar, perBeat);
    out[FIRST_START + 3] = startsOn(facts.fullStart, phase, perBeat, perBeat);
    return out;
  };
}

export const readingParameters = (facts: GridFacts, { perBeat, meter, phase }: Reading): Float64Array =>
  parametersByPhase(facts, perBeat, meter)(phase);

/**
 * What readings of a grid can have in common: beats of half a pulse to two pulses, plain or dotted, of {@link MIN_BPM} to
 * {@link MAX_BPM} a minute.
 */
export function metersOf({ grid, tatum }: GridFacts): { readonly perBeat: number; readonly meter: Meter }[] {
  return (grid.perPulse === 4 ? [2, 3, 4, 6, 8] : [2, 3, 6]).flatMap((perBeat) => {
    const bpm = 60 / (tatum * perBeat);
    return bpm < MIN_BPM || bpm > MAX_BPM ? [] : METERS.map((meter) => ({ perBeat, meter }));
  });
}

/** Every phase of a bar. */
export const phasesOf = (perBeat: number, meter: Meter): number[] =>
  Array.from({ length: perBeat * meter.beats }, (_, phase) => phase);

/** Every reading of a grid. */
export const readingsOf = (facts: GridFacts): Reading[] =>
  metersOf(facts).flatMap(({ perBeat, meter }) => phasesOf(perBeat, meter).map((phase) => ({ perBeat, meter, phase })));

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
