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

export interface Guide {
  readonly axis: 'x' | 'y';
  readonly at: number;
}

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

/**
 * Snaps a moved box to lines: its edges and middle against each line within the radius, the nearest per axis.
 * @returns The correction to add, and the lines that were met.
 */
export function snapBox(
  box: Bounds,
  lines: { x: readonly number[]; y: readonly number[] },
  radius: number,
): { dx: number; dy: number; guides: Guide[] } {
  const best = (own: readonly number[], targets: readonly number[]) => {
    let found: { by: number; at: number } | null = null;
    for (const target of targets)
      for (const edge of own) {
        const by = target - edge;
        if (Math.abs(by) <= radius && (!found || Math.abs(by) < Math.abs(found.by))) found = { by, at: target };
      }
    return found;
  };
  const x = best([box.left, (box.left + box.right) / 2, box.right], lines.x);
  const y = best([box.top, (box.top + box.bottom) / 2, box.bottom], lines.y);
  return {
    dx: x?.by ?? 0,
    dy: y?.by ?? 0,
    guides: [...(x ? [{ axis: 'x', at: x.at } as const] : []), ...(y ? [{ axis: 'y', at: y.at } as const] : [])],
  };
}
