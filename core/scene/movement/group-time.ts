import type { GroupTime, ResolvedTimes } from '../../piece';
import { beatToSeconds, secondsToBeat } from '../../time';
import type { Seconds } from '../../time';

/** Less than this is no time to play again. */
const SHORTEST: Seconds = 1 / 240;

/**
 * The moment that is seen inside a group at a moment outside; null where both are the same. Speed comes first, then
 * playing again, then standing still.
 */
export function timeInside(
  time: GroupTime | null,
  start: Seconds,
  { grid }: Pick<ResolvedTimes, 'grid'>,
): ((seconds: Seconds) => Seconds) | null {
  if (!time || (time.speed === 1 && !time.repeat && !time.freeze)) return null;
  const seconds = (lag: NonNullable<GroupTime['repeat']>): Seconds =>
    lag.unit === 'seconds' ? lag.value : beatToSeconds(grid, secondsToBeat(grid, start) + lag.value) - start;
  const period = time.repeat ? Math.max(SHORTEST, seconds(time.repeat)) : null;
  const stop = time.freeze ? seconds(time.freeze) : Infinity;
  return (at) => {
    let inside = Math.max(0, at - start) * time.speed;
    if (period !== null) {
      const round = Math.floor(inside / period + 1e-9);
      inside = Math.max(0, inside - round * period);
      if (time.turns && round % 2 === 1) inside = period - inside;
    }
    return start + Math.min(stop, inside);
  };
}
