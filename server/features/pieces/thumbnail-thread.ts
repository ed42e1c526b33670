import { isMainThread, parentPort, workerData } from 'node:worker_threads';
import type { FontLibrary } from '@core/text';
import { createFrameSource } from '../../render/frame-source';
import type { FrameSource, RenderInput } from '../../render/frame-source';
import { createServerFonts } from '../../render/skia-host';

/** Paints small pictures of pieces beside the server's own thread, which can end it when one takes too long. */
export interface ThumbnailRequest {
  readonly id: number;
  /** Pieces asked for again are not laid out again. */
  readonly key: string;
  readonly input: RenderInput;
  readonly seconds: number;
  /** Longest side, pixels. */
  readonly side: number;
}
export type ThumbnailAnswer =
  { readonly id: number; readonly png: Uint8Array } | { readonly id: number; readonly problem: string };

interface Setup {
  readonly kind: 'thumbnails';
  readonly fontsDir: string;
}
const isSetup = (data: unknown): data is Setup =>
  typeof data === 'object' && data !== null && 'kind' in data && data.kind === 'thumbnails';

function serve({ fontsDir }: Setup): void {
  let fonts: FontLibrary | null = null;
  let known: { key: string; source: Promise<FrameSource> } | null = null;
  const answer = async ({ id, key, input, seconds, side }: ThumbnailRequest): Promise<ThumbnailAnswer> => {
    try {
      fonts ??= createServerFonts(fontsDir);
      if (known?.key !== key) known = { key, source: createFrameSource(input, fonts) };
      const source = await known.source;
      const surface = await source.paint(seconds, Math.min(1, side / Math.max(source.width, source.height)));
      return { id, png: await surface.canvas.encode('png') };
    } catch (error) {
      known = null;
      return { id, problem: error instanceof Error ? error.message : String(error) };
    }
  };
  // One after another: a painter has one surface.
  let last: Promise<void> = Promise.resolve();
  parentPort?.on('message', (request: ThumbnailRequest) => {
    last = last.then(async () => parentPort?.postMessage(await answer(request)));
  });
}

if (!isMainThread && isSetup(workerData)) serve(workerData);
