import { readFile } from 'node:fs/promises';
import { loadImage } from '@napi-rs/canvas';
import { createPainter, needsOf } from '@core/paint';
import type { PaintedPart } from '@core/paint';
import type { SongAnalysis } from '@core/audio';
import { resolveTimes, withPieceFonts } from '@core/piece';
import type { Piece } from '@core/piece';
import { prepareScene, sceneAt } from '@core/scene';
import type { DisplayList } from '@core/scene';
import { createLayoutCache } from '@core/text';
import type { FontLibrary } from '@core/text';
import type { Seconds } from '@core/time';
import { AppError } from '../platform/errors';
import { readSource } from './read-source';
import { readyToDraw } from './ready-to-draw';
import { createSkiaHost, createSkiaSurface } from './skia-host';
import type { SkiaSurface } from './skia-host';

/** What a render needs beside the fonts; plain data, so that it can be sent to a thread. */
export interface RenderInput {
  readonly piece: Piece;
  readonly analysis: SongAnalysis | null;
  readonly formatId: string;
  /** The files made of its media, by hash. */
  readonly files: Readonly<Record<string, string>>;
  /** Leaves the background out: frames can be seen through. */
  readonly isSeeThrough?: boolean;
}

export interface FrameSource {
  readonly width: number;
  readonly height: number;
  readonly duration: Seconds;
  /** What the frame shows, resolved but not painted. */
  resolve(seconds: Seconds): DisplayList;
  /**
   * Paints a frame (a time or what {@link resolve} gave) and returns the surface, which the next call paints over.
   * Rejects with AppError MEDIA_MISSING if a picture in it cannot be read.
   * @param next - what is painted after it: what that shows is read meanwhile.
   */
  paint(frame: Seconds | DisplayList, scale?: number, next?: DisplayList): Promise<SkiaSurface>;
  /** The same for what differs from the frame of the call before alone: see {@link Painter.paintChanges}. */
  paintChanges(frame: DisplayList, scale?: number, next?: DisplayList): Promise<readonly PaintedPart[]>;
  /** The next frame is painted whole, as if it were the first. */
  forget(): void;
}

/**
 * Loads the fonts of a piece and the pieces within it, and makes its frames available.
 * @throws AppError MEDIA_MISSING if one of them cannot be read.
 */
export async function createFrameSource(input: RenderInput, shipped: FontLibrary): Promise<FrameSource> {
  const { piece } = input;
  const orMissing =
    <T>(load: (file: string) => Promise<T>) =>
    (hash: string): Promise<T> =>
      load(input.files[hash] ?? '').catch((cause: unknown) => {
        throw new AppError('MEDIA_MISSING', piece.media.find((m) => m.hash === hash)?.name ?? hash, { cause });
      });
  const fonts = withPieceFonts(
    piece,
    shipped,
    orMissing((file) => readFile(file)),
  );
  await readyToDraw(
    piece,
    fonts,
    orMissing((file) => readFile(file, 'utf8')),
  );
  const host = createSkiaHost((source) =>
    orMissing(async (file) => loadImage((await readSource(file, source)).bytes))(source.hash),
  );
  const times = resolveTimes(piece, input.analysis);
  const scene = prepareScene(piece, times, input.formatId);
  const layout = createLayoutCache(fonts);
  const painter = createPainter(host);
  let surface: SkiaSurface | null = null;
  const resolve = (seconds: Seconds): DisplayList => sceneAt(scene, seconds, layout, null, !input.isSeeThrough);
  const fetchSources = async (list: DisplayList, next: DisplayList | undefined): Promise<void> => {
    const needs = needsOf(list);
    if (!host.sources.has(needs)) await host.sources.fetch(needs);
    // What cannot be read is told when it is to be painted.
    if (next) host.sources.fetch([...needs, ...needsOf(next)]).catch(() => {});
  };
  return {
    width: scene.format.width,
    height: scene.format.height,
    duration: times.end,
    resolve,
    forget: () => painter.forget(),
    async paint(frame, scale = 1, next) {
      const list = typeof frame === 'number' ? resolve(frame) : frame;
      await fetchSources(list, next);
      const width = Math.round(list.width * scale);
      const height = Math.round(list.height * scale);
      if (!surface || surface.width !== width || surface.height !== height) surface = createSkiaSurface(width, height);
      painter.paint(surface.context, list, scale);
      return surface;
    },
    async paintChanges(list, scale, next) {
      await fetchSources(list, next);
      return painter.paintChanges(list, scale);
    },
  };
}
