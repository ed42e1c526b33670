import { spawn } from 'node:child_process';
import { once } from 'node:events';
import type { FrameRate, Seconds } from '@core/time';
import { framesPerSecond } from '@core/time';
import { JOIN_SECONDS, musicSpan, songParts } from '@core/piece';
import type { FadeCurve, Music } from '@core/piece';
import { AppError } from '../platform/errors';

export const SOUND_RATE = 48000;

export interface EncoderOptions {
  readonly width: number;
  readonly height: number;
  readonly frameRate: FrameRate;
  readonly duration: Seconds;
  /** `duration` is the song's own, seconds. */
  readonly song: { readonly file: string; readonly music: Music; readonly duration: Seconds } | null;
  readonly out: string;
}

/** ffmpeg's names of our fade curves. */
const FADE_NAMES = { even: 'tri', power: 'qsin', soft: 'hsin' } as const satisfies Record<FadeCurve, string>;

/**
 * The filter graph that cuts, joins, fades and places the song, to the sample: each part is trimmed with half a crossfade to
 * spare at its joins, faded there with equal power, put in its place and added up.
 * @param input - label of the song's stream, such as "1:a"; the result is labelled [sound].
 */
export function soundFilter(music: Music, songDuration: Seconds, duration: Seconds, input: string): string {
  const samples = (s: Seconds) => Math.round(s * SOUND_RATE);
  const parts = songParts(music, songDuration);
  const half = JOIN_SECONDS / 2;
  const branches = parts.flatMap((part, i) => {
    const isFirst = i === 0;
    const isLast = i === parts.length - 1;
    // What sounds before the piece begins or after it ends is cut off here.
    const lead = isFirst ? 0 : Math.min(half, part.from);
    const skipped = Math.max(0, -(part.at - lead));
    const from = part.from - lead + skipped;
    const to = Math.min(part.to + (isLast ? 0 : half), part.from + duration - part.at);
    if (to <= from) return [];
    const at = part.at - lead + skipped;
    const chain = [`atrim=start_sample=${samples(from)}:end_sample=${samples(to)}`, 'asetpts=PTS-STARTPTS'];
    if (!isFirst && skipped === 0) chain.push(`afade=t=in:ss=0:ns=${samples(JOIN_SECONDS)}:curve=qsin`);
    const join = part.to - half;
    if (!isLast && to > join) chain.push(`afade=t=out:ss=${samples(join - from)}:ns=${samples(JOIN_SECONDS)}:curve=qsin`);
    if (samples(at) > 0) chain.push(`adelay=${samples(at)}S:all=1`);
    return [chain.join(',')];
  });
  const end = `apad,atrim=end_sample=${samples(duration)}`;
  if (branches.length === 0) return `[${input}]volume=0,${end}[sound]`;
  const { from: start, to: finish } = musicSpan(music, songDuration);
  const whole = [`volume=${music.gain.toFixed(4)}`];
  // A fade that began before the piece cannot be given to ffmpeg as such: its rest is still right, because times are those of the piece.
  if (music.fadeIn > 0) whole.push(start >= 0 ? `afade=t=in:ss=${samples(start)}:ns=${samples(music.fadeIn)}:curve=${FADE_NAMES[music.fadeInCurve]}` : fadeByVolume(music.fadeInCurve, `(t+${(-start).toFixed(5)})/${music.fadeIn.toFixed(5)}`));
  if (music.fadeOut > 0 && finish - music.fadeOut < duration) whole.push(finish - music.fadeOut >= 0 ? `afade=t=out:ss=${samples(finish - music.fadeOut)}:ns=${samples(music.fadeOut)}:curve=${FADE_NAMES[music.fadeOutCurve]}` : fadeByVolume(music.fadeOutCurve, `(${finish.toFixed(5)}-t)/${music.fadeOut.toFixed(5)}`));
  const head = `[${input}]aresample=${SOUND_RATE},aformat=sample_fmts=fltp:channel_layouts=stereo`;
  if (branches.length === 1) return `${head},${branches[0]},${[...whole, end].join(',')}[sound]`;
  const split = `${head},asplit=${branches.length}${branches.map((_, i) => `[s${i}]`).join('')}`;
  const mixed = branches.map((branch, i) => `[s${i}]${branch}[p${i}]`);
  return [split, ...mixed, `${branches.map((_, i) => `[p${i}]`).join('')}amix=inputs=${branches.length}:duration=longest:normalize=0:dropout_transition=0,${[...whole, end].join(',')}[sound]`].join(';');
}

/** A fade as an expression of time, the same curves as core's fadeGain. */
function fadeByVolume(curve: FadeCurve, share: string): string {
  const x = `clip(${share},0,1)`;
  const gain = { even: x, power: `sin(${x}*PI/2)`, soft: `(1-cos(${x}*PI))/2` }[curve];
  return `volume='${gain}':eval=frame`;
}

/** Arguments for ffmpeg: raw I420 on standard input in, MP4 out. */
export function encoderArguments(o: EncoderOptions): string[] {
  const sound = o.song ? ['-i', o.song.file] : ['-f', 'lavfi', '-i', `anullsrc=r=${SOUND_RATE}:cl=stereo`];
  const filter = o.song ? soundFilter(o.song.music, o.song.duration, o.duration, '1:a') : `[1:a]atrim=end_sample=${Math.round(o.duration * SOUND_RATE)}[sound]`;
  const colour = ['-color_primaries', 'bt709', '-color_trc', 'bt709', '-colorspace', 'bt709', '-color_range', 'tv'];
  return [
    '-v', 'error', '-nostdin', '-y',
    '-f', 'rawvideo', '-pix_fmt', 'yuv420p', '-s', `${o.width}x${o.height}`, '-framerate', `${o.frameRate.num}/${o.frameRate.den}`, ...colour, '-i', 'pipe:0',
    ...sound,
    '-filter_complex', filter, '-map', '0:v', '-map', '[sound]',
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
