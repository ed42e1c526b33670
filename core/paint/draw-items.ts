import type { DisplayItem } from '../scene';
import { itemRect } from './damage';
import type { Drawing } from './draw-group';
import type { DrawContext, PaintHost } from './draw-target';
import { reachOf, rowOf } from './item-kinds';
import { common } from './rects';
import { createTools, rectOf } from './tools';
import type { View } from './tools';

/**
 * Draws display items, each by the row of its kind. Whatever has to be flattened first (overlapping parts at partial
 * opacity, shadows, blur, soft edges, motion blur) is drawn on scratch surfaces no larger than what it covers:
 * full-frame passes cost more than most layers.
 */
export interface ItemDrawer {
  /** @param view - from pixels of the format to pixels of the surface: a scale, then a move. */
  draw(context: DrawContext, item: DisplayItem, view: View): void;
}

export function createItemDrawer(host: PaintHost): ItemDrawer {
  const drawing: Drawing = {
    tools: createTools(host),
    draw: (context, item, view) => rowOf(item).draw(drawing, context, item, view),
    rectOf: itemRect,
    regionOf(item, view) {
      const rect = itemRect(item, view.scale) ?? rectOf(view);
      const around = rectOf(view, Math.ceil(reachOf(item) * view.scale));
      return common(rect, around);
    },
  };
  return drawing;
}
