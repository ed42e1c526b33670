import { writeFile } from 'node:fs/promises';
import type { ExportKindId } from '@core/formats';
import { resolveTimes } from '@core/piece';
import { frameCount, frameMiddle, secondsToFrame } from '@core/time';
import type { Assets } from '../platform/config';
import { AppError, Cancelled } from '../platform/errors';
import { SOUND_RATE } from './encoder';
import { createFrameSource } from './frame-source';
import type { RenderInput } from './frame-source';
import { pieceSound, soundLength } from './piece-sound';
import { renderVideo } from './render-video';
import { createServerFonts } from './skia-host';
import { encodeWav } from './wav';

/** What every kind of export is made from. */
export interface ExportRun {
  readonly input: RenderInput;
  /** The song as FLAC of 48 kHz. */
  readonly songFile: string | null;
  /** Seconds of the piece, for kinds that show one moment. */
  readonly at: number;
  readonly out: string;
  readonly assets: Assets;
  readonly signal?: AbortSignal;
  /** 0 to 1. */
  readonly onProgress?: (share: number) => void;
}

/** How each kind of export is made: writes `out` and gives the facts about it. */
export const EXPORTERS: Readonly<Record<ExportKindId, (run: ExportRun) => Promise<Record<string, unknown>>>> = {
  async mp4({ onProgress, at: _at, ...run }) {
    const facts = await renderVideo({
      ...run,
      ...(onProgress ? { onFrame: (done: number, total: number) => onProgress(done / total) } : {}),
    });
    return { ...facts };
  },
  /** The frame that is shown at the moment: what the video has there. */
  async png({ input, at, out, assets, signal }) {
    const source = await createFrameSource(input, createServerFonts(assets.fontsDir));
    const rate = input.piece.frameRate;
    const last = frameCount(source.duration, rate) - 1;
    if (last < 0) throw new AppError('NOTHING_TO_RENDER');
    const frame = Math.max(0, Math.min(last, secondsToFrame(at, rate)));
    const { canvas } = await source.paint(frameMiddle(frame, rate));
    if (signal?.aborted) throw new Cancelled();
    await writeFile(out, await canvas.encode('png'));
    return { frame, width: source.width, height: source.height };
  },
  async wav({ input, songFile, out, signal }) {
    const times = resolveTimes(input.piece, input.analysis);
    const frames = frameCount(times.end, input.piece.frameRate);
    if (frames === 0) throw new AppError('NOTHING_TO_RENDER');
    const samples = soundLength(frames, input.piece.frameRate);
    const sound = await pieceSound(input, songFile, times, samples, signal);
    if (signal?.aborted) throw new Cancelled();
    await writeFile(out, encodeWav(sound ?? [new Float32Array(samples), new Float32Array(samples)], SOUND_RATE));
    return { samples, frames };
  },
};
