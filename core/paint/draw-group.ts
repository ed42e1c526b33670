import { transformBox } from '../geometry';
import { BLEND_MODES } from '../piece';
import type { DisplayItem, GroupItem } from '../scene';
import type { DrawContext } from './draw-target';
import { clipTo, isFlattened, wipeAway } from './draw-leaf';
import type { Leaf } from './draw-leaf';
import { withEffects } from './draw-effects';
import { withMasks } from './draw-masks';
import { lumaToAlpha } from './pixel-effects';
import { touchesAny, union } from './rects';
import type { Rect } from './rects';
import { place, rectOf } from './tools';
import type { Flat, Tools, View } from './tools';
import { drawUnder } from './under-effects';

/** What a group needs to draw what is in it. */
export interface Drawing {
  readonly tools: Tools;
  draw(context: DrawContext, item: DisplayItem, view: View): void;
  /** The part of the surface an item can touch, with room for what it smears into; null if it is not in view. */
  regionOf(item: DisplayItem, view: View): Rect | null;
  /** Pixels of the scaled frame an item can touch; null if that is unknown. */
  rectOf(item: DisplayItem, scale: number): Rect | null;
}

const isPlain = (item: DisplayItem): boolean =>
  (item.kind === 'shape' || item.kind === 'picture') && item.blend === 'normal';

/**
 * Neighbours with the same blur are blurred together: a Gaussian of a sum is the sum of Gaussians, and one pass costs
 * little more than a letter's own.
 */
function drawChildren({ tools, draw, regionOf }: Drawing, context: DrawContext, item: GroupItem, view: View): void {
  const { children } = item;
  for (let i = 0; i < children.length;) {
    const first = children[i]!; // i is within the list
    const blur = first.blur ?? 0;
    let end = i + 1;
    while (
      blur > 0 &&
      isPlain(first) &&
      end < children.length &&
      children[end]!.blur === blur &&
      isPlain(children[end]!)
    )
      end++;
    if (end === i + 1) draw(context, first, view);
    else {
      const run = children.slice(i, end).map((child): DisplayItem => ({ ...child, blur: 0 }));
      const rects = children
        .slice(i, end)
        .map((child) => regionOf(child, view))
        .filter((rect) => rect !== null);
      if (rects.length > 0)
        tools.flatten(
          rects.reduce(union),
          view,
          (own, at) => run.forEach((child) => draw(own, child, at)),
          (flat) => tools.lay(context, flat, { blur: blur * view.scale }),
        );
    }
    i = end;
  }
}

/** What is in the group, with its wash, its soft edge and its matte. */
function drawContent(drawing: Drawing, context: DrawContext, item: GroupItem, view: View): void {
  drawChildren(drawing, context, item, view);
  const { wash, wipe, matte, masks } = item;
  if (!wash && !wipe && !matte && !masks) return;
  context.save();
  if (wash) {
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalCompositeOperation = 'source-atop';
    context.globalAlpha = wash.share;
    context.fillStyle = wash.colour;
    context.fillRect(0, 0, view.width, view.height);
    context.globalAlpha = 1;
  }
  if (wipe) {
    place(context, item.matrix, view);
    wipeAway(context, wipe);
  }
  context.restore();
  const { tools } = drawing;
  if (masks) withMasks(tools, masks, view, (flat) => tools.lay(context, flat, { operation: 'destination-in' }));
  if (!matte) return;
  tools.flatten(
    rectOf(view),
    view,
    (own, at) => {
      matte.items.forEach((cover) => drawing.draw(own, cover, at));
      if (matte.channel === 'luminance') seeByLuminance(own, at);
    },
    (flat) => tools.lay(context, flat, { operation: matte.inverted ? 'destination-out' : 'destination-in' }),
  );
}

function seeByLuminance(context: DrawContext, { width, height }: View): void {
  const pixels = context.getImageData(0, 0, width, height);
  lumaToAlpha(pixels);
  context.putImageData(pixels as never, 0, 0); // the host's own
}

