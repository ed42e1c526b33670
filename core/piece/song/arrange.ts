import { beatToSeconds, secondsToBeat } from '../../time';
import type { BeatGrid, Beats, Seconds } from '../../time';
import type { Music, SongCut } from '../document/song-schema';
import { JOIN_SECONDS, playedLength, splitParts } from './song-parts';

/** A stretch of the music as it is played now, seconds of the piece, [from, to). */
export interface Stretch {
  readonly from: Seconds;
  readonly to: Seconds;
}

/** Parts of the song that follow each other without a jump are one. */
const SAME: Seconds = 1e-4;

/**
 * The music played as the given stretches of what is played now, one after the other: leaving one out removes it,
 * naming one twice repeats it.
 * @param duration - of the song, seconds.
 * @returns Null if nothing would be left.
 */
export function rearranged(music: Music, duration: Seconds, stretches: readonly Stretch[]): Music | null {
  const pieces: { from: Seconds; to: Seconds }[] = [];
  let start: Seconds | null = null;
  const parts = splitParts(music, duration);
  for (const stretch of stretches) {
    let isFirst = true;
    for (const part of parts) {
      const a = Math.max(stretch.from, part.at);
      const b = Math.min(stretch.to, part.at + part.to - part.from);
      // What is shorter than a join could not be heard as anything but a stumble.
      if (b <= a + JOIN_SECONDS) continue;
      start ??= music.start;
      const piece = { from: part.from + a - part.at, to: part.from + b - part.at };
      const last = pieces[pieces.length - 1];
      // Splits made on purpose stay; stretches that happen to continue each other are one.
      if (isFirst && last && Math.abs(last.to - piece.from) < SAME) last.to = piece.to;
      else pieces.push(piece);
      isFirst = false;
    }
  }
  const [first] = pieces;
  const last = pieces[pieces.length - 1];
  if (!first || !last || start === null) return null;
  const cuts: SongCut[] = pieces.slice(1).map((piece, i) => ({ at: pieces[i]!.to, to: piece.from }));
  return { ...music, trimStart: first.from, trimEnd: Math.abs(last.to - duration) < SAME ? null : last.to, cuts };
}

/** Where the music, as it is played now, lies in the piece. */
export function musicSpan(music: Music, duration: Seconds): Stretch {
  return { from: music.start, to: music.start + playedLength(music, duration) };
}

export const withoutStretch = (whole: Stretch, gone: Stretch): Stretch[] =>
  [
    { from: whole.from, to: gone.from },
    { from: gone.to, to: whole.to },
  ].filter((s) => s.to > s.from + SAME);

export const withRepeat = (whole: Stretch, again: Stretch, times: number): Stretch[] =>
  [
    { from: whole.from, to: again.to },
    ...Array.from({ length: times }, () => again),
    { from: again.to, to: whole.to },
  ].filter((s) => s.to > s.from + SAME);

/** A beat that comes this near to a beat of the new grid is that beat. */
const ON_BEAT: Seconds = 0.03;

/**
 * Where a beat goes when the music is rearranged: it stays on the same moment of the music, and its number is what the
 * new grid counts there. What was cut out goes to the join, what comes after the music moves with its end. A head that
 * is cut off doesn't count: numbers run from the song's first bar.
 * @param before - the grid that `beat` belongs to. @param after - the grid of the rearranged music.
 */
export function rearrangedBeat(
  before: BeatGrid,
  after: BeatGrid,
  beat: Beats,
  stretches: readonly Stretch[],
  whole: Stretch,
): Beats {
  const time = beatToSeconds(before, beat);
  const [first] = stretches;
  if (!first || time < first.from - SAME) return beat;
  const onGrid = (seconds: Seconds, isWhole: boolean): Beats => {
    const found = secondsToBeat(after, seconds);
    const near = Math.round(found);
    if (isWhole || (Number.isInteger(beat) && Math.abs(beatToSeconds(after, near) - seconds) < ON_BEAT)) return near;
    return Math.round(found * 1e6) / 1e6;
  };
  let at = whole.from;
  let join: Seconds | null = null;
  for (const stretch of stretches) {
    if (time >= stretch.from - SAME && time < stretch.to - SAME) return onGrid(at + time - stretch.from, false);
    if (join === null && stretch.from > time) join = at;
    // What is shorter than a join is left out, as `rearranged` does.
    if (stretch.to > stretch.from + JOIN_SECONDS) at += stretch.to - stretch.from;
  }
  if (time >= whole.to - SAME) return onGrid(at + time - whole.to, Number.isInteger(beat));
  return onGrid(join ?? at, true);
}
