import { pathBounds, transformBox } from '../scene';
import type { Box, DisplayItem, DisplayList } from '../scene';

/** Pixel rectangle, integers: left, top, right, bottom (exclusive). */
export type Rect = readonly [number, number, number, number];

/** Rectangles a frame is repainted in at most; more are merged, because every item is tested against each. */
const MAX_RECTS = 4;
/** Beyond this share of the frame a whole repaint is as quick. */
const WHOLE_FRAME_SHARE = 0.8;

/** Pixels an item can touch, with a margin for antialiasing; null if that is unknown. */
export function itemRect(item: DisplayItem, scale: number): Rect | null {
  let box: Box | null = item.box;
  if (item.kind === 'shape') {
    box = pathBounds(item.pathKey, item.path);
    if (!box) return item.path === '' ? [0, 0, 0, 0] : null;
    const pad = item.stroke ? item.stroke.width * (item.stroke.behind ? 1 : 0.5) : 0;
    box = [box[0] - pad, box[1] - pad, box[2] + pad, box[3] + pad];
  }
  const [l, t, r, b] = transformBox(item.matrix, box);
  return [Math.floor(l * scale) - 1, Math.floor(t * scale) - 1, Math.ceil(r * scale) + 1, Math.ceil(b * scale) + 1];
}

const overlap = (a: Rect, b: Rect): boolean => a[0] < b[2] && b[0] < a[2] && a[1] < b[3] && b[1] < a[3];
const union = (a: Rect, b: Rect): Rect => [Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.max(a[2], b[2]), Math.max(a[3], b[3])];
const area = (r: Rect): number => Math.max(0, r[2] - r[0]) * Math.max(0, r[3] - r[1]);

export const touchesAny = (rect: Rect | null, rects: readonly Rect[]): boolean => rect === null || rects.some((other) => overlap(rect, other));

function addRect(rects: Rect[], rect: Rect): void {
  let grown = rect;
  for (let i = 0; i < rects.length; ) {
    if (overlap(rects[i]!, grown)) {
      grown = union(rects[i]!, grown);
      rects.splice(i, 1);
      i = 0;
    } else i++;
  }
  rects.push(grown);
  while (rects.length > MAX_RECTS) {
    // Merge the pair whose union wastes least.
    let best: [number, number, number] = [0, 1, Infinity];
    for (let i = 0; i < rects.length; i++) for (let j = i + 1; j < rects.length; j++) {
      const waste = area(union(rects[i]!, rects[j]!)) - area(rects[i]!) - area(rects[j]!);
      if (waste < best[2]) best = [i, j, waste];
    }
    const [second] = rects.splice(best[1], 1);
    const [first] = rects.splice(best[0], 1);
    addRect(rects, union(first!, second!)); // both indices are within the list
  }
}

/**
 * Where two frames differ: rectangles that hold every changed, new or vanished item, disjoint and cut to the frame. An empty
 * list means equal frames; null means repaint all (other size or background, changed order, unknown extent, large change).
 */
export function damageBetween(before: DisplayList, after: DisplayList, scale: number): Rect[] | null {
  if (before.width !== after.width || before.height !== after.height || before.background !== after.background) return null;
  const width = Math.round(after.width * scale);
  const height = Math.round(after.height * scale);
  const old = new Map(before.items.map((item, i) => [item.layerId, { item, i }]));
  const rects: Rect[] = [];
  let lastIndex = -1;
  const add = (item: DisplayItem): boolean => {
    const rect = itemRect(item, scale);
    if (!rect) return false;
    const cut: Rect = [Math.max(0, rect[0]), Math.max(0, rect[1]), Math.min(width, rect[2]), Math.min(height, rect[3])];
    if (cut[0] < cut[2] && cut[1] < cut[3]) addRect(rects, cut);
    return true;
  };
  for (const item of after.items) {
    const match = old.get(item.layerId);
    if (match) {
      if (match.i < lastIndex) return null;
      lastIndex = match.i;
      old.delete(item.layerId);
      if (match.item.fingerprint === item.fingerprint) continue;
      if (!add(match.item)) return null;
    }
    if (!add(item)) return null;
  }
  for (const { item } of old.values()) if (!add(item)) return null;
  return rects.reduce((sum, r) => sum + area(r), 0) > WHOLE_FRAME_SHARE * width * height ? null : rects;
}
