import { createMemo } from '../time';
import { flattenPath, lengthOf, placeAlong } from './path-flatten';
import type { Contour } from './path-flatten';

/**
 * A path on its way to another, whatever their numbers of points and contours. Points that lie at the same share of their
 * contour's length belong together (as T. W. Sederberg and E. Greenwood, "A physically based approach to 2-D shape
 * blending", SIGGRAPH 1992, set out from; theirs weighs bending and stretching, which this leaves out), with the rotation
 * and the direction of a closed contour for which the squares of their ways are least. The corners of both paths are kept,
 * so that at either end the path is the very one that was drawn, in chords. A contour that the other path has none for
 * grows out of the middle of the one it lies nearest to.
 */

interface Pair {
  /** x, y, x, y … of both at the same places; as many numbers. */
  readonly from: Float64Array;
  readonly to: Float64Array;
  readonly isClosed: boolean;
}

const CHORDS = 10;
/** Rotations of a closed contour that are tried, and places at which each is judged. */
const ROTATIONS = 64;
const PLACES = 64;
/** Corners nearer to one another than this share of the length are one. */
const SAME = 1e-6;

type Vec = readonly [number, number];

/** The point at a share of a contour's length. */
function pointAt(contour: Contour, share: number): Vec {
  const { x, y } = placeAlong(contour, share * lengthOf(contour));
  return [x, y];
}

const sharesOf = (contour: Contour): number[] => {
  const whole = lengthOf(contour) || 1;
  return Array.from(contour.lengths, (length) => length / whole);
};

function middleOf({ points }: Contour): Vec {
  let [x, y] = [0, 0];
  for (let i = 0; i < points.length; i += 2) [x, y] = [x + points[i]!, y + points[i + 1]!];
  return [(2 * x) / points.length, (2 * y) / points.length];
}

const around = (share: number): number => share - Math.floor(share);

/** How the shares of one contour lie on those of another. */
interface Match {
  readonly start: number;
  readonly direction: 1 | -1;
}

/** Places of a contour, evenly along it, about its own middle. */
function evenly(contour: Contour): Vec[] {
  const [mx, my] = middleOf(contour);
  return Array.from({ length: PLACES }, (_, i) => {
    const [x, y] = pointAt(contour, i / PLACES);
    return [x - mx, y - my];
  });
}

/** The rotation and direction in which a closed contour lies nearest to another, their middles laid together. */
function bestMatch(a: Contour, b: Contour): Match {
  if (!a.isClosed || !b.isClosed) return { start: 0, direction: 1 };
  const [p, q] = [evenly(a), evenly(b)];
  let best: Match & { cost: number } = { start: 0, direction: 1, cost: Infinity };
  for (const direction of [1, -1] as const)
    for (let turn = 0; turn < ROTATIONS; turn++) {
      const start = turn / ROTATIONS;
      let cost = 0;
      for (let i = 0; i < PLACES; i++) {
        const k = Math.round(around(start + (direction * i) / PLACES) * PLACES) % PLACES;
        cost += (p[i]![0] - q[k]![0]) ** 2 + (p[i]![1] - q[k]![1]) ** 2;
      }
      // The drawn direction is kept unless the other is better.
      if (cost < best.cost - 1e-9) best = { start, direction, cost };
    }
  return best;
}

function pairOf(a: Contour, b: Contour): Pair {
  const { start, direction } = bestMatch(a, b);
  const isClosed = a.isClosed && b.isClosed;
  const onB = (share: number): number => (isClosed ? around(start + direction * share) : share);
  // Corners of the other, as shares of this one.
  const corners = sharesOf(b).map((share) => (isClosed ? around(direction * (share - start)) : share));
  const all = [...sharesOf(a), ...corners].sort((x, y) => x - y);
  const shares = all.filter((share, i) => i === 0 || share - all[i - 1]! > SAME);
  const [from, to] = [new Float64Array(2 * shares.length), new Float64Array(2 * shares.length)];
  shares.forEach((share, i) => {
    from.set(pointAt(a, share), 2 * i);
    to.set(pointAt(b, onB(share)), 2 * i);
  });
  return { from, to, isClosed };
}

/** A contour that is all in one place. */
const collapsed = (contour: Contour, [x, y]: Vec): Contour => ({
  ...contour,
  points: contour.points.map((_, i) => (i % 2 === 0 ? x : y)),
});

const distance = (a: Vec, b: Vec): number => Math.hypot(a[0] - b[0], a[1] - b[1]);
const nearestMiddle = (contour: Contour, among: readonly Contour[]): Vec => {
  const own = middleOf(contour);
  return among
    .map(middleOf)
    .reduce<Vec>((best, m) => (distance(m, own) < distance(best, own) ? m : best), middleOf(among[0] ?? contour));
};

/** The longest contours belong together; what is left over on either side has no partner. */
function pairs(from: string, to: string): readonly Pair[] {
  const byLength = (d: string) => flattenPath(d, CHORDS).sort((x, y) => lengthOf(y) - lengthOf(x));
  const [a, b] = [byLength(from), byLength(to)];
  const count = Math.max(a.length, b.length);
  return Array.from({ length: count }, (_, i): Pair => {
    const [own, other] = [a[i], b[i]];
    if (own && other) return pairOf(own, other);
    const lonely = (own ?? other)!; // one of them is longer
    const gone = collapsed(lonely, nearestMiddle(lonely, own ? b : a));
    const whole: Pair = { from: lonely.points, to: gone.points, isClosed: lonely.isClosed };
    return own ? whole : { ...whole, from: whole.to, to: whole.from };
  });
}

const remembered = createMemo<readonly Pair[]>(200);
const n = (value: number): string => String(Math.round(value * 100) / 100);

/** SVG path data between two paths (absolute M, L, Q, C, Z). @param t - 0 is the first, 1 the second. */
export function morphedPath(from: string, to: string, t: number): string {
  if (t <= 0) return from;
  if (t >= 1) return to;
  return remembered(`${from}\n${to}`, () => pairs(from, to))
    .map(({ from: p, to: q, isClosed }) => {
      let out = '';
      for (let i = 0; i < p.length; i += 2)
        out += `${i === 0 ? 'M' : 'L'}${n(p[i]! + (q[i]! - p[i]!) * t)} ${n(p[i + 1]! + (q[i + 1]! - p[i + 1]!) * t)}`;
      return out + (isClosed ? 'Z' : '');
    })
    .join('');
}
