import { createWriteStream } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import yazl from 'yazl';
import { resolveTimes, spanOf } from '@core/piece';
import { frameMiddle } from '@core/time';
import { AppError, Cancelled } from '../platform/errors';
import type { ExportRun } from './export-run';
import { createFrameSource } from './frame-source';
import { createServerFonts } from './skia-host';

/** Frames whose picture is kept ready for the archive. */
const AHEAD = 4;

/**
 * Every frame as a PNG without the background, straight alpha, in a ZIP that stores them as they are. Frames are painted
 * as the archive is written: nothing but it is ever on the disk, and no more than a few are in memory.
 */
export async function renderFrames(run: ExportRun): Promise<Record<string, unknown>> {
  const { input, assets, signal, onProgress } = run;
  const { piece } = input;
  const { end } = resolveTimes(piece, input.analysis);
  const { first, count: total } = spanOf(run.excerpt ?? null, end, piece.frameRate);
  if (total === 0) throw new AppError('NOTHING_TO_RENDER');
  const source = await createFrameSource({ ...input, isSeeThrough: true }, createServerFonts(assets.fontsDir));
  const zip = new yazl.ZipFile();
  const written = pipeline(zip.outputStream as Readable, createWriteStream(run.out), signal ? { signal } : {});
  written.catch(() => {}); // awaited below
  const waiting: Promise<void>[] = [];
  try {
    for (let frame = 0; frame < total; frame++) {
      if (signal?.aborted) throw new Cancelled();
      const { canvas } = await source.paint(frameMiddle(first + frame, piece.frameRate));
      const png = await canvas.encode('png');
      const taken = new Promise<void>((resolve, reject) => {
        zip.addReadStreamLazy(`${String(frame).padStart(5, '0')}.png`, { compress: false }, (ready) => {
          const stream = Readable.from([png]);
          stream.once('end', resolve);
          stream.once('error', reject);
          ready(null, stream);
        });
      });
      waiting.push(taken);
      if (waiting.length >= AHEAD) await Promise.race([waiting.shift(), written]);
      onProgress?.((frame + 1) / total);
    }
    zip.end();
    await written;
  } catch (error) {
    if (signal?.aborted) throw new Cancelled();
    throw error;
  }
  return { frames: total, painted: total, width: source.width, height: source.height };
}
