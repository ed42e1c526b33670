import { createMemo } from '../time';
import { flattenPath, lengthOf } from './path-flatten';

const remembered = createMemo<number>(2000);

/**
 * Length of the longest contour of SVG path data (absolute M, L, Q, C, Z), in its own units: what a dash must span so
 * that every contour is drawn at the same speed and all are whole at the end.
 */
export function longestContour(key: string, d: string): number {
  return remembered(key, () => flattenPath(d).reduce((longest, contour) => Math.max(longest, lengthOf(contour)), 0));
}
