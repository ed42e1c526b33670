import { bezierPoint } from '../motion';

/** Paths as people edit them: points with handles. Coordinates are those of the path data. */

type Vec = readonly [number, number];

export interface PathPoint {
  readonly at: Vec;
  /** Where its handles lie, as ways from the point; null for none on that side. */
  readonly before: Vec | null;
  readonly after: Vec | null;
}

export interface PointContour {
  readonly points: readonly PathPoint[];
  readonly isClosed: boolean;
}

/** A point of a path by its contour and its place there. */
export interface PointRef {
  readonly contour: number;
  readonly point: number;
}

const add = (a: Vec, b: Vec): Vec => [a[0] + b[0], a[1] + b[1]];
const less = (a: Vec, b: Vec): Vec => [a[0] - b[0], a[1] - b[1]];
const times = (a: Vec, k: number): Vec => [a[0] * k, a[1] * k];
const between = (a: Vec, b: Vec, t: number): Vec => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];
const isNear = (a: Vec, b: Vec): boolean => Math.hypot(a[0] - b[0], a[1] - b[1]) < 1e-3;
const orNone = (way: Vec): Vec | null => (Math.hypot(...way) < 1e-6 ? null : way);

/**
 * Reads path data (absolute M, L, Q, C, Z). Quadratic curves become the cubic ones that are the same; a contour that
 * comes back to where it began is closed by its first point.
 */
export function readPoints(d: string): PointContour[] {
  const contours: PointContour[] = [];
  let points: PathPoint[] = [];
  const finish = (isClosed: boolean) => {
    const [first, last] = [points[0], points[points.length - 1]];
    if (isClosed && first && last && points.length > 1 && isNear(first.at, last.at))
      points = [{ ...first, before: last.before }, ...points.slice(1, -1)];
    if (points.length > 0) contours.push({ points, isClosed });
    points = [];
  };
  let [start, here]: [Vec, Vec] = [
    [0, 0],
    [0, 0],
  ];
  const leave = (handle: Vec | null) => {
    if (points.length === 0) points.push({ at: here, before: null, after: null }); // after a close
    const last = points.length - 1;
    points[last] = { ...points[last]!, after: handle };
  };
  for (const [, command, text] of d.matchAll(/([MLQCZz])([^MLQCZz]*)/g)) {
    const n = (text!.match(/-?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?/g) ?? []).map(Number); // a group that is always there
    if (command === 'Z' || command === 'z') {
      finish(true);
      here = start;
      continue;
    }
    const size = command === 'C' ? 6 : command === 'Q' ? 4 : 2;
    for (let i = 0; i + size <= n.length; i += size) {
      const end: Vec = [n[i + size - 2]!, n[i + size - 1]!];
      if (command === 'M' && i === 0) {
        finish(false);
        points.push({ at: end, before: null, after: null });
        start = end;
      } else {
        const controls: [Vec, Vec] | null =
          size === 6
            ? [
                [n[i]!, n[i + 1]!],
                [n[i + 2]!, n[i + 3]!],
              ]
            : size === 4
              ? [between(here, [n[i]!, n[i + 1]!], 2 / 3), between(end, [n[i]!, n[i + 1]!], 2 / 3)]
              : null;
        leave(controls && orNone(less(controls[0], here)));
        points.push({ at: end, before: controls && orNone(less(controls[1], end)), after: null });
      }
      here = end;
    }
  }
  finish(false);
  return contours;
}

const PLACES = 100;
const n = (value: number): string => String(Math.round(value * PLACES) / PLACES);
const xy = ([x, y]: Vec): string => `${n(x)} ${n(y)}`;

/** Path data of contours: straight pieces as L, all others as C. */
export function writePoints(contours: readonly PointContour[]): string {
  return contours
    .map(({ points, isClosed }) => {
      const pieces = points.map((point, i) => {
        if (i === 0) return `M${xy(point.at)}`;
        return piece(points[i - 1]!, point);
      });
      const [first, last] = [points[0], points[points.length - 1]];
      if (isClosed && first && last) {
        if (last.after || first.before) pieces.push(piece(last, first));
        pieces.push('Z');
      }
      return pieces.join('');
    })
    .join('');
}

const controlsOf = (a: PathPoint, b: PathPoint): readonly [Vec, Vec, Vec, Vec] => [
  a.at,
  a.after ? add(a.at, a.after) : a.at,
  b.before ? add(b.at, b.before) : b.at,
  b.at,
];

function piece(a: PathPoint, b: PathPoint): string {
  if (!a.after && !b.before) return `L${xy(b.at)}`;
  const [, c1, c2, end] = controlsOf(a, b);
  return `C${xy(c1)} ${xy(c2)} ${xy(end)}`;
}

const changed = (
  contours: readonly PointContour[],
  index: number,
  change: (contour: PointContour) => PointContour | null,
): PointContour[] =>
  contours.flatMap((contour, i) => {
    if (i !== index) return [contour];
    const next = change(contour);
    return next ? [next] : [];
  });

