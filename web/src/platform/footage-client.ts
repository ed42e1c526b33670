import type { FromFootage, LookedAtFootage, ToFootage } from './footage-protocol';

/** Looks at footage, beside the page. Rejects with an AbortError when it is called off. */
export function lookAtFootage(
  what: ToFootage,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<LookedAtFootage> {
  const worker = new Worker(new URL('./footage-worker.ts', import.meta.url), { type: 'module' });
  return new Promise<LookedAtFootage>((resolve, reject) => {
    worker.onmessage = ({ data }: MessageEvent<FromFootage>) => {
      if (data.type === 'progress') onProgress(data.share);
      else if (data.type === 'done') resolve(data);
      else reject(new Error(data.message));
    };
    worker.onerror = (event) => reject(new Error(event.message));
    signal.addEventListener('abort', () => reject(new DOMException('called off', 'AbortError')), { once: true });
    worker.postMessage(what);
  }).finally(() => worker.terminate());
}
