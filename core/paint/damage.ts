import { pathBounds, transformBox } from '../geometry';
import type { Box } from '../geometry';
import type { DisplayItem, DisplayList } from '../scene';

/** Pixel rectangle, integers: left, top, right, bottom (exclusive). */
export type Rect = readonly [number, number, number, number];

/** Rectangles a frame is repainted in at most; more are merged, because every item is tested against each. */
const MAX_RECTS = 4;
/** Beyond this share of the frame a whole repaint is as quick. */
const WHOLE_FRAME_SHARE = 0.8;

/** Beyond this many standard deviations a Gaussian changes no 8-bit pixel. */
export const BLUR_REACH = 3;

/** Pixels an item can touch, with a margin for antialiasing; null if that is unknown. */
export function itemRect(item: DisplayItem, scale: number): Rect | null {
  const box = blurredBox(item);
  return (
    box && [
      Math.floor(box[0] * scale) - 1,
      Math.floor(box[1] * scale) - 1,
      Math.ceil(box[2] * scale) + 1,
      Math.ceil(box[3] * scale) + 1,
    ]
  );
}

const NOTHING: Box = [0, 0, 0, 0];
const isNothing = (box: Box): boolean => box[0] >= box[2] && box[1] >= box[3];

/** Extent of several boxes; null if one is unknown. */
function extent(boxes: readonly (Box | null)[]): Box | null {
  let all: Box | null = null;
  for (const box of boxes) {
    if (!box) return null;
    if (isNothing(box)) continue;
    all = all
      ? [Math.min(all[0], box[0]), Math.min(all[1], box[1]), Math.max(all[2], box[2]), Math.max(all[3], box[3])]
      : box;
  }
  return all ?? NOTHING;
}

/** Extent in pixels of the format, with what the item's own blur adds. */
function blurredBox(item: DisplayItem): Box | null {
  const box = formatRect(item);
  const by = BLUR_REACH * (item.blur ?? 0);
  return box && !isNothing(box) && by > 0 ? [box[0] - by, box[1] - by, box[2] + by, box[3] + by] : box;
}

/** Extent in pixels of the format, without the item's own blur. */
function formatRect(item: DisplayItem): Box | null {
  switch (item.kind) {
    case 'picture':
      return transformBox(item.matrix, item.box);
    case 'shape': {
      const box = pathBounds(item.pathKey, item.path);
      if (!box) return item.path === '' ? NOTHING : null;
      const width = Math.max(item.stroke?.width ?? 0, ...(item.outlines ?? []).map((o) => o.width));
      const pad = item.stroke?.behind || item.outlines ? width : width * 0.5;
      return transformBox(item.matrix, [box[0] - pad, box[1] - pad, box[2] + pad, box[3] + pad]);
    }
    case 'group': {
      const box = extent(item.children.map(blurredBox));
      if (!box || isNothing(box)) return box;
      return extent([
        box,
        ...item.under.map((u): Box => {
          const blur = u.type === 'shadow' ? BLUR_REACH * u.blur : 1;
          return [
            box[0] + Math.min(0, u.x) - blur,
            box[1] + Math.min(0, u.y) - blur,
            box[2] + Math.max(0, u.x) + blur,
            box[3] + Math.max(0, u.y) + blur,
          ];
        }),
      ]);
    }
    case 'smear':
      return extent(item.samples.map(blurredBox));
    case 'trail':
      return extent(item.copies.map(blurredBox));
  }
}

const overlap = (a: Rect, b: Rect): boolean => a[0] < b[2] && b[0] < a[2] && a[1] < b[3] && b[1] < a[3];
export const union = (a: Rect, b: Rect): Rect => [
  Math.min(a[0], b[0]),
  Math.min(a[1], b[1]),
  Math.max(a[2], b[2]),
  Math.max(a[3], b[3]),
];
const area = (r: Rect): number => Math.max(0, r[2] - r[0]) * Math.max(0, r[3] - r[1]);

export const touchesAny = (rect: Rect | null, rects: readonly Rect[]): boolean =>
  rect === null || rects.some((other) => overlap(rect, other));

function addRect(rects: Rect[], rect: Rect): void {
  let grown = rect;
  for (let i = 0; i < rects.length;) {
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
    for (let i = 0; i < rects.length; i++)
      for (let j = i + 1; j < rects.length; j++) {
        const waste = area(union(rects[i]!, rects[j]!)) - area(rects[i]!) - area(rects[j]!);
        if (waste < best[2]) best = [i, j, waste];
      }
    const [second] = rects.splice(best[1], 1);
    const [first] = rects.splice(best[0], 1);
    addRect(rects, union(first!, second!)); // both indices are within the list
  }
}

/**
 * Where two frames differ: rectangles that hold every changed, new or vanished item, disjoint and cut to the frame. An
 * empty list means equal frames; null means repaint all (other size or background, changed order, unknown extent, large
 * change).
 */
export function damageBetween(before: DisplayList, after: DisplayList, scale: number): Rect[] | null {
  if (before.width !== after.width || before.height !== after.height || before.background !== after.background)
    return null;
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
