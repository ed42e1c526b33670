import type { Box } from './matrix';

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
