import type { Face } from '@core/framing';
import type { FootageWork, FromFootage, LookedAtFootage, ToFootage } from './footage-protocol';

type Answer = Exclude<FromFootage, { readonly type: 'progress' | 'failed' }>;

/** One piece of work, beside the page. Rejects with an AbortError when it is called off. */
function ask<T extends Answer['type']>(
  work: ToFootage,
  answer: T,
  onProgress: (share: number) => void,
  signal?: AbortSignal,
): Promise<Extract<Answer, { readonly type: T }>> {
  const worker = new Worker(new URL('./footage-worker.ts', import.meta.url), { type: 'module' });
  return new Promise<Extract<Answer, { readonly type: T }>>((resolve, reject) => {
    worker.onmessage = ({ data }: MessageEvent<FromFootage>) => {
      if (data.type === 'progress') onProgress(data.share);
      else if (data.type === answer)
        resolve(data as Extract<Answer, { readonly type: T }>); // by its type
      else reject(new Error(data.type === 'failed' ? data.message : `answered ${data.type}`));
    };
    worker.onerror = (event) => reject(new Error(event.message));
    signal?.addEventListener('abort', () => reject(new DOMException('called off', 'AbortError')), { once: true });
    worker.postMessage(work);
  }).finally(() => worker.terminate());
}

/** Looks at footage, beside the page. Rejects with an AbortError when it is called off. */
export const lookAtFootage = (
  work: FootageWork,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<LookedAtFootage> => ask({ type: 'follow', ...work }, 'followed', onProgress, signal);

/** Looking at one picture takes a second or three; a machine on which it takes longer does without. */
const FACES_LIMIT_MS = 20_000;

/** The faces in a picture. Rejects if they cannot be looked for. @param address - of the picture on the server. */
export const facesInPicture = async (address: string): Promise<readonly Face[]> =>
  (await ask({ type: 'faces', address }, 'faces', () => {}, AbortSignal.timeout(FACES_LIMIT_MS))).faces;
