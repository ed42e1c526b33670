import * as z from 'zod';
import { colourSchema, mixColours } from '../colour';
import type { Colour } from '../colour';
import { idSchema, lastAtOrBefore, momentSchema, numberSchema } from '../time';
import type { Moment, Seconds } from '../time';
import { easingSchema, evaluateEasing } from './easing';
import type { Easing } from './easing';
import { pathPoint, preparePath } from './motion-path';
import type { MotionPath } from './motion-path';

/**
 * A track is the life of one property: a value, and keyframes that override it. The easing of a keyframe shapes the
 * segment that starts there. Before the first keyframe its value holds, after the last one its value holds; of
 * keyframes at the same time the last in the list wins ("at t" means the last keyframe with time ≤ t).
 */
export const vectorSchema = z.tuple([numberSchema, numberSchema]);
/** Most keyframes of a track. */
export const MAX_KEYFRAMES = 2000;
export type Vector = [number, number];
export type TrackValue = number | Vector | Colour;

export const keyframeSchema = z.strictObject({
  id: idSchema,
  at: momentSchema,
  value: z.union([numberSchema, vectorSchema, colourSchema]),
  easing: easingSchema,
  /** Position only: tangent handles of a curved path, pixels relative to the keyframe's value. */
  tangentOut: vectorSchema.optional(),
  tangentIn: vectorSchema.optional(),
});
export type Keyframe = z.infer<typeof keyframeSchema>;

export const trackSchema = z.strictObject({
  value: z.union([numberSchema, vectorSchema, colourSchema]),
  keyframes: z.array(keyframeSchema).max(MAX_KEYFRAMES),
});
export type Track = z.infer<typeof trackSchema>;

/** A track with its times resolved and sorted, ready to be evaluated thousands of times. */
export interface PreparedTrack {
  readonly value: TrackValue;
  readonly times: Float64Array;
  readonly values: readonly TrackValue[];
  readonly easings: readonly Easing[];
  /** One entry a segment; null runs straight. */
  readonly paths: readonly (MotionPath | null)[];
}

/** Sorts keyframes by resolved time (stable, so the list order decides ties). */
export function prepareTrack(track: Track, timeOf: (moment: Moment) => Seconds): PreparedTrack {
  const keys = track.keyframes.map((key) => ({ key, time: timeOf(key.at) }));
  keys.sort((a, b) => a.time - b.time);
  const values = keys.map(({ key }) => key.value);
  const paths = keys.map(({ key }, i) => {
    const next = keys[i + 1]?.key;
    if (!next || (!key.tangentOut && !next.tangentIn) || !Array.isArray(key.value) || !Array.isArray(next.value))
      return null;
    return preparePath(key.value, key.tangentOut ?? [0, 0], next.tangentIn ?? [0, 0], next.value);
  });
  return {
    value: track.value,
    times: Float64Array.from(keys, (k) => k.time),
    values,
    easings: keys.map(({ key }) => key.easing),
    paths,
  };
}

/** Blend of two values of the same kind. @throws TypeError if the kinds differ. */
export function mixValues(a: TrackValue, b: TrackValue, t: number): TrackValue {
  if (typeof a === 'number' && typeof b === 'number') return a + (b - a) * t;
  if (typeof a === 'string' && typeof b === 'string') return mixColours(a, b, t);
  if (Array.isArray(a) && Array.isArray(b)) return [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];
  throw new TypeError('the values of a track must be of one kind');
}

export function evaluateTrack(track: PreparedTrack, seconds: Seconds): TrackValue {
  const { times, values } = track;
  const count = times.length;
  if (count === 0) return track.value;
  const i = lastAtOrBefore(times, seconds);
  if (i < 0) return values[0]!;
  if (i >= count - 1) return values[count - 1]!;
  const span = times[i + 1]! - times[i]!;
  const amount = evaluateEasing(track.easings[i]!, (seconds - times[i]!) / span);
  const path = track.paths[i];
  if (path) return pathPoint(path, amount);
  return mixValues(values[i]!, values[i + 1]!, amount);
}
