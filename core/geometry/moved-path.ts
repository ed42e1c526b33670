import { applyMatrix } from './matrix';
import type { Matrix } from './matrix';

const PAIR = /(-?[\d.]+(?:[eE][+-]?\d+)?)[\s,]+(-?[\d.]+(?:[eE][+-]?\d+)?)/g;

/** Path data (absolute M, L, Q, C, Z) in the coordinates that a matrix leads to. */
export const movedPath = (d: string, matrix: Matrix): string =>
  d.replace(PAIR, (_, x: string, y: string) => applyMatrix(matrix, Number(x), Number(y)).join(' '));
