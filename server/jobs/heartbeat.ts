import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { Logger } from 'pino';
import type { JobRepository } from '../features/jobs/repository';
import type { BeatAnswer, FromHeart, HeartData, ToHeart } from './heartbeat-thread';

/**
 * Signs of life for the jobs a process runs. A worker that paints has little time for anything else, and its pool of
 * connections may be waited for: so workers report from a thread of their own, over a connection of its own, and a
 * worker that lives is not taken for lost because it is busy.
 */
export interface Heartbeat {
  /**
   * Reports a running job from now on.
   * @param onAnswer - told once the job is no longer this attempt's, and why.
   */
  watch(jobId: string, attempt: number, onAnswer: (answer: BeatAnswer) => void): WatchedJob;
  close(): Promise<void>;
}
export interface WatchedJob {
  /** @param share - 0 to 1, never less than before. */
  progress(share: number): void;
  stop(): void;
}

export const BEAT_MS = 500;

/** Reports from the process itself: for tests, and for whoever runs a single job. */
export function localHeartbeat(jobs: Pick<JobRepository, 'beat'>, log: Pick<Logger, 'warn'>): Heartbeat {
  return {
    watch(jobId, attempt, onAnswer) {
      let progress = 0;
      let isBeating = false;
      const beat = async (): Promise<void> => {
        if (isBeating) return;
        isBeating = true;
        try {
          const answer = await jobs.beat(jobId, attempt, progress);
          if (answer !== 'ours') onAnswer(answer);
        } catch (error) {
          log.warn({ jobId, err: error }, 'a sign of life did not get through');
        } finally {
          isBeating = false;
        }
      };
      const timer = setInterval(() => void beat(), BEAT_MS);
      return {
        progress: (share) => {
          progress = share;
        },
        stop: () => clearInterval(timer),
      };
    },
    close: () => Promise.resolve(),
  };
}

/** Reports from a thread. Should the thread end by itself, it is started again with what is underway. */
export function threadHeartbeat(serverDir: string, databaseUrl: string, log: Pick<Logger, 'warn'>): Heartbeat {
  const watched = new Map<string, { progress: number; onAnswer: (answer: BeatAnswer) => void }>();
  let thread: Worker | null = null;
  let isClosed = false;
  const keyOf = (jobId: string, attempt: number): string => `${jobId}.${attempt}`;
  const post = (message: ToHeart): void => thread?.postMessage(message);
  const start = (): void => {
    const data: HeartData = { databaseUrl, everyMs: BEAT_MS };
    const own = new Worker(join(serverDir, 'heartbeat-thread.js'), { workerData: data });
    thread = own;
    for (const [key, { progress }] of watched) post({ type: 'progress', key, progress });
    own.on('message', (message: FromHeart) => {
      if (message.type === 'trouble') log.warn({ why: message.why }, 'a sign of life did not get through');
      else watched.get(message.key)?.onAnswer(message.answer);
    });
    own.on('error', (error) => log.warn({ err: error }, 'the signs of life broke off'));
    own.on('exit', () => {
      thread = null;
      if (!isClosed) setTimeout(start, BEAT_MS);
    });
    own.unref();
  };
  start();
  return {
    watch(jobId, attempt, onAnswer) {
      const key = keyOf(jobId, attempt);
      const own = { progress: 0, onAnswer };
      watched.set(key, own);
      post({ type: 'progress', key, progress: 0 });
      return {
        progress: (share) => {
          own.progress = share;
          post({ type: 'progress', key, progress: share });
        },
        stop: () => {
          watched.delete(key);
          post({ type: 'stop', key });
        },
      };
    },
    async close() {
      isClosed = true;
      await thread?.terminate();
    },
  };
}
