import { lastAtOrBefore } from '../time';
import type { Seconds } from '../time';
import { evaluateTrack } from './track';
import type { PreparedTrack, TrackValue } from './track';

/** The way that a position goes: how fast, and in which direction. */

/** Length of each stretch between keyframes, pixels. */
function lengthsOf({ values, paths }: PreparedTrack): number[] {
  return values.slice(1).map((to, i) => {
    const [path, from] = [paths[i], values[i]];
    if (path) return path.lengths[path.lengths.length - 1] ?? 0;
    return Array.isArray(from) && Array.isArray(to) ? Math.hypot(to[0] - from[0], to[1] - from[1]) : 0;
  });
}

/**
 * The same way at one speed from the first keyframe to the last: the times of those between and the easings are given up.
 * Nothing is changed where nothing moves.
 */
export function evenlyPaced(track: PreparedTrack): PreparedTrack {
  const lengths = lengthsOf(track);
  const total = lengths.reduce((sum, length) => sum + length, 0);
  const [first, last] = [track.times[0] ?? 0, track.times[track.times.length - 1] ?? 0];
  if (total <= 0 || last <= first) return track;
  let gone = 0;
  const times = [first, ...lengths.map((length) => first + ((last - first) * (gone += length)) / total)];
  return { ...track, times: Float64Array.from(times), easings: track.easings.map(() => ({ type: 'linear' as const })) };
}

/** Half the time over which a direction is taken. */
const HALF_STEP: Seconds = 1e-3;
/** Less than this is standing still, pixels. */
const STILL = 1e-6;

function direction(from: TrackValue, to: TrackValue): number | null {
  if (!Array.isArray(from) || !Array.isArray(to)) return null;
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  return Math.hypot(dx, dy) < STILL ? null : (Math.atan2(dy, dx) * 180) / Math.PI;
}

/**
 * Degrees clockwise from the direction of x in which a position goes at a time. Where it stands still it looks as it came,
 * and before it sets out as it will go; null if it never moves.
 */
export function travelDirection(track: PreparedTrack, seconds: Seconds): number | null {
  const { times } = track;
  const count = times.length;
  if (count < 2) return null;
  const around = (at: Seconds, before: number, after: number): number | null =>
    direction(evaluateTrack(track, at - before), evaluateTrack(track, at + after));
  const [first, last] = [times[0]!, times[count - 1]!];
  if (seconds > first && seconds < last) {
    // Within one stretch: a corner is not rounded off.
    const i = lastAtOrBefore(times, seconds);
    const room = [seconds - times[i]!, times[i + 1]! - seconds] as const;
    const now = around(seconds, Math.min(HALF_STEP, room[0]), Math.min(HALF_STEP, room[1] * 0.999));
    if (now !== null) return now;
  }
  const here = lastAtOrBefore(times, seconds);
  for (let i = Math.min(here, count - 1); i >= 1; i--) {
    const came = around(times[i]!, Math.min(HALF_STEP, times[i]! - times[i - 1]!), -1e-9);
    if (came !== null) return came;
  }
  for (let i = Math.max(0, here); i < count - 1; i++) {
    const goes = around(times[i]!, 0, Math.min(HALF_STEP, (times[i + 1]! - times[i]!) * 0.999));
    if (goes !== null) return goes;
  }
  return null;
}
