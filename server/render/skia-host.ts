import { readFile } from 'node:fs/promises';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Path2D, createCanvas, loadImage } from '@napi-rs/canvas';
import type { Canvas, Image } from '@napi-rs/canvas';
import * as hb from 'harfbuzzjs';
import type { PaintHost, Surface } from '@core/paint';
import { createFontLibrary, fontManifestSchema } from '@core/text';
import type { FontLibrary } from '@core/text';

export interface SkiaSurface extends Surface {
  readonly canvas: Canvas;
}

export function createSkiaSurface(width: number, height: number): SkiaSurface {
  const canvas = createCanvas(width, height);
  // The native context has every call of DrawContext; its types are stricter than the subset.
  return { width, height, canvas, context: canvas.getContext('2d'), image: canvas };
}

/** The painter's host on the server: native Skia. Pictures are loaded up front. */
export interface SkiaHost extends PaintHost {
  loadPicture(hash: string, file: string): Promise<void>;
}

export function createSkiaHost(): SkiaHost {
  const pictures = new Map<string, Image>();
  return {
    createSurface: createSkiaSurface,
    createPath: (d) => new Path2D(d),
    picture(hash) {
      const image = pictures.get(hash);
      return image ? { image, width: image.width, height: image.height } : null;
    },
    async loadPicture(hash, file) {
      if (!pictures.has(hash)) pictures.set(hash, await loadImage(await readFile(file)));
    },
  };
}

export function createServerFonts(fontsDir: string): FontLibrary {
  const manifest = fontManifestSchema.parse(JSON.parse(readFileSync(join(fontsDir, 'manifest.json'), 'utf8')));
  return createFontLibrary(hb, manifest, (path) => readFile(join(fontsDir, path)));
}
