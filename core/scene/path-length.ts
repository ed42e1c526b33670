import { flattenPath, lengthOf } from './path-flatten';

const cache = new Map<string, number>();
const CACHE_LIMIT = 2000;

/**
 * Length of the longest contour of SVG path data (absolute M, L, Q, C, Z), in its own units: what a dash must span so that every
 * contour is drawn at the same speed and all are whole at the end.
 */
export function longestContour(key: string, d: string): number {
  const known = cache.get(key);
  if (known !== undefined) return known;
  const length = flattenPath(d).reduce((longest, contour) => Math.max(longest, lengthOf(contour)), 0);
  if (cache.size >= CACHE_LIMIT) cache.clear();
  cache.set(key, length);
  return length;
}
