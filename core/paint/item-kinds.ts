import { pathBounds, transformBox, unionBox } from '../geometry';
import type { Box } from '../geometry';
import { BLEND_MODES } from '../piece';
import type { DisplayItem, GroupItem, ItemKind, ItemMask, Source, UnderEffect } from '../scene';
import { effectsReach } from './draw-effects';
import { drawGroup } from './draw-group';
import type { Drawing } from './draw-group';
import { drawLeaf } from './draw-leaf';
import { reachOfStroke } from './draw-shape';
import type { DrawContext } from './draw-target';
import { common } from './rects';
import { BLUR_REACH } from './tools';
import type { View } from './tools';

/** The same for the same picture or frame. */
export const sourceKey = ({ hash, frame }: Source): string => `${hash}/${frame ?? ''}`;

/** All that the painter knows of a kind of item. */
export interface ItemKindRow<I extends DisplayItem> {
  /** Extent in pixels of the format, without the item's own blur; null if it is unknown. */
  readonly extent: (item: I) => Box | null;
  /** How far in pixels of the format what it draws smears beyond its shapes, without the item's own blur. */
  readonly reach: (item: I) => number;
  /** The items it is made of. */
  readonly parts: (item: I) => readonly DisplayItem[];
  /** What it shows itself, its parts aside. */
  readonly needs: (item: I) => readonly Source[];
  readonly draw: (drawing: Drawing, context: DrawContext, item: I, view: View) => void;
}

type Rows = { readonly [K in ItemKind]: ItemKindRow<Extract<DisplayItem, { kind: K }>> };

const NO_REACH = (): number => 0;
const NO_PARTS = (): readonly DisplayItem[] => [];
const NO_NEEDS = (): readonly Source[] => [];

export const ITEM_KINDS: Rows = {
  shape: {
    extent(item) {
      const box = pathBounds(item.pathKey, item.path);
      if (!box) return item.path === '' ? NOTHING : null;
      const strokes = [
        item.stroke,
        ...(item.more ?? []).map((paint) => (paint.use === 'stroke' ? paint.stroke : null)),
      ];
      const pad = Math.max(
        ...strokes.map((stroke) => (stroke ? reachOfStroke(stroke) : 0)),
        ...(item.outlines ?? []).map((o) => o.width),
      );
      return transformBox(item.matrix, [box[0] - pad, box[1] - pad, box[2] + pad, box[3] + pad]);
    },
    reach: NO_REACH,
    parts: NO_PARTS,
    needs: (item) => (item.fill?.type === 'picture' ? [item.fill.source] : []),
    draw: ({ tools, regionOf }, context, item, view) => drawLeaf(tools, context, item, view, regionOf),
  },
  picture: {
    extent: (item) => transformBox(item.matrix, item.box),
    reach: NO_REACH,
    parts: NO_PARTS,
    needs: (item) => [item.source],
    draw: ({ tools, regionOf }, context, item, view) => drawLeaf(tools, context, item, view, regionOf),
  },
  group: {
    extent(item) {
      const box = cutBox(extentOf(item.children), seenThrough(item));
      if (!box || isNothing(box)) return box;
      const by = effectsReachOf(item);
      const whole: Box = by > 0 ? [box[0] - by, box[1] - by, box[2] + by, box[3] + by] : box;
      return item.under.reduce((all, u) => unionBox(all, underBox(box, u)), whole);
    },
    reach: (item) =>
      effectsReachOf(item) +
      Math.max(
        0,
        ...item.under.map(
          (u) => Math.max(Math.abs(u.x), Math.abs(u.y)) + (u.type === 'shadow' ? BLUR_REACH * u.blur : 0),
        ),
        ...item.children.map(reachOf),
      ),
    parts: (item) => (item.matte ? [...item.children, ...item.matte.items] : item.children),
    needs: NO_NEEDS,
    draw: drawGroup,
  },
  smear: {
    extent: (item) => extentOf(item.samples),
    reach: (item) => Math.max(0, ...item.samples.map(reachOf)),
    parts: (item) => item.samples,
    needs: NO_NEEDS,
    draw(drawing, context, item, view) {
      const { tools } = drawing;
      const region = drawing.regionOf(item, view);
      if (!region) return;
      const alpha = 1 / item.samples.length;
      tools.flatten(
        region,
        view,
        (sum, at) => {
          for (const sample of item.samples)
            tools.flatten(
              region,
              at,
              (own, here) => drawing.draw(own, { ...sample, blend: 'normal' }, here),
              (flat) => tools.lay(sum, flat, { alpha, operation: 'lighter' }),
            );
        },
        (flat) => tools.lay(context, flat, { operation: BLEND_MODES[item.blend].operation }),
      );
    },
  },
  trail: {
    extent: (item) => extentOf(item.copies),
    reach: (item) => Math.max(0, ...item.copies.map(reachOf)),
    parts: (item) => item.copies,
    needs: NO_NEEDS,
    draw: (drawing, context, item, view) => item.copies.forEach((copy) => drawing.draw(context, copy, view)),
  },
};

