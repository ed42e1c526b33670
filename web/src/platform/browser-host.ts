import * as hb from 'harfbuzzjs';
import { MEDIA_KINDS, loadTexts, withPieceFonts } from '@core/piece';
import type { Piece } from '@core/piece';
import { createSourceCache } from '@core/paint';
import type { LoadedImage, PaintHost, Source, SourceCache } from '@core/paint';
import { createFontLibrary, fontManifestSchema } from '@core/text';
import type { FontLibrary } from '@core/text';
import { WORDS } from './words';

/** The painter's host in the browser; works in a worker and on a page. */
export interface BrowserHost extends PaintHost {
  /** What {@link needsOf} a frame names is fetched before, or while, the frame is painted. */
  readonly sources: SourceCache;
}

async function fetchPicture({ hash }: Source): Promise<LoadedImage> {
  const response = await fetch(`/api/media/${hash}/${MEDIA_KINDS.picture.variant}`);
  if (!response.ok) throw new Error(WORDS.aPictureIsMissing(response.status));
  const image = await createImageBitmap(await response.blob(), {
    colorSpaceConversion: 'none',
    premultiplyAlpha: 'premultiply',
  });
  return { image, width: image.width, height: image.height };
}

export function createBrowserHost(): BrowserHost {
  const sources = createSourceCache(fetchPicture);
  return {
    sources,
    createSurface(width, height) {
      const canvas = new OffscreenCanvas(Math.max(1, width), Math.max(1, height));
      const context = canvas.getContext('2d');
      if (!context) throw new Error('this browser has no canvas to draw on');
      // Canvas2D has every call of DrawContext; the DOM's types are stricter than the subset.
      return { width, height, context: context, image: canvas };
    },
    createPath: (d) => new Path2D(d),
    picture: (hash) => sources.get({ hash, frame: null }),
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
        const response = await fetch(`/api/media/${hash}/${MEDIA_KINDS.font.variant}`);
        if (!response.ok)
          throw new Error(WORDS.theFontIsMissing(piece.media.find((m) => m.hash === hash)?.name ?? hash));
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

/** Every picture of a piece. */
export const picturesOf = (piece: Pick<Piece, 'media'>): Source[] =>
  piece.media.filter((m) => m.kind === 'picture').map(({ hash }) => ({ hash, frame: null }));
