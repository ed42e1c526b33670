import * as hb from 'harfbuzzjs';
import { loadTexts, withPieceFonts } from '@core/piece';
import type { Piece } from '@core/piece';
import type { PaintHost } from '@core/paint';
import { createFontLibrary, fontManifestSchema } from '@core/text';
import type { FontLibrary } from '@core/text';

/** The painter's host in the browser; works in a worker and on a page. */
export interface BrowserHost extends PaintHost {
  /** Fetches pictures that are not there yet; resolves to true if any arrived. */
  loadPictures(hashes: readonly string[]): Promise<boolean>;
}

export function createBrowserHost(): BrowserHost {
  const pictures = new Map<string, ImageBitmap>();
  const asked = new Set<string>();
  return {
    createSurface(width, height) {
      const canvas = new OffscreenCanvas(Math.max(1, width), Math.max(1, height));
      const context = canvas.getContext('2d');
      if (!context) throw new Error('this browser has no canvas to draw on');
      // Canvas2D has every call of DrawContext; the DOM's types are stricter than the subset.
      return { width, height, context: context, image: canvas };
    },
    createPath: (d) => new Path2D(d),
    picture(hash) {
      const image = pictures.get(hash);
      return image ? { image, width: image.width, height: image.height } : null;
    },
    async loadPictures(hashes) {
      const wanted = hashes.filter((hash) => !asked.has(hash));
      await Promise.all(
        wanted.map(async (hash) => {
          asked.add(hash);
          try {
            const response = await fetch(`/api/media/${hash}/picture`);
            if (!response.ok) throw new Error(String(response.status));
            pictures.set(
              hash,
              await createImageBitmap(await response.blob(), {
                colorSpaceConversion: 'none',
                premultiplyAlpha: 'premultiply',
              }),
            );
          } catch {
            asked.delete(hash); // asked again with the next edit
          }
        }),
      );
      return wanted.some((hash) => pictures.has(hash));
    },
  };
}

let fonts: Promise<FontLibrary> | null = null;

/** The shipped fonts, one library a thread. */
export function browserFonts(): Promise<FontLibrary> {
  fonts ??= (async () => {
    const manifest = fontManifestSchema.parse(await (await fetch('/fonts/manifest.json')).json());
    return createFontLibrary(hb, manifest, async (path) => {
      const response = await fetch(`/fonts/${path}`);
      if (!response.ok) throw new Error(`font ${path}: ${response.status}`);
      return new Uint8Array(await response.arrayBuffer());
    });
  })();
  return fonts;
}

let own: { key: string; fonts: FontLibrary } | null = null;

/** The shipped fonts and those a piece brings; the same library as long as the piece brings the same. */
export async function browserPieceFonts(piece: Pick<Piece, 'media'>): Promise<FontLibrary> {
  const shipped = await browserFonts();
  const key = piece.media
    .filter((m) => m.kind === 'font')
    .map((m) => m.hash)
    .join();
  if (key === '') return shipped;
  if (own?.key !== key) {
    own = {
      key,
      fonts: withPieceFonts(piece, shipped, async (hash) => {
        const response = await fetch(`/api/media/${hash}/font`);
        if (!response.ok)
          throw new Error(
            `The font “${piece.media.find((m) => m.hash === hash)?.name ?? hash}” is missing on the server. Bring it in again.`,
          );
        return new Uint8Array(await response.arrayBuffer());
      }),
    };
  }
  return own.fonts;
}

/** The library with every font a piece writes with loaded. Rejects if one cannot be read. */
export async function loadedFonts(piece: Piece): Promise<FontLibrary> {
  const fonts = await browserPieceFonts(piece);
  await loadTexts(piece, fonts);
  return fonts;
}

/** Content hashes of the pictures of a piece. */
export const pictureHashes = (piece: Pick<Piece, 'media'>): string[] =>
  piece.media.filter((m) => m.kind === 'picture').map((m) => m.hash);
