import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { resolveTimes } from '@core/piece';
import { frameCount } from '@core/time';
import type { Assets } from '../platform/config';
import { AppError, Cancelled } from '../platform/errors';
import { startEncoder } from './encoder';
import type { RenderInput } from './frame-source';
import type { FrameRun, ThreadInput, ThreadMessage } from './paint-thread';
import { pieceSound, soundLength } from './piece-sound';
import { PIXEL_BYTES, paintedScale, sidesFor } from './pixels';
import { VIDEO_RECIPES } from './video-recipes';
import type { VideoRecipe } from './video-recipes';

/** Runs painted ahead of the encoder, a thread. */
const RUNS_AHEAD = 2;
/** Memory for frames painted ahead, in bytes. */
const FRAME_BUDGET = 300_000_000;

/**
 * Frames a thread paints in one go: the longer, the more often a frame follows the one painted before it, whose still
 * parts need no painting; bounded by memory, and by a second's worth so that threads end evenly.
 */
const runLength = (width: number, height: number, bytes: number, threads: number): number =>
  Math.max(3, Math.min(30, Math.floor(FRAME_BUDGET / (width * height * bytes * threads * RUNS_AHEAD))));

export interface RenderOptions {
  readonly input: RenderInput;
  /** The song as FLAC of 48 kHz. */
  readonly songFile: string | null;
  readonly out: string;
  /** How it is encoded; H.264 in MP4 unless given. */
  readonly recipe?: VideoRecipe;
  readonly assets: Assets;
  readonly signal?: AbortSignal;
  readonly threads?: number;
  /** Called after each frame handed to the encoder. */
  readonly onFrame?: (done: number, total: number) => void;
}

export interface RenderFacts {
  readonly frames: number;
  /** Frames that were painted; the others equalled the frame before. */
  readonly painted: number;
  readonly width: number;
  readonly height: number;
}

/**
 * Renders one format of a piece to a file of moving pictures. Threads paint runs of frames, this thread hands them to ffmpeg in
 * order.
 * @throws AppError NOTHING_TO_RENDER, MEDIA_MISSING, ENCODER_FAILED, DISK_FULL; Cancelled if the signal fires.
 * `out` may be left half-written then: the caller removes it.
 */
export async function renderVideo(options: RenderOptions): Promise<RenderFacts> {
  const { assets, signal } = options;
  const recipe: VideoRecipe = options.recipe ?? VIDEO_RECIPES.mp4;
  const { pixels: pixelKind, isSeeThrough } = recipe;
  const input: RenderInput = { ...options.input, isSeeThrough };
  const { piece } = input;
  const format = piece.formats.find((f) => f.id === input.formatId);
  if (!format) throw new AppError('BAD_REQUEST', `the piece has no format ${input.formatId}`);
  const times = resolveTimes(piece, input.analysis);
  const total = frameCount(times.end, piece.frameRate);
  if (total === 0) throw new AppError('NOTHING_TO_RENDER');
  const scale = paintedScale(format.width, format.height, recipe.longerSide ?? null);
  const { width, height } = sidesFor(pixelKind, Math.round(format.width * scale), Math.round(format.height * scale));
  const soundFrames = soundLength(total, piece.frameRate);
  const sound = recipe.sound ? await pieceSound(input, options.songFile, times, soundFrames, signal) : null;
  if (signal?.aborted) throw new Cancelled();

  const wanted = options.threads ?? Math.max(2, Math.min(8, availableParallelism()));
  const length = runLength(width, height, PIXEL_BYTES[pixelKind], wanted);
  const runs: FrameRun[] = [];
  for (let from = 0; from < total; from += length) runs.push({ from, to: Math.min(total, from + length) });
  const count = Math.min(runs.length, wanted);
  const finished = new Map<number, Uint8Array | null>();
  let painted = 0;
  let nextRun = 0;
  let written = 0;
  let fail: (error: Error) => void = () => {};
  const failed = new Promise<never>((_, reject) => {
    fail = reject;
  });
  failed.catch(() => {}); // raced below
  let wake: () => void = () => {};
  const idle: Worker[] = [];
  const feed = () => {
    while (idle.length > 0 && nextRun < runs.length && runs[nextRun]!.from < written + length * RUNS_AHEAD * count)
      idle.pop()!.postMessage(runs[nextRun++]);
  };
  const threads = Array.from({ length: count }, () => {
    const data: ThreadInput = {
      ...input,
      fontsDir: assets.fontsDir,
      wasmFile: assets.wasmFile,
      pixels: pixelKind,
      scale,
    };
    const worker = new Worker(join(assets.serverDir, 'paint-thread.js'), {
      workerData: data,
      resourceLimits: { maxOldGenerationSizeMb: 2048 },
    });
    worker.on('message', (message: ThreadMessage) => {
      switch (message.type) {
        case 'ready':
        case 'done':
          idle.push(worker);
          feed();
          break;
        case 'frame':
          finished.set(message.frame, message.pixels ? new Uint8Array(message.pixels) : null);
          if (message.pixels) painted++;
          wake();
          break;
        case 'failed':
          fail(new AppError('ENCODER_FAILED', message.message));
          break;
      }
    });
    worker.on('error', (error) => fail(error));
    // A thread that ends by itself has run out of memory.
    worker.on('exit', () => fail(new AppError('ENCODER_FAILED', 'a painting thread ended early')));
    return worker;
  });
  const encoder = startEncoder({
    width,
    height,
    frameRate: piece.frameRate,
    sound,
    soundFrames,
    out: options.out,
    recipe,
  });
  const abort = () => fail(new Cancelled());
  if (signal?.aborted) abort();
  signal?.addEventListener('abort', abort, { once: true });
  try {
    let last: Uint8Array | null = null;
    for (let frame = 0; frame < total; frame++) {
      while (!finished.has(frame)) await Promise.race([failed, new Promise<void>((resolve) => (wake = resolve))]);
      const pixels: Uint8Array | null = finished.get(frame) ?? last;
      finished.delete(frame);
      if (!pixels) throw new AppError('INTERNAL');
      await Promise.race([failed, encoder.write(pixels)]);
      last = pixels;
      written = frame + 1;
      feed();
      options.onFrame?.(written, total);
    }
    await Promise.race([failed, encoder.finish()]);
    return { frames: total, painted, width: format.width, height: format.height };
  } catch (error) {
    encoder.kill();
    throw error;
  } finally {
    signal?.removeEventListener('abort', abort);
    await Promise.all(threads.map((worker) => worker.terminate()));
  }
}
