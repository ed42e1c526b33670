import { createMemo } from '../time';
import type { Box } from './matrix';

const remembered = createMemo<Box | null>(5000);

/**
 * Box around all points of SVG path data, control points included (a curve lies within their hull). Null if the data
 * uses other commands than absolute M, L, Q, C and Z, or has no points: its extent is then unknown.
 */
export function pathBounds(key: string, d: string): Box | null {
  return remembered(key, () => measure(d));
}

function measure(d: string): Box | null {
  if (/[^MLQCZz\d\s.,eE+-]/.test(d)) return null;
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  let isX = true;
  for (const token of d.match(/-?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?/g) ?? []) {
    const value = Number(token);
    if (isX) {
      left = Math.min(left, value);
      right = Math.max(right, value);
    } else {
      top = Math.min(top, value);
      bottom = Math.max(bottom, value);
    }
    isX = !isX;
  }
  return isX && left <= right ? [left, top, right, bottom] : null;
}
