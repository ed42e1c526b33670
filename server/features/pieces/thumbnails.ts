import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { posterSeconds, resolveTimes } from '@core/piece';
import { frameMiddle, secondsToFrame } from '@core/time';
import { renderInputFor } from '../../jobs/render-to-store';
import type { ServerContext } from '../../jobs/context';
import { AppError } from '../../platform/errors';
import type { PieceRecord } from './repository';
import type { ThumbnailAnswer, ThumbnailRequest } from './thumbnail-thread';

/** Frames of a piece that the home cycles through. */
export const THUMBNAIL_FRAMES = 12;
const SIDE = 420;
const CACHE = 600;
/** A small picture that takes longer than this is given up, and not tried again for the same revision. */
const LIMIT_MS = 8000;
/** Pictures waited for at once; more are turned away, so that a flood of requests cannot fill the memory. */
const MOST_WAITING = 120;

interface Waiting {
  readonly request: ThumbnailRequest;
  readonly resolve: (png: Uint8Array) => void;
  readonly reject: (error: Error) => void;
}

export interface Thumbnails {
  /** @param which - the poster, or one of {@link THUMBNAIL_FRAMES}; anything else is refused as BAD_REQUEST. */
  frame(record: PieceRecord, which: string): Promise<Uint8Array>;
  stop(): Promise<void>;
}

/** Small frames spread over a piece, painted in a thread with a time limit, cached by revision. */
export function createThumbnails(context: ServerContext, limitMs = LIMIT_MS): Thumbnails {
  const cache = new Map<string, Promise<Uint8Array>>();
  /** Revisions whose pictures took too long. */
  const tooHard = new Set<string>();
  const queue: Waiting[] = [];
  let worker: Worker | null = null;
  let current: Waiting | null = null;
  let timer: ReturnType<typeof setTimeout> | null = null;
  let ids = 0;

  const end = (settle: (waiting: Waiting) => void) => {
    if (timer) clearTimeout(timer);
    const done = current;
    current = null;
    if (done) settle(done);
    next();
  };
  const drop = (error: Error) => {
    const old = worker;
    worker = null;
    void old?.terminate();
    end((waiting) => waiting.reject(error));
  };
  const start = (): Worker => {
    const { serverDir, fontsDir } = context.config.assets;
    const thread = new Worker(join(serverDir, 'thumbnail-thread.js'), {
      workerData: { kind: 'thumbnails', fontsDir },
      resourceLimits: { maxOldGenerationSizeMb: 1024 },
    });
    thread.on('message', (answer: ThumbnailAnswer) => {
      if (thread !== worker || answer.id !== current?.request.id) return;
      end((waiting) =>
        'png' in answer ? waiting.resolve(answer.png) : waiting.reject(new AppError('MEDIA_MISSING', answer.problem)),
      );
    });
    const lost = () => thread === worker && drop(new AppError('TOO_HARD', 'This piece'));
    thread.on('error', lost);
    thread.on('exit', lost);
    thread.unref();
    return thread;
  };
  const next = () => {
    if (current || queue.length === 0) return;
    current = queue.shift() ?? null;
    if (!current) return;
    const { key } = current.request;
    if (tooHard.has(key)) return end((waiting) => waiting.reject(new AppError('TOO_HARD', 'This piece')));
    worker ??= start();
    timer = setTimeout(() => {
      tooHard.add(key);
      drop(new AppError('TOO_HARD', 'This piece'));
    }, limitMs);
    worker.postMessage(current.request);
  };

  const paint = async (record: PieceRecord, index: number | 'poster'): Promise<Uint8Array> => {
    const { piece, revision } = record;
    const key = `${piece.id}@${revision}`;
    if (tooHard.has(key)) throw new AppError('TOO_HARD', 'This piece');
    if (queue.length >= MOST_WAITING) throw new AppError('TOO_MANY_REQUESTS');
    const analysis = await context.media.analysisOf(piece).catch(() => null);
    // The sound is not looked for: pictures do without it.
    const { input } = await renderInputFor(context, { ...piece, music: null }, piece.leadFormatId);
    const rate = piece.frameRate;
    const times = resolveTimes(piece, analysis);
    const lastFrame = secondsToFrame(times.end, rate) - 1;
    const at = index === 'poster' ? posterSeconds(piece, times) : (times.end * (index + 0.5)) / THUMBNAIL_FRAMES;
    const seconds = frameMiddle(Math.max(0, Math.min(lastFrame, secondsToFrame(at, rate))), rate);
    return new Promise((resolve, reject) => {
      queue.push({
        request: { id: ++ids, key, input: { ...input, piece, analysis }, seconds, side: SIDE },
        resolve,
        reject,
      });
      next();
    });
  };

  return {
    frame(record, which) {
      const index = which === 'poster' ? which : Number(which);
      if (index !== 'poster' && !(Number.isInteger(index) && index >= 0 && index < THUMBNAIL_FRAMES))
        throw new AppError('BAD_REQUEST', `frames are 0 to ${THUMBNAIL_FRAMES - 1}, and poster`);
      const key = `${record.piece.id}@${record.revision}#${index}`;
      let frame = cache.get(key);
      if (!frame) {
        frame = paint(record, index);
        if (cache.size >= CACHE) cache.clear();
        cache.set(key, frame);
        frame.catch(() => cache.delete(key));
      }
      return frame;
    },
    async stop() {
      const old = worker;
      worker = null;
      await old?.terminate();
    },
  };
}