const withPoint = (contours: readonly PointContour[], ref: PointRef, change: (point: PathPoint) => PathPoint) =>
  changed(contours, ref.contour, (contour) => ({
    ...contour,
    points: contour.points.map((point, i) => (i === ref.point ? change(point) : point)),
  }));

/** The contours with a point elsewhere; its handles go with it. */
export const movedPoint = (contours: readonly PointContour[], ref: PointRef, to: Vec): PointContour[] =>
  withPoint(contours, ref, (point) => ({ ...point, at: to }));

/**
 * The contours with a handle elsewhere.
 * @param keeps - `line`: the other handle stays in line with it and keeps its length; `nothing`: it stays where it is.
 */
export function movedHandle(
  contours: readonly PointContour[],
  ref: PointRef,
  side: 'before' | 'after',
  way: Vec,
  keeps: 'line' | 'nothing',
): PointContour[] {
  const other = side === 'before' ? 'after' : 'before';
  return withPoint(contours, ref, (point) => {
    const next = { ...point, [side]: orNone(way) };
    const opposite = point[other];
    const length = Math.hypot(...way);
    if (keeps === 'line' && opposite && length > 1e-6)
      return { ...next, [other]: times(way, -Math.hypot(...opposite) / length) };
    return next;
  });
}

const neighbours = ({ points, isClosed }: PointContour, i: number): [PathPoint | undefined, PathPoint | undefined] => [
  points[i - 1] ?? (isClosed ? points[points.length - 1] : undefined),
  points[i + 1] ?? (isClosed ? points[0] : undefined),
];

/** Makes a corner smooth, with handles a third of the way to its neighbours, or a smooth point a corner. */
export function toggledCorner(contours: readonly PointContour[], ref: PointRef): PointContour[] {
  const contour = contours[ref.contour];
  if (!contour) return [...contours];
  return withPoint(contours, ref, (point) => {
    if (point.before || point.after) return { ...point, before: null, after: null };
    const [last, next] = neighbours(contour, ref.point);
    const along = less(next?.at ?? point.at, last?.at ?? point.at);
    const length = Math.hypot(...along);
    if (length < 1e-6) return point;
    const reach = (to: PathPoint | undefined, sign: 1 | -1): Vec | null =>
      to ? times(along, (sign * Math.hypot(...less(to.at, point.at))) / (3 * length)) : null;
    return { ...point, before: reach(last, -1), after: reach(next, 1) };
  });
}

/** The contours without a point; a contour of no more than one point is gone. */
export const removedPoint = (contours: readonly PointContour[], ref: PointRef): PointContour[] =>
  changed(contours, ref.contour, (contour) => {
    const points = contour.points.filter((_, i) => i !== ref.point);
    return points.length > 1 ? { ...contour, points } : null;
  });

/**
 * The contours with a point more, at a share of the piece that begins at a point. Nothing of the path changes: the
 * curve is cut in two after de Casteljau.
 */
export function insertedPoint(contours: readonly PointContour[], ref: PointRef, t: number): PointContour[] {
  return changed(contours, ref.contour, (contour) => {
    const { points } = contour;
    const a = points[ref.point];
    const next = (ref.point + 1) % points.length;
    const b = points[next];
    if (!a || !b || (next === 0 && !contour.isClosed)) return contour;
    const cut = { ...cutPiece(a, b, t) };
    const out = points.map((point, i) => (i === ref.point ? cut.a : i === next ? cut.b : point));
    out.splice(ref.point + 1, 0, cut.middle);
    return { ...contour, points: out };
  });
}

function cutPiece(a: PathPoint, b: PathPoint, t: number): { a: PathPoint; middle: PathPoint; b: PathPoint } {
  if (!a.after && !b.before) return { a, middle: { at: between(a.at, b.at, t), before: null, after: null }, b };
  const [p0, p1, p2, p3] = controlsOf(a, b);
  const [q0, q1, q2] = [between(p0, p1, t), between(p1, p2, t), between(p2, p3, t)];
  const [r0, r1] = [between(q0, q1, t), between(q1, q2, t)];
  const at = between(r0, r1, t);
  return {
    a: { ...a, after: orNone(less(q0, a.at)) },
    middle: { at, before: orNone(less(r0, at)), after: orNone(less(r1, at)) },
    b: { ...b, before: orNone(less(q2, b.at)) },
  };
}

const SAMPLES = 24;

/** Where a path comes nearest to a place: the piece, how far along it, and the distance. Null for an empty path. */
export function nearestOn(
  contours: readonly PointContour[],
  to: Vec,
): (PointRef & { readonly t: number; readonly distance: number }) | null {
  let best: (PointRef & { t: number; distance: number }) | null = null;
  contours.forEach(({ points, isClosed }, contour) => {
    points.forEach((a, point) => {
      const b = points[point + 1] ?? (isClosed ? points[0] : undefined);
      if (!b || points.length < 2) return;
      const c = controlsOf(a, b);
      for (let i = 1; i < SAMPLES; i++) {
        const t = i / SAMPLES;
        const distance = Math.hypot(...less(bezierPoint(c, t), to));
        if (!best || distance < best.distance) best = { contour, point, t, distance };
      }
    });
  });
  return best;
}
