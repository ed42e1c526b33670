import * as hb from 'harfbuzzjs';
import { hasPathEngine, providePathEngine } from '@core/geometry';
import { MEDIA_KINDS, combinesShapes, loadTexts, loadWithin, piecesDrawn, withPieceFonts } from '@core/piece';
import type { Piece } from '@core/piece';
import { frameAddress } from '@core/formats';
import type { FrameSize } from '@core/formats';
import { MOST_CACHED_PIXELS, createSourceCache } from '@core/paint';
import type { LoadedImage, PaintHost, Source, SourceCache } from '@core/paint';
import { createFontLibrary, fontManifestSchema } from '@core/text';
import type { FontLibrary } from '@core/text';
import { servedFile } from './served-files';
import { WORDS } from './words';

/** The painter's host in the browser; works in a worker and on a page. */
export interface BrowserHost extends PaintHost {
  /** What {@link needsOf} a frame names is fetched before, or while, the frame is painted. */
  readonly sources: SourceCache;
  /** Frames of footage in a small size, which stand in for those that are not there. */
  readonly drafts: SourceCache;
}

/** Frames of footage that are kept small: three seconds of two films. */
const MOST_DRAFT_PIXELS = 100_000_000;

async function fetchSource({ hash, frame }: Source, size: FrameSize): Promise<LoadedImage> {
  const response = await servedFile(
    frame === null ? `/api/media/${hash}/${MEDIA_KINDS.picture.variant}` : frameAddress(hash, size, frame),
  );
  if (!response.ok) throw new Error(WORDS.aPictureIsMissing(response.status));
  const image = await createImageBitmap(await response.blob(), {
    colorSpaceConversion: 'none',
    premultiplyAlpha: 'premultiply',
  });
  return { image, width: image.width, height: image.height };
}

const close = ({ image }: LoadedImage): void => (image as ImageBitmap).close(); // made by fetchSource

/** @param size - in which frames of footage are fetched. */
export function createBrowserHost(size: FrameSize = 'full'): BrowserHost {
  const sources = createSourceCache((source) => fetchSource(source, size), MOST_CACHED_PIXELS, close);
  const drafts = createSourceCache((source) => fetchSource(source, 'small'), MOST_DRAFT_PIXELS, close);
  /** The frame of each footage that was seen last: it stands until the next one has come. */
  const last = new Map<string, Source>();
  const frameOf = (source: Source): LoadedImage | null => sources.get(source) ?? drafts.get(source);
  return {
    sources,
    drafts,
    createSurface(width, height) {
      const canvas = new OffscreenCanvas(Math.max(1, width), Math.max(1, height));
      const context = canvas.getContext('2d');
      if (!context) throw new Error('this browser has no canvas to draw on');
      // Canvas2D has every call of DrawContext; the DOM's types are stricter than the subset.
      return { width, height, context: context, image: canvas };
    },
    createPath: (d) => new Path2D(d),
    picture(source) {
      if (source.frame === null) return sources.get(source);
      const found = frameOf(source);
      if (found) last.set(source.hash, source);
      const before = last.get(source.hash);
      return found ?? (before ? frameOf(before) : null);
    },
  };
}

let fonts: Promise<FontLibrary> | null = null;

/** The shipped fonts, one library a thread. */
export function browserFonts(): Promise<FontLibrary> {
  fonts ??= (async () => {
    const manifest = fontManifestSchema.parse(await (await servedFile('/fonts/manifest.json')).json());
    return createFontLibrary(hb, manifest, async (path) => {
      const response = await servedFile(`/fonts/${path}`);
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
        const response = await servedFile(`/api/media/${hash}/${MEDIA_KINDS.font.variant}`);
        if (!response.ok)
          throw new Error(WORDS.theFontIsMissing(piece.media.find((m) => m.hash === hash)?.name ?? hash));
        return new Uint8Array(await response.arrayBuffer());
      }),
    };
  }
  return own.fonts;
}

let engine: Promise<void> | null = null;

/** The engine that makes one shape of several, one a thread. */
const pathEngine = (): Promise<void> =>
  (engine ??= (async () => {
    const [{ default: init }, { default: address }] = await Promise.all([
      import('pathkit-wasm'),
      import('pathkit-wasm/bin/pathkit.wasm?url'),
    ]);
    const response = await servedFile(address);
    if (!response.ok) throw new Error(`path engine: ${response.status}`);
    providePathEngine(await init({ wasmBinary: new Uint8Array(await response.arrayBuffer()) }));
  })().catch((error: unknown) => {
    engine = null; // asked for again by the next edit
    throw error;
  }));

/** The file of a piece that stands within another. */
export async function fetchWithin(hash: string): Promise<string> {
  const response = await servedFile(`/api/media/${hash}/${MEDIA_KINDS.piece.variant}`);
  if (!response.ok) throw new Error(WORDS.aPieceWithinIsMissing(response.status));
  return response.text();
}

/** Reads what a piece cannot be drawn without, beside fonts and pictures. Rejects if some of it cannot be had. */
export async function readyToDraw(piece: Piece): Promise<void> {
  await loadWithin(piece, fetchWithin);
  if (!hasPathEngine() && combinesShapes(piece)) await pathEngine();
}

/** Loads every font that a piece, or one within it, writes with. */
export async function loadAllTexts(piece: Piece, library: FontLibrary): Promise<void> {
  await Promise.all(piecesDrawn(piece).map((one) => loadTexts(one, library)));
}

/** The library with every font a piece writes with loaded. Rejects if one cannot be read. */
export async function loadedFonts(piece: Piece): Promise<FontLibrary> {
  const [fonts] = await Promise.all([browserPieceFonts(piece), readyToDraw(piece)]);
  await loadAllTexts(piece, fonts);
  return fonts;
}

/** Every picture of a piece. */
export const picturesOf = (piece: Pick<Piece, 'media'>): Source[] =>
  piece.media.filter((m) => m.kind === 'picture').map(({ hash }) => ({ hash, frame: null }));
