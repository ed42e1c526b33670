import { numberText as n } from './number-text';

/** Outlines of the basic shapes as cubic Béziers, centred on the origin. */

/** Control distance of a quarter circle, 4/3·(√2 − 1): off the circle by at most 0.03 % of the radius. */
const KAPPA = 0.5522847498307936;

export function ellipsePath(width: number, height: number): string {
  const [rx, ry] = [width / 2, height / 2];
  const [kx, ky] = [rx * KAPPA, ry * KAPPA];
  return `M${n(rx)} 0C${n(rx)} ${n(ky)} ${n(kx)} ${n(ry)} 0 ${n(ry)}C${n(-kx)} ${n(ry)} ${n(-rx)} ${n(ky)} ${n(-rx)} 0C${n(-rx)} ${n(-ky)} ${n(-kx)} ${n(-ry)} 0 ${n(-ry)}C${n(kx)} ${n(-ry)} ${n(rx)} ${n(-ky)} ${n(rx)} 0Z`;
}

/** Radii of a rectangle's corners, clockwise from the left top. */
export type Corners = readonly [number, number, number, number];

/**
 * @param radius - of all corners or of each. Where two do not fit on a side, all shrink alike (CSS Backgrounds 3,
 * section 4.5).
 */
export function roundedRectanglePath(width: number, height: number, radius: number | Corners): string {
  const [x, y] = [width / 2, height / 2];
  const wanted: Corners = typeof radius === 'number' ? [radius, radius, radius, radius] : radius;
  if (wanted.every((r) => r <= 0)) return `M${n(-x)} ${n(-y)}L${n(x)} ${n(-y)}L${n(x)} ${n(y)}L${n(-x)} ${n(y)}Z`;
  const [p, q, r, s] = wanted;
  const sides = [
    [p + q, width],
    [q + r, height],
    [r + s, width],
    [s + p, height],
  ] as const;
  const share = Math.max(0, Math.min(1, ...sides.map(([sum, side]) => (sum > 0 ? side / sum : 1))));
  const [a, b, c, d] = wanted.map((own) => Math.max(0, own * share)) as unknown as Corners; // as many
  const k = (own: number): number => own * (1 - KAPPA);
  return (
    `M${n(-x + a)} ${n(-y)}L${n(x - b)} ${n(-y)}C${n(x - k(b))} ${n(-y)} ${n(x)} ${n(-y + k(b))} ${n(x)} ${n(-y + b)}` +
    `L${n(x)} ${n(y - c)}C${n(x)} ${n(y - k(c))} ${n(x - k(c))} ${n(y)} ${n(x - c)} ${n(y)}` +
    `L${n(-x + d)} ${n(y)}C${n(-x + k(d))} ${n(y)} ${n(-x)} ${n(y - k(d))} ${n(-x)} ${n(y - d)}` +
    `L${n(-x)} ${n(-y + a)}C${n(-x)} ${n(-y + k(a))} ${n(-x + k(a))} ${n(-y)} ${n(-x + a)} ${n(-y)}Z`
  );
}
