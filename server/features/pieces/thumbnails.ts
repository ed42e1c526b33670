import { frameMiddle, secondsToFrame } from '@core/time';
import type { FontLibrary } from '@core/text';
import { renderInputFor } from '../../jobs/runner';
import type { ServerContext } from '../../jobs/context';
import { AppError } from '../../platform/errors';
import { createFrameSource } from '../../render/frame-source';
import type { FrameSource } from '../../render/frame-source';
import { createServerFonts } from '../../render/skia-host';
import type { PieceRecord } from './repository';

/** Frames of a piece that the home cycles through. */
export const THUMBNAIL_FRAMES = 12;
const WIDTH = 420;
const CACHE = 300;

/** Small frames spread over a piece, cached by revision. */
export function createThumbnails(context: ServerContext): { frame(record: PieceRecord, index: number): Promise<Buffer> } {
  const cache = new Map<string, Promise<Buffer>>();
  const sources = new Map<string, Promise<FrameSource>>();
  let fonts: FontLibrary | null = null;

  const sourceFor = (record: PieceRecord): Promise<FrameSource> => {
    const key = `${record.piece.id}@${record.revision}`;
    let source = sources.get(key);
    if (!source) {
      sources.clear(); // frames of one piece are asked for together
      source = (async () => {
        fonts ??= createServerFonts(context.config.assets.fontsDir);
        const { input } = await renderInputFor(context, { ...record.piece, music: null }, record.piece.leadFormatId);
        const song = record.piece.media.find((m) => m.id === record.piece.music?.mediaId);
        const analysis = song ? await context.media.analysis(song.hash).catch(() => null) : null;
        return createFrameSource({ ...input, piece: record.piece, analysis }, fonts);
      })();
      sources.set(key, source);
    }
    return source;
  };

  return {
    frame(record, index) {
      if (!Number.isInteger(index) || index < 0 || index >= THUMBNAIL_FRAMES) throw new AppError('BAD_REQUEST', `frames are 0 to ${THUMBNAIL_FRAMES - 1}`);
      const key = `${record.piece.id}@${record.revision}#${index}`;
      let frame = cache.get(key);
      if (!frame) {
        frame = sourceFor(record).then((source) => source.paint(frameMiddle(secondsToFrame((source.duration * (index + 0.5)) / THUMBNAIL_FRAMES, record.piece.frameRate), record.piece.frameRate), Math.min(1, WIDTH / Math.max(source.width, source.height))).canvas.encode('png'));
        if (cache.size >= CACHE) cache.clear();
        cache.set(key, frame);
        frame.catch(() => cache.delete(key));
      }
      return frame;
    },
  };
}
