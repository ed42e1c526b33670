import { readFile } from 'node:fs/promises';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Path2D, createCanvas } from '@napi-rs/canvas';
import type { Canvas, Image } from '@napi-rs/canvas';
import * as hb from 'harfbuzzjs';
import { createSourceCache } from '@core/paint';
import type { PaintHost, Source, SourceCache, Surface } from '@core/paint';
import { createFontLibrary, fontManifestSchema } from '@core/text';
import type { FontLibrary } from '@core/text';

export interface SkiaSurface extends Surface {
  readonly canvas: Canvas;
}

export function createSkiaSurface(width: number, height: number, isOpaque = false): SkiaSurface {
  const canvas = createCanvas(width, height);
  // The native context has every call of DrawContext; its types are stricter than the subset.
  return { width, height, canvas, context: canvas.getContext('2d', { alpha: !isOpaque }), image: canvas };
}

/** All pixels of a surface of {@link createSkiaSurface}: RGBA, multiplied by their alpha. */
export const pixelsOf = ({ image }: Surface): Uint8Array => (image as Canvas).data();

/** The painter's host on the server: native Skia. */
export interface SkiaHost extends PaintHost {
  /** What {@link needsOf} a frame names is fetched before the frame is painted. */
  readonly sources: SourceCache;
}

const NO_PICTURES = ({ hash }: Source): Promise<Image> => Promise.reject(new Error(`no picture ${hash}`));

export function createSkiaHost(loadPicture: (source: Source) => Promise<Image> = NO_PICTURES): SkiaHost {
  const sources = createSourceCache(async (source) => {
    const image = await loadPicture(source);
    return { image, width: image.width, height: image.height };
  });
  return {
    createSurface: createSkiaSurface,
    createPath: (d) => new Path2D(d),
    sources,
    picture: (source) => sources.get(source),
  };
}

/** @param onRead - told of each file of a font that is read. */
export function createServerFonts(fontsDir: string, onRead?: (path: string, bytes: Buffer) => void): FontLibrary {
  const manifest = fontManifestSchema.parse(JSON.parse(readFileSync(join(fontsDir, 'manifest.json'), 'utf8')));
  return createFontLibrary(hb, manifest, async (path) => {
    const bytes = await readFile(join(fontsDir, path));
    onRead?.(path, bytes);
    return bytes;
  });
}
