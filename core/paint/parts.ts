import type { DisplayItem } from '../scene';
import { isMostOf, itemRect } from './damage';
import type { PaintHost, Surface } from './draw-target';
import { itemParts } from './item-kinds';
import { addRect, area, touchesAny } from './rects';
import type { Rect } from './rects';

/** Parts of a frame that changed, each on a surface of its own. */

export interface PaintedPart {
  /** Its left top corner is that of the rectangle; what lies beyond the rectangle means nothing. */
  readonly surface: Surface;
  /** Pixels of the scaled frame. Sides lie on multiples of {@link PART_GRID}, or on the frame's own. */
  readonly rect: Rect;
}

/** Wide enough for what goes by blocks of pixels (halved colours, dither) to come out as it would in the whole frame. */
export const PART_GRID = 8;

/** Whether what of it is in view decides how it looks at other places: what is done to the pixels of a group as a whole. */
const dependsOnView = (item: DisplayItem): boolean =>
  (item.kind === 'group' && Boolean(item.effects ?? item.masks ?? item.matte)) || itemParts(item).some(dependsOnView);

const isWithin = ([l, t, r, b]: Rect, others: readonly Rect[]): boolean =>
  others.some((other) => other[0] <= l && other[1] <= t && other[2] >= r && other[3] >= b);

/**
 * The rectangles to paint: what changed, widened to the grid, and to all of what must be in view as a whole; disjoint.
 * @param items - what is painted.
 * @returns null for all of the frame.
 */
export function partsOf(
  damage: readonly Rect[],
  items: readonly DisplayItem[],
  scale: number,
  width: number,
  height: number,
): Rect[] | null {
  const down = (at: number): number => Math.max(0, PART_GRID * Math.floor(at / PART_GRID));
  const up = (at: number, most: number): number => Math.min(most, PART_GRID * Math.ceil(at / PART_GRID));
  const widened = ([l, t, r, b]: Rect): Rect => [down(l), down(t), up(r, width), up(b, height)];
  const parts: Rect[] = [];
  for (const rect of damage) addRect(parts, widened(rect));
  const wholes: Rect[] = [];
  for (const item of items.filter(dependsOnView)) {
    const rect = itemRect(item, scale);
    if (!rect) return null;
    wholes.push(widened(rect));
  }
  // Each that is taken in may reach another.
  const isCut = (rect: Rect): boolean => touchesAny(rect, parts) && !isWithin(rect, parts);
  for (let next = wholes.find(isCut); next; next = wholes.find(isCut)) addRect(parts, next);
  return isMostOf(parts, width, height) ? null : parts;
}

export interface PartSurfaces {
  /** A surface for each rectangle, at least as large; those of earlier calls are used again. */
  take(rects: readonly Rect[], width: number, height: number): PaintedPart[];
}

/** Surfaces that are kept. */
const KEPT = 8;
/** A surface so many times as large as the part would cost more than a new one saves. */
const MOST_SLACK = 1.6;
/** Sides of new surfaces are multiples of this, so that a part that grows a little fits still. */
const SIDE_STEP = 64;

/** @param host - makes the surfaces. */
export function createPartSurfaces(host: PaintHost): PartSurfaces {
  /** The one that was used last is the last one. */
  let kept: Surface[] = [];
  const areaOf = (surface: Surface): number => surface.width * surface.height;
  const fits = (surface: Surface, rect: Rect): boolean =>
    surface.width >= rect[2] - rect[0] &&
    surface.height >= rect[3] - rect[1] &&
    areaOf(surface) <= MOST_SLACK * Math.max(SIDE_STEP ** 2, area(rect));
  return {
    take(rects, width, height) {
      const taken = rects.map((rect): PaintedPart => {
        const side = (length: number, most: number): number =>
          Math.min(most, SIDE_STEP * Math.ceil(length / SIDE_STEP));
        const fitting = kept.filter((surface) => fits(surface, rect)).sort((a, b) => areaOf(a) - areaOf(b))[0];
        const surface = fitting ?? host.createSurface(side(rect[2] - rect[0], width), side(rect[3] - rect[1], height));
        kept = kept.filter((other) => other !== surface);
        return { surface, rect };
      });
      kept = [...kept, ...taken.map(({ surface }) => surface)].slice(-KEPT);
      return taken;
    },
  };
}
