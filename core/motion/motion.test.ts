import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  NAMED_CURVES,
  cubicBezier,
  evaluateEasing,
  evaluateTrack,
  mixValues,
  pathPoint,
  preparePath,
  prepareTrack,
  reverseEasing,
} from '@core/motion';
import type { CurveName, Easing, Keyframe, TrackValue } from '@core/motion';
import { freeMoment } from '@core/time';

const named = (Object.keys(NAMED_CURVES) as CurveName[]).map((name): Easing => ({ type: 'named', name }));
const easings = fc.oneof(
  fc.constantFrom<Easing>({ type: 'linear' }, ...named),
  fc.record({
    type: fc.constant('bezier' as const),
    x1: fc.double({ min: 0.1, max: 0.9, noNaN: true }),
    y1: fc.double({ min: -1, max: 2, noNaN: true }),
    x2: fc.double({ min: 0.1, max: 0.9, noNaN: true }),
    y2: fc.double({ min: -1, max: 2, noNaN: true }),
  }),
  fc.record({
    type: fc.constant('spring' as const),
    oscillations: fc.double({ min: 0.25, max: 12, noNaN: true }),
    damping: fc.double({ min: 0.05, max: 1, noNaN: true }),
  }),
  fc.record({
    type: fc.constant('bounce' as const),
    bounces: fc.integer({ min: 0, max: 8 }),
    restitution: fc.double({ min: 0.1, max: 0.95, noNaN: true }),
  }),
);

describe('easing', () => {
  it('starts at 0 and ends at 1, whatever the kind', () => {
    fc.assert(fc.property(easings, (easing) => evaluateEasing(easing, 0) === 0 && evaluateEasing(easing, 1) === 1));
  });
  it('comes close to its ends without a jump', () => {
    fc.assert(
      fc.property(
        easings,
        (easing) =>
          Math.abs(evaluateEasing(easing, 1 - 1e-9) - 1) < 2e-3 && Math.abs(evaluateEasing(easing, 1e-9)) < 2e-3,
      ),
    );
  });
  it('holds until the very end', () => {
    expect([0.2, 0.999, 1].map((u) => evaluateEasing({ type: 'hold' }, u))).toEqual([0, 0, 1]);
  });
  it('agrees with the published value of the CSS ease curve', () => {
    // CSS Easing Functions 1: ease is cubic-bezier(0.25, 0.1, 0.25, 1); y(0.5) = 0.8024.
    expect(cubicBezier(0.25, 0.1, 0.25, 1, 0.5)).toBeCloseTo(0.8024, 4);
  });
  it('is the mirror image when reversed', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...named),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (easing, u) => Math.abs(evaluateEasing(reverseEasing(easing), u) - (1 - evaluateEasing(easing, 1 - u))) < 1e-6,
      ),
    );
  });
  it('overshoots with a weak spring and never with a critical one', () => {
    const top = (e: Easing) => Math.max(...Array.from({ length: 200 }, (_, i) => evaluateEasing(e, i / 200)));
    expect(top({ type: 'spring', oscillations: 3, damping: 0.2 })).toBeGreaterThan(1.4);
    expect(top({ type: 'spring', oscillations: 3, damping: 1 })).toBeLessThanOrEqual(1 + 1e-9);
  });
  it('touches the floor once a bounce, each lower than the one before', () => {
    const f = (u: number) => evaluateEasing({ type: 'bounce', bounces: 2, restitution: 0.5 }, u);
    const samples = Array.from({ length: 2001 }, (_, i) => f(i / 2000));
    const dips = samples.filter((v, i) => i > 0 && i < 2000 && v < samples[i - 1]! && v <= samples[i + 1]!);
    expect(dips).toHaveLength(2);
    expect(1 - dips[0]!).toBeCloseTo(0.25, 2);
    expect(1 - dips[1]!).toBeCloseTo(0.0625, 2);
  });
});

const key = (
  seconds: number,
  value: TrackValue,
  easing: Easing = { type: 'linear' },
  extra: Partial<Keyframe> = {},
): Keyframe => ({ id: `k${seconds}`, at: freeMoment(seconds), value, easing, ...extra });
const prepared = (keyframes: Keyframe[], value: TrackValue = 0) =>
  prepareTrack({ value, keyframes }, (m) => (m.kind === 'free' ? m.seconds : 0));

describe('tracks', () => {
  it('keep their value without keyframes, and hold before the first and after the last', () => {
    expect(evaluateTrack(prepared([], 5), 3)).toBe(5);
    const track = prepared([key(1, 10), key(2, 20)]);
    expect([0, 1, 1.25, 2, 9].map((t) => evaluateTrack(track, t))).toEqual([10, 10, 12.5, 20, 20]);
  });
  it('sort keyframes by time, and let the last of equal times win', () => {
    const track = prepared([key(2, 20), key(1, 10), { ...key(1, 11), id: 'later' }]);
    expect(evaluateTrack(track, 1)).toBe(11);
  });
  it('stay within their values for easings that do not overshoot', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 2, maxLength: 8 }),
        fc.double({ min: -1, max: 9, noNaN: true }),
        (values, t) => {
          const v = evaluateTrack(prepared(values.map((value, i) => key(i, value))), t) as number;
          return v >= Math.min(...values) - 1e-9 && v <= Math.max(...values) + 1e-9;
        },
      ),
    );
  });
  it('blend colours evenly and end on the exact colours', () => {
    const track = prepared([key(0, '#000000'), key(1, '#ffffff')]);
    expect(evaluateTrack(track, 0)).toBe('#000000');
    expect(evaluateTrack(track, 1)).toBe('#ffffff');
    expect(evaluateTrack(track, 0.5)).toMatch(/^#(.)(.)\1\2\1\2$/);
  });
  it('refuse to blend unlike values', () => {
    expect(() => mixValues(1, '#000000', 0.5)).toThrow(TypeError);
  });
  it('run along a curved path at the speed the easing asks for', () => {
    const track = prepared([
      key(0, [0, 0], { type: 'linear' }, { tangentOut: [0, -100] }),
      key(1, [100, 0], { type: 'linear' }, { tangentIn: [0, -100] }),
    ]);
    const [x, y] = evaluateTrack(track, 0.5) as [number, number];
    expect(x).toBeCloseTo(50, 3);
    expect(y).toBeCloseTo(-75, 1);
    const points = Array.from({ length: 21 }, (_, i) => evaluateTrack(track, i / 20) as [number, number]);
    const steps = points.slice(1).map((p, i) => Math.hypot(p[0] - points[i]![0], p[1] - points[i]![1]));
    expect(Math.max(...steps) / Math.min(...steps)).toBeLessThan(1.02);
  });
  it('leave the path along its end when an easing overshoots', () => {
    const path = preparePath([0, 0], [30, 0], [-30, 0], [100, 0]);
    expect(pathPoint(path, 1.1)[0]).toBeCloseTo(110, 0);
    expect(pathPoint(path, -0.1)[0]).toBeCloseTo(-10, 0);
  });
});
