import { availableParallelism } from 'node:os';
import type { Worker } from 'node:worker_threads';
import type { Assets } from '../platform/config';
import { AppError, Cancelled } from '../platform/errors';
import type { RenderInput } from './frame-source';
import { endPaintThread, givePaintThread, takePaintThread } from './paint-pool';
import type { FrameRun, ThreadInput, ThreadMessage, ThreadOrder } from './paint-thread';
import { PIXEL_BYTES, paintedScale, sidesFor } from './pixels';
import type { PixelKind } from './pixels';

/** Memory for the frames of four runs, in bytes. */
const FRAME_BUDGET = 300_000_000;

/**
 * Frames a thread paints in one go: the longer, the more often a frame follows the one painted before it, whose still
 * parts need no painting; bounded by memory, and by a second's worth so that threads end evenly. It must not depend on
 * the number of threads: the first frame of a run is painted whole and the others from the one before, so that with the
 * same runs every machine paints the same to the last level.
 */
const runLength = (width: number, height: number, bytes: number): number =>
  Math.max(3, Math.min(30, Math.floor(FRAME_BUDGET / (width * height * bytes * 4))));

/** So long frames are waited for before another thread starts. */
const PATIENCE_MS = 700;

export interface PaintersOptions {
  readonly input: RenderInput;
  readonly pixels: PixelKind;
  /** Frames are painted smaller where a side would be longer; null for as large as the format. */
  readonly longerSide: number | null;
  readonly assets: Assets;
  readonly signal?: AbortSignal | undefined;
  readonly threads?: number | undefined;
}

/** Threads that paint the frames of one format of a piece, until they are closed. */
export interface Painters {
  /** Of the frames that are handed over. */
  readonly width: number;
  readonly height: number;
  /**
   * Paints frames [first, end) and hands them over in order; the next is handed over when `take` has resolved, and the
   * memory of those before it is painted on again then.
   * @returns how many were painted; the others equalled the frame before.
   * @throws AppError ENCODER_FAILED, MEDIA_MISSING; Cancelled if the signal fires; what `take` throws.
   */
  readonly paint: (
    first: number,
    end: number,
    take: (pixels: Uint8Array, frame: number) => Promise<void>,
  ) => Promise<number>;
  readonly close: () => Promise<void>;
}

/** A frame, and who painted it. */
interface Painted {
  readonly pixels: Uint8Array<ArrayBuffer>;
  readonly worker: Worker;
}

/** A stretch that is being painted. */
interface Work {
  readonly runs: readonly FrameRun[];
  readonly finished: Map<number, Painted | null>;
  next: number;
  /** Frames below this have been handed over. */
  taken: number;
  painted: number;
}

