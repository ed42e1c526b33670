import { lastAtOrBefore } from './binary-search';
import type { Beats, Bpm, Seconds } from './units';

export interface Meter {
  readonly fromBeat: Beats;
  readonly beatsPerBar: number;
  /** How the beats of a bar group, such as 3 + 2; none where no beat inside a bar is stressed more than the others. */
  readonly groups?: readonly number[] | undefined;
}

/**
 * The beat grid: where each beat of the music falls, in seconds of the piece.
 *
 * Beats are numbered from the first downbeat (beat 0 = bar 1 beat 1); a pick-up has negative numbers. Numbers may be
 * fractional, and between two beats time runs linearly, so a drifting tempo is followed beat by beat. Before the first
 * and after the last beat the grid goes on with the median of the nearest four intervals: every beat number has a time,
 * and the two conversions are exact inverses because each piece of the line is strictly rising.
 */
export interface BeatGrid {
  /** Beat times, strictly ascending, at least two. */
  readonly beats: readonly Seconds[];
  /** Index in `beats` of beat number 0. May lie outside the list. */
  readonly origin: number;
  /** Where the number of beats a bar changes, ascending by beat; the first entry holds from minus infinity. */
  readonly meters: readonly Meter[];
  /** Confidence of each beat in [0, 1], as long as `beats`. */
  readonly confidence: readonly number[];
  /** Stretches of free time, seconds of the piece: beats are counted through them, but nothing snaps to them. */
  readonly free?: readonly { readonly start: Seconds; readonly end: Seconds }[];
}

/** Whether a time lies in a stretch without a pulse. */
export const isFreeTime = (grid: BeatGrid, seconds: Seconds): boolean =>
  grid.free?.some((s) => seconds > s.start && seconds < s.end) ?? false;

export interface BarPosition {
  /** 1 for the first bar; 0 and below lie before the first downbeat. */
  readonly bar: number;
  /** 1-based and fractional: 2.5 is half-way between the second and third beat. */
  readonly beat: number;
  readonly beatsPerBar: number;
}

const EXTRAPOLATION_INTERVALS = 4;

function medianInterval(beats: readonly Seconds[], from: number, to: number): Seconds {
  const gaps: number[] = [];
  for (let i = Math.max(0, from); i < Math.min(beats.length - 1, to); i++) gaps.push(beats[i + 1]! - beats[i]!);
  gaps.sort((a, b) => a - b);
  return (gaps[(gaps.length - 1) >> 1]! + gaps[gaps.length >> 1]!) / 2;
}

const headInterval = (grid: BeatGrid) => medianInterval(grid.beats, 0, EXTRAPOLATION_INTERVALS);
const tailInterval = (grid: BeatGrid) =>
  medianInterval(grid.beats, grid.beats.length - 1 - EXTRAPOLATION_INTERVALS, grid.beats.length - 1);

/** Groups that make up a bar; undefined for those that do not. */
export const groupsOfBar = (groups: readonly number[], beatsPerBar: number): readonly number[] | undefined =>
  groups.length > 1 && groups.reduce((sum, g) => sum + g, 0) === beatsPerBar ? groups : undefined;

/**
 * A grid of constant tempo with beat 0 at `firstDownbeat`. @throws RangeError if bpm or beatsPerBar is not positive.
 */
export function constantGrid(
  bpm: Bpm,
  beatsPerBar: number,
  firstDownbeat: Seconds,
  groups: readonly number[] = [],
): BeatGrid {
  if (!(bpm > 0)) throw new RangeError(`bpm must be positive, got ${bpm}`);
  if (!(beatsPerBar >= 1)) throw new RangeError(`beatsPerBar must be at least 1, got ${beatsPerBar}`);
  const step = 60 / bpm;
  return {
    beats: [firstDownbeat, firstDownbeat + step],
    origin: 0,
    meters: [{ fromBeat: 0, beatsPerBar, groups: groupsOfBar(groups, beatsPerBar) }],
    confidence: [1, 1],
  };
}

export function beatToSeconds(grid: BeatGrid, beat: Beats): Seconds {
  const { beats, origin } = grid;
  const index = beat + origin;
  const last = beats.length - 1;
  if (index <= 0) return beats[0]! + index * headInterval(grid);
  if (index >= last) return beats[last]! + (index - last) * tailInterval(grid);
  const i = Math.floor(index);
  return beats[i]! + (index - i) * (beats[i + 1]! - beats[i]!);
}

export function secondsToBeat(grid: BeatGrid, seconds: Seconds): Beats {
  const { beats, origin } = grid;
  const last = beats.length - 1;
  if (seconds <= beats[0]!) return (seconds - beats[0]!) / headInterval(grid) - origin;
  if (seconds >= beats[last]!) return last + (seconds - beats[last]!) / tailInterval(grid) - origin;
  const i = lastAtOrBefore(beats, seconds);
  return i + (seconds - beats[i]!) / (beats[i + 1]! - beats[i]!) - origin;
}

