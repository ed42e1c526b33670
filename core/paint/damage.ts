import type { DisplayItem, DisplayList, GroupItem } from '../scene';
import { itemExtent } from './item-kinds';
import { addRect, area } from './rects';
import type { Rect } from './rects';

/** Beyond this share of the frame a whole repaint is as quick. */
const WHOLE_FRAME_SHARE = 0.8;

/** Pixels an item can touch, with a margin for antialiasing; null if that is unknown. */
export function itemRect(item: DisplayItem, scale: number): Rect | null {
  const box = itemExtent(item);
  return (
    box && [
      Math.floor(box[0] * scale) - 1,
      Math.floor(box[1] * scale) - 1,
      Math.ceil(box[2] * scale) + 1,
      Math.ceil(box[3] * scale) + 1,
    ]
  );
}

/** Whether so much of the frame is to be painted that all of it is as quick. */
export const isMostOf = (rects: readonly Rect[], width: number, height: number): boolean =>
  rects.reduce((sum, rect) => sum + area(rect), 0) > WHOLE_FRAME_SHARE * width * height;

/** Whether only what is in a group changed, and shows nowhere else than where it lies. */
function isSameWhole(before: DisplayItem, after: DisplayItem): after is GroupItem {
  return (
    before.kind === 'group' &&
    after.kind === 'group' &&
    after.holds === 'layers' &&
    before.holds === 'layers' &&
    before.own === after.own &&
    !after.matte &&
    !after.masks &&
    !after.effects &&
    (before.blur ?? 0) === 0 &&
    (after.blur ?? 0) === 0
  );
}

/** Where two frames differ, collected. */
class Damage {
  readonly rects: Rect[] = [];
  constructor(
    private readonly width: number,
    private readonly height: number,
    private readonly scale: number,
  ) {}

  /** @returns False if it is unknown what the item touches. */
  private add(item: DisplayItem): boolean {
    const rect = itemRect(item, this.scale);
    if (!rect) return false;
    const cut: Rect = [
      Math.max(0, rect[0]),
      Math.max(0, rect[1]),
      Math.min(this.width, rect[2]),
      Math.min(this.height, rect[3]),
    ];
    if (cut[0] < cut[2] && cut[1] < cut[3]) addRect(this.rects, cut);
    return true;
  }

  /** @returns False if all must be repainted. */
  compare(before: readonly DisplayItem[], after: readonly DisplayItem[]): boolean {
    const old = new Map(before.map((item, i) => [item.layerId, { item, i }]));
    let lastIndex = -1;
    for (const item of after) {
      const match = old.get(item.layerId);
      if (match) {
        if (match.i < lastIndex) return false;
        lastIndex = match.i;
        old.delete(item.layerId);
        if (match.item.fingerprint === item.fingerprint) continue;
        if (isSameWhole(match.item, item)) {
          // Of the same kind, as was asked just now.
          if (!this.compare((match.item as GroupItem).children, item.children)) return false;
          continue;
        }
        if (!this.add(match.item)) return false;
      }
      if (!this.add(item)) return false;
    }
    for (const { item } of old.values()) if (!this.add(item)) return false;
    return true;
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
  const damage = new Damage(width, height, scale);
  if (!damage.compare(before.items, after.items)) return null;
  return isMostOf(damage.rects, width, height) ? null : damage.rects;
}
