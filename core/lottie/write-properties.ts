import type { Recorder } from './keyframes';

/** Properties of a Lottie file, still or keyframed. */
export type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json };

const PLACES = 1000;
export const rounded = (value: number): number => Math.round(value * PLACES) / PLACES || 0; // no −0

/** A straight line from keyframe to keyframe. */
const LINEAR = { o: { x: 0, y: 0 }, i: { x: 1, y: 1 } } as const;

function property<T extends Json>(
  recorder: Recorder,
  write: (values: readonly number[]) => T,
  inFrame: (own: T) => Json,
): Json {
  const frames = recorder.keyframes();
  if (frames.length === 1) return { a: 0, k: write(frames[0]!.values) };
  const last = frames.length - 1;
  return {
    a: 1,
    k: frames.map(({ frame, values }, i) => ({ t: frame, s: inFrame(write(values)), ...(i < last ? LINEAR : {}) })),
  };
}

export const still = (value: Json): Json => ({ a: 0, k: value });

export const numberProperty = (recorder: Recorder, times = 1): Json =>
  property(
    recorder,
    ([value]) => rounded((value ?? 0) * times),
    (own) => [own],
  );

/** One number of several that are recorded together. */
export const partProperty = (recorder: Recorder, part: number): Json =>
  property(
    recorder,
    (values) => rounded(values[part] ?? 0),
    (own) => [own],
  );

/**
 * Red, green and blue, or the stops of a gradient: finer, and never below what was meant, because players cut off what
 * is left over a whole level.
 */
const upwards = (value: number): number => Math.min(1, Math.ceil(value * 1e5) / 1e5);
export const colourProperty = (recorder: Recorder): Json =>
  property(
    recorder,
    (values) => values.map(upwards),
    (own) => own,
  );

export const vectorProperty = (
  recorder: Recorder,
  change: (value: number, i: number) => number = (value) => value,
): Json =>
  property(
    recorder,
    (values) => values.map((value, i) => rounded(change(value, i))),
    (own) => own,
  );

/** Contours: see `ContourRecord`. */
export const contourProperty = (recorder: Recorder, isClosed: boolean): Json =>
  property(
    recorder,
    (values) => {
      const points = Array.from({ length: values.length / 6 }, (_, i) => values.slice(i * 6, i * 6 + 6).map(rounded));
      const part = (from: number): Json => points.map((point) => point.slice(from, from + 2));
      return { c: isClosed, v: part(0), i: part(2), o: part(4) };
    },
    (own) => [own],
  );

/** A contour of corners alone. */
export const cornersProperty = (recorder: Recorder, offset: number): Json =>
  property(
    recorder,
    (values) => {
      const v = Array.from({ length: values.length / 2 }, (_, i) =>
        values.slice(i * 2, i * 2 + 2).map((value) => rounded(value + offset)),
      );
      const none = v.map(() => [0, 0]);
      return { c: true, v, i: none, o: none };
    },
    (own) => [own],
  );
