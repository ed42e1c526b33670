import { mixColours } from '../colour';
import type { Colour } from '../colour';
import { BLEND_MODES } from '../piece';
import { multiply, roundedRectanglePath } from '../geometry';
import type { Box, Matrix } from '../geometry';
import type { DisplayItem, Fill, GroupItem, PictureItem, ShapeItem, SmearItem, UnderEffect } from '../scene';
import { BLUR_REACH, itemRect, union } from './damage';
import type { Rect } from './damage';
import type { DrawContext, PaintHost, Surface } from './draw-target';

/**
 * Draws single display items. Whatever has to be flattened first (overlapping parts at partial opacity, shadows, blur,
 * soft edges, motion blur) is drawn on scratch surfaces no larger than what it covers: full-frame passes cost more than
 * most layers.
 */
export interface ItemDrawer {
  /** @param view - from pixels of the format to pixels of the surface: a scale, then a move. */
  draw(context: DrawContext, item: DisplayItem, view: View): void;
}

/** A surface's window on the frame. Sizes are pixels of the surface. */
export interface View {
  readonly scale: number;
  /** The surface's left top corner in pixels of the scaled frame. */
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

const PATH_CACHE = 4000;
/** Straight-alpha gradients through transparency need the middle stops, or hosts premultiply differently. */
const GRADIENT_STOPS = 6;

/** Colours between the near and the far end of letters that stand out. */
const SIDE_BANDS = 10;

/** Surfaces kept for reuse. */
const SCRATCH_SURFACES = 48;
const roundUp = (pixels: number): number => Math.max(64, 2 ** Math.ceil(Math.log2(Math.max(1, pixels))));

const opaque = (colour: Colour): Colour => colour.slice(0, 7);
const alphaOf = (colour: Colour): number => (colour.length > 7 ? parseInt(colour.slice(7, 9), 16) / 255 : 1);

export function createItemDrawer(host: PaintHost): ItemDrawer {
  const paths = new Map<string, unknown>();
  const scratches = new Map<string, Surface>();
  let depth = 0;

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
    if (fill.type === 'picture') return fill.fallback;
    const gradient =
      fill.type === 'linear'
        ? context.createLinearGradient(...fill.from, ...fill.to)
        : context.createRadialGradient(...fill.centre, 0, ...fill.centre, Math.max(0.001, fill.radius));
    for (let i = 0; i <= GRADIENT_STOPS; i++)
      gradient.addColorStop(i / GRADIENT_STOPS, mixColours(fill.start, fill.end, i / GRADIENT_STOPS));
    return gradient;
  };

  /** A cleared surface of at least the size for as long as `use` runs. Nested calls get surfaces of their own. */
  const withScratch = <T>(width: number, height: number, use: (surface: Surface) => T): T => {
    // By level and by size rounded up: taking a picture of a large surface to draw a small part of it costs as much as
    // the whole.
    const level = depth++;
    const [w, h] = [roundUp(width), roundUp(height)];
    const key = `${level}:${w}x${h}`;
    let surface = scratches.get(key);
    if (!surface) {
      if (scratches.size >= SCRATCH_SURFACES) scratches.clear();
      surface = host.createSurface(w, h);
      scratches.set(key, surface);
    }
    const { context } = surface;
    reset(context);
    context.clearRect(0, 0, width, height);
    try {
      return use(surface);
    } finally {
      depth--;
    }
  };

  const reset = (context: DrawContext) => {
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalAlpha = 1;
    context.globalCompositeOperation = 'source-over';
    context.filter = 'none';
  };

  const place = (context: DrawContext, matrix: Matrix, view: View) =>
    context.setTransform(...multiply([view.scale, 0, 0, view.scale, -view.x, -view.y], matrix));

  const strokeWith = (context: DrawContext, path: never, colour: Colour, width: number, dash: ShapeItem['dash']) => {
    context.strokeStyle = colour;
    context.lineWidth = width;
    context.lineJoin = 'round';
    context.lineCap = dash ? 'butt' : 'round';
    context.setLineDash(dash ? [dash.on, dash.off] : []);
    context.lineDashOffset = dash?.shift ?? 0;
    context.stroke(path);
  };

  /** Draws a picture so that it covers a box, its middle in the box's middle. */
  const drawCovering = (
    context: DrawContext,
    picture: NonNullable<ReturnType<PaintHost['picture']>>,
    [l, t, r, b]: Box,
  ) => {
    const cover = Math.max((r - l) / picture.width, (b - t) / picture.height);
    const [w, h] = [picture.width * cover, picture.height * cover];
    context.drawImage(picture.image as never, (l + r - w) / 2, (t + b - h) / 2, w, h);
  };

