import { once } from 'node:events';
import { pipeline } from 'node:stream/promises';
import { Readable } from 'node:stream';
import type { FrameRate } from '@core/time';
import { framesPerSecond } from '@core/time';
import { gatherErrors, startChild } from '../platform/child';
import { AppError } from '../platform/errors';

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
}

/** Arguments for ffmpeg: raw I420 on standard input and raw stereo on descriptor 3 in, MP4 out. */
export function encoderArguments(o: Omit<EncoderOptions, 'sound' | 'soundFrames'>): string[] {
  const colour = ['-color_primaries', 'bt709', '-color_trc', 'bt709', '-colorspace', 'bt709', '-color_range', 'tv'];
  return [
    '-v',
    'error',
    '-nostdin',
    '-y',
    '-protocol_whitelist',
    'file,pipe',
    '-f',
    'rawvideo',
    '-pix_fmt',
    'yuv420p',
    '-s',
    `${o.width}x${o.height}`,
    '-framerate',
    `${o.frameRate.num}/${o.frameRate.den}`,
    ...colour,
    '-i',
    'pipe:0',
    '-f',
    'f32le',
    '-ar',
    String(SOUND_RATE),
    '-ac',
    '2',
    '-i',
    'pipe:3',
    '-map',
    '0:v',
    '-map',
    '1:a',
    '-c:v',
    'libx264',
    '-preset',
    'veryfast',
    '-profile:v',
    'high',
    '-crf',
    '17',
    '-pix_fmt',
    'yuv420p',
    '-g',
    String(Math.round(framesPerSecond(o.frameRate) * 2)),
    ...colour,
    '-c:a',
    'aac',
    '-b:a',
    '192k',
    '-ar',
    String(SOUND_RATE),
    '-ac',
    '2',
    '-movflags',
    '+faststart',
    '-f',
    'mp4',
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
  const failure = () =>
    /No space left/.test(errors()) ? new AppError('DISK_FULL') : new AppError('ENCODER_FAILED', errors());
  let broken = false;
  stdin.on('error', () => {
    broken = true;
  });
  // A pipe that breaks shows in the encoder's own end.
  pipeline(Readable.from(interleaved(options.sound, options.soundFrames)), soundPipe).catch(() => {});
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