/** Bar and beat of a beat number. A number within 1e-6 below a whole beat counts as on it. */
export function beatToBar(grid: BeatGrid, beat: Beats): BarPosition {
  const b = Math.abs(beat - Math.round(beat)) < 1e-6 ? Math.round(beat) : beat;
  let bar = 1;
  for (let i = 0; i < grid.meters.length; i++) {
    const { fromBeat, beatsPerBar } = grid.meters[i]!;
    const start = i === 0 ? 0 : fromBeat;
    const next = grid.meters[i + 1];
    if (!next || b < next.fromBeat) {
      const bars = Math.floor((b - start) / beatsPerBar);
      return { bar: bar + bars, beat: b - start - bars * beatsPerBar + 1, beatsPerBar };
    }
    bar += Math.ceil((next.fromBeat - start) / beatsPerBar);
  }
  throw new RangeError('a beat grid needs at least one meter');
}

/** Beat number on which a bar starts (bar 1 is the first). Inverse of {@link beatToBar} at beat 1. */
export function barToBeat(grid: BeatGrid, bar: number): Beats {
  let first = 1;
  for (let i = 0; i < grid.meters.length; i++) {
    const { fromBeat, beatsPerBar } = grid.meters[i]!;
    const start = i === 0 ? 0 : fromBeat;
    const next = grid.meters[i + 1];
    const span = next ? Math.ceil((next.fromBeat - start) / beatsPerBar) : Infinity;
    if (bar < first + span) return start + (bar - first) * beatsPerBar;
    first += span;
  }
  throw new RangeError('a beat grid needs at least one meter');
}

/** Tempo around a time: the interval the time lies in. */
export function tempoAt(grid: BeatGrid, seconds: Seconds): Bpm {
  const beat = Math.floor(secondsToBeat(grid, seconds) + 1e-9);
  return 60 / (beatToSeconds(grid, beat + 1) - beatToSeconds(grid, beat));
}

/** Median tempo of the whole grid. */
export function overallTempo(grid: BeatGrid): Bpm {
  return 60 / medianInterval(grid.beats, 0, grid.beats.length - 1);
}

/** Beat numbers k·division that fall into [from, to), ascending. `division` 1 gives beats, 0.5 half beats. */
export function beatsBetween(grid: BeatGrid, from: Seconds, to: Seconds, division = 1): Beats[] {
  const out: Beats[] = [];
  const first = Math.ceil(secondsToBeat(grid, from) / division - 1e-9) + 0; // + 0: never minus zero
  for (let k = first; ; k++) {
    const beat = k * division;
    if (beatToSeconds(grid, beat) >= to) return out;
    out.push(beat);
  }
}

/** Bar numbers whose downbeat falls into [from, to), ascending. */
export function barsBetween(grid: BeatGrid, from: Seconds, to: Seconds): number[] {
  const out: number[] = [];
  let bar = beatToBar(grid, Math.ceil(secondsToBeat(grid, from) - 1e-9)).bar;
  for (; ; bar++) {
    const t = beatToSeconds(grid, barToBeat(grid, bar));
    if (t >= to) return out;
    if (t >= from - 1e-9) out.push(bar);
  }
}

/** What begins on a beat: a bar, a group of beats inside it (the fourth of 3 + 2), or no more than the beat. */
export function beatStress(grid: BeatGrid, beat: Beats): 'bar' | 'group' | 'beat' {
  const place = Math.round(beatToBar(grid, beat).beat) - 1;
  if (place === 0) return 'bar';
  let start = 0;
  return meterAt(grid, beat).groups?.some((group) => (start += group) === place) ? 'group' : 'beat';
}

/** Beat numbers inside bars on which a group of beats begins, with seconds in [from, to), ascending. */
export const groupStartsBetween = (grid: BeatGrid, from: Seconds, to: Seconds): Beats[] =>
  grid.meters.some((meter) => meter.groups)
    ? beatsBetween(grid, from, to).filter((beat) => beatStress(grid, beat) === 'group')
    : [];

/** The meter that a beat number lies in. */
export const meterAt = ({ meters }: BeatGrid, beat: Beats): Meter =>
  meters.reduce((found, meter) => (beat >= meter.fromBeat - 1e-6 ? meter : found), meters[0]!); // a grid has at least one

/** The ways in which beats of a bar group by two and three, the longer groups first; none for bars that short. */
export function groupings(beatsPerBar: number): number[][] {
  const ways = (beats: number): number[][] =>
    beats === 0
      ? [[]]
      : [3, 2].flatMap((group) => (group <= beats ? ways(beats - group).map((w) => [group, ...w]) : []));
  return beatsPerBar < FEWEST_GROUPED || beatsPerBar > MOST_GROUPED ? [] : ways(beatsPerBar);
}
const FEWEST_GROUPED = 5;
/** Beyond it the ways are too many to choose from. */
const MOST_GROUPED = 12;

/** "3.2" or "3.2½": bar, beat and the nearest common fraction, as the transport shows it. */
export function formatBarBeat(position: BarPosition): string {
  const whole = Math.floor(position.beat + 1e-6);
  const fraction = position.beat - whole;
  const names: [number, string][] = [
    [0, ''],
    [0.25, '¼'],
    [1 / 3, '⅓'],
    [0.5, '½'],
    [2 / 3, '⅔'],
    [0.75, '¾'],
  ];
  const near = names.find(([value]) => Math.abs(value - fraction) < 0.01);
  return `${position.bar}.${whole}${near ? near[1] : `+${fraction.toFixed(2).slice(1)}`}`;
}
