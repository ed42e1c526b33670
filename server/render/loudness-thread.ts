import { join } from 'node:path';
import { Worker, isMainThread, parentPort, workerData } from 'node:worker_threads';
import { toLoudness } from '@core/audio';
import type { Stereo } from '@core/audio';
import { Cancelled } from '../platform/errors';

/**
 * Bringing a sound to a loudness takes seconds for a long piece: in a thread of its own, so that the process's signs of
 * life are not starved.
 */
export interface Aim {
  /** LUFS; null for as loud as it is. */
  readonly target: number | null;
  /** Ceiling of true peaks, dBTP. */
  readonly peak: number;
}
interface Input {
  readonly sound: Stereo;
  readonly rate: number;
  readonly aim: Aim;
}

/** @throws Cancelled if the signal fires. */
export function loudnessInThread(serverDir: string, input: Input, signal: AbortSignal | undefined): Promise<Stereo> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(join(serverDir, 'loudness-thread.js'), {
      workerData: { loudness: input },
      resourceLimits: { maxOldGenerationSizeMb: 2048 },
    });
    const end = (): void => {
      signal?.removeEventListener('abort', stop);
      void worker.terminate();
    };
    const stop = (): void => {
      end();
      reject(new Cancelled());
    };
    if (signal?.aborted) return stop();
    signal?.addEventListener('abort', stop, { once: true });
    worker.on('message', (sound: Stereo) => {
      end();
      resolve(sound);
    });
    worker.on('error', reject);
    // A thread that ends without an answer (out of memory) must not leave its render waiting.
    worker.on('exit', () => reject(new Error('the loudness was not met')));
  });
}

const asked = (workerData as { loudness?: Input } | null)?.loudness; // sent by loudnessInThread
if (!isMainThread && asked) {
  const { sound, rate, aim } = asked;
  const [left, right] = toLoudness(sound, rate, aim.target, aim.peak);
  const own = [left.buffer, right.buffer] as ArrayBuffer[]; // made here
  parentPort?.postMessage([left, right] satisfies Stereo, own[0] === own[1] ? [own[0]!] : own);
}
