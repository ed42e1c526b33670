import type { DrawContext, PaintHost, Surface } from './draw-target';

/** Surfaces that are drawn on in passing, kept to be used again. */
export interface Scratches {
  /** A cleared surface of at least the size. Those of other levels are not touched. */
  take(level: number, width: number, height: number): Surface;
}

/** Pixels of all that are kept, about 200 MB. */
const MOST_PIXELS = 48e6;
/**
 * Sides are rounded up to multiples of this, and of an eighth of the next lower power of two: a surface that is drawn from
 * costs by its whole size, however little of it is drawn.
 */
const SIDE_STEP = 64;

function roundUp(pixels: number): number {
  const step = Math.max(SIDE_STEP, 2 ** Math.floor(Math.log2(Math.max(1, pixels))) / 8);
  return step * Math.ceil(Math.max(1, pixels) / step);
}

function reset(context: DrawContext): void {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
  context.filter = 'none';
}

export function createScratches(host: PaintHost): Scratches {
  /** The one that was used last is the last one. */
  const kept = new Map<string, Surface>();
  let pixels = 0;
  const drop = (key: string): void => {
    const surface = kept.get(key);
    if (surface) pixels -= surface.width * surface.height;
    kept.delete(key);
  };
  return {
    take(level, width, height) {
      const [w, h] = [roundUp(width), roundUp(height)];
      const key = `${level}:${w}x${h}`;
      const surface = kept.get(key) ?? host.createSurface(w, h);
      drop(key);
      kept.set(key, surface);
      pixels += w * h;
      for (const [other] of kept) if (pixels > MOST_PIXELS && other !== key) drop(other);
      const { context } = surface;
      reset(context);
      // All of it: a surface that was drawn from is copied before it is drawn on, unless nothing of it is to be kept.
      context.clearRect(0, 0, surface.width, surface.height);
      return surface;
    },
  };
}
