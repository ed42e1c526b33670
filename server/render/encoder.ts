import { once } from 'node:events';
import { pipeline } from 'node:stream/promises';
import { Readable } from 'node:stream';
import type { FrameRate } from '@core/time';
import { framesPerSecond } from '@core/time';
import { gatherErrors, startChild } from '../platform/child';
import { encoderFailure } from './encode-file';
import type { VideoRecipe } from './video-recipes';

export const SOUND_RATE = 48000;

export interface EncoderOptions {
  readonly width: number;
  readonly height: number;
  readonly frameRate: FrameRate;
  /** The sound, left and right, as long as the picture; null for silence. */
  readonly sound: readonly [Float32Array, Float32Array] | null;
  /** Samples of silence where there is no sound. */
  readonly soundFrames: number;
  readonly out: string;
  readonly recipe: VideoRecipe;
}

/** How colours are meant: BT.709, limited range. */
const COLOUR = ['-color_primaries', 'bt709', '-color_trc', 'bt709', '-colorspace', 'bt709', '-color_range', 'tv'];

/** Arguments for ffmpeg: raw frames on standard input and raw stereo on descriptor 3 in, a file out. */
export function encoderArguments(o: Omit<EncoderOptions, 'sound' | 'soundFrames'>): string[] {
  const { recipe } = o;
  const isPlanar = recipe.pixels === 'i420';
  return [
    ...['-v', 'error', '-nostdin', '-y', '-protocol_whitelist', 'file,pipe'],
    ...['-f', 'rawvideo', '-pix_fmt', isPlanar ? 'yuv420p' : 'rgba', '-s', `${o.width}x${o.height}`],
    ...['-framerate', `${o.frameRate.num}/${o.frameRate.den}`],
    ...(isPlanar ? COLOUR : []),
    ...['-i', 'pipe:0'],
    ...(recipe.sound ? ['-f', 'f32le', '-ar', String(SOUND_RATE), '-ac', '2', '-i', 'pipe:3'] : []),
    ...['-map', '0:v', ...(recipe.sound ? ['-map', '1:a'] : [])],
    ...recipe.video(framesPerSecond(o.frameRate)),
    ...(recipe.isTagged ? COLOUR : []),
    ...(recipe.sound ? [...recipe.sound, '-ar', String(SOUND_RATE), '-ac', '2'] : []),
    ...recipe.container,
    `file:${o.out}`,
  ];
}

const CHUNK_FRAMES = 16_384;

/** Interleaved stereo in chunks. */
function* interleaved(sound: EncoderOptions['sound'], frames: number): Generator<Buffer> {
  for (let from = 0; from < frames; from += CHUNK_FRAMES) {
    const count = Math.min(CHUNK_FRAMES, frames - from);
    const chunk = new Float32Array(count * 2);
    if (sound) {
      for (let i = 0; i < count; i++) {
        chunk[2 * i] = sound[0][from + i] ?? 0;
        chunk[2 * i + 1] = sound[1][from + i] ?? 0;
      }
    }
    yield Buffer.from(chunk.buffer);
  }
}

export interface Encoder {
  /** Resolves when the encoder can take more. */
  write(pixels: Uint8Array): Promise<void>;
  finish(): Promise<void>;
  kill(): void;
}

/** A frame that cannot be handed over for so long has lost its encoder. */
const LIMIT_MS = 6 * 3600_000;

export function startEncoder(options: EncoderOptions): Encoder {
  const child = startChild('ffmpeg', encoderArguments(options), {
    stdio: ['pipe', 'ignore', 'pipe', 'pipe'],
    limitMs: LIMIT_MS,
  });
  const errors = gatherErrors(child.process);
  const [stdin, , , soundPipe] = child.process.stdio;
  if (!stdin || !soundPipe || !('write' in soundPipe)) throw new Error('the encoder takes no input');
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
  // A pipe that breaks shows in the encoder's own end.
  if (options.recipe.sound)
    pipeline(Readable.from(interleaved(options.sound, options.soundFrames)), soundPipe).catch(() => {});
  else soundPipe.end();
  return {
    async write(pixels) {
      if (broken || child.process.exitCode !== null) {
        await closed.catch(() => {}); // what it complained about is complete then
        throw failure();
      }
      if (!stdin.write(pixels)) await Promise.race([once(stdin, 'drain'), closed]);
    },
    async finish() {
      stdin.end();
      if ((await closed) !== 0) throw failure();
    },
    kill: child.kill,
  };
}
