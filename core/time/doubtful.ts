import type { BeatGrid } from './beat-grid';
import { isFreeTime } from './beat-grid';
import type { Seconds, UnitInterval } from './units';

/** A beat less sure than this is doubtful: every second such beat is wrong. */
export const DOUBTFUL_BELOW: UnitInterval = 0.5;

export interface Doubtful {
  readonly start: Seconds;
  readonly end: Seconds;
}

function findDoubtful(grid: BeatGrid): Doubtful[] {
  const out: { start: Seconds; end: Seconds }[] = [];
  grid.beats.forEach((start, i) => {
    const next = grid.beats[i + 1];
    if (next === undefined || grid.confidence[i]! >= DOUBTFUL_BELOW || isFreeTime(grid, (start + next) / 2)) return;
    const last = out[out.length - 1];
    if (last && last.end === start) last.end = next;
    else out.push({ start, end: next });
  });
  return out;
}

/** Grids never change, and the timeline asks each time it is drawn. */
const known = new WeakMap<BeatGrid, readonly Doubtful[]>();

/** Stretches of doubtful beats, each to the next beat that is sure; none in free time. Ascending. */
export function doubtfulStretches(grid: BeatGrid): readonly Doubtful[] {
  const found = known.get(grid) ?? findDoubtful(grid);
  known.set(grid, found);
  return found;
}
