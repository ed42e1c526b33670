import { mixColours } from '../colour';
import type { Colour } from '../colour';
import type { Box } from '../geometry';
import { invert, movedPath, multiply, pathBounds } from '../geometry';
import { strokeReach } from '../piece';
import type { Fill, ItemStroke, ShapeItem } from '../scene';
import { gradientStyle, isDirect, ownGradientStyle, tintWithGradient } from './draw-gradient';
import type { GradientFill } from './draw-gradient';
import type { DrawContext, PaintHost } from './draw-target';
import type { Rect } from './rects';
import { opaque, place } from './tools';
import type { Tools, View } from './tools';

/** A shape: what lies behind it, its fill, its stroke, and further ones on top. */

/** Straight-alpha gradients through transparency need the middle stops, or hosts premultiply differently. */
const GRADIENT_STOPS = 6;

function styleOf(context: DrawContext, fill: Fill, within: Box): unknown {
  if (fill.type === 'solid') return fill.colour;
  if (fill.type === 'picture') return fill.fallback;
  if (fill.type === 'gradient') return gradientStyle(context, fill, within);
  const gradient =
    fill.type === 'linear'
      ? context.createLinearGradient(...fill.from, ...fill.to)
      : context.createRadialGradient(...fill.centre, 0, ...fill.centre, Math.max(0.001, fill.radius));
  for (let i = 0; i <= GRADIENT_STOPS; i++)
    gradient.addColorStop(i / GRADIENT_STOPS, mixColours(fill.start, fill.end, i / GRADIENT_STOPS));
  return gradient;
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

/** How far a stroke reaches from its path, in the item's coordinates. */
export function reachOfStroke({ width, behind, style }: ItemStroke): number {
  if (behind) return width;
  return style ? strokeReach(width, style) : width / 2;
}

/** What draws one fill or stroke of a shape: where, and what surface to use where one of its own is needed. */
interface Brush {
  readonly tools: Tools;
  readonly item: ShapeItem;
  readonly view: View;
  readonly region: () => Rect | null;
}

/** Whether the canvas has no such gradient in the item's coordinates, only in the gradient's own. */
const isDistorted = (fill: Fill | undefined): fill is GradientFill => fill?.type === 'gradient' && !isDirect(fill);

/** A path that is not understood can't be brought into a gradient's space. */
const canMove = ({ pathKey, path }: ShapeItem): boolean => pathBounds(pathKey, path) !== null;

// What is flattened before it is laid on: the context's opacity and operation do not count for it.
const fillNeedsSurface = (item: ShapeItem, fill: Fill): boolean => isDistorted(fill) && !canMove(item);
const strokeNeedsSurface = ({ fill, style }: ItemStroke): boolean =>
  isDistorted(fill) || (style !== undefined && style.position !== 'centre');

/** Whether anything of a shape is drawn on a surface of its own. */
export const usesSurface = (item: ShapeItem): boolean =>
  (item.fill ? fillNeedsSurface(item, item.fill) : false) ||
  (item.stroke ? strokeNeedsSurface(item.stroke) : false) ||
  (item.more ?? []).some((paint) =>
    paint.use === 'fill' ? fillNeedsSurface(item, paint.fill) : strokeNeedsSurface(paint.stroke),
  );

/** The part of a stroke that is kept: what lies within the shape, or what lies outside it. */
const KEPT = { inside: 'destination-in', outside: 'destination-out' } as const;

/**
 * Draws on a surface of its own, tints that where the canvas has no such paint, cuts it, and lays it on. A clip would do for
 * what is inside, but hosts differ in how they smooth the edge of one.
 */
function laidOn(
  brush: Brush,
  context: DrawContext,
  fill: Fill,
  draw: (own: DrawContext) => void,
  kept?: keyof typeof KEPT,
): void {
  const { tools, item, view } = brush;
  const region = brush.region();
  if (!region) return;
  const drawing = (own: DrawContext, at: View, what: (own: DrawContext) => void): void => {
    own.save();
    place(own, item.matrix, at);
    what(own);
    own.restore();
  };
  tools.flatten(
    region,
    view,
    (own, at) => {
      drawing(own, at, draw);
      if (isDistorted(fill)) {
        const matrix = multiply([at.scale, 0, 0, at.scale, -at.x, -at.y], item.matrix);
        tintWithGradient(own, fill, matrix, [0, 0, at.width, at.height]);
      }
      if (!kept) return;
      tools.flatten(
        region,
        at,
        (shape, here) =>
          drawing(shape, here, (white) => {
            white.fillStyle = '#FFFFFF';
            white.fill(tools.path(item.pathKey, item.path), item.rule ?? 'nonzero');
          }),
        (flat) => tools.lay(own, flat, { operation: KEPT[kept] }),
      );
    },
    (flat) => tools.lay(context, flat),
  );
}

const boundsOf = (item: ShapeItem, by: number): Box => {
  const [l, t, r, b] = pathBounds(item.pathKey, item.path) ?? item.box;
  return [l - by, t - by, r + by, b + by];
};

/** Fills in the gradient's own space: the path is brought there, and the matrix back shapes both. */
function fillInItsSpace({ tools, item, view }: Brush, context: DrawContext, fill: GradientFill): void {
  const there = invert(fill.matrix);
  const path = tools.path(`${item.pathKey} in ${there.join()}`, () => movedPath(item.path, there));
  context.save();
  place(context, multiply(item.matrix, fill.matrix), view);
  context.fillStyle = ownGradientStyle(context, fill, boundsOf(item, 0));
  context.fill(path, item.rule ?? 'nonzero');
  context.restore();
}

function fillShape(brush: Brush, context: DrawContext, fill: Fill): void {
  const { tools, item } = brush;
  const path = tools.path(item.pathKey, item.path);
  const rule = item.rule ?? 'nonzero';
  const picture = fill.type === 'picture' ? tools.host.picture(fill.source) : null;
  if (picture && fill.type === 'picture') {
    context.save();
    context.clip(path, rule);
    drawCovering(context, picture, fill.box);
    context.restore();
    return;
  }
  if (fillNeedsSurface(item, fill))
    return laidOn(brush, context, fill, (own) => {
      own.fillStyle = '#FFFFFF';
      own.fill(path, rule);
    });
  if (isDistorted(fill)) return fillInItsSpace(brush, context, fill);
  context.fillStyle = styleOf(context, fill, boundsOf(item, 0));
  context.fill(path, rule);
}

function strokeWith(context: DrawContext, item: ShapeItem, path: never, style: unknown, stroke: ItemStroke): void {
  const { dash } = item;
  const own = stroke.style;
  const pattern = dash ? [dash.on, dash.off] : (own?.dash ?? []);
  context.strokeStyle = style;
  context.lineWidth = stroke.behind || (own && own.position !== 'centre') ? stroke.width * 2 : stroke.width;
  context.lineJoin = own?.join ?? 'round';
  context.miterLimit = own?.miterLimit ?? 10;
  context.lineCap = own?.cap ?? (dash ? 'butt' : 'round');
  // An odd number of lengths counts twice, as in SVG.
  context.setLineDash(pattern.some((length) => length > 0) ? pattern : []);
  context.lineDashOffset = dash?.shift ?? own?.dashShift ?? 0;
  context.stroke(path);
}

function strokeShape(brush: Brush, context: DrawContext, stroke: ItemStroke): void {
  const { tools, item } = brush;
  const path = tools.path(item.pathKey, item.path);
  const fill: Fill = stroke.fill ?? { type: 'solid', colour: stroke.colour };
  const draw = (own: DrawContext, style: unknown): void => strokeWith(own, item, path, style, stroke);
  const within = boundsOf(item, reachOfStroke(stroke));
  if (!strokeNeedsSurface(stroke)) return draw(context, styleOf(context, fill, within));
  const isTinted = isDistorted(fill);
  const position = stroke.style?.position ?? 'centre';
  laidOn(
    brush,
    context,
    fill,
    (own) => draw(own, isTinted ? '#FFFFFF' : styleOf(own, fill, within)),
    position === 'centre' ? undefined : position,
  );
}

const outline = (colour: Colour, width: number): ItemStroke => ({ colour, width, behind: true });

/** @param fade - its soft edge may be drawn as a gradient of its colour. */
export function drawShape(brush: Brush, context: DrawContext, fade: boolean): void {
  const { item } = brush;
  const { stroke } = item;
  for (const { colour, width } of item.outlines ?? [])
    strokeShape({ ...brush, item: withoutDash(item) }, context, outline(colour, width));
  if (stroke?.behind) strokeShape(brush, context, stroke);
  if (item.fill) {
    // A soft edge over one plain colour is a gradient of that colour, which needs no surface of its own.
    const wiped: Fill | null =
      fade && item.wipe && item.fill.type === 'solid'
        ? { type: 'linear', ...item.wipe, start: item.fill.colour, end: `${opaque(item.fill.colour)}00` }
        : null;
    fillShape(brush, context, wiped ?? item.fill);
  }
  if (stroke && !stroke.behind) strokeShape(brush, context, stroke);
  for (const paint of item.more ?? [])
    if (paint.use === 'fill') fillShape(brush, context, paint.fill);
    else strokeShape(brush, context, paint.stroke);
}

function withoutDash(item: ShapeItem): ShapeItem {
  const { dash: _, ...rest } = item;
  return rest;
}
