import type { SongAnalysis } from '@core/audio';
import type { CheckId } from '@core/checks';
import type { Piece } from '@core/piece';
import type { CheckedFinding, FromChecks, Scans, ToChecks } from './checks-protocol';
import { WORDS } from './words';

/** The page's end of the worker that looks for mistakes. */
interface Waiting {
  readonly done: (message: Exclude<FromChecks, { type: 'progress' | 'failed' }>) => void;
  readonly fail: (error: Error) => void;
  readonly onProgress?: (share: number) => void;
}

let worker: Worker | null = null;
let ids = 0;
const waiting = new Map<number, Waiting>();

function settle(message: FromChecks): void {
  if (message.type === 'progress') {
    waiting.get(message.id)?.onProgress?.(message.share);
    return;
  }
  if (message.type === 'failed') {
    const failed = message.id === 0 ? [...waiting] : [...waiting].filter(([id]) => id === message.id);
    for (const [id, { fail }] of failed) {
      waiting.delete(id);
      fail(new Error(message.message));
    }
    return;
  }
  waiting.get(message.id)?.done(message);
  waiting.delete(message.id);
}

function theWorker(): Worker {
  if (!worker) {
    worker = new Worker(new URL('./checks-worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<FromChecks>) => settle(data);
    worker.onerror = () => settle({ type: 'failed', id: 0, message: WORDS.theWorkerCouldNot });
  }
  return worker;
}

const send = (message: ToChecks): void => theWorker().postMessage(message);

/** What checks find in a piece, laid out with its fonts. Rejects if a font cannot be read. */
export function runChecks(
  piece: Piece,
  analysis: SongAnalysis | null,
  checks: readonly CheckId[],
): Promise<readonly CheckedFinding[]> {
  const id = ++ids;
  return new Promise((resolve, fail) => {
    waiting.set(id, { done: (message) => message.type === 'findings' && resolve(message.findings), fail });
    send({ type: 'run', id, piece, analysis, checks });
  });
}

/** A look at the painted frames of a format. */
export type Scan<F> = (
  piece: Piece,
  analysis: SongAnalysis | null,
  formatId: string,
  onProgress: (share: number) => void,
  signal: AbortSignal,
) => Promise<readonly F[]>;

/** Looks at painted frames, beside the page. Rejects with an AbortError when it is called off. */
const scanning =
  <K extends keyof Scans>(type: K): Scan<Scans[K]> =>
  (piece, analysis, formatId, onProgress, signal) => {
    const id = ++ids;
    return new Promise((resolve, fail) => {
      const done: Waiting['done'] = (message) =>
        message.type === type && resolve(message.findings as unknown as readonly Scans[K][]); // of that very type
      waiting.set(id, { done, fail, onProgress });
      const callOff = (): void => {
        if (!waiting.delete(id)) return;
        send({ type: 'stop', id });
        fail(new DOMException('called off', 'AbortError'));
      };
      signal.addEventListener('abort', callOff, { once: true });
      send({ type, id, piece, analysis, formatId });
    });
  };

export const lookAtContrast = scanning('contrast');
export const lookForFlashes = scanning('flashes');
