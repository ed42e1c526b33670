import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { Assets } from '../platform/config';
import type { ThreadData } from './paint-thread';

/**
 * Painting threads that nobody uses just now. To load the painter takes a thread half a second, about as long as to paint
 * a quote that stands still: so it stays for the next render.
 */
interface Idle {
  readonly worker: Worker;
  readonly key: string;
  readonly timer: NodeJS.Timeout;
}

/** As many of them wait at most, and so long. */
const MOST_IDLE = 2;
const IDLE_MS = 60_000;
/** In MB, for the memory of JavaScript alone: surfaces are beside it. */
const MOST_MEMORY = 2048;

const idle: Idle[] = [];
/** As many stay however long nobody comes. */
let fewest = 0;

const keyOf = ({ serverDir, fontsDir, wasmFile }: Assets): string => [serverDir, fontsDir, wasmFile].join('\n');

function start(assets: Assets): Worker {
  const workerData: ThreadData = { fontsDir: assets.fontsDir, wasmFile: assets.wasmFile };
  return new Worker(join(assets.serverDir, 'paint-thread.js'), {
    workerData,
    resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY },
  });
}

/** By name: the worker itself listens to other events, without which it would hear no more messages. */
function fallSilent(worker: Worker): void {
  for (const event of ['message', 'error', 'exit']) worker.removeAllListeners(event);
}

function forget(worker: Worker): void {
  const at = idle.findIndex((entry) => entry.worker === worker);
  if (at < 0) return;
  clearTimeout(idle[at]!.timer);
  idle.splice(at, 1);
}

/** A thread that waits for its piece; whoever takes it listens to it, and gives it back or terminates it. */
export function takePaintThread(assets: Assets): Worker {
  const entry = idle.find(({ key }) => key === keyOf(assets));
  if (!entry) return start(assets);
  forget(entry.worker);
  fallSilent(entry.worker);
  entry.worker.ref();
  return entry.worker;
}

/** Keeps a thread that has painted all that it was told to for the next render. It doesn't keep the process alive. */
export function givePaintThread(worker: Worker, assets: Assets): void {
  fallSilent(worker);
  if (idle.length >= MOST_IDLE) {
    void worker.terminate();
    return;
  }
  worker.on('error', () => forget(worker));
  worker.on('exit', () => forget(worker));
  worker.unref();
  const timer = setTimeout(() => {
    if (idle.length <= fewest) return;
    forget(worker);
    void worker.terminate();
  }, IDLE_MS).unref();
  idle.push({ worker, key: keyOf(assets), timer });
}

/** Ends a thread that is in the middle of something or has failed. Where one is always to be there, another is loaded. */
export async function endPaintThread(worker: Worker, assets: Assets): Promise<void> {
  await worker.terminate();
  if (idle.length < fewest) givePaintThread(start(assets), assets);
}

/** How many threads wait for a render. */
export const waitingPaintThreads = (): number => idle.length;

/** Loads a thread, and sees to it that there always is one from now on: for processes that live for renders. */
export function keepPaintThread(assets: Assets): void {
  fewest = 1;
  if (!idle.some(({ key }) => key === keyOf(assets))) givePaintThread(start(assets), assets);
}
