import { parentPort, workerData } from 'node:worker_threads';
import type { MessagePort } from 'node:worker_threads';
import { frameFingerprint } from '@core/scene';
import type { DisplayList } from '@core/scene';
import type { FontLibrary } from '@core/text';
import { frameMiddle } from '@core/time';
import { youngCollector } from '../platform/collect-young';
import { turn } from '../platform/turns';
import { createFrameSource } from './frame-source';
import type { RenderInput } from './frame-source';
import { createI420Converter } from './i420';
import type { I420Converter } from './i420';
import { sidesFor } from './pixels';
import type { PixelKind } from './pixels';
import { createServerFonts, createSkiaSurface, pixelsOf } from './skia-host';

/** What a thread knows from its start. */
export interface ThreadData {
  readonly fontsDir: string;
  readonly wasmFile: string;
}
/** The frames that it is to paint. */
export interface ThreadInput extends RenderInput {
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
/** A piece to paint from now on (or none any more), a run of its frames, or memory that frames were in and can be again. */
export type ThreadOrder =
  | { readonly type: 'open'; readonly input: ThreadInput }
  | { readonly type: 'close' }
  | ({ readonly type: 'run' } & FrameRun)
  | { readonly type: 'spare'; readonly buffer: ArrayBuffer };
export type ThreadMessage =
  | { readonly type: 'ready' }
  | { readonly type: 'frame'; readonly frame: number; readonly pixels: ArrayBuffer | null }
  | { readonly type: 'done' }
  | { readonly type: 'failed'; readonly message: string };

type Post = (message: ThreadMessage, transfer?: ArrayBuffer[]) => void;

/** Paints runs of one piece's frames. */
interface Job {
  readonly paintRun: (run: FrameRun) => Promise<void>;
  readonly spare: (buffer: ArrayBuffer) => void;
}

const collectYoung = youngCollector();

interface Sides {
  readonly width: number;
  readonly height: number;
}

type Surface = ReturnType<typeof createSkiaSurface>;

/** Lays a picture on a surface that is a line wider or higher: its last column and row once more, nothing resampled. */
function pad({ context }: Surface, from: Surface, own: Sides, to: Sides): void {
  const picture = from.canvas as never;
  context.clearRect(0, 0, to.width, to.height);
  const [right, below] = [own.width - 1, own.height - 1];
  context.drawImage(picture, 0, 0);
  if (to.width > own.width) context.drawImage(picture, right, 0, 1, own.height, own.width, 0, 1, own.height);
  if (to.height > own.height) context.drawImage(picture, 0, below, own.width, 1, 0, own.height, own.width, 1);
  if (to.width > own.width && to.height > own.height)
    context.drawImage(picture, right, below, 1, 1, own.width, own.height, 1, 1);
}

async function openJob(input: ThreadInput, wasmFile: string, fonts: FontLibrary, post: Post): Promise<Job> {
  const source = await createFrameSource(input, fonts);
  const own = { width: Math.round(source.width * input.scale), height: Math.round(source.height * input.scale) };
  const { width, height } = sidesFor(input.pixels, own.width, own.height);
  const isOdd = width !== own.width || height !== own.height;
  const padded = isOdd ? createSkiaSurface(width, height) : null;
  const rate = input.piece.frameRate;
  const converter = input.pixels === 'i420' ? createI420Converter(wasmFile, width, height) : null;
  const spare: ArrayBuffer[] = [];
  /** Pixels as they are asked for; as I420 only what has changed is painted, read and converted. */
  const paint = async (list: DisplayList, next: DisplayList): Promise<Uint8Array<ArrayBuffer>> => {
    if (converter && !padded) {
      for (const { surface, rect } of await source.paintChanges(list, input.scale, next))
        converter.take(pixelsOf(surface), surface.width, rect);
      return planesOf(converter);
    }
    const painted = await source.paint(list, input.scale, next);
    if (padded) pad(padded, painted, own, { width, height });
    const surface = padded ?? painted;
    if (!converter)
      // The surface itself holds colours multiplied by their alpha; what is read out of it is straight.
      return new Uint8Array(surface.canvas.getContext('2d').getImageData(0, 0, width, height).data);
    converter.take(surface.canvas.data(), width, [0, 0, width, height]);
    return planesOf(converter);
  };
  const planesOf = (from: I420Converter): Uint8Array<ArrayBuffer> => {
    const out = new Uint8Array(spare.pop() ?? new ArrayBuffer((width * height * 3) / 2));
    from.copyTo(out);
    return out;
  };
  const paintRun = async (run: FrameRun): Promise<void> => {
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
      const out = await paint(list, next);
      post({ type: 'frame', frame, pixels: out.buffer }, [out.buffer]);
      // What was read of this frame is given back, and memory that comes back is there for the next.
      collectYoung();
      await turn();
    }
    post({ type: 'done' });
  };
  return { paintRun, spare: (buffer) => spare.push(buffer) };
}

function main(port: MessagePort): void {
  const { fontsDir, wasmFile } = workerData as ThreadData; // sent by paint-pool.ts, which builds it from typed values
  const fonts = createServerFonts(fontsDir);
  const post: Post = (message, transfer = []) => port.postMessage(message, transfer);
  let job: Job | null = null;
  const obey = async (order: ThreadOrder): Promise<void> => {
    switch (order.type) {
      case 'open':
        job = await openJob(order.input, wasmFile, fonts, post);
        post({ type: 'ready' });
        break;
      case 'close':
        job = null;
        break;
      case 'run':
        await job?.paintRun(order);
        break;
      case 'spare':
        job?.spare(order.buffer);
        break;
    }
  };
  port.on('message', (order: ThreadOrder) => {
    obey(order).catch((error: unknown) =>
      post({ type: 'failed', message: error instanceof Error ? error.message : String(error) }),
    );
  });
}

if (parentPort) main(parentPort);
