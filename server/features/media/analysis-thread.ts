import { join } from 'node:path';
import { Worker, isMainThread, parentPort, workerData } from 'node:worker_threads';
import { analyseSong } from '@core/audio';
import type { SongAnalysis } from '@core/audio';
import { Cancelled } from '../../platform/errors';

/**
 * The analysis runs in a thread of its own: an hour of music takes long enough to starve the process's signs of life.
 */
type Message = { readonly progress: number } | { readonly analysis: SongAnalysis };

/** @param samples - handed over to the thread; unusable afterwards. */
export function analyseInThread(
  serverDir: string,
  samples: Float32Array,
  signal: AbortSignal,
  onProgress: (share: number) => void,
): Promise<SongAnalysis> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(join(serverDir, 'analysis-thread.js'), {
      workerData: samples,
      transferList: [samples.buffer as ArrayBuffer],
      resourceLimits: { maxOldGenerationSizeMb: 2048 },
    });
    const stop = () => {
      void worker.terminate();
      reject(new Cancelled());
    };
    signal.addEventListener('abort', stop, { once: true });
    worker.on('message', (message: Message) => {
      if ('progress' in message) onProgress(message.progress);
      else {
        signal.removeEventListener('abort', stop);
        resolve(message.analysis);
        void worker.terminate();
      }
    });
    worker.on('error', (error) => reject(error));
    // A thread that ends without an answer (out of memory) must not leave its job waiting.
    worker.on('exit', () => reject(new Error('the analysis ended without a result')));
  });
}

if (!isMainThread && workerData instanceof Float32Array) {
  const post = (message: Message) => parentPort?.postMessage(message);
  post({ analysis: analyseSong(workerData, (progress) => post({ progress })) });
}
