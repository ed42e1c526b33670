import type { Matrix } from '@core/geometry';

/** Geometry of the handles, in pixels of the format. */
export type Point = readonly [number, number];

/** Whether a point lies in a convex polygon given clockwise or anticlockwise. */
export function isInside(corners: readonly Point[], [x, y]: Point): boolean {
  let sign = 0;
  for (let i = 0; i < corners.length; i++) {
    const a = corners[i]!;
    const b = corners[(i + 1) % corners.length]!;
    const cross = (b[0] - a[0]) * (y - a[1]) - (b[1] - a[1]) * (x - a[0]);
    if (cross !== 0) {
      if (sign !== 0 && Math.sign(cross) !== sign) return false;
      sign = Math.sign(cross);
    }
  }
  return true;
}

/** The middle of a box given by its four corners. */
export const middleOf = (corners: readonly Point[]): Point => [
  corners.reduce((s, c) => s + c[0], 0) / corners.length,
  corners.reduce((s, c) => s + c[1], 0) / corners.length,
];

export interface Bounds {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

export function boundsOf(corners: readonly Point[]): Bounds {
  const xs = corners.map((c) => c[0]);
  const ys = corners.map((c) => c[1]);
  return { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
}

/** The box about some boxes; null about none. */
export function boundsOfAll(boxes: readonly Bounds[]): Bounds | null {
  if (boxes.length === 0) return null;
  return {
    left: Math.min(...boxes.map((b) => b.left)),
    top: Math.min(...boxes.map((b) => b.top)),
    right: Math.max(...boxes.map((b) => b.right)),
    bottom: Math.max(...boxes.map((b) => b.bottom)),
  };
}

/** Whether two boxes have more than an edge in common. */
export const overlap = (a: Bounds, b: Bounds): boolean =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

/** From shares of a box to the pixels in which its corners are given, clockwise from the left top. */
export function boxMatrix(corners: readonly Point[]): Matrix {
  const [a, b, , c] = corners as readonly [Point, Point, Point, Point]; // a box has four
  return [b[0] - a[0], b[1] - a[1], c[0] - a[0], c[1] - a[1], a[0], a[1]];
}
