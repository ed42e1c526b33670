import { readFile } from 'node:fs/promises';
import { createPainter } from '@core/paint';
import type { SongAnalysis } from '@core/audio';
import { loadTexts, resolveTimes, withPieceFonts } from '@core/piece';
import type { Piece } from '@core/piece';
import { prepareScene, sceneAt } from '@core/scene';
import type { DisplayList } from '@core/scene';
import { createLayoutCache } from '@core/text';
import type { FontLibrary } from '@core/text';
import type { Seconds } from '@core/time';
import { AppError } from '../platform/errors';
import { createSkiaHost, createSkiaSurface } from './skia-host';
import type { SkiaSurface } from './skia-host';

/** What a render needs beside the fonts; plain data, so that it can be sent to a thread. */
export interface RenderInput {
  readonly piece: Piece;
  readonly analysis: SongAnalysis | null;
  readonly formatId: string;
  /** Files of the pictures by media hash. */
  readonly pictures: Readonly<Record<string, string>>;
  /** Files of the fonts the piece brings by media hash. */
  readonly fonts: Readonly<Record<string, string>>;
}

export interface FrameSource {
  readonly width: number;
  readonly height: number;
  readonly duration: Seconds;
  /** What the frame shows, resolved but not painted. */
  resolve(seconds: Seconds): DisplayList;
  /** Paints a frame (a time or what {@link resolve} gave) and returns the surface, which the next call paints over. */
  paint(frame: Seconds | DisplayList, scale?: number): SkiaSurface;
}

/**
 * Loads what a piece draws with and makes its frames available. @throws AppError MEDIA_MISSING if a picture or font
 * cannot be read.
 */
export async function createFrameSource(input: RenderInput, shipped: FontLibrary): Promise<FrameSource> {
  const { piece } = input;
  const host = createSkiaHost();
  const missing = (hash: string, cause: unknown) =>
    new AppError('MEDIA_MISSING', piece.media.find((m) => m.hash === hash)?.name ?? hash, { cause });
  const fonts = withPieceFonts(piece, shipped, (hash) =>
    readFile(input.fonts[hash] ?? '').catch((cause: unknown) => {
      throw missing(hash, cause);
    }),
  );
  await loadTexts(piece, fonts);
  for (const [hash, file] of Object.entries(input.pictures)) {
    await host.loadPicture(hash, file).catch((cause: unknown) => {
      throw missing(hash, cause);
    });
  }
  const times = resolveTimes(piece, input.analysis);
  const scene = prepareScene(piece, times, input.formatId);
  const layout = createLayoutCache(fonts);
  const painter = createPainter(host);
  let surface: SkiaSurface | null = null;
  return {
    width: scene.format.width,
    height: scene.format.height,
    duration: times.end,
    resolve: (seconds) => sceneAt(scene, seconds, layout),
    paint(frame, scale = 1) {
      const list = typeof frame === 'number' ? sceneAt(scene, frame, layout) : frame;
      const width = Math.round(list.width * scale);
      const height = Math.round(list.height * scale);
      if (!surface || surface.width !== width || surface.height !== height) surface = createSkiaSurface(width, height);
      painter.paint(surface.context, list, scale);
      return surface;
    },
  };
}
