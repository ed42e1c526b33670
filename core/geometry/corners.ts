import { numberText as n } from './number-text';

/** Corners of polygons, made round. */

type Point = readonly [number, number];

/** Corners that turn by less are left as they are, radians. */
const STRAIGHT = 1e-3;

/**
 * A closed polygon whose corners are arcs of a radius, as cubic Béziers (control distance 4/3·tan(φ/4), Goldapp 1991). On a
 * side too short for two arcs both shrink.
 * @param radius - of each corner, or of all.
 */
export function roundedPolygon(points: readonly Point[], radius: number | readonly number[]): string {
  const count = points.length;
  const at = (i: number): Point => points[(i + count) % count]!; // within the list
  const radiusOf = (i: number): number => (typeof radius === 'number' ? radius : (radius[(i + count) % count] ?? 0));
  let out = '';
  points.forEach((corner, i) => {
    const [before, after] = [at(i - 1), at(i + 1)];
    const [ax, ay] = [before[0] - corner[0], before[1] - corner[1]];
    const [bx, by] = [after[0] - corner[0], after[1] - corner[1]];
    const [a, b] = [Math.hypot(ax, ay), Math.hypot(bx, by)];
    const inner = Math.acos(Math.max(-1, Math.min(1, (ax * bx + ay * by) / Math.max(1e-9, a * b))));
    const start = i === 0 ? 'M' : 'L';
    const wanted = radiusOf(i);
    if (wanted <= 0 || a < 1e-9 || b < 1e-9 || inner < STRAIGHT || Math.PI - inner < STRAIGHT) {
      out += `${start}${n(corner[0])} ${n(corner[1])}`;
      return;
    }
    const cut = Math.min(wanted / Math.tan(inner / 2), a / 2, b / 2);
    const r = cut * Math.tan(inner / 2);
    const handle = (4 / 3) * Math.tan((Math.PI - inner) / 4) * r;
    const on = (dx: number, dy: number, length: number, along: number): Point => [
      corner[0] + (dx / length) * along,
      corner[1] + (dy / length) * along,
    ];
    const [from, to] = [on(ax, ay, a, cut), on(bx, by, b, cut)];
    const [c1, c2] = [on(ax, ay, a, cut - handle), on(bx, by, b, cut - handle)];
    out += `${start}${n(from[0])} ${n(from[1])}C${[c1, c2, to].map((p) => `${n(p[0])} ${n(p[1])}`).join(' ')}`;
  });
  return `${out}Z`;
}
