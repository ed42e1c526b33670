import { mixColours } from '../colour';
import { BLEND_MODES } from '../piece';
import { multiply, roundedRectanglePath, transformBox } from '../scene';
import type { DisplayItem, DisplayList, Fill, Matrix, PictureItem, ShapeItem } from '../scene';
import { damageBetween, itemRect, touchesAny } from './damage';
import type { Rect } from './damage';
import type { DrawContext, PaintHost, Surface } from './draw-target';

/**
 * Paints display lists. One painter serves the preview and the export.
 *
 * Two savings, neither of which can be seen (a pixel of a curve that a rectangle cuts may differ by a few levels). Most of a frame is often that of the frame before: only the rectangles in which something
 * changed are painted, clipped at whole pixels. And the lower layers often stand still (background, pictures): they are kept
 * on a surface of their own, and painting starts from the first layer that moves. Caching every layer by itself was
 * rejected: a full-frame composite costs more than most layers.
 */
export interface Painter {
  /**
   * Makes `target` show the frame; `scale` shrinks it for previews. The target must keep its pixels between calls: what did not change
   * since the last call with the same target is not painted again. {@link forget} when something else drew on it.
   */
  paint(target: DrawContext, list: DisplayList, scale?: number): void;
  /** Drops what is known of the target and the cached layers; called when a picture or font has arrived. */
  forget(): void;
  /** Items painted since the painter was made; the measure of what caching saves. */
  readonly paintedItems: number;
}

const PATH_CACHE = 600;
/** Straight-alpha gradients through transparency need the middle stops, or hosts premultiply differently. */
const GRADIENT_STOPS = 6;