/** @throws AppError BAD_REQUEST if the piece has no such format. */
export function openPainters({ input, pixels, longerSide, assets, signal, threads }: PaintersOptions): Painters {
  const format = input.piece.formats.find((f) => f.id === input.formatId);
  if (!format) throw new AppError('BAD_REQUEST', `the piece has no format ${input.formatId}`);
  const scale = paintedScale(format.width, format.height, longerSide);
  const { width, height } = sidesFor(pixels, Math.round(format.width * scale), Math.round(format.height * scale));
  const wanted = threads ?? Math.max(2, Math.min(8, availableParallelism()));
  const length = runLength(width, height, PIXEL_BYTES[pixels]);
  const threadInput: ThreadInput = { ...input, pixels, scale };
  const order = (worker: Worker, what: ThreadOrder, transfer: ArrayBuffer[] = []) => worker.postMessage(what, transfer);
  const all: Worker[] = [];
  const idle: Worker[] = [];
  const busy = new Set<Worker>();
  let work: Work | null = null;
  /** Threads that the work is for. */
  let most = 0;
  let isStarting = false;
  /** How long frames were waited for since the last thread started. */
  let waitedMs = 0;
  let wake: () => void = () => {};
  let isFailed = false;
  let fail: (error: Error) => void = () => {};
  const failed = new Promise<never>((_, reject) => {
    fail = (error) => {
      isFailed = true;
      reject(error);
    };
  });
  failed.catch(() => {}); // raced by those who wait

  const feed = (): void => {
    if (!work) return;
    const ahead = work.taken + length * (all.length + 2);
    while (idle.length > 0 && work.next < work.runs.length && work.runs[work.next]!.from < ahead) {
      const worker = idle.pop()!; // there is one
      busy.add(worker);
      order(worker, { type: 'run', ...work.runs[work.next++]! });
    }
  };
  const hear = (worker: Worker, message: ThreadMessage): void => {
    switch (message.type) {
      case 'ready':
        isStarting = false;
        idle.push(worker);
        feed();
        break;
      case 'done':
        busy.delete(worker);
        idle.push(worker);
        feed();
        wake();
        break;
      case 'frame':
        work?.finished.set(message.frame, message.pixels ? { pixels: new Uint8Array(message.pixels), worker } : null);
        if (message.pixels && work) work.painted++;
        wake();
        break;
      case 'failed':
        fail(new AppError('ENCODER_FAILED', message.message));
        break;
    }
  };
  const giveBack = ({ pixels: { buffer }, worker }: Painted): void => {
    if (pixels === 'i420') order(worker, { type: 'spare', buffer }, [buffer]);
  };
  const start = (): void => {
    const worker = takePaintThread(assets);
    worker.on('message', (message: ThreadMessage) => hear(worker, message));
    worker.on('error', fail);
    // A thread that ends by itself has run out of memory.
    worker.on('exit', () => fail(new AppError('ENCODER_FAILED', 'a painting thread ended early')));
    order(worker, { type: 'open', input: threadInput });
    all.push(worker);
  };
  /** Threads start one after another, and none that is not waited for: each takes half a second of work to start. */
  const grow = (): void => {
    if (isStarting || all.length >= most) return;
    isStarting = true;
    waitedMs = 0;
    start();
  };
  const abort = (): void => fail(new Cancelled());
  if (signal?.aborted) abort();
  signal?.addEventListener('abort', abort, { once: true });

  return {
    width,
    height,
    async paint(first, end, take) {
      const runs: FrameRun[] = [];
      for (let from = first; from < end; from += length)
        runs.push({ from, to: Math.min(end, from + length), isFirst: from === first });
      const mine: Work = { runs, finished: new Map(), next: 0, taken: first, painted: 0 };
      work = mine;
      most = Math.min(wanted, runs.length);
      feed();
      if (all.length === 0) grow();
      let last: Painted | null = null;
      for (let frame = first; frame < end; frame++) {
        const asked = performance.now();
        while (!mine.finished.has(frame))
          await Promise.race([failed, new Promise<void>((resolve) => (wake = resolve))]);
        // The first one had to wait for a thread.
        if (frame > first) waitedMs += performance.now() - asked;
        if (waitedMs > PATIENCE_MS) grow();
        const now: Painted | null = mine.finished.get(frame) ?? last;
        mine.finished.delete(frame);
        if (!now) throw new AppError('INTERNAL');
        await Promise.race([failed, take(now.pixels, frame)]);
        if (last && last !== now) giveBack(last);
        last = now;
        mine.taken = frame + 1;
        feed();
      }
      // The last word of each thread comes behind its last frame.
      while (busy.size > 0) await Promise.race([failed, new Promise<void>((resolve) => (wake = resolve))]);
      return mine.painted;
    },
    async close() {
      signal?.removeEventListener('abort', abort);
      // Who has nothing left to do is there for the next render; who is in the middle of it, or still loads, cannot be
      // called off otherwise.
      await Promise.all(
        all.map(async (worker) => {
          if (isFailed || !idle.includes(worker)) {
            await endPaintThread(worker, assets);
            return;
          }
          order(worker, { type: 'close' });
          givePaintThread(worker, assets);
        }),
      );
    },
  };
}
