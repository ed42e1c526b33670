import type { Matrix } from '../geometry';

/** A matrix as Lottie has it: turned, leant (along x) and scaled, in degrees and shares. The move is left aside. */
export interface Transform {
  readonly scale: readonly [number, number];
  readonly rotation: number;
  readonly skew: number;
}

const degrees = (radians: number): number => (radians * 180) / Math.PI;

/** The whole turns that bring an angle nearest to another. */
const near = (angle: number, to: number): number => angle + 360 * Math.round((to - angle) / 360);

/**
 * QR decomposition of the linear part: rotation · lean · scale.
 * @param before - of the frame before; of the two that are the same matrix the nearer one is given.
 */
export function transformOf([a, b, c, d]: Matrix, before: Transform | null): Transform {
  const sx = Math.hypot(a, b);
  if (sx < 1e-9)
    return { scale: [0, Math.hypot(c, d)], rotation: near(degrees(Math.atan2(-c, d)), before?.rotation ?? 0), skew: 0 };
  const sy = (a * d - b * c) / sx;
  const lean = (a * c + b * d) / sx;
  const skew = Math.abs(sy) < 1e-9 ? 0 : -degrees(Math.atan(lean / sy));
  const turn = degrees(Math.atan2(b, a));
  const to = before?.rotation ?? 0;
  const rotation = near(turn, to);
  // A half turn with both scales the other way round is the same.
  const other = near(turn + 180, to);
  return before && Math.abs(other - to) < Math.abs(rotation - to) - 1e-6
    ? { scale: [-sx, -sy], rotation: other, skew }
    : { scale: [sx, sy], rotation, skew };
}
