import { fork } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import type { Logger } from 'pino';
import { cpuTimeOf } from './platform/cpu-time';

/**
 * Worker processes, started again whenever they end or hang.
 *
 * A machine with far too much to do gives a worker a second of computing in a minute, so what a worker is allowed goes by
 * what it has computed: one that starts has so much of that, however long it takes. Workers start one after another,
 * which is quicker for each, and a pause before another try grows until one has shown a sign of life.
 */

export interface Limits {
  /** Between looks at a worker. */
  readonly lookMs: number;
  /** Computing, and time at the most, from the start to the first sign of life. */
  readonly startCpuMs: number;
  readonly startMs: number;
  /** Time without a sign of life in which a worker may be waiting for its turn, if it computed no more than this. */
  readonly silentMs: number;
  readonly silentCpuMs: number;
  /** Time without a sign of life at the most: it is stopped, or waits for something that never comes. */
  readonly deadMs: number;
  readonly shortestPauseMs: number;
  readonly longestPauseMs: number;
}

/** A worker says that it is awake each second. */
export const AWAKE_EVERY_MS = 1000;
export const LIMITS: Limits = {
  lookMs: AWAKE_EVERY_MS,
  startCpuMs: 30_000,
  startMs: 600_000,
  silentMs: 20_000,
  silentCpuMs: 10_000,
  deadMs: 60_000,
  shortestPauseMs: 200,
  longestPauseMs: 10_000,
};
/**
 * The canvas frees and asks for the memory of whole frames again and again: kept for a while (mimalloc, milliseconds), it
 * needs no new pages each time.
 */
const PAINTS_WITH = { MIMALLOC_PURGE_DELAY: '5000' } as const;
/** A worker that lived so long after its first sign of life did not fail at once. */
const LIVED_MS = 10_000;

/** Starts so many workers, and starts each again until what is returned is called. */
export function superviseWorkers(
  file: string,
  count: number,
  log: Pick<Logger, 'info' | 'warn' | 'error'>,
  limits: Limits = LIMITS,
): () => void {
  let isStopped = false;
  const children = new Set<ChildProcess>();
  /** Resolves when the worker that starts now is awake, or over. */
  let turn: Promise<void> = Promise.resolve();

  const startOne = (pause: number): void => {
    const before = turn;
    let isStarted = (): void => {};
    turn = new Promise((resolve) => (isStarted = resolve));
    void before.then(() => {
      if (isStopped) return isStarted();
      run(isStarted, pause);
    });
  };

  const run = (isStarted: () => void, pause: number): void => {
    const own = fork(file, { env: { ...process.env, ...PAINTS_WITH } });
    children.add(own);
    log.info({ pid: own.pid }, 'worker started');
    const startedAt = performance.now();
    let [awakeAt, lookedAt] = [startedAt, startedAt];
    let wokeAt: number | null = null;
    let [cpu, cpuAtSign] = [0, 0];
    own.on('message', () => {
      awakeAt = performance.now();
      cpuAtSign = cpu;
      wokeAt ??= awakeAt;
      isStarted();
    });
    const look = async (): Promise<void> => {
      cpu = (await cpuTimeOf(own.pid ?? 0)) ?? cpu;
      const now = performance.now();
      // If this process slept itself, the worker did too.
      if (now - lookedAt > limits.silentMs / 2) awakeAt = now;
      lookedAt = now;
      const silent = now - awakeAt;
      const hangs =
        wokeAt === null
          ? cpu > limits.startCpuMs || now - startedAt > limits.startMs
          : silent > limits.deadMs || (silent > limits.silentMs && cpu - cpuAtSign > limits.silentCpuMs);
      if (!hangs) return;
      log.warn({ pid: own.pid, silent, cpu }, 'a worker hangs and is replaced');
      own.kill('SIGKILL');
    };
    const watch = setInterval(() => void look(), limits.lookMs);
    own.on('error', (error) => log.error({ err: error }, 'a worker could not be started'));
    own.on('exit', () => {
      clearInterval(watch);
      children.delete(own);
      isStarted();
      if (isStopped) return;
      const hasLived = wokeAt !== null && performance.now() - wokeAt > LIVED_MS;
      const next = hasLived ? limits.shortestPauseMs : Math.min(limits.longestPauseMs, pause * 2);
      setTimeout(() => !isStopped && startOne(next), hasLived ? limits.shortestPauseMs : pause);
    });
  };

  for (let n = 0; n < count; n++) startOne(limits.shortestPauseMs);
  return () => {
    isStopped = true;
    for (const child of children) child.kill('SIGTERM');
  };
}
