import { barToBeat, beatToBar, beatToSeconds, secondsToBeat } from './beat-grid';
import type { BeatGrid } from './beat-grid';
import type { FrameRate } from './frame-rate';
import { timecodeToFrame } from './timecode';
import type { Seconds } from './units';

/** What a typed time is read against. */
export interface TypedTimePlace {
  /** What + and − begin from. */
  readonly now: Seconds;
  readonly rate: FrameRate;
  readonly grid: BeatGrid;
}

const NUMBER = String.raw`(\d+(?:[.,]\d+)?|[.,]\d+)`;
const CLOCK = new RegExp(String.raw`^(?:(\d+):)?(\d+):(\d{1,2}(?:[.,]\d+)?)$`);
const LENGTH = new RegExp(`^${NUMBER}\\s*(s|sec|seconds?|f|fr|frames?|b|beats?|bars?|min|minutes?)?$`, 'i');
const BAR = new RegExp(String.raw`^bar\s*(\d+)(?:\s*(?:[.,:|]|beat)\s*${NUMBER})?$`, 'i');

const numberOf = (text: string): number => Number(text.replace(',', '.'));

/** The end of a stretch that begins at `from` and is so long in a unit; null for no unit that is known. */
function after(from: Seconds, amount: number, unit: string, { rate, grid }: TypedTimePlace): Seconds {
  const beats = (count: number): Seconds => beatToSeconds(grid, secondsToBeat(grid, from) + count);
  if (/^f/i.test(unit)) return from + (amount * rate.den) / rate.num;
  if (/^bar/i.test(unit)) return beats(amount * beatToBar(grid, secondsToBeat(grid, from)).beatsPerBar);
  if (/^b/i.test(unit)) return beats(amount);
  return from + amount * (/^m/i.test(unit) ? 60 : 1);
}

/**
 * A time as people type it: seconds (`12.5`, `12,5 s`), minutes and seconds (`1:02.5`), frames (`375f`), timecode of the
 * rate (`00:00:12:15`), a bar with a beat (`bar 9`, `bar 9.3`), beats and bars from the beginning (`8 beats`, `4 bars`),
 * or any length behind + or − from `now` (`+2 beats`, `-10f`).
 * @returns seconds, which may lie outside the piece; null for what is no time.
 */
export function parseTypedTime(typed: string, place: TypedTimePlace): Seconds | null {
  const text = typed.trim().replace('−', '-');
  const { now, rate, grid } = place;
  const frame = timecodeToFrame(text, rate);
  if (frame !== null) return (frame * rate.den) / rate.num;
  const sign = text.startsWith('+') ? 1 : text.startsWith('-') ? -1 : 0;
  const rest = sign === 0 ? text : text.slice(1).trim();
  const clock = CLOCK.exec(rest);
  const bar = sign === 0 ? BAR.exec(rest) : null;
  if (bar) {
    const beat = barToBeat(grid, Number(bar[1])) + (bar[2] === undefined ? 0 : numberOf(bar[2]) - 1);
    return beatToSeconds(grid, beat);
  }
  if (clock) {
    const seconds = Number(clock[1] ?? 0) * 3600 + Number(clock[2]) * 60 + numberOf(clock[3]!);
    return numberOf(clock[3]!) >= 60 ? null : sign === 0 ? seconds : now + sign * seconds;
  }
  const length = LENGTH.exec(rest);
  if (!length) return null;
  return after(sign === 0 ? 0 : now, (sign || 1) * numberOf(length[1]!), length[2] ?? 's', place);
}
