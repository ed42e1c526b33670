/** Outlines of the basic shapes as cubic Béziers, centred on the origin. */

/** Control distance of a quarter circle, 4/3·(√2 − 1): off the circle by at most 0.03 % of the radius. */
const KAPPA = 0.5522847498307936;
const n = (value: number): string => String(Math.round(value * 1000) / 1000);

export function ellipsePath(width: number, height: number): string {
  const [rx, ry] = [width / 2, height / 2];
  const [kx, ky] = [rx * KAPPA, ry * KAPPA];
  return `M${n(rx)} 0C${n(rx)} ${n(ky)} ${n(kx)} ${n(ry)} 0 ${n(ry)}C${n(-kx)} ${n(ry)} ${n(-rx)} ${n(ky)} ${n(-rx)} 0C${n(-rx)} ${n(-ky)} ${n(-kx)} ${n(-ry)} 0 ${n(-ry)}C${n(kx)} ${n(-ry)} ${n(rx)} ${n(-ky)} ${n(rx)} 0Z`;
}

/** @param radius - cut to half the shorter side. */
export function roundedRectanglePath(width: number, height: number, radius: number): string {
  const [x, y] = [width / 2, height / 2];
  const r = Math.max(0, Math.min(radius, x, y));
  if (r === 0) return `M${n(-x)} ${n(-y)}L${n(x)} ${n(-y)}L${n(x)} ${n(y)}L${n(-x)} ${n(y)}Z`;
  const k = r * (1 - KAPPA);
  return (
    `M${n(-x + r)} ${n(-y)}L${n(x - r)} ${n(-y)}C${n(x - k)} ${n(-y)} ${n(x)} ${n(-y + k)} ${n(x)} ${n(-y + r)}` +
    `L${n(x)} ${n(y - r)}C${n(x)} ${n(y - k)} ${n(x - k)} ${n(y)} ${n(x - r)} ${n(y)}` +
    `L${n(-x + r)} ${n(y)}C${n(-x + k)} ${n(y)} ${n(-x)} ${n(y - k)} ${n(-x)} ${n(y - r)}` +
    `L${n(-x)} ${n(-y + r)}C${n(-x)} ${n(-y + k)} ${n(-x + k)} ${n(-y)} ${n(-x + r)} ${n(-y)}Z`
  );
}
