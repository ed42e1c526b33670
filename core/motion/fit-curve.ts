import { bezierPoint } from './motion-path';
import type { Vector } from './track';

/**
 * A smooth path through points drawn by hand: as few cubic Béziers as stay within a distance of them.
 * @see P. J. Schneider, An Algorithm for Automatically Fitting Digitized Curves, Graphics Gems, 1990.
 */

type Cubic = readonly [Vector, Vector, Vector, Vector];

const add = (a: Vector, b: Vector): Vector => [a[0] + b[0], a[1] + b[1]];
const sub = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1]];
const times = (a: Vector, k: number): Vector => [a[0] * k, a[1] * k];
const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1];
const unit = (a: Vector): Vector => {
  const length = Math.hypot(a[0], a[1]);
  return length > 0 ? times(a, 1 / length) : [0, 0];
};

/** Shares of the way at which the points lie, by the length of the chords. */
function chordShares(points: readonly Vector[]): number[] {
  const out = [0];
  for (let i = 1; i < points.length; i++) out.push(out[i - 1]! + Math.hypot(...sub(points[i]!, points[i - 1]!)));
  const whole = out[out.length - 1]! || 1;
  return out.map((u) => u / whole);
}

/** The cubic of least squares with given ends and directions there. */
function leastSquares(points: readonly Vector[], shares: readonly number[], from: Vector, to: Vector): Cubic {
  const [first, last] = [points[0]!, points[points.length - 1]!];
  let [c00, c01, c11, x0, x1] = [0, 0, 0, 0, 0];
  points.forEach((point, i) => {
    const t = shares[i]!;
    const s = 1 - t;
    const [a0, a1] = [times(from, 3 * s * s * t), times(to, 3 * s * t * t)];
    c00 += dot(a0, a0);
    c01 += dot(a0, a1);
    c11 += dot(a1, a1);
    const rest = sub(point, add(times(first, s ** 3 + 3 * s * s * t), times(last, t ** 3 + 3 * s * t * t)));
    x0 += dot(a0, rest);
    x1 += dot(a1, rest);
  });
  const det = c00 * c11 - c01 * c01;
  const chord = Math.hypot(...sub(last, first));
  let left = det !== 0 ? (x0 * c11 - x1 * c01) / det : 0;
  let right = det !== 0 ? (c00 * x1 - c01 * x0) / det : 0;
  // Handles that would point backwards: the usual third of the chord.
  if (left < chord * 1e-6 || right < chord * 1e-6) left = right = chord / 3;
  return [first, add(first, times(from, left)), add(last, times(to, right)), last];
}

/** One Newton step towards the share at which the curve is nearest to a point. */
function nearer(curve: Cubic, point: Vector, t: number): number {
  const [p0, p1, p2, p3] = curve;
  const s = 1 - t;
  const away = sub(bezierPoint(curve, t), point);
  const d1 = add(add(times(sub(p1, p0), 3 * s * s), times(sub(p2, p1), 6 * s * t)), times(sub(p3, p2), 3 * t * t));
  const d2 = add(times(add(sub(p2, times(p1, 2)), p0), 6 * s), times(add(sub(p3, times(p2, 2)), p1), 6 * t));
  const slope = dot(d1, d1) + dot(away, d2);
  return slope === 0 ? t : Math.min(1, Math.max(0, t - dot(away, d1) / slope));
}

const REFINEMENTS = 4;

function fit(points: readonly Vector[], from: Vector, to: Vector, tolerance: number): Cubic[] {
  if (points.length === 2) {
    const [a, b] = [points[0]!, points[1]!];
    const third = Math.hypot(...sub(b, a)) / 3;
    return [[a, add(a, times(from, third)), add(b, times(to, third)), b]];
  }
  let shares = chordShares(points);
  let split = Math.floor(points.length / 2);
  for (let round = 0; round <= REFINEMENTS; round++) {
    const curve = leastSquares(points, shares, from, to);
    let worst = 0;
    points.forEach((point, i) => {
      const off = Math.hypot(...sub(bezierPoint(curve, shares[i]!), point));
      if (off > worst) [worst, split] = [off, i];
    });
    if (worst <= tolerance) return [curve];
    shares = shares.map((t, i) => nearer(curve, points[i]!, t));
  }
  split = Math.min(points.length - 2, Math.max(1, split));
  const along = unit(sub(points[split - 1]!, points[split + 1]!));
  return [
    ...fit(points.slice(0, split + 1), from, along, tolerance),
    ...fit(points.slice(split), times(along, -1), to, tolerance),
  ];
}

/**
 * @param drawn - points in the order in which they were drawn.
 * @param tolerance - how far the path may be from a point, in the points' own unit; above 0.
 * @returns SVG path data (absolute M and C), or null for fewer than two points apart.
 */
export function fitCurve(drawn: readonly Vector[], tolerance: number): string | null {
  const points = drawn.filter((p, i) => i === 0 || Math.hypot(...sub(p, drawn[i - 1]!)) > 1e-6);
  if (points.length < 2) return null;
  const curves = fit(
    points,
    unit(sub(points[1]!, points[0]!)),
    unit(sub(points[points.length - 2]!, points[points.length - 1]!)),
    tolerance,
  );
  const n = ([x, y]: Vector) => `${Math.round(x * 100) / 100} ${Math.round(y * 100) / 100}`;
  return `M${n(points[0]!)}${curves.map(([, a, b, c]) => `C${n(a)} ${n(b)} ${n(c)}`).join('')}`;
}
