import * as z from 'zod';
import { gatherErrors, startChild } from './child';
import { AppError, Cancelled, TookTooLong } from './errors';

const probeSchema = z.object({
  streams: z
    .array(
      z.object({
        codec_type: z.string().optional(),
        codec_name: z.string().optional(),
        width: z.number().optional(),
        height: z.number().optional(),
        duration: z.string().optional(),
        channels: z.number().optional(),
        pix_fmt: z.string().optional(),
        r_frame_rate: z.string().optional(),
        avg_frame_rate: z.string().optional(),
        field_order: z.string().optional(),
        color_space: z.string().optional(),
        color_transfer: z.string().optional(),
        tags: z.record(z.string(), z.string()).optional().catch(undefined),
        disposition: z.object({ attached_pic: z.number().optional() }).optional(),
      }),
    )
    .default([]),
  format: z
    .object({ format_name: z.string().optional(), duration: z.string().optional(), size: z.string().optional() })
    .default({}),
});
export type Probe = z.infer<typeof probeSchema>;

/** How long reading the facts of a file, or one picture of it, may take. */
const LOOK_MS = 60_000;
/** The most that facts about a file may fill. */
const FACTS_BYTES = 4_000_000;
const ERROR_FULL = /No space left/;

export interface ProgramOptions {
  readonly limitMs: number;
  readonly signal?: AbortSignal | undefined;
  readonly maxBytes?: number;
  readonly isPatient?: boolean;
}

/**
 * Runs a program and gathers what it prints. @throws Cancelled, TookTooLong; AppError DISK_FULL; an Error with the last
 * lines of what it complained about.
 */
export function runProgram(command: string, args: readonly string[], options: ProgramOptions): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const child = startChild(command, args, { ...options, stdio: ['ignore', 'pipe', 'pipe'] });
    const errors = gatherErrors(child.process);
    const out: Buffer[] = [];
    let size = 0;
    child.process.stdout?.on('data', (data: Buffer) => {
      size += data.length;
      if (size > (options.maxBytes ?? FACTS_BYTES)) child.kill();
      else out.push(data);
    });
    child.process.on('error', reject);
    child.process.on('close', (status) => {
      const stopped = child.stopped();
      if (stopped) reject(stopped);
      else if (status === 0) resolve(Buffer.concat(out));
      else reject(ERROR_FULL.test(errors()) ? new AppError('DISK_FULL') : new Error(`${command} failed: ${errors()}`));
    });
  });
}

/**
 * Runs a program and hands over what it prints as it comes; it is read no faster than it is taken. Rejects as
 * {@link runProgram} does, and with what `take` rejects with.
 * @param isEnough - whether what was taken counts though the program failed: a damaged tail is no error.
 */
export async function streamProgram(
  command: string,
  args: readonly string[],
  options: ProgramOptions,
  take: (chunk: Buffer) => Promise<void>,
  isEnough: () => boolean = () => false,
): Promise<void> {
  const child = startChild(command, args, { ...options, stdio: ['ignore', 'pipe', 'pipe'] });
  const errors = gatherErrors(child.process);
  const closed = new Promise<number | null>((resolve, reject) => {
    child.process.on('error', reject);
    child.process.on('close', resolve);
  });
  closed.catch(() => {}); // told when it is waited for
  try {
    for await (const chunk of child.process.stdout ?? []) await take(chunk as Buffer); // read without an encoding
  } catch (error) {
    child.kill();
    await closed;
    throw child.stopped() ?? error;
  }
  const status = await closed;
  const stopped = child.stopped();
  if (stopped) throw stopped;
  if (ERROR_FULL.test(errors())) throw new AppError('DISK_FULL');
  if (status !== 0 && !isEnough()) throw new Error(`${command} failed: ${errors()}`);
}

/**
 * Arguments that open a file from outside: as the container it was found to be and nothing else, and without reaching
 * for anything but that file. A playlist that calls itself a picture is then no picture.
 * @param format - ffmpeg's name of the demuxer.
 */
export const openAs = (format: string, file: string): string[] => [
  '-protocol_whitelist',
  'file',
  '-format_whitelist',
  format,
  '-f',
  format,
  '-i',
  `file:${file}`,
];

