import { mixColours } from '../colour';
import type { Colour } from '../colour';
import { roundedRectanglePath } from '../geometry';
import type { Box } from '../geometry';
import { BLEND_MODES } from '../piece';
import type { Fill, PictureItem, ShapeItem } from '../scene';
import type { DrawContext, PaintHost } from './draw-target';
import type { Rect } from './rects';
import { opaque, place } from './tools';
import type { Tools, View } from './tools';

/** Shapes and pictures. */
export type Leaf = ShapeItem | PictureItem;

/** Straight-alpha gradients through transparency need the middle stops, or hosts premultiply differently. */
const GRADIENT_STOPS = 6;
/** Covers any surface, in coordinates of any item. */
const FAR = 1e5;

function styleOf(context: DrawContext, fill: Fill): unknown {
  if (fill.type === 'solid') return fill.colour;
  if (fill.type === 'picture') return fill.fallback;
  const gradient =
    fill.type === 'linear'
      ? context.createLinearGradient(...fill.from, ...fill.to)
      : context.createRadialGradient(...fill.centre, 0, ...fill.centre, Math.max(0.001, fill.radius));
  for (let i = 0; i <= GRADIENT_STOPS; i++)
    gradient.addColorStop(i / GRADIENT_STOPS, mixColours(fill.start, fill.end, i / GRADIENT_STOPS));
  return gradient;
}

function strokeWith(context: DrawContext, path: never, colour: Colour, width: number, dash: ShapeItem['dash']): void {
  context.strokeStyle = colour;
  context.lineWidth = width;
  context.lineJoin = 'round';
  context.lineCap = dash ? 'butt' : 'round';
  context.setLineDash(dash ? [dash.on, dash.off] : []);
  context.lineDashOffset = dash?.shift ?? 0;
  context.stroke(path);
}

/** Draws a picture so that it covers a box, its middle in the box's middle. */
function drawCovering(
  context: DrawContext,
  picture: NonNullable<ReturnType<PaintHost['picture']>>,
  [l, t, r, b]: Box,
): void {
  const cover = Math.max((r - l) / picture.width, (b - t) / picture.height);
  const [w, h] = [picture.width * cover, picture.height * cover];
  context.drawImage(picture.image as never, (l + r - w) / 2, (t + b - h) / 2, w, h);
}

function drawShape(tools: Tools, context: DrawContext, item: ShapeItem, fade: boolean): void {
  const path = tools.path(item.pathKey, item.path);
  const { stroke } = item;
  for (const outline of item.outlines ?? []) strokeWith(context, path, outline.colour, outline.width * 2, undefined);
  if (stroke?.behind) strokeWith(context, path, stroke.colour, stroke.width * 2, item.dash);
  if (item.fill) {
    // A soft edge over one plain colour is a gradient of that colour, which needs no surface of its own.
    const wiped: Fill | null =
      fade && item.wipe && item.fill.type === 'solid'
        ? { type: 'linear', ...item.wipe, start: item.fill.colour, end: `${opaque(item.fill.colour)}00` }
        : null;
    const picture = item.fill.type === 'picture' ? tools.host.picture(item.fill.mediaHash) : null;
    if (picture && item.fill.type === 'picture') {
      context.save();
      context.clip(path);
      drawCovering(context, picture, item.fill.box);
      context.restore();
    } else {
      context.fillStyle = styleOf(context, wiped ?? item.fill);
      context.fill(path);
    }
  }
  if (stroke && !stroke.behind) strokeWith(context, path, stroke.colour, stroke.width, item.dash);
}

function drawPicture(tools: Tools, context: DrawContext, item: PictureItem): void {
  const picture = tools.host.picture(item.mediaHash);
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
  item.kind === 'shape' && item.fill?.type === 'solid' && !item.stroke && !item.outlines;

function drawHere(tools: Tools, context: DrawContext, item: Leaf, view: View, fade: boolean): void {
  context.save();
  if (item.clip) clipTo(tools, context, item.clip, view);
  place(context, item.matrix, view);
  if (item.kind === 'shape') drawShape(tools, context, item, fade);
  else drawPicture(tools, context, item);
  if (item.wipe && !fade) wipeAway(context, item.wipe);
  context.restore();
}

/** @param region - what of the surface it can touch; null if it is not in view. */
export function drawLeaf(tools: Tools, context: DrawContext, item: Leaf, view: View, region: () => Rect | null): void {
  const { operation } = BLEND_MODES[item.blend];
  const overlaps = item.kind === 'shape' && item.fill && (item.stroke || item.outlines);
  const mustFlatten =
    (overlaps && (item.opacity < 1 || item.blend !== 'normal')) ||
    (item.blur ?? 0) > 0 ||
    (item.wipe && !isPlainWipe(item));
  if (!mustFlatten) {
    context.save();
    context.globalAlpha = item.opacity;
    context.globalCompositeOperation = operation;
    drawHere(tools, context, item, view, true);
    context.restore();
    return;
  }
  const covered = region();
  if (!covered) return;
  tools.flatten(
    covered,
    view,
    (own, at) => drawHere(tools, own, item, at, false),
    (flat) => tools.lay(context, flat, { alpha: item.opacity, operation, blur: (item.blur ?? 0) * view.scale }),
  );
}
