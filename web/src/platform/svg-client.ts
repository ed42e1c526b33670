import type { FromSvg, SvgAnswer, ToSvg } from './svg-protocol';

/** The page's end of the worker that reads SVG files: one for each file, ended with it. */

/**
 * How long a file may take, on a machine that may be busy with other things: what people draw takes under a second. The
 * page stays usable meanwhile.
 */
const LIMIT_MS = 45_000;

/**
 * Reads an SVG file into layers. A file that takes too long is given up as `too-much`.
 * @throws Error if the worker fails.
 */
export function readSvgFile(work: ToSvg): Promise<SvgAnswer> {
  const worker = new Worker(new URL('./svg-worker.ts', import.meta.url), { type: 'module' });
  return new Promise<SvgAnswer>((resolve, reject) => {
    const timer = setTimeout(() => resolve({ type: 'too-much' }), LIMIT_MS);
    worker.onmessage = ({ data }: MessageEvent<FromSvg>) => {
      clearTimeout(timer);
      if (data.type === 'failed') reject(new Error(data.message));
      else resolve(data);
    };
    worker.onerror = () => reject(new Error('the reader of SVG files failed'));
    worker.postMessage(work satisfies ToSvg);
  }).finally(() => worker.terminate());
}
