import svgpath from 'svgpath';
import type { Box, Matrix } from '../geometry';

/** Path data of SVG as the painter takes it: absolute M, L, Q, C and Z. */

/** Longest path data of one shape, UTF-16 units: what a document's layer may hold, and some room for what is put in. */
const MAX_DATA = 150_000;
const PLACES = 1000;
/** What lies farther out is put here, pixels: no frame reaches it, and a layer's box may be twice as wide. */
const FARTHEST = 40_000;
const n = (value: number): string =>
  String(Math.round(Math.max(-FARTHEST, Math.min(FARTHEST, value)) * PLACES) / PLACES);

/** Moves path data by a matrix; null for what is longer than a shape may be or draws nothing. */
export function plainPath(d: string, matrix: Matrix): string | null {
  if (d.length > MAX_DATA) return null;
  // Up to the first mistake it counts (SVG 2, section 9.5.4).
  let path = svgpath(d);
  const { err } = path as unknown as { err: string };
  const mistake = /at pos (\d+)/.exec(err);
  if (mistake) path = svgpath(upTo(d, Number(mistake[1])));
  let out = '';
  path
    .abs()
    .unshort()
    .unarc()
    .abs()
    .matrix([...matrix])
    .iterate((segment, _, x, y) => {
      const [command, ...values] = segment as [string, ...number[]];
      if (command === 'H') out += `L${n(values[0]!)} ${n(y)}`;
      else if (command === 'V') out += `L${n(x)} ${n(values[0]!)}`;
      else out += command + values.map(n).join(' ');
    });
  return out === '' || out.length > MAX_DATA || /NaN|Infinity/.test(out) ? null : out;
}

/** The data before the command or the set of numbers in which a mistake stands. */
function upTo(d: string, position: number): string {
  for (let end = Math.min(position, d.length); end > 0; end--) {
    const { err } = svgpath(d.slice(0, end)) as unknown as { err: string };
    if (!err) return d.slice(0, end);
    if (position - end > 200) break;
  }
  return '';
}

/**
 * The box that a path touches: where curves turn, not where their handles lie. Null for a path of no points.
 * @param d - absolute M, L, Q, C and Z.
 */
export function tightBox(d: string): Box | null {
  let [l, t, r, b] = [Infinity, Infinity, -Infinity, -Infinity];
  const take = (x: number, y: number): void => {
    [l, t, r, b] = [Math.min(l, x), Math.min(t, y), Math.max(r, x), Math.max(b, y)];
  };
  let [x, y] = [0, 0];
  for (const [, command, numbers] of d.matchAll(/([MLQC])([^A-Za-z]*)/g)) {
    const v = (numbers!.match(/-?[\d.]+(?:e-?\d+)?/g) ?? []).map(Number); // a group that is always there
    const size = command === 'C' ? 6 : command === 'Q' ? 4 : 2;
    for (let i = 0; i + size <= v.length; i += size) {
      const [ex, ey] = [v[i + size - 2]!, v[i + size - 1]!];
      take(ex, ey);
      if (size > 2) {
        const c = v.slice(i, i + size);
        const xs = [x, ...c.filter((_, k) => k % 2 === 0)];
        const ys = [y, ...c.filter((_, k) => k % 2 === 1)];
        for (const turn of turns(xs)) take(bezier(xs, turn), y);
        for (const turn of turns(ys)) take(x, bezier(ys, turn));
      }
      [x, y] = [ex, ey];
    }
  }
  return l <= r ? [l, t, r, b] : null;
}

const bezier = (p: readonly number[], t: number): number => {
  let points = [...p];
  while (points.length > 1) points = points.slice(1).map((q, i) => points[i]! + (q - points[i]!) * t); // i < length
  return points[0]!;
};

/** Where in (0, 1) a Bézier of three or four values turns. */
function turns(p: readonly number[]): number[] {
  const inside = (t: number): boolean => t > 0 && t < 1;
  if (p.length === 3) return [(p[0]! - p[1]!) / (p[0]! - 2 * p[1]! + p[2]!)].filter(inside);
  const [p0, p1, p2, p3] = p as [number, number, number, number];
  const [a, b, c] = [p3 - 3 * p2 + 3 * p1 - p0, 2 * (p2 - 2 * p1 + p0), p1 - p0];
  if (Math.abs(a) < 1e-9) return [-c / b].filter(inside);
  const root = Math.sqrt(b * b - 4 * a * c);
  return [(-b + root) / (2 * a), (-b - root) / (2 * a)].filter(inside);
}
