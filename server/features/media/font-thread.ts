import { join } from 'node:path';
import { Worker, isMainThread, parentPort, workerData } from 'node:worker_threads';
import * as hb from 'harfbuzzjs';
import { fontRefSchema } from '@core/piece';
import type { FontRef } from '@core/piece';
import { readFontFacts } from '@core/text';
import { decodeFont } from './decode-font';

/** Fonts are unpacked and read in a thread with bounds of time and memory: a small file can ask for a lot of either. */
export interface DecodedFont {
  readonly sfnt: Uint8Array;
  readonly font: FontRef;
}
type Input = { readonly kind: 'font'; readonly bytes: Uint8Array };

const LIMIT_MS = 40_000;
const HEAP_MB = 512;

/** @returns Null for what is no font, or asks for more than a font may. */
export function readFontInThread(
  serverDir: string,
  bytes: Uint8Array,
  limitMs = LIMIT_MS,
): Promise<DecodedFont | null> {
  return new Promise((resolve) => {
    const input: Input = { kind: 'font', bytes };
    const worker = new Worker(join(serverDir, 'font-thread.js'), {
      workerData: input,
      resourceLimits: { maxOldGenerationSizeMb: HEAP_MB },
    });
    const end = (result: DecodedFont | null) => {
      clearTimeout(timer);
      void worker.terminate();
      resolve(result);
    };
    const timer = setTimeout(() => end(null), limitMs);
    worker.once('message', end);
    worker.once('error', () => end(null));
    worker.once('exit', () => end(null));
  });
}

async function decode(bytes: Uint8Array): Promise<DecodedFont | null> {
  try {
    const sfnt = await decodeFont(bytes);
    const facts = readFontFacts(hb, sfnt); // core knows the engine by the part it uses
    const font = facts && fontRefSchema.safeParse(facts);
    return font?.success ? { sfnt, font: font.data } : null;
  } catch {
    return null;
  }
}

const isInput = (data: unknown): data is Input =>
  typeof data === 'object' && data !== null && 'kind' in data && data.kind === 'font';
if (!isMainThread && isInput(workerData))
  void decode(workerData.bytes).then((result) => parentPort?.postMessage(result));