  const drawShape = (context: DrawContext, item: ShapeItem, fade: boolean) => {
    const path = pathFor(item.pathKey, item.path);
    const { stroke } = item;
    for (const outline of item.outlines ?? []) strokeWith(context, path, outline.colour, outline.width * 2, undefined);
    if (stroke?.behind) strokeWith(context, path, stroke.colour, stroke.width * 2, item.dash);
    if (item.fill) {
      // A soft edge over one plain colour is a gradient of that colour, which needs no surface of its own.
      const wiped: Fill | null =
        fade && item.wipe && item.fill.type === 'solid'
          ? { type: 'linear', ...item.wipe, start: item.fill.colour, end: `${opaque(item.fill.colour)}00` }
          : null;
      const picture = item.fill.type === 'picture' ? host.picture(item.fill.mediaHash) : null;
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
  };

  const drawPicture = (context: DrawContext, item: PictureItem) => {
    const picture = host.picture(item.mediaHash);
    if (!picture) return;
    const [l, t, r, b] = item.box;
    if (item.cornerRadius > 0)
      context.clip(
        pathFor(`q${r - l},${b - t},${item.cornerRadius}`, roundedRectanglePath(r - l, b - t, item.cornerRadius)),
      );
    context.drawImage(picture.image as never, l, t, r - l, b - t);
  };

  const isPlainWipe = (item: ShapeItem | PictureItem) =>
    item.kind === 'shape' && item.fill?.type === 'solid' && !item.stroke && !item.outlines;

  const drawLeafHere = (context: DrawContext, item: ShapeItem | PictureItem, view: View, fade: boolean) => {
    context.save();
    if (item.clip) {
      const [l, t, r, b] = item.clip.box;
      place(context, item.clip.matrix, view);
      context.clip(pathFor(`c${item.clip.box.join()}`, `M${l} ${t}L${r} ${t}L${r} ${b}L${l} ${b}Z`));
    }
    place(context, item.matrix, view);
    if (item.kind === 'shape') drawShape(context, item, fade);
    else drawPicture(context, item);
    if (item.wipe && !fade) {
      const edge = context.createLinearGradient(...item.wipe.from, ...item.wipe.to);
      edge.addColorStop(0, '#000000');
      edge.addColorStop(1, '#00000000');
      context.globalCompositeOperation = 'destination-in';
      // The gradient lies in the item's coordinates; the rectangle covers all of the surface.
      context.fillStyle = edge;
      const far = 1e5;
      context.fillRect(-far, -far, 2 * far, 2 * far);
    }
    context.restore();
  };

  /** The part of the surface an item can touch, with room for what it smears into; null if it is not in view. */
  const regionOf = (item: DisplayItem, view: View): Rect | null => {
    const rect = itemRect(item, view.scale) ?? [view.x, view.y, view.x + view.width, view.y + view.height];
    const room = Math.ceil(reachOf(item) * view.scale);
    const [l, t, r, b] = [
      Math.max(rect[0], view.x - room),
      Math.max(rect[1], view.y - room),
      Math.min(rect[2], view.x + view.width + room),
      Math.min(rect[3], view.y + view.height + room),
    ];
    return l < r && t < b ? [l, t, r, b] : null;
  };

  /** Draws on a surface of its own that covers `region`, then gives it to `put` with the place where it belongs. */
  const flattened = (
    region: Rect,
    view: View,
    paint: (context: DrawContext, view: View) => void,
    put: (surface: Surface, w: number, h: number, x: number, y: number) => void,
  ) => {
    const [l, t, r, b] = region;
    const [w, h] = [r - l, b - t];
    withScratch(w, h, (surface) => {
      paint(surface.context, { scale: view.scale, x: l, y: t, width: w, height: h });
      put(surface, w, h, l - view.x, t - view.y);
    });
  };

  const blit = (
    context: DrawContext,
    surface: Surface,
    w: number,
    h: number,
    x: number,
    y: number,
    alpha: number,
    operation: string,
    blur: number,
  ) => {
    context.save();
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalAlpha = alpha;
    context.globalCompositeOperation = operation;
    if (blur > 0) {
      // Without a clip a filter works on the whole surface: thirty times as long for a letter.
      const reach = Math.ceil(BLUR_REACH * blur) + 1;
      const [l, t, r, b] = [
        Math.floor(x) - reach,
        Math.floor(y) - reach,
        Math.ceil(x + w) + reach,
        Math.ceil(y + h) + reach,
      ];
      context.clip(host.createPath(`M${l} ${t}L${r} ${t}L${r} ${b}L${l} ${b}Z`) as never); // opaque to the painter
      context.filter = `blur(${blur}px)`;
    }
    context.drawImage(surface.image as never, 0, 0, w, h, x, y, w, h);
    context.filter = 'none';
    context.restore();
  };

  const drawLeaf = (context: DrawContext, item: ShapeItem | PictureItem, view: View) => {
    const operation = BLEND_MODES[item.blend].operation;
    const overlaps = item.kind === 'shape' && item.fill && (item.stroke || item.outlines);
    const mustFlatten =
      (overlaps && (item.opacity < 1 || item.blend !== 'normal')) ||
      (item.blur ?? 0) > 0 ||
      (item.wipe && !isPlainWipe(item));
    if (!mustFlatten) {
      context.save();
      context.globalAlpha = item.opacity;
      context.globalCompositeOperation = operation;
      drawLeafHere(context, item, view, true);
      context.restore();
      return;
    }
    const region = regionOf(item, view);
    if (region)
      flattened(
        region,
        view,
        (own, at) => drawLeafHere(own, item, at, false),
        (surface, w, h, x, y) =>
          blit(context, surface, w, h, x, y, item.opacity, operation, (item.blur ?? 0) * view.scale),
      );
  };

  /** The shape of a surface in one colour, and as large again on another. */
  const silhouette = (surface: Surface, w: number, h: number, colour: Colour, use: (tinted: Surface) => void) =>
    withScratch(w, h, (tinted) => {
      const own = tinted.context;
      own.drawImage(surface.image as never, 0, 0, w, h, 0, 0, w, h);
      own.globalCompositeOperation = 'source-in';
      own.fillStyle = opaque(colour);
      own.fillRect(0, 0, w, h);
      own.globalCompositeOperation = 'source-over';
      use(tinted);
    });

  const drawUnder = (
    context: DrawContext,
    effect: UnderEffect,
    surface: Surface,
    w: number,
    h: number,
    x: number,
    y: number,
    scale: number,
  ) =>
    silhouette(surface, w, h, effect.colour, (tinted) => {
      if (effect.type === 'shadow')
        return blit(
          context,
          tinted,
          w,
          h,
          x + effect.x * scale,
          y + effect.y * scale,
          alphaOf(effect.colour),
          'source-over',
          effect.blur * scale,
        );
      if (effect.far && effect.far !== effect.colour)
        return drawSides(context, effect, effect.far, surface, w, h, x, y, scale);
      drawOut(tinted, w, h, effect.x * scale, effect.y * scale, (drawn) =>
        blit(context, drawn, w, h, x, y, alphaOf(effect.colour), 'source-over', 0),
      );
    });

  /** A shape drawn out along a vector, on surfaces of the same size. */
  const drawOut = (
    shape: Surface,
    w: number,
    h: number,
    dx: number,
    dy: number,
    use: (drawn: Surface) => void,
  ): void => {
    // Doubling: the shape and itself moved by one step, both moved by two, by four … cover the way in log2 passes.
    const passes = Math.max(1, Math.ceil(Math.log2(Math.max(2, Math.hypot(dx, dy)))));
    const step = [dx / 2 ** passes, dy / 2 ** passes] as const;
    const grow = (from: Surface, pass: number): void => {
      if (pass === passes) return use(from);
      withScratch(w, h, (next) => {
        blit(next.context, from, w, h, 0, 0, 1, 'source-over', 0);
        blit(next.context, from, w, h, step[0] * 2 ** pass, step[1] * 2 ** pass, 1, 'source-over', 0);
        grow(next, pass + 1);
      });
    };
    grow(shape, 0);
  };

  /** The sides of letters, from the far end to the near one in bands of one colour each. */
  const drawSides = (
    context: DrawContext,
    effect: Extract<UnderEffect, { type: 'long' }>,
    far: Colour,
    surface: Surface,
    w: number,
    h: number,
    x: number,
    y: number,
    scale: number,
  ) => {
    const [dx, dy] = [effect.x * scale, effect.y * scale];
    const bands = Math.max(1, Math.min(SIDE_BANDS, Math.ceil(Math.hypot(dx, dy) / 2)));
    drawOut(surface, w, h, dx / bands, dy / bands, (drawn) => {
      for (let band = bands - 1; band >= 0; band--) {
        const colour = mixColours(effect.colour, far, bands === 1 ? 0 : band / (bands - 1));
        silhouette(drawn, w, h, colour, (tinted) =>
          blit(
            context,
            tinted,
            w,
            h,
            x + (dx / bands) * band,
            y + (dy / bands) * band,
            alphaOf(colour),
            'source-over',
            0,
          ),
        );
      }
    });
  };

  /**
   * Neighbours with the same blur are blurred together: a Gaussian of a sum is the sum of Gaussians, and one pass costs
   * little more than a letter's own.
   */
  const drawChildren = (context: DrawContext, children: GroupItem['children'], view: View) => {
    for (let i = 0; i < children.length;) {
      const blur = children[i]!.blur ?? 0;
      let end = i + 1;
      while (blur > 0 && end < children.length && children[end]!.blur === blur) end++;
      if (end === i + 1) drawLeaf(context, children[i]!, view);
      else {
        const run = children.slice(i, end).map((child): ShapeItem | PictureItem => ({ ...child, blur: 0 }));
        const rects = children
          .slice(i, end)
          .map((child) => regionOf(child, view))
          .filter((rect) => rect !== null);
        if (rects.length > 0) {
          flattened(
            rects.reduce(union),
            view,
            (own, at) => run.forEach((child) => drawLeaf(own, child, at)),
            (surface, w, h, x, y) => blit(context, surface, w, h, x, y, 1, 'source-over', blur * view.scale),
          );
        }
      }
      i = end;
    }
  };

  const drawGroup = (context: DrawContext, item: GroupItem, view: View) => {
    const operation = BLEND_MODES[item.blend].operation;
    const blur = (item.blur ?? 0) * view.scale;
    const isWhole = item.opacity >= 1 && item.blend === 'normal' && blur === 0;
    const children = (target: DrawContext, at: View) => drawChildren(target, item.children, at);
    if (item.under.length === 0 && isWhole) return children(context, view);
    const region = regionOf(item, view);
    if (!region) return;
    const dressed = (target: DrawContext, at: View, above: Rect) =>
      flattened(above, at, children, (surface, w, h, x, y) => {
        for (const effect of item.under) drawUnder(target, effect, surface, w, h, x, y, view.scale);
        blit(target, surface, w, h, x, y, 1, 'source-over', 0);
      });
    if (item.under.length === 0)
      return flattened(region, view, children, (surface, w, h, x, y) =>
        blit(context, surface, w, h, x, y, item.opacity, operation, blur),
      );
    if (isWhole) return dressed(context, view, region);
    flattened(
      region,
      view,
      (own, at) => dressed(own, at, region),
      (surface, w, h, x, y) => blit(context, surface, w, h, x, y, item.opacity, operation, blur),
    );
  };

  const drawSmear = (context: DrawContext, item: SmearItem, view: View) => {
    const region = regionOf(item, view);
    if (!region) return;
    flattened(
      region,
      view,
      (sum, at) => {
        for (const sample of item.samples) {
          flattened(
            region,
            at,
            (own, here) => draw(own, { ...sample, blend: 'normal' }, here),
            (surface, w, h, x, y) => blit(sum, surface, w, h, x, y, 1 / item.samples.length, 'lighter', 0),
          );
        }
      },
      (surface, w, h, x, y) => blit(context, surface, w, h, x, y, 1, BLEND_MODES[item.blend].operation, 0),
    );
  };

  const draw = (context: DrawContext, item: DisplayItem, view: View): void => {
    switch (item.kind) {
      case 'shape':
      case 'picture':
        return drawLeaf(context, item, view);
      case 'group':
        return drawGroup(context, item, view);
      case 'smear':
        return drawSmear(context, item, view);
      case 'trail':
        return item.copies.forEach((copy) => draw(context, copy, view));
    }
  };
  return { draw };
}

/** How far in pixels of the format an item's blur and what lies under it reach beyond its shapes. */
function reachOf(item: DisplayItem): number {
  const own = BLUR_REACH * (item.blur ?? 0);
  if (item.kind !== 'group') return own;
  return (
    own +
    Math.max(
      0,
      ...item.under.map(
        (u) => Math.max(Math.abs(u.x), Math.abs(u.y)) + (u.type === 'shadow' ? BLUR_REACH * u.blur : 0),
      ),
      ...item.children.map((c) => BLUR_REACH * (c.blur ?? 0)),
    )
  );
}
