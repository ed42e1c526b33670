import { fork } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import type { Logger } from 'pino';

/** A worker says it is awake each second; one that hasn't for so long hangs, or is stopped, and is replaced. */
export const AWAKE_EVERY_MS = 1000;
export const HANGS_AFTER_MS = 20_000;
const SHORTEST_PAUSE_MS = 200;
const LONGEST_PAUSE_MS = 10_000;
/**
 * The canvas frees and asks for the memory of whole frames again and again: kept for a while (mimalloc, milliseconds), it
 * needs no new pages each time.
 */
const PAINTS_WITH = { MIMALLOC_PURGE_DELAY: '5000' } as const;
/** A worker that lived so long did not fail at once. */
const LIVED_MS = 10_000;

/**
 * Starts a worker process again whenever it ends or hangs, with a pause that grows while it keeps failing at once.
 * Returns what stops it.
 */
export function superviseWorker(file: string, log: Logger): () => void {
  let stopped = false;
  let child: ChildProcess | null = null;
  let pause = SHORTEST_PAUSE_MS;
  const start = () => {
    const startedAt = performance.now();
    let awakeAt = startedAt;
    let lookedAt = startedAt;
    const own = fork(file, { env: { ...process.env, ...PAINTS_WITH } });
    child = own;
    log.info({ pid: own.pid }, 'worker started');
    own.on('message', () => {
      awakeAt = performance.now();
    });
    const watch = setInterval(() => {
      const now = performance.now();
      // If this process slept itself, the worker did too.
      if (now - lookedAt > HANGS_AFTER_MS / 2) awakeAt = now;
      lookedAt = now;
      if (now - awakeAt <= HANGS_AFTER_MS) return;
      log.warn({ pid: own.pid }, 'a worker hangs and is replaced');
      own.kill('SIGKILL');
    }, AWAKE_EVERY_MS);
    own.on('error', (error) => log.error({ err: error }, 'a worker could not be started'));
    own.on('exit', () => {
      clearInterval(watch);
      if (stopped) return;
      pause = performance.now() - startedAt > LIVED_MS ? SHORTEST_PAUSE_MS : Math.min(LONGEST_PAUSE_MS, pause * 2);
      setTimeout(() => !stopped && start(), pause);
    });
  };
  start();
  return () => {
    stopped = true;
    child?.kill('SIGTERM');
  };
}
