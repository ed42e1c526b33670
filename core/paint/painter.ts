import type { DisplayItem, DisplayList } from '../scene';
import { damageBetween, itemRect, touchesAny } from './damage';
import { rectPath } from './rects';
import type { Rect } from './rects';
import { createItemDrawer } from './draw-items';
import type { DrawContext, PaintHost, Surface } from './draw-target';

/**
 * Paints display lists. One painter serves the preview and the export.
 *
 * Two savings, neither of which can be seen (a pixel of a curve that a rectangle cuts may differ by a few levels). Most
 * of a frame is often that of the frame before: only the rectangles in which something changed are painted, clipped at
 * whole pixels. And the lower layers often stand still (background, pictures): they are kept on a surface of their own,
 * and painting starts from the first layer that moves. Caching every layer by itself was rejected: a full-frame
 * composite costs more than most layers.
 */
export interface Painter {
  /**
   * Makes `target` show the frame; `scale` shrinks it for previews. The target must keep its pixels between calls: what
   * did not change since the last call with the same target is not painted again. {@link forget} when something else
   * drew on it.
   * @returns the rectangles of the target that were painted; null if it was all of it.
   */
  paint(target: DrawContext, list: DisplayList, scale?: number): readonly Rect[] | null;
  /** Drops what is known of the target and the cached layers; called when a picture or font has arrived. */
  forget(): void;
  /** Items painted since the painter was made; the measure of what caching saves. */
  readonly paintedItems: number;
}

export function createPainter(host: PaintHost): Painter {
  const drawer = createItemDrawer(host);
  let previous: readonly string[] = [];
  let base: { surface: Surface; prints: string[] } | null = null;
  let shown: { target: DrawContext; list: DisplayList; scale: number } | null = null;
  let paintedItems = 0;

  const paintItems = (
    context: DrawContext,
    items: readonly DisplayItem[],
    scale: number,
    width: number,
    height: number,
  ) => {
    for (const item of items) {
      paintedItems++;
      drawer.draw(context, item, { scale, x: 0, y: 0, width, height });
    }
  };

  const clear = (context: DrawContext, colour: string, width: number, height: number) => {
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalAlpha = 1;
    context.globalCompositeOperation = 'source-over';
    // What can be seen through is not drawn over what was there.
    if (colour.length > 7) context.clearRect(0, 0, width, height);
    context.fillStyle = colour;
    context.fillRect(0, 0, width, height);
  };

  /**
   * Brings the surface of still layers up to what stood still since the last frame; drops it if a layer in it changed.
   */
  const raiseBase = (list: DisplayList, scale: number, width: number, height: number) => {
    const prints = [`${width}x${height}${list.background}`, ...list.items.map((item) => item.fingerprint)];
    let same = 0;
    while (same < prints.length && same < previous.length && prints[same] === previous[same]) same++;
    previous = prints;
    const holds = base !== null && base.prints.length <= same && base.prints.every((print, i) => print === prints[i]);
    if (same < 2) {
      if (!holds) base = null;
      return;
    }
    if (!base || !holds) {
      const surface =
        base && base.surface.width === width && base.surface.height === height
          ? base.surface
          : host.createSurface(width, height);
      clear(surface.context, list.background, width, height);
      base = { surface, prints: prints.slice(0, 1) };
    }
    paintItems(base.surface.context, list.items.slice(base.prints.length - 1, same - 1), scale, width, height);
    base.prints = prints.slice(0, same);
  };

  return {
    get paintedItems() {
      return paintedItems;
    },
    forget() {
      previous = [];
      base = null;
      shown = null;
    },
    paint(target, list, scale = 1) {
      const width = Math.round(list.width * scale);
      const height = Math.round(list.height * scale);
      const damage =
        shown && shown.target === target && shown.scale === scale ? damageBetween(shown.list, list, scale) : null;
      shown = { target, list, scale };
      if (damage && damage.length === 0) return damage;
      raiseBase(list, scale, width, height);
      target.setTransform(1, 0, 0, 1, 0, 0);
      target.save();
      if (damage) target.clip(host.createPath(damage.map(rectPath).join('')) as never); // opaque to the painter
      const from = base ? base.prints.length - 1 : 0;
      if (base) {
        target.globalAlpha = 1;
        target.globalCompositeOperation = 'source-over';
        // What is cleared first need not be kept by the host while it is painted over.
        if (!damage) target.clearRect(0, 0, width, height);
        for (const [l, t, r, b] of damage ?? ([[0, 0, width, height]] as Rect[]))
          target.drawImage(base.surface.image as never, l, t, r - l, b - t, l, t, r - l, b - t);
      } else clear(target, list.background, width, height);
      const rest = list.items.slice(from);
      paintItems(
        target,
        damage ? rest.filter((item) => touchesAny(itemRect(item, scale), damage)) : rest,
        scale,
        width,
        height,
      );
      target.restore();
      return damage;
    },
  };
}
