import { parentPort, workerData } from 'node:worker_threads';
import { frameFingerprint } from '@core/scene';
import { frameMiddle } from '@core/time';
import { youngCollector } from '../platform/collect-young';
import { turn } from '../platform/turns';
import { createFrameSource } from './frame-source';
import type { RenderInput } from './frame-source';
import { createI420Converter } from './i420';
import type { I420Converter } from './i420';
import { sidesFor } from './pixels';
import type { PixelKind } from './pixels';
import { createServerFonts, createSkiaSurface } from './skia-host';
import type { SkiaSurface } from './skia-host';

/** A painting thread: takes runs of frames, gives back pixels or the news that a frame equals the one before. */
export interface ThreadInput extends RenderInput {
  readonly fontsDir: string;
  readonly wasmFile: string;
  readonly pixels: PixelKind;
  /** Frames are painted so many times as large. */
  readonly scale: number;
}
export interface FrameRun {
  readonly from: number;
  readonly to: number;
  /** Whether nobody has the frame before it. */
  readonly isFirst: boolean;
}
/** A run to paint, or memory that frames were in and can be again. */
export type ThreadOrder = FrameRun | { readonly spare: ArrayBuffer };
export type ThreadMessage =
  | { readonly type: 'ready' }
  | { readonly type: 'frame'; readonly frame: number; readonly pixels: ArrayBuffer | null }
  | { readonly type: 'done' }
  | { readonly type: 'failed'; readonly message: string };

/** The share of rows up to which reading just them is quicker than reading all: what is read in part is converted twice. */
const FEW_ROWS = 0.4;

async function main(): Promise<void> {
  const port = parentPort;
  if (!port) return;
  const input = workerData as ThreadInput; // sent by painters.ts, which builds it from typed values
  const post = (message: ThreadMessage, transfer: ArrayBuffer[] = []) => port.postMessage(message, transfer);
  const source = await createFrameSource(input, createServerFonts(input.fontsDir));
  const own = { width: Math.round(source.width * input.scale), height: Math.round(source.height * input.scale) };
  const { width, height } = sidesFor(input.pixels, own.width, own.height);
  const isOdd = width !== own.width || height !== own.height;
  const padded = isOdd ? createSkiaSurface(width, height) : null;
  const rate = input.piece.frameRate;
  const converter = input.pixels === 'i420' ? createI420Converter(input.wasmFile, width, height) : null;
  const collectYoung = youngCollector();
  const spare: ArrayBuffer[] = [];
  const pixelsOf = (surface: SkiaSurface): Uint8Array<ArrayBuffer> => {
    // The surface itself holds colours multiplied by their alpha; what is read out of it is straight.
    if (!converter) return new Uint8Array(surface.canvas.getContext('2d').getImageData(0, 0, width, height).data);
    takeChanges(converter, surface);
    const out = new Uint8Array(spare.pop() ?? new ArrayBuffer((width * height * 3) / 2));
    converter.copyTo(out);
    return out;
  };
  /** Rows that are as they were are not converted, and not read back where that is quicker. */
  const takeChanges = (into: I420Converter, { canvas }: SkiaSurface): void => {
    const [from, to] = isOdd ? [0, height] : source.changedRows;
    const top = from - (from % 2);
    const rows = Math.min(height, to + (to % 2)) - top;
    if (rows <= 0) return;
    if (rows < height * FEW_ROWS) into.take(canvas.getContext('2d').getImageData(0, top, width, rows).data, top);
    else into.take(canvas.data().subarray(top * width * 4, (top + rows) * width * 4), top);
  };
  const paintRun = async (run: FrameRun): Promise<void> => {
    try {
      source.forget(); // what other threads painted meanwhile is not on this one's surface
      let before = run.isFirst ? null : frameFingerprint(source.resolve(frameMiddle(run.from - 1, rate)));
      let next = source.resolve(frameMiddle(run.from, rate));
      for (let frame = run.from; frame < run.to; frame++) {
        const list = next;
        if (frame + 1 < run.to) next = source.resolve(frameMiddle(frame + 1, rate));
        const print = frameFingerprint(list);
        if (print === before) {
          post({ type: 'frame', frame, pixels: null });
          continue;
        }
        before = print;
        const surface = await source.paint(list, input.scale, next);
        if (padded) padded.context.drawImage(surface.canvas as never, 0, 0, width, height);
        const out = pixelsOf(padded ?? surface);
        post({ type: 'frame', frame, pixels: out.buffer }, [out.buffer]);
        // What was read of this frame is given back, and memory that comes back is there for the next.
        collectYoung();
        await turn();
      }
      post({ type: 'done' });
    } catch (error) {
      post({ type: 'failed', message: error instanceof Error ? error.message : String(error) });
    }
  };
  port.on('message', (order: ThreadOrder) => {
    if ('spare' in order) spare.push(order.spare);
    else void paintRun(order);
  });
  post({ type: 'ready' });
}

main().catch((error: unknown) =>
  parentPort?.postMessage({
    type: 'failed',
    message: error instanceof Error ? error.message : String(error),
  } satisfies ThreadMessage),
);
