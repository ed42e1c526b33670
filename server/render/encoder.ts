import { spawn } from 'node:child_process';
import { once } from 'node:events';
import type { FrameRate, Seconds } from '@core/time';
import { framesPerSecond } from '@core/time';
import type { Music } from '@core/piece';
import { AppError } from '../platform/errors';

export const SOUND_RATE = 48000;

export interface EncoderOptions {
  readonly width: number;
  readonly height: number;
  readonly frameRate: FrameRate;
  readonly duration: Seconds;
  readonly song: { readonly file: string; readonly music: Music } | null;
  readonly out: string;
}

/** The filter chain that cuts, fades and places the song, to the sample. */
export function soundFilter(music: Music, duration: Seconds): string {
  const late = Math.max(0, music.start);
  const cutHead = music.trimStart + Math.max(0, -music.start);
  const end = Math.min(music.trimEnd ?? Infinity, cutHead + Math.max(0.001, duration - late));
  const length = Math.max(0.001, end - cutHead);
  const samples = (s: Seconds) => Math.round(s * SOUND_RATE);
  const chain = [`aresample=${SOUND_RATE}`, `atrim=start_sample=${samples(cutHead)}:end_sample=${samples(end)}`, 'asetpts=PTS-STARTPTS', `volume=${music.gain.toFixed(4)}`];
  if (music.fadeIn > 0) chain.push(`afade=t=in:d=${music.fadeIn.toFixed(4)}`);
  if (music.fadeOut > 0) chain.push(`afade=t=out:st=${Math.max(0, length - music.fadeOut).toFixed(4)}:d=${music.fadeOut.toFixed(4)}`);
  if (late > 0) chain.push(`adelay=${samples(late)}S:all=1`);
  chain.push('apad', `atrim=end_sample=${samples(duration)}`);
  return chain.join(',');
}

/** Arguments for ffmpeg: raw I420 on standard input in, MP4 out. */
export function encoderArguments(o: EncoderOptions): string[] {
  const sound = o.song ? ['-i', o.song.file] : ['-f', 'lavfi', '-i', `anullsrc=r=${SOUND_RATE}:cl=stereo`];
  const filter = o.song ? soundFilter(o.song.music, o.duration) : `atrim=end_sample=${Math.round(o.duration * SOUND_RATE)}`;
  const colour = ['-color_primaries', 'bt709', '-color_trc', 'bt709', '-colorspace', 'bt709', '-color_range', 'tv'];
  return [
    '-v', 'error', '-nostdin', '-y',
    '-f', 'rawvideo', '-pix_fmt', 'yuv420p', '-s', `${o.width}x${o.height}`, '-framerate', `${o.frameRate.num}/${o.frameRate.den}`, ...colour, '-i', 'pipe:0',
    ...sound,
    '-filter_complex', `[1:a]${filter}[sound]`, '-map', '0:v', '-map', '[sound]',
    '-c:v', 'libx264', '-preset', 'veryfast', '-profile:v', 'high', '-crf', '17', '-pix_fmt', 'yuv420p', '-g', String(Math.round(framesPerSecond(o.frameRate) * 2)), ...colour,
    '-c:a', 'aac', '-b:a', '192k', '-ar', String(SOUND_RATE), '-ac', '2',
    '-movflags', '+faststart', '-f', 'mp4', o.out,
  ];
}

export interface Encoder {
  /** Resolves when the encoder can take more. */
  write(pixels: Uint8Array): Promise<void>;
  finish(): Promise<void>;
  kill(): void;
}

export function startEncoder(options: EncoderOptions): Encoder {
  const child = spawn('ffmpeg', encoderArguments(options), { stdio: ['pipe', 'ignore', 'pipe'] });
  let errors = '';
  child.stderr.on('data', (data: Buffer) => {
    errors = (errors + data.toString()).slice(-4000);
  });
  const closed = new Promise<number | null>((resolve, reject) => {
    child.on('error', reject);
    child.on('close', resolve);
  });
  closed.catch(() => {}); // reported by finish or write
  const failure = () => (/No space left/.test(errors) ? new AppError('DISK_FULL') : new AppError('ENCODER_FAILED', errors.trim().split('\n').pop() ?? ''));
  let broken = false;
  child.stdin.on('error', () => {
    broken = true;
  });
  return {
    async write(pixels) {
      if (broken || child.exitCode !== null) throw failure();
      if (!child.stdin.write(pixels)) await Promise.race([once(child.stdin, 'drain'), closed]);
    },
    async finish() {
      child.stdin.end();
      if ((await closed) !== 0) throw failure();
    },
    kill: () => void child.kill('SIGKILL'),
  };
}