/** Facts about a media file; null if ffprobe cannot make anything of it. @throws Cancelled, TookTooLong. */
export async function probe(file: string, format: string, signal?: AbortSignal): Promise<Probe | null> {
  try {
    const out = await runProgram(
      'ffprobe',
      ['-v', 'error', '-print_format', 'json', '-show_format', '-show_streams', ...openAs(format, file)],
      { limitMs: LOOK_MS, signal },
    );
    return probeSchema.parse(JSON.parse(out.toString()));
  } catch (error) {
    if (error instanceof Cancelled || error instanceof TookTooLong) throw error;
    return null;
  }
}

/** Writes the first frame of a picture as PNG of a given size. */
export async function convertPicture(
  file: string,
  format: string,
  size: readonly [number, number],
  out: string,
  signal?: AbortSignal,
): Promise<void> {
  await runProgram(
    'ffmpeg',
    [
      '-v',
      'error',
      '-nostdin',
      '-y',
      ...openAs(format, file),
      '-frames:v',
      '1',
      '-vf',
      `scale=${size[0]}:${size[1]}:flags=lanczos`,
      '-pix_fmt',
      'rgba',
      '-f',
      'image2',
      '-c:v',
      'png',
      '-update',
      '1',
      out,
    ],
    { limitMs: LOOK_MS * 3, signal },
  );
}

interface DecodeOptions {
  readonly limitMs: number;
  readonly signal?: AbortSignal;
  readonly isPatient?: boolean;
}

/**
 * Decodes the first sound stream to interleaved float PCM, handed over in chunks of whole frames. @throws Cancelled,
 * TookTooLong, Error.
 */
export function decodeStream(
  input: readonly string[],
  options: DecodeOptions & {
    sampleRate: number;
    channels: number;
    maxSeconds: number;
    onSamples: (samples: Float32Array) => void;
  },
): Promise<void> {
  const { sampleRate, channels, onSamples } = options;
  return new Promise((resolve, reject) => {
    const child = startChild(
      'ffmpeg',
      [
        '-v',
        'error',
        '-nostdin',
        ...input,
        '-map',
        '0:a:0',
        '-t',
        String(options.maxSeconds),
        '-ac',
        String(channels),
        '-ar',
        String(sampleRate),
        '-f',
        'f32le',
        '-',
      ],
      { ...options, stdio: ['ignore', 'pipe', 'pipe'] },
    );
    const errors = gatherErrors(child.process);
    const frame = 4 * channels;
    let rest: Buffer = Buffer.alloc(0);
    let isAny = false;
    child.process.stdout?.on('data', (data: Buffer) => {
      const all = rest.length > 0 ? Buffer.concat([rest, data]) : data;
      const whole = all.length - (all.length % frame);
      // Copied, because a chunk may start at any byte and floats may not.
      const bytes = new Uint8Array(whole);
      bytes.set(all.subarray(0, whole));
      if (whole > 0) isAny = true;
      onSamples(new Float32Array(bytes.buffer));
      rest = all.subarray(whole);
    });
    child.process.on('error', reject);
    child.process.on('close', (status) => {
      const stopped = child.stopped();
      if (stopped) reject(stopped);
      // A damaged tail ends the sound early and is no error.
      else if (status === 0 || isAny) resolve();
      else reject(new Error(`the sound could not be decoded: ${errors()}`));
    });
  });
}

/**
 * Decodes the first sound stream to mono float PCM. Reading stops at `maxSeconds`. @throws Cancelled, TookTooLong;
 * Error if there is no sound at all.
 */
export async function decodeMono(
  input: readonly string[],
  sampleRate: number,
  options: DecodeOptions & { maxSeconds: number; onSeconds?: (seconds: number) => void },
): Promise<Float32Array> {
  // Memory that nothing was written to costs nothing: all the room there may be is asked for at once, and no song is copied
  // from small pieces into a large one.
  const room = new Float32Array(Math.ceil(options.maxSeconds * sampleRate) + SPARE_SAMPLES);
  let count = 0;
  await decodeStream(input, {
    ...options,
    sampleRate,
    channels: 1,
    onSamples: (samples) => {
      const fitting = samples.subarray(0, room.length - count);
      room.set(fitting, count);
      count += fitting.length;
      options.onSeconds?.(count / sampleRate);
    },
  });
  if (count === 0) throw new Error('no sound could be decoded');
  return count < room.length / 2 ? room.slice(0, count) : room.subarray(0, count);
}
/** A decoder may give a few samples more than was asked for. */
const SPARE_SAMPLES = 8192;