/** The row of an item's own kind; TypeScript cannot follow the pair through the lookup. */
export const rowOf = (item: DisplayItem): ItemKindRow<DisplayItem> =>
  ITEM_KINDS[item.kind] as unknown as ItemKindRow<DisplayItem>;

/** The items that are seen in an item; none for one that is painted itself. */
export const itemParts = (item: DisplayItem): readonly DisplayItem[] =>
  item.kind === 'group' ? item.children : rowOf(item).parts(item);

const NOTHING: Box = [0, 0, 0, 0];
const isNothing = (box: Box): boolean => box[0] >= box[2] && box[1] >= box[3];

/** Extent in pixels of the format, with what the item's own blur adds; null if it is unknown. */
export function itemExtent(item: DisplayItem): Box | null {
  const box = rowOf(item).extent(item);
  const by = BLUR_REACH * (item.blur ?? 0);
  return box && !isNothing(box) && by > 0 ? [box[0] - by, box[1] - by, box[2] + by, box[3] + by] : box;
}

/** Extent of several items; null if one is unknown. */
function extentOf(items: readonly DisplayItem[]): Box | null {
  let all: Box | null = null;
  for (const item of items) {
    const box = itemExtent(item);
    if (!box) return null;
    if (!isNothing(box)) all = all ? unionBox(all, box) : box;
  }
  return all ?? NOTHING;
}

/** What of a box lies within another; null stands for anywhere. */
function cutBox(box: Box | null, by: Box | null): Box | null {
  if (!box || !by) return box ?? by;
  return common(box, by) ?? NOTHING;
}

/** Where the masks of a group let anything of it be seen; null for anywhere. */
function masksExtent(masks: readonly ItemMask[]): Box | null {
  const added = masks.filter(({ mode }) => mode === 'add');
  if (masks[0]?.mode !== 'add' || added.some(({ inverted }) => inverted)) return null;
  let all: Box | null = null;
  for (const { pathKey, path, matrix, expansion, feather } of added) {
    const box = pathBounds(pathKey, path);
    if (!box) return null;
    const grown = Math.max(0, expansion);
    const [l, t, r, b] = transformBox(matrix, [box[0] - grown, box[1] - grown, box[2] + grown, box[3] + grown]);
    const soft = BLUR_REACH * feather;
    const own: Box = [l - soft, t - soft, r + soft, b + soft];
    all = all ? unionBox(all, own) : own;
  }
  return all;
}

/** Where matte and masks of a group let anything of it be seen; null for anywhere. */
function seenThrough({ matte, masks }: GroupItem): Box | null {
  const throughMatte = matte && !matte.inverted ? extentOf(matte.items) : null;
  return cutBox(throughMatte, masks ? masksExtent(masks) : null);
}

function effectsReachOf({ effects, matrix, box }: GroupItem): number {
  if (!effects) return 0;
  const [l, t, r, b] = transformBox(matrix, box);
  return effectsReach(effects, [r - l, b - t]);
}

/** Where what lies under a box reaches. */
function underBox([l, t, r, b]: Box, under: UnderEffect): Box {
  const blur = under.type === 'shadow' ? BLUR_REACH * under.blur : 1;
  return [
    l + Math.min(0, under.x) - blur,
    t + Math.min(0, under.y) - blur,
    r + Math.max(0, under.x) + blur,
    b + Math.max(0, under.y) + blur,
  ];
}

/** How far in pixels of the format an item smears beyond its shapes. */
export const reachOf = (item: DisplayItem): number => BLUR_REACH * (item.blur ?? 0) + rowOf(item).reach(item);
