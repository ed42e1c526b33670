import type { FillRule } from '../piece';
import type { Source } from '../scene';
import type { Pixels } from './kernels';
import type { LoadedImage } from './source-cache';

/**
 * The part of Canvas2D the painter uses. Chromium's OffscreenCanvas and the server's native canvas both have it; tests
 * use a recorder. Text calls are left out on purpose: letters are outlines.
 */
export interface DrawContext {
  globalAlpha: number;
  globalCompositeOperation: string;
  fillStyle: unknown;
  strokeStyle: unknown;
  lineWidth: number;
  lineJoin: string;
  lineCap: string;
  miterLimit: number;
  lineDashOffset: number;
  /** CSS filter functions, or `none`. */
  filter: string;
  save(): void;
  restore(): void;
  setTransform(a: number, b: number, c: number, d: number, e: number, f: number): void;
  fillRect(x: number, y: number, w: number, h: number): void;
  clearRect(x: number, y: number, w: number, h: number): void;
  fill(path: never, rule?: FillRule): void;
  stroke(path: never): void;
  clip(path: never, rule?: FillRule): void;
  setLineDash(lengths: number[]): void;
  drawImage(image: never, ...box: number[]): void;
  getImageData(x: number, y: number, w: number, h: number): Pixels;
  putImageData(pixels: never, x: number, y: number): void;
  createLinearGradient(x0: number, y0: number, x1: number, y1: number): GradientStops;
  createRadialGradient(x0: number, y0: number, r0: number, x1: number, y1: number, r1: number): GradientStops;
  /** @param start - radians clockwise from the direction of x. */
  createConicGradient(start: number, x: number, y: number): GradientStops;
}

export interface GradientStops {
  addColorStop(offset: number, colour: string): void;
}

/** Something to draw on and to draw from. */
export interface Surface {
  readonly width: number;
  readonly height: number;
  readonly context: DrawContext;
  /** What drawImage takes. */
  readonly image: unknown;
}

export interface PaintHost {
  /** @param isOpaque - nothing of it will ever be seen through, which some hosts draw from more quickly. */
  createSurface(width: number, height: number, isOpaque?: boolean): Surface;
  /** A path object from SVG path data. */
  createPath(d: string): unknown;
  /** Pixels of a picture, or of a frame of footage; null while they are not loaded (see needsOf). */
  picture(source: Source): LoadedImage | null;
}
