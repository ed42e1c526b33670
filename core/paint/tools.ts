import type { Colour } from '../colour';
import { multiply } from '../geometry';
import type { Matrix } from '../geometry';
import type { DrawContext, PaintHost, Surface } from './draw-target';
import { rectPath } from './rects';
import type { Rect } from './rects';
import { createScratches } from './scratches';

/** What all kinds of items are drawn with: paths, scratch surfaces, and the ways to put one surface on another. */

/** A surface's window on the frame. Sizes are pixels of the surface. */
export interface View {
  readonly scale: number;
  /** The surface's left top corner in pixels of the scaled frame. */
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** A flattened drawing and where it belongs on the surface below: its left top corner and its size. */
export interface Flat {
  readonly surface: Surface;
  readonly width: number;
  readonly height: number;
  readonly x: number;
  readonly y: number;
}

/** How a flat is laid on: where (its own place if left out), how opaque, by which operation, blurred how much. */
export interface Lay {
  readonly x?: number;
  readonly y?: number;
  readonly alpha?: number;
  readonly operation?: string;
  /** Standard deviation, pixels of the surface. */
  readonly blur?: number;
}

export interface Tools {
  readonly host: PaintHost;
  /** A path object, kept by its short name. The data may be a function, called when there is no such path yet. */
  path(key: string, d: string | (() => string)): never;
  /** A cleared surface of at least the size for as long as `use` runs. Nested calls get surfaces of their own. */
  withScratch<T>(width: number, height: number, use: (surface: Surface) => T): T;
  /** Draws on a surface of its own that covers `region`, then gives it to `put` with the place where it belongs. */
  flatten(region: Rect, view: View, paint: (context: DrawContext, view: View) => void, put: (flat: Flat) => void): void;
  lay(context: DrawContext, flat: Flat, how?: Lay): void;
}

/** Beyond this many standard deviations a Gaussian changes no 8-bit pixel. */
export const BLUR_REACH = 3;

const PATH_CACHE = 4000;

export const opaque = (colour: Colour): Colour => colour.slice(0, 7);

/** The part of the scaled frame that a view shows, and so many pixels around it. */
export const rectOf = ({ x, y, width, height }: View, room = 0): Rect => [
  x - room,
  y - room,
  x + width + room,
  y + height + room,
];

/** Coordinates of a matrix on the surface. */
export const place = (context: DrawContext, matrix: Matrix, view: View): void =>
  context.setTransform(...multiply([view.scale, 0, 0, view.scale, -view.x, -view.y], matrix));

export function createTools(host: PaintHost): Tools {
  const paths = new Map<string, unknown>();
  const scratches = createScratches(host);
  let depth = 0;
  const tools: Tools = {
    host,
    path(key, d) {
      let path = paths.get(key);
      if (path === undefined) {
        if (paths.size >= PATH_CACHE) paths.delete(paths.keys().next().value as string); // size ≥ 1
        path = host.createPath(typeof d === 'string' ? d : d());
        paths.set(key, path);
      }
      return path as never; // opaque to the painter: made by the host for its own context
    },
    withScratch(width, height, use) {
      const surface = scratches.take(depth++, width, height);
      try {
        return use(surface);
      } finally {
        depth--;
      }
    },
    flatten(region, view, paint, put) {
      const [l, t, r, b] = region;
      const [width, height] = [r - l, b - t];
      tools.withScratch(width, height, (surface) => {
        paint(surface.context, { scale: view.scale, x: l, y: t, width, height });
        put({ surface, width, height, x: l - view.x, y: t - view.y });
      });
    },
    lay(context, { surface, width, height, ...at }, how = {}) {
      const { x = at.x, y = at.y, alpha = 1, operation = 'source-over', blur = 0 } = how;
      context.save();
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.globalAlpha = alpha;
      context.globalCompositeOperation = operation;
      if (blur > 0) {
        // Without a clip a filter works on the whole surface: thirty times as long for a letter.
        const reach = Math.ceil(BLUR_REACH * blur) + 1;
        const around: Rect = [
          Math.floor(x) - reach,
          Math.floor(y) - reach,
          Math.ceil(x + width) + reach,
          Math.ceil(y + height) + reach,
        ];
        context.clip(host.createPath(rectPath(around)) as never); // opaque to the painter
        context.filter = `blur(${blur}px)`;
      }
      context.drawImage(surface.image as never, 0, 0, width, height, x, y, width, height);
      context.filter = 'none';
      context.restore();
    },
  };
  return tools;
}
