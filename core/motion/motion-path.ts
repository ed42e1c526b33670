import { lastAtOrBefore } from '../time';

type Point = readonly [number, number];

/**
 * A cubic Bézier in space with a table of arc lengths, so that easing governs speed along the curve, not the parameter.
 */
export interface MotionPath {
  readonly points: readonly [Point, Point, Point, Point];
  /** Cumulative length at parameter i / SAMPLES. */
  readonly lengths: Float64Array;
}

/** With 64 chords the length of a quarter circle is right to 1e-5 of its radius. */
const SAMPLES = 64;

/** The point of a cubic Bézier at a parameter in [0, 1]. */
export function bezierPoint([a, b, c, d]: MotionPath['points'], s: number): [number, number] {
  const r = 1 - s;
  const [k0, k1, k2, k3] = [r * r * r, 3 * r * r * s, 3 * r * s * s, s * s * s];
  return [k0 * a[0] + k1 * b[0] + k2 * c[0] + k3 * d[0], k0 * a[1] + k1 * b[1] + k2 * c[1] + k3 * d[1]];
}

/** @param outHandle - relative to `from`. @param inHandle - relative to `to`. */
export function preparePath(from: Point, outHandle: Point, inHandle: Point, to: Point): MotionPath {
  const points: MotionPath['points'] = [
    from,
    [from[0] + outHandle[0], from[1] + outHandle[1]],
    [to[0] + inHandle[0], to[1] + inHandle[1]],
    to,
  ];
  const lengths = new Float64Array(SAMPLES + 1);
  let previous = bezierPoint(points, 0);
  for (let i = 1; i <= SAMPLES; i++) {
    const point = bezierPoint(points, i / SAMPLES);
    lengths[i] = lengths[i - 1]! + Math.hypot(point[0] - previous[0], point[1] - previous[1]);
    previous = point;
  }
  return { points, lengths };
}

/**
 * Point at a share of the path's length. Outside [0, 1] the path goes on straight along its end tangent (overshoot).
 */
export function pathPoint(path: MotionPath, amount: number): [number, number] {
  const { points, lengths } = path;
  const total = lengths[SAMPLES]!;
  if (total === 0) return [points[0][0], points[0][1]];
  if (amount < 0 || amount > 1) {
    const end = amount < 0 ? 0 : 1;
    const a = bezierPoint(points, end === 0 ? 0 : 1 - 1 / SAMPLES);
    const b = bezierPoint(points, end === 0 ? 1 / SAMPLES : 1);
    const length = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
    const base = end === 0 ? a : b;
    const k = ((amount - end) * total) / length;
    return [base[0] + (b[0] - a[0]) * k, base[1] + (b[1] - a[1]) * k];
  }
  const wanted = amount * total;
  const i = Math.min(SAMPLES - 1, lastAtOrBefore(lengths, wanted));
  const step = lengths[i + 1]! - lengths[i]!;
  return bezierPoint(points, (i + (step > 0 ? (wanted - lengths[i]!) / step : 0)) / SAMPLES);
}
