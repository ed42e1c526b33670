import { roundedRectanglePath } from '../geometry';
import { BLEND_MODES } from '../piece';
import type { PictureItem, ShapeItem } from '../scene';
import { drawShape, usesSurface } from './draw-shape';
import type { DrawContext } from './draw-target';
import type { Rect } from './rects';
import { place } from './tools';
import type { Tools, View } from './tools';

/** Shapes and pictures. */
export type Leaf = ShapeItem | PictureItem;

/** Covers any surface, in coordinates of any item. */
const FAR = 1e5;

function drawPicture(tools: Tools, context: DrawContext, item: PictureItem): void {
  const picture = tools.host.picture(item.source);
  if (!picture) return;
  const [l, t, r, b] = item.box;
  if (item.cornerRadius > 0)
    context.clip(
      tools.path(`q${r - l},${b - t},${item.cornerRadius}`, roundedRectanglePath(r - l, b - t, item.cornerRadius)),
    );
  context.drawImage(picture.image as never, l, t, r - l, b - t);
}

/** Keeps only what lies within a box of coordinates of its own, until the context is restored. */
export function clipTo(tools: Tools, context: DrawContext, clip: NonNullable<Leaf['clip']>, view: View): void {
  const [l, t, r, b] = clip.box;
  place(context, clip.matrix, view);
  context.clip(tools.path(`c${clip.box.join()}`, `M${l} ${t}L${r} ${t}L${r} ${b}L${l} ${b}Z`));
}

/** Takes what lies behind a soft edge away from a surface. The edge lies in the coordinates that are set. */
export function wipeAway(context: DrawContext, wipe: NonNullable<Leaf['wipe']>): void {
  const edge = context.createLinearGradient(...wipe.from, ...wipe.to);
  edge.addColorStop(0, '#000000');
  edge.addColorStop(1, '#00000000');
  context.globalCompositeOperation = 'destination-in';
  context.fillStyle = edge;
  context.fillRect(-FAR, -FAR, 2 * FAR, 2 * FAR);
}

const isPlainWipe = (item: Leaf) =>
  item.kind === 'shape' && item.fill?.type === 'solid' && !item.stroke && !item.outlines && !item.more;

/** What of the surface an item can touch; null if it is not in view. */
type Region = () => Rect | null;

function drawHere(tools: Tools, context: DrawContext, item: Leaf, view: View, region: Region, fade: boolean): void {
  context.save();
  if (item.clip) clipTo(tools, context, item.clip, view);
  place(context, item.matrix, view);
  if (item.kind === 'shape') drawShape({ tools, item, view, region }, context, fade);
  else drawPicture(tools, context, item);
  if (item.wipe && !fade) wipeAway(context, item.wipe);
  context.restore();
}

/** Whether a shape is more than one thing over another, so that its opacity is that of all of them together. */
const isDeep = (item: Leaf): boolean =>
  item.kind === 'shape' && Boolean((item.fill && (item.stroke || item.outlines)) || item.more || usesSurface(item));

/** Whether it is drawn on a surface of its own, then laid on what is below. */
export const isFlattened = (item: Leaf): boolean =>
  ((item.opacity < 1 || item.blend !== 'normal') && isDeep(item)) ||
  (item.blur ?? 0) > 0 ||
  (item.wipe !== undefined && !isPlainWipe(item));

/** @param regionOf - what of a view it can touch. */
export function drawLeaf(
  tools: Tools,
  context: DrawContext,
  item: Leaf,
  view: View,
  regionOf: (item: Leaf, view: View) => Rect | null,
): void {
  const { operation } = BLEND_MODES[item.blend];
  if (!isFlattened(item)) {
    context.save();
    context.globalAlpha = item.opacity;
    context.globalCompositeOperation = operation;
    drawHere(tools, context, item, view, () => regionOf(item, view), true);
    context.restore();
    return;
  }
  const covered = regionOf(item, view);
  if (!covered) return;
  tools.flatten(
    covered,
    view,
    (own, at) => drawHere(tools, own, item, at, () => regionOf({ ...item, blur: 0 }, at), false),
    (flat) => tools.lay(context, flat, { alpha: item.opacity, operation, blur: (item.blur ?? 0) * view.scale }),
  );
}
