import { beatMoment, beatToSeconds, freeMoment, latticeMoment, secondsToBeat, shiftMoment } from '../../time';
import type { BeatGrid, Moment, Seconds } from '../../time';
import { visitLayerMoments } from '../document/layer-moments';
import type { Layer } from '../document/layer-schema';
import type { Piece } from '../document/schema';
import type { SlotTiming } from '../document/template-schema';
import { withDescendants } from '../document/tree';
import type { ResolvedTimes } from '../times/resolve-times';

/**
 * Making a group longer or shorter as its template wants it: what comes in and goes out keeps its length, and what
 * stands between stretches.
 */

/** The longest stretch of a group in which nothing is set: what comes in is over by then, what goes out has not begun. */
export interface Hold {
  readonly from: Seconds;
  readonly to: Seconds;
}

/** A stretch that a gesture takes, if it has a length of its own. */
function gestureSpan(layer: Layer, use: Layer['gestures'][number], times: ResolvedTimes): Hold | null {
  const { unit, value } = use.duration;
  if (unit === 'stay') return null;
  const length = (from: Seconds): Seconds =>
    unit === 'seconds' ? value : beatToSeconds(times.grid, secondsToBeat(times.grid, from) + value) - from;
  if (use.at) {
    const at = times.timeOf(use.at);
    return { from: at, to: at + length(at) };
  }
  if (use.role === 'exit') {
    const end = times.timeOf(layer.end);
    return { from: end - length(end), to: end };
  }
  const start = times.timeOf(layer.start);
  return use.role === 'entrance' ? { from: start, to: start + length(start) } : null;
}

export function holdOf(layers: readonly Layer[], group: Layer, times: ResolvedTimes): Hold {
  const [start, end] = [times.timeOf(group.start), times.timeOf(group.end)];
  const set: Seconds[] = [start, end];
  for (const layer of withDescendants(layers, [group.id])) {
    set.push(times.timeOf(layer.start), times.timeOf(layer.end));
    visitLayerMoments(layer, (moment) => void set.push(times.timeOf(moment)));
    for (const use of layer.gestures) {
      const span = gestureSpan(layer, use, times);
      if (span) set.push(span.from, span.to);
    }
  }
  const inside = set.filter((at) => at >= start - 1e-6 && at <= end + 1e-6).sort((a, b) => a - b);
  let best: Hold = { from: start, to: end };
  let longest = -1;
  for (let i = 1; i < inside.length; i++) {
    const length = inside[i]! - inside[i - 1]!;
    if (length > longest + 1e-9) [best, longest] = [{ from: inside[i - 1]!, to: inside[i]! }, length];
  }
  return best;
}

/** Of the hold this much is left when a group is made as short as can be, seconds. */
const LEAST_HOLD = 0.05;

const beatOf = (moment: Moment): number | null =>
  moment.kind === 'pinned' && moment.to.type === 'beat' && !moment.offset ? moment.to.beat : null;

/**
 * Moves an edge of a group (a draft) to a moment, and with it all that belongs to that edge; what comes in and goes out
 * keeps its length, and the hold is never gone.
 */
export function stretchGroup(
  draft: Piece,
  group: Layer,
  side: 'start' | 'end',
  moment: Moment,
  stretches: SlotTiming['stretches'],
  times: ResolvedTimes,
): void {
  const hold = holdOf(draft.layers, group, times);
  const [start, end] = [times.timeOf(group.start), times.timeOf(group.end)];
  const wanted = times.timeOf(moment);
  const inside = withDescendants(draft.layers, [group.id]);
  const change = (move: (moment: Moment) => Moment): void => {
    for (const layer of inside) {
      if (layer !== group) layer.start = move(layer.start);
      if (layer !== group) layer.end = move(layer.end);
      visitLayerMoments(layer, move);
    }
  };
  const isEnd = side === 'end';
  if (stretches === 'all') {
    const fixed = isEnd ? start : end;
    const length = isEnd ? wanted - start : end - wanted;
    const k = Math.max(0.01, length) / Math.max(0.01, end - start);
    change((of) => {
      const at = fixed + (times.timeOf(of) - fixed) * k;
      return of.kind === 'free' ? freeMoment(at) : latticeMoment(at, times.grid);
    });
    for (const layer of inside)
      for (const use of layer.gestures) use.duration.value = Math.min(600, use.duration.value * k);
    group[side] = moment;
    return;
  }
  const spare = hold.to - hold.from - LEAST_HOLD;
  const limit = isEnd ? end - spare : start + spare;
  const isHeld = isEnd ? wanted < limit : wanted > limit;
  const by = (isHeld ? limit : wanted) - (isEnd ? end : start);
  const [old, now] = [beatOf(group[side]), beatOf(moment)];
  // In the middle of the hold nothing is set.
  const cut = (hold.from + hold.to) / 2;
  change((of) => {
    if (times.timeOf(of) <= cut === isEnd) return of;
    const beat = beatOf(of);
    // From beat to beat, pins stay on their beats at any tempo.
    return !isHeld && old !== null && now !== null && beat !== null
      ? beatMoment(beat + now - old, times.grid)
      : shiftMoment(of, by, times.targets);
  });
  group[side] = isHeld ? shiftMoment(group[side], by, times.targets) : moment;
}

/** The moment at which something that shall last until a time ends. */
export function endFor(seconds: Seconds, { unit, endsOnBeat }: SlotTiming, grid: BeatGrid): Moment {
  if (endsOnBeat) return beatMoment(Math.ceil(secondsToBeat(grid, seconds) - 1e-3), grid);
  return unit === 'beats' ? latticeMoment(seconds, grid) : freeMoment(seconds);
}
