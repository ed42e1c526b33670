/** Bars, the places in them, and how a tatum grid is read as beats and bars. */

/** Places in the bar that are told apart; a group of beats within the bar begins on a `middle`. */
export const PLACES = ['down', 'middle', 'beat', 'half', 'third', 'fine'] as const;

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
