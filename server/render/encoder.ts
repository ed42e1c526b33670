import type { FrameRate } from '@core/time';
import { gatherErrors, startChild } from '../platform/child';
import { encoderFailure } from './encode-file';
import type { PixelKind } from './pixels';

export interface EncoderOptions {
  readonly width: number;
  readonly height: number;
  readonly frameRate: FrameRate;
  /** What is written to it. */
  readonly pixels: PixelKind;
  /** Arguments of the codec. */
  readonly video: readonly string[];
  /** Whether the file says that its colours are BT.709. */
  readonly isTagged: boolean;
  readonly container: readonly string[];
  readonly out: string;
}

/** How colours are meant: BT.709, limited range. */
export const COLOUR = [
  '-color_primaries',
  'bt709',
  '-color_trc',
  'bt709',
  '-colorspace',
  'bt709',
  '-color_range',
  'tv',
];

/** Arguments for ffmpeg: raw frames on standard input in, a file of pictures out. */
export function encoderArguments(o: EncoderOptions): string[] {
  const isPlanar = o.pixels === 'i420';
  return [
    ...['-v', 'error', '-nostdin', '-y', '-protocol_whitelist', 'file,pipe'],
    ...['-f', 'rawvideo', '-pix_fmt', isPlanar ? 'yuv420p' : 'rgba', '-s', `${o.width}x${o.height}`],
    ...['-framerate', `${o.frameRate.num}/${o.frameRate.den}`],
    ...(isPlanar ? COLOUR : []),
    ...['-i', 'pipe:0', '-map', '0:v'],
    ...o.video,
    ...(o.isTagged ? COLOUR : []),
    ...o.container,
    `file:${o.out}`,
  ];
}

export interface Encoder {
  /** Resolves when the encoder has taken them all: the memory is free then. */
  write(pixels: Uint8Array): Promise<void>;
  finish(): Promise<void>;
  kill(): void;
}

/** An encoder that is at it for so long has lost its painters. */
const LIMIT_MS = 6 * 3600_000;

/** @throws AppError ENCODER_FAILED or DISK_FULL, from `write` and `finish`. */
export function startEncoder(options: EncoderOptions): Encoder {
  const child = startChild('ffmpeg', encoderArguments(options), {
    stdio: ['pipe', 'ignore', 'pipe'],
    limitMs: LIMIT_MS,
  });
  const errors = gatherErrors(child.process);
  const { stdin } = child.process;
  if (!stdin) throw new Error('the encoder takes no input');
  const closed = new Promise<number | null>((resolve, reject) => {
    child.process.on('error', reject);
    child.process.on('close', resolve);
  });
  closed.catch(() => {}); // reported by finish or write
  const failure = () => encoderFailure(errors());
  let broken = false;
  stdin.on('error', () => {
    broken = true;
  });
  return {
    async write(pixels) {
      if (broken || child.process.exitCode !== null) {
        await closed.catch(() => {}); // what it complained about is complete then
        throw failure();
      }
      await Promise.race([new Promise((resolve) => stdin.write(pixels, resolve)), closed]);
    },
    async finish() {
      stdin.end();
      if ((await closed) !== 0) throw failure();
    },
    kill: child.kill,
  };
}
