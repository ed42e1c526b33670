import type { Colour } from '../colour';
import type { DisplayItem, DisplayList } from '../scene';
import { damageBetween, itemRect } from './damage';
import { createItemDrawer } from './draw-items';
import type { DrawContext, PaintHost, Surface } from './draw-target';
import { createPartSurfaces, partsOf } from './parts';
import type { PaintedPart } from './parts';
import { rectPath, touchesAny } from './rects';
import type { Rect } from './rects';
import { rectOf } from './tools';
import type { View } from './tools';

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
   */
  paint(target: DrawContext, list: DisplayList, scale?: number): void;
  /**
   * The same for whoever keeps the frame elsewhere: paints what differs from the frame of the call before, each part on a
   * surface no larger than it needs, which costs in proportion. The next call paints over them.
   * @returns the parts, disjoint; none if nothing differs, one that is all of the frame where all may.
   */
  paintChanges(list: DisplayList, scale?: number): readonly PaintedPart[];
  /** Drops what is known of the target and the cached layers; called when a picture or font has arrived. */
  forget(): void;
  /** Items painted since the painter was made; the measure of what caching saves. */
  readonly paintedItems: number;
}

const isOpaque = (background: Colour): boolean => background.length <= 7;

const sizeOf = (list: DisplayList, scale: number): [width: number, height: number] => [
  Math.round(list.width * scale),
  Math.round(list.height * scale),
];

export function createPainter(host: PaintHost): Painter {
  const drawer = createItemDrawer(host);
  const partSurfaces = createPartSurfaces(host);
  let previous: readonly string[] = [];
  let base: { surface: Surface; isOpaque: boolean; prints: string[] } | null = null;
  /** The target is null where parts were painted. */
  let shown: { target: DrawContext | null; list: DisplayList; scale: number } | null = null;
  let paintedItems = 0;

  const paintItems = (context: DrawContext, items: readonly DisplayItem[], view: View) => {
    for (const item of items) {
      paintedItems++;
      drawer.draw(context, item, view);
    }
  };

  const clear = (context: DrawContext, colour: string, width: number, height: number) => {
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalAlpha = 1;
    context.globalCompositeOperation = 'source-over';
    // What can be seen through is not drawn over what was there.
    if (!isOpaque(colour)) context.clearRect(0, 0, width, height);
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
      const solid = isOpaque(list.background);
      const surface =
        base && base.isOpaque === solid && base.surface.width === width && base.surface.height === height
          ? base.surface
          : host.createSurface(width, height, solid);
      clear(surface.context, list.background, width, height);
      base = { surface, isOpaque: solid, prints: prints.slice(0, 1) };
    }
    const risen = list.items.slice(base.prints.length - 1, same - 1);
    paintItems(base.surface.context, risen, { scale, x: 0, y: 0, width, height });
    base.prints = prints.slice(0, same);
  };

  const overBase = (list: DisplayList): readonly DisplayItem[] => list.items.slice(base ? base.prints.length - 1 : 0);

  /** What differs from the frame that was shown there before; null if all may. */
  const changesOn = (target: DrawContext | null, list: DisplayList, scale: number): Rect[] | null => {
    const damage =
      shown && shown.target === target && shown.scale === scale ? damageBetween(shown.list, list, scale) : null;
    shown = { target, list, scale };
    return damage;
  };

  /** Paints the rectangles of the frame that are given, or all that the view shows, over what `prepare` leaves. */
  const paintOn = (
    target: DrawContext,
    list: DisplayList,
    view: View,
    damage: readonly Rect[] | null,
    prepare: () => void,
  ): void => {
    const { scale, x, y, width, height } = view;
    target.setTransform(1, 0, 0, 1, 0, 0);
    target.save();
    prepare();
    if (base) {
      target.globalAlpha = 1;
      target.globalCompositeOperation = 'source-over';
      // A base that can be seen through does not cover what the frame before left there.
      if (damage && !base.isOpaque) target.clearRect(0, 0, width, height);
      for (const [l, t, r, b] of damage ?? [rectOf(view)])
        target.drawImage(base.surface.image as never, l, t, r - l, b - t, l - x, t - y, r - l, b - t);
    } else clear(target, list.background, width, height);
    const rest = overBase(list);
    paintItems(target, damage ? rest.filter((item) => touchesAny(itemRect(item, scale), damage)) : rest, view);
    target.restore();
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
      const [width, height] = sizeOf(list, scale);
      const damage = changesOn(target, list, scale);
      if (damage && damage.length === 0) return;
      raiseBase(list, scale, width, height);
      paintOn(target, list, { scale, x: 0, y: 0, width, height }, damage, () => {
        if (damage)
          target.clip(host.createPath(damage.map(rectPath).join('')) as never); // opaque to the painter
        else if (!isOpaque(list.background)) target.clearRect(0, 0, width, height);
      });
    },
    paintChanges(list, scale = 1) {
      const [width, height] = sizeOf(list, scale);
      const damage = changesOn(null, list, scale);
      if (damage && damage.length === 0) return [];
      raiseBase(list, scale, width, height);
      const changed = damage && partsOf(damage, overBase(list), scale, width, height);
      const parts = partSurfaces.take(changed ?? [[0, 0, width, height]], width, height);
      for (const { surface, rect } of parts) {
        const [x, y, right, bottom] = rect;
        const view = { scale, x, y, width: right - x, height: bottom - y };
        paintOn(surface.context, list, view, changed && [rect], () => {
          // A surface that was read is copied before it is painted on, unless all of it is painted over.
          if (view.width < surface.width || view.height < surface.height || !isOpaque(list.background))
            surface.context.clearRect(0, 0, surface.width, surface.height);
        });
      }
      return parts;
    },
  };
}