/** Effects of a group on what it has become, in their order. */
function withItsEffects({ tools }: Drawing, item: GroupItem, flat: Flat, view: View, use: (done: Flat) => void): void {
  const { effects } = item;
  if (!effects) return use(flat);
  const [l, t, r, b] = transformBox(item.matrix, item.box);
  const corner = [flat.x + view.x, flat.y + view.y] as const;
  const { scale } = view;
  const middle = [((l + r) / 2) * scale - corner[0], ((t + b) / 2) * scale - corner[1]] as const;
  const half = [Math.max(1, ((r - l) / 2) * scale), Math.max(1, ((b - t) / 2) * scale)] as const;
  withEffects(tools, flat, effects, { scale, corner, middle, half }, use);
}

/** Whether nothing but its opacity is done to what is in the group as a whole. */
function isOnlyFaded(item: GroupItem): boolean {
  return (
    item.blend === 'normal' &&
    (item.blur ?? 0) === 0 &&
    !item.wipe &&
    !item.clip &&
    !item.wash &&
    !item.matte &&
    !item.masks &&
    !item.effects &&
    // What blends in a group blends with the group, not with what is below it.
    (item.holds === 'parts' || item.children.every((child) => child.blend === 'normal'))
  );
}

/** Whether the group can be drawn straight onto what is below: nothing is done to it as a whole. */
const isTransparentGroup = (item: GroupItem): boolean => item.opacity >= 1 && isOnlyFaded(item);

/** More are not looked at one against the other. */
const MOST_APART = 64;

/** The shapes and pictures that a group comes to, if that is all it comes to and they are not too many. */
function leavesOf(item: GroupItem, into: Leaf[] = []): Leaf[] | null {
  for (const child of item.children) {
    if (child.kind === 'shape' || child.kind === 'picture') {
      if (child.blend !== 'normal' || into.length === MOST_APART) return null;
      into.push(child);
    } else if (child.kind !== 'group' || child.under.length > 0 || !isTransparentGroup(child) || !leavesOf(child, into))
      return null;
  }
  return into;
}

/**
 * What a group that is faded comes to if none of its parts lies over another: each can be faded by itself then, and the
 * group needs no surface.
 */
function fadedApart(drawing: Drawing, item: GroupItem, scale: number): Leaf[] | null {
  if (item.under.length > 0 || !isOnlyFaded(item)) return null;
  const faded = leavesOf(item)?.map((leaf): Leaf => ({ ...leaf, opacity: leaf.opacity * item.opacity }));
  if (!faded || faded.some(isFlattened)) return null;
  const rects: Rect[] = [];
  for (const leaf of faded) {
    const rect = drawing.rectOf(leaf, scale);
    if (!rect || touchesAny(rect, rects)) return null;
    rects.push(rect);
  }
  return faded;
}

export function drawGroup(drawing: Drawing, context: DrawContext, item: GroupItem, view: View): void {
  const { tools } = drawing;
  const isTransparent = isTransparentGroup(item);
  if (item.under.length === 0 && isTransparent) return drawChildren(drawing, context, item, view);
  const apart = fadedApart(drawing, item, view.scale);
  if (apart) return apart.forEach((leaf) => drawing.draw(context, leaf, view));
  const region = drawing.regionOf(item, view);
  if (!region) return;
  const content = (own: DrawContext, at: View) => drawContent(drawing, own, item, at);
  const dressed = (target: DrawContext, at: View) =>
    tools.flatten(region, at, content, (flat) => {
      for (const effect of item.under) drawUnder(tools, target, effect, flat, view.scale);
      tools.lay(target, flat);
    });
  if (isTransparent) return dressed(context, view);
  context.save();
  if (item.clip) clipTo(tools, context, item.clip, view);
  tools.flatten(region, view, item.under.length > 0 ? dressed : content, (flat) =>
    withItsEffects(drawing, item, flat, view, (done) =>
      tools.lay(context, done, {
        alpha: item.opacity,
        operation: BLEND_MODES[item.blend].operation,
        blur: (item.blur ?? 0) * view.scale,
      }),
    ),
  );
  context.restore();
}
