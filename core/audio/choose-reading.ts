import type { Bpm } from '../time';
import type { GridFacts } from './grid-facts';
import type { Reading } from './meter';
import { metersOf, parametersByPhase, phasesOf, scoreReading } from './reading-parameters';
import { TATUM_FEATURES } from './tatum-features';

/** A reading of one of a song's grids. */
export interface ScoredReading {
  readonly facts: GridFacts;
  readonly reading: Reading;
  readonly score: number;
  /** Frames of its beats, ascending. */
  readonly beats: Float64Array;
}

export interface TempoReading {
  readonly bpm: Bpm;
  readonly likelihood: number;
}

/** What speaks for the beats as a whole. */
export interface BeatEvidence {
  /** Likelihood of all readings whose beats are these, in [0, 1]. */
  readonly reading: number;
  /** How alike the onsets of neighbouring beats and of neighbouring bars are: correlations in [-1, 1]. */
  readonly beats: number;
  readonly bars: number;
}

function beatFrames({ grid: { frames } }: GridFacts, perBeat: number, first: number): Float64Array {
  return Float64Array.from(
    { length: Math.max(0, Math.ceil((frames.length - first) / perBeat)) },
    (_, i) => frames[first + i * perBeat]!,
  );
}

/** All readings of a grid, by the weights of {@link PARAMETER_NAMES}. */
export function scoredReadings(facts: GridFacts, weights: ArrayLike<number>): ScoredReading[] {
  const known = new Map<string, Float64Array>();
  const beatsOf = (perBeat: number, first: number): Float64Array => {
    const key = `${perBeat}:${first}`;
    let beats = known.get(key);
    if (!beats) known.set(key, (beats = beatFrames(facts, perBeat, first)));
    return beats;
  };
  return metersOf(facts).flatMap(({ perBeat, meter }) => {
    const parametersOf = parametersByPhase(facts, perBeat, meter);
    return phasesOf(perBeat, meter).map((phase) => ({
      facts,
      reading: { perBeat, meter, phase },
      score: scoreReading(parametersOf(phase), weights),
      beats: beatsOf(perBeat, phase % perBeat),
    }));
  });
}

const bpmOf = ({ facts, reading }: ScoredReading): Bpm => 60 / (facts.tatum * reading.perBeat);

/** Tempi nearer than this are one. */
const SAME_TEMPO = 0.04;
const LISTED_TEMPI = 4;
/** Readings this many nats below the best add nothing. */
const OUT_OF_THE_QUESTION = 12;

const isSameTempo = (a: ScoredReading, b: ScoredReading): boolean => Math.abs(bpmOf(a) / bpmOf(b) - 1) < SAME_TEMPO;
/** Beats this near, in frames, are one; and so many of them must be, for the beats of two readings to be the same. */
const SAME_BEAT = 6;
const SAME_BEATS = 0.9;

/** Also where two pulses, followed each by itself, come to the same beats. */
function hasSameBeats(a: ScoredReading, b: ScoredReading): boolean {
  if (a.beats === b.beats) return true;
  if (!isSameTempo(a, b)) return false;
  let [nearest, same] = [0, 0];
  for (const frame of a.beats) {
    const distance = (i: number): number => Math.abs((b.beats[i] ?? Infinity) - frame);
    while (distance(nearest + 1) < distance(nearest)) nearest++;
    if (distance(nearest) <= SAME_BEAT) same++;
  }
  return same > SAME_BEATS * a.beats.length;
}

interface Group {
  /** Likelihood of its readings together, as a multiple of that of a reading whose score is `top`. */
  weight: number;
  /** The first one stands for the others. */
  readonly readings: ScoredReading[];
}

/** Readings that belong together with the first of their group, in the order in which they come up. */
function groupsOf(
  scored: readonly ScoredReading[],
  top: number,
  isOne: (a: ScoredReading, b: ScoredReading) => boolean,
): Group[] {
  const groups: Group[] = [];
  for (const s of scored) {
    const weight = Math.exp(s.score - top);
    const group = groups.find((g) => isOne(g.readings[0]!, s));
    if (group) {
      group.weight += weight;
      group.readings.push(s);
    } else groups.push({ weight, readings: [s] });
  }
  return groups;
}

const byWeight = (a: Group, b: Group): number => b.weight - a.weight;

/** Tempi that the song can be counted in, that of the chosen reading first. */
export function tempoAlternatives(scored: readonly ScoredReading[], chosen: ScoredReading): TempoReading[] {
  const groups = groupsOf([chosen, ...scored.filter((s) => s !== chosen)], chosen.score, isSameTempo);
  const all = groups.reduce((sum, g) => sum + g.weight, 0);
  const [first, ...rest] = groups;
  return [first!, ...rest.sort(byWeight).slice(0, LISTED_TEMPI - 1)].map(({ weight, readings }) => ({
    bpm: bpmOf(readings[0]!),
    likelihood: weight / all,
  }));
}

/** What speaks for the beats of the chosen reading. */
export function evidenceOf(scored: readonly ScoredReading[], chosen: ScoredReading): BeatEvidence {
  const { facts, reading } = chosen;
  let [same, all] = [0, 0];
  for (const s of scored) {
    const weight = Math.exp(s.score - chosen.score);
    all += weight;
    if (hasSameBeats(s, chosen)) same += weight;
  }
  const onsets = TATUM_FEATURES.indexOf('all');
  return {
    reading: same / all,
    beats: facts.periodicity(reading.perBeat)[onsets]!,
    bars: facts.periodicity(reading.perBeat * reading.meter.beats)[onsets]!,
  };
}

/**
 * The best reading of the likeliest beats of the likeliest tempo: several readings that agree on the tempo and differ in the
 * bar outweigh a single one that is a little better.
 */
export function mostLikely(scored: readonly ScoredReading[]): ScoredReading | null {
  const top = scored.reduce((best, s) => Math.max(best, s.score), -Infinity);
  const likeliest = (
    of: readonly ScoredReading[],
    isOne: (a: ScoredReading, b: ScoredReading) => boolean,
  ): readonly ScoredReading[] => groupsOf(of, top, isOne).sort(byWeight)[0]?.readings ?? [];
  const possible = scored.filter((s) => s.score > top - OUT_OF_THE_QUESTION).sort((a, b) => b.score - a.score);
  return likeliest(likeliest(possible, isSameTempo), hasSameBeats)[0] ?? null;
}