export function createPainter(host: PaintHost): Painter {
  const paths = new Map<string, unknown>();
  let previous: readonly string[] = [];
  let base: { surface: Surface; prints: string[] } | null = null;
  let scratch: Surface | null = null;
  let shown: { target: DrawContext; list: DisplayList; scale: number } | null = null;
  let paintedItems = 0;

  const pathFor = (key: string, d: string): never => {
    let path = paths.get(key);
    if (path === undefined) {
      if (paths.size >= PATH_CACHE) paths.delete(paths.keys().next().value as string); // size ≥ 1
      path = host.createPath(d);
      paths.set(key, path);
    }
    return path as never; // opaque to the painter: made by the host for its own context
  };

  const styleOf = (context: DrawContext, fill: Fill): unknown => {
    if (fill.type === 'solid') return fill.colour;
    const gradient = fill.type === 'linear' ? context.createLinearGradient(...fill.from, ...fill.to) : context.createRadialGradient(...fill.centre, 0, ...fill.centre, Math.max(0.001, fill.radius));
    for (let i = 0; i <= GRADIENT_STOPS; i++) gradient.addColorStop(i / GRADIENT_STOPS, mixColours(fill.start, fill.end, i / GRADIENT_STOPS));
    return gradient;
  };

  const drawShape = (context: DrawContext, item: ShapeItem) => {
    const path = pathFor(item.pathKey, item.path);
    const stroke = () => {
      if (!item.stroke) return;
      context.strokeStyle = item.stroke.colour;
      context.lineWidth = item.stroke.behind ? item.stroke.width * 2 : item.stroke.width;
      context.lineJoin = 'round';
      context.lineCap = 'round';
      context.stroke(path);
    };
    if (item.stroke?.behind) stroke();
    if (item.fill) {
      context.fillStyle = styleOf(context, item.fill);
      context.fill(path);
    }
    if (item.stroke && !item.stroke.behind) stroke();
  };

  const drawPicture = (context: DrawContext, item: PictureItem) => {
    const picture = host.picture(item.mediaHash);
    if (!picture) return;
    const [l, t, r, b] = item.box;
    if (item.cornerRadius > 0) context.clip(pathFor(`q${r - l},${b - t},${item.cornerRadius}`, roundedRectanglePath(r - l, b - t, item.cornerRadius)));
    context.drawImage(picture.image as never, l, t, r - l, b - t);
  };

  const draw = (context: DrawContext, item: DisplayItem) => (item.kind === 'shape' ? drawShape(context, item) : drawPicture(context, item));

  /** Fill and stroke overlap: at partial opacity they must be flattened first, on a surface no larger than the item. */
  const drawFlattened = (context: DrawContext, item: ShapeItem, matrix: Matrix, width: number, height: number) => {
    const [l, t, r, b] = item.box;
    const pad = (item.stroke?.width ?? 0) * 1.5;
    const bounds = transformBox(matrix, [l - pad, t - pad, r + pad, b + pad]);
    const x = Math.max(0, Math.floor(bounds[0]) - 1);
    const y = Math.max(0, Math.floor(bounds[1]) - 1);
    const w = Math.min(width, Math.ceil(bounds[2]) + 1) - x;
    const h = Math.min(height, Math.ceil(bounds[3]) + 1) - y;
    if (w <= 0 || h <= 0) return;
    if (!scratch || scratch.width < w || scratch.height < h) scratch = host.createSurface(Math.max(w, scratch?.width ?? 0), Math.max(h, scratch?.height ?? 0));
    const own = scratch.context;
    own.setTransform(1, 0, 0, 1, 0, 0);
    own.clearRect(0, 0, w, h);
    own.setTransform(matrix[0], matrix[1], matrix[2], matrix[3], matrix[4] - x, matrix[5] - y);
    drawShape(own, item);
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.drawImage(scratch.image as never, 0, 0, w, h, x, y, w, h);
  };

  const paintItems = (context: DrawContext, items: readonly DisplayItem[], scale: number, width: number, height: number) => {
    for (const item of items) {
      paintedItems++;
      const matrix = multiply([scale, 0, 0, scale, 0, 0], item.matrix);
      context.save();
      context.globalAlpha = item.opacity;
      context.globalCompositeOperation = BLEND_MODES[item.blend].operation;
      const overlaps = item.kind === 'shape' && item.fill && item.stroke;
      if (overlaps && (item.opacity < 1 || item.blend !== 'normal')) drawFlattened(context, item, matrix, width, height);
      else {
        context.setTransform(...matrix);
        draw(context, item);
      }
      context.restore();
    }
  };

  const clear = (context: DrawContext, colour: string, width: number, height: number) => {
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalAlpha = 1;
    context.globalCompositeOperation = 'source-over';
    context.fillStyle = colour;
    context.fillRect(0, 0, width, height);
  };

  /** Brings the surface of still layers up to what stood still since the last frame; drops it if a layer in it changed. */
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
      const surface = base && base.surface.width === width && base.surface.height === height ? base.surface : host.createSurface(width, height);
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
      const damage = shown && shown.target === target && shown.scale === scale ? damageBetween(shown.list, list, scale) : null;
      shown = { target, list, scale };
      if (damage && damage.length === 0) return;
      raiseBase(list, scale, width, height);
      target.setTransform(1, 0, 0, 1, 0, 0);
      target.save();
      if (damage) target.clip(host.createPath(damage.map(([l, t, r, b]) => `M${l} ${t}L${r} ${t}L${r} ${b}L${l} ${b}Z`).join('')) as never); // opaque to the painter
      const from = base ? base.prints.length - 1 : 0;
      if (base) {
        target.globalAlpha = 1;
        target.globalCompositeOperation = 'source-over';
        for (const [l, t, r, b] of damage ?? ([[0, 0, width, height]] as Rect[])) target.drawImage(base.surface.image as never, l, t, r - l, b - t, l, t, r - l, b - t);
      } else clear(target, list.background, width, height);
      const rest = list.items.slice(from);
      paintItems(target, damage ? rest.filter((item) => touchesAny(itemRect(item, scale), damage)) : rest, scale, width, height);
      target.restore();
    },
  };
}
