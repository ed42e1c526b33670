/** Affine matrix in the order of Canvas2D's setTransform: x' = a·x + c·y + e, y' = b·x + d·y + f. */
export type Matrix = readonly [number, number, number, number, number, number];

export const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];

/** First `n`, then `m`. */
export function multiply(m: Matrix, n: Matrix): Matrix {
  return [
    m[0] * n[0] + m[2] * n[1],
    m[1] * n[0] + m[3] * n[1],
    m[0] * n[2] + m[2] * n[3],
    m[1] * n[2] + m[3] * n[3],
    m[0] * n[4] + m[2] * n[5] + m[4],
    m[1] * n[4] + m[3] * n[5] + m[5],
  ];
}

export function applyMatrix(m: Matrix, x: number, y: number): [number, number] {
  return [m[0] * x + m[2] * y + m[4], m[1] * x + m[3] * y + m[5]];
}

/** Whether a matrix makes a line or a point of the plane, so that nothing leads back. */
export const isFlat = ([a, b, c, d]: Matrix): boolean => Math.abs(a * d - b * c) < 1e-9;

/** @throws RangeError if the matrix flattens the plane. */
export function invert(m: Matrix): Matrix {
  const det = m[0] * m[3] - m[1] * m[2];
  if (Math.abs(det) < 1e-12) throw new RangeError('the matrix has no inverse');
  return [
    m[3] / det,
    -m[1] / det,
    -m[2] / det,
    m[0] / det,
    (m[2] * m[5] - m[3] * m[4]) / det,
    (m[1] * m[4] - m[0] * m[5]) / det,
  ];
}

/** How much larger a matrix draws, as a mean of both directions. */
export const scaleOf = (m: Matrix): number => Math.sqrt(Math.abs(m[0] * m[3] - m[1] * m[2]));

export type Box = readonly [left: number, top: number, right: number, bottom: number];

/** Axis-parallel box around a transformed box. */
export function transformBox(m: Matrix, [l, t, r, b]: Box): Box {
  const points = [applyMatrix(m, l, t), applyMatrix(m, r, t), applyMatrix(m, r, b), applyMatrix(m, l, b)];
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
}

/** The four corners of a transformed box, clockwise from the top left. */
export function boxCorners(m: Matrix, [l, t, r, b]: Box): [number, number][] {
  return [applyMatrix(m, l, t), applyMatrix(m, r, t), applyMatrix(m, r, b), applyMatrix(m, l, b)];
}

/** The smallest box that holds all; null if there is none. */
export const unionBoxes = (boxes: readonly (Box | null)[]): Box | null =>
  boxes.reduce((all, box) => (all && box ? unionBox(all, box) : (all ?? box)), null);

/** Of the longer side: what is out by less is as good as straight. */
const EVEN = 1e-4;

/** Whether a matrix keeps shapes, so that circles stay circles, and whether it mirrors them. */
export function likeness([a, b, c, d]: Matrix): 'same' | 'mirrored' | 'other' {
  const size = Math.hypot(a, b) + Math.hypot(c, d);
  if (Math.abs(a - d) + Math.abs(b + c) <= EVEN * size) return 'same';
  return Math.abs(a + d) + Math.abs(b - c) <= EVEN * size ? 'mirrored' : 'other';
}

/** The smallest box that holds two. */
export const unionBox = (a: Box, b: Box): Box => [
  Math.min(a[0], b[0]),
  Math.min(a[1], b[1]),
  Math.max(a[2], b[2]),
  Math.max(a[3], b[3]),
];
