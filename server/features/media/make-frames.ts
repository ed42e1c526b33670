import { once } from 'node:events';
import { createWriteStream } from 'node:fs';
import { appendFile, open, rm } from 'node:fs/promises';
import { finished } from 'node:stream/promises';
import { loadImage } from '@napi-rs/canvas';
import { FRAME_TYPES, framesTail } from '@core/formats';
import type { FramesIndex } from '@core/formats';
import { MAX_FOOTAGE_FRAMES } from '@core/piece';
import type { FootageRef } from '@core/piece';
import { framesPerSecond } from '@core/time';
import type { Seconds } from '@core/time';
import { AppError, isDiskFull } from '../../platform/errors';
import { openAs, streamProgram } from '../../platform/ffmpeg';
import type { ProgramOptions } from '../../platform/ffmpeg';
import { createSplitter } from '../../platform/frame-splitter';
import { MAX_FOOTAGE_SECONDS, lookAtFilm } from './film-facts';
import type { FilmFacts } from './film-facts';

/** Longest sides of frames: what fills a frame of 1920 with room to move in it, and what is quick to fetch. */
const FULL_SIDE = 2560;
const SMALL_SIDE = 960;

export interface MadeFrames {
  /** Pixels of its frames. */
  readonly width: number;
  readonly height: number;
  readonly duration: Seconds;
  readonly footage: FootageRef;
  /** What people should know; null for nothing. */
  readonly warning: string | null;
}

const within = (side: number, flags: string): string =>
  `scale=w='min(${side},iw)':h='min(${side},ih)':force_original_aspect_ratio=decrease:flags=${flags}`;

/** What is done to every frame before it is kept: evenly spaced, whole, square pixels, everyday colours. */
function filters({ frameRate, isHdr, isInterlaced, isSeeThrough, hasFullColour, matrix }: FilmFacts): string {
  const pixels = isSeeThrough ? 'yuva420p' : hasFullColour ? 'yuvj444p' : 'yuvj420p';
  const range = isSeeThrough ? 'out_range=limited' : 'out_range=full';
  // JPEG (JFIF 1.02) and WebP both have the matrix of ITU-R BT.601.
  const kept = (side: number, name: string, flags: string): string =>
    `${within(side, flags)}:in_color_matrix=${isHdr ? 'bt709' : matrix}:out_color_matrix=bt601:${range},format=${pixels}[${name}]`;
  const common = [
    'setpts=PTS-STARTPTS',
    `fps=${frameRate.num}/${frameRate.den}`,
    ...(isInterlaced ? ['bwdif=mode=send_frame'] : []),
    ...(isHdr
      ? [
          'zscale=t=linear:npl=203,format=gbrpf32le,tonemap=mobius:desat=0,zscale=p=bt709:t=bt709:m=bt709:r=limited',
          'format=yuv444p',
        ]
      : []),
    "scale=w='trunc(iw*if(sar,sar,1)+0.5)':h=ih,setsar=1",
  ].join(',');
  return `[0:v:0]${common},split[a][b];[a]${kept(FULL_SIDE, 'full', 'lanczos')};[b]${kept(SMALL_SIDE, 'small', 'area')}`;
}

/** Counts where frames begin in one stream of them. */
function offsetsOf(type: FramesIndex['type']) {
  const splitter = createSplitter(type);
  const offsets = [0];
  return { offsets, push: (chunk: Uint8Array): void => void offsets.push(...splitter.push(chunk)) };
}

/**
 * Makes the file of frames that desk and export paint footage with (core/formats/frames-file.ts). A film that breaks off
 * gives the frames that are there.
 * @param format - ffmpeg's name of the demuxer.
 * @throws AppError FOOTAGE_UNREADABLE, FOOTAGE_TOO_LARGE, FOOTAGE_TOO_LONG, DISK_FULL; Cancelled, TookTooLong.
 */
export async function makeFrames(
  from: string,
  format: string,
  name: string,
  to: string,
  options: ProgramOptions & { onProgress?: (share: number) => void },
): Promise<MadeFrames> {
  const { signal, onProgress } = options;
  const { stream, facts } = await lookAtFilm(from, format, name, signal);
  const type = FRAME_TYPES[facts.isSeeThrough ? 1 : 0];
  const codec = facts.isSeeThrough
    ? ['-c:v', 'libwebp', '-quality', '92', '-compression_level', '1']
    : ['-c:v', 'mjpeg', '-q:v', '2', '-huffman', 'optimal'];
  const smallFile = `${to}.small`;
  const expected = Math.max(1, facts.duration * framesPerSecond(facts.frameRate));
  const out = createWriteStream(to);
  const written = finished(out);
  written.catch(() => {}); // told when it is waited for
  const write = async (bytes: Buffer): Promise<void> => {
    if (!out.write(bytes)) await Promise.race([once(out, 'drain'), written]);
  };
  try {
    const full = offsetsOf(type);
    await streamProgram(
      'ffmpeg',
      [
        ...['-v', 'error', '-nostdin', '-y', ...(facts.decoder ? ['-c:v', facts.decoder] : [])],
        // Before the file that it is about: no more than this is read of it.
        ...['-t', String(MAX_FOOTAGE_SECONDS), ...openAs(format, from), '-filter_complex', filters(facts)],
        ...['-map', '[full]', '-frames:v', String(MAX_FOOTAGE_FRAMES), ...codec, '-f', 'image2pipe', 'pipe:1'],
        ...['-map', '[small]', '-frames:v', String(MAX_FOOTAGE_FRAMES), ...codec, '-f', 'image2pipe', smallFile],
      ],
      options,
      async (chunk) => {
        full.push(chunk);
        onProgress?.(Math.min(0.99, (full.offsets.length - 1) / expected));
        await write(chunk);
      },
      () => full.offsets.length > 1,
    );
    const frames = full.offsets.length - 1;
    if (frames === 0) throw new AppError('FOOTAGE_UNREADABLE', name);
    const small = offsetsOf(type);
    const handle = await open(smallFile);
    const start = full.offsets[frames]!; // one more than there are frames
    try {
      for await (const chunk of handle.createReadStream({ autoClose: false })) {
        const bytes = chunk as Buffer; // read without an encoding
        small.push(bytes);
        await write(bytes);
      }
    } finally {
      await handle.close();
    }
    // What broke off in the middle may have a frame in one size alone.
    const count = Math.min(frames, small.offsets.length - 1);
    if (count === 0) throw new AppError('FOOTAGE_UNREADABLE', name);
    out.end();
    await written;
    const sides = await Promise.all([firstOf(to, full.offsets), firstOf(smallFile, small.offsets)]);
    const index: FramesIndex = {
      type,
      full: { ...sides[0], offsets: full.offsets.slice(0, count + 1) },
      small: { ...sides[1], offsets: small.offsets.slice(0, count + 1).map((offset) => start + offset) },
    };
    await appendFile(to, framesTail(index));
    const footage = { frameRate: facts.frameRate, frames: count, hasSound: facts.hasSound };
    const duration = count / framesPerSecond(facts.frameRate);
    return { ...sides[0], duration, footage, warning: warningOf(name, stream, sides[0], facts.duration - duration) };
  } catch (error) {
    throw isDiskFull(error) ? new AppError('DISK_FULL', '', { cause: error }) : error;
  } finally {
    out.destroy();
    await rm(smallFile, { force: true });
  }
}

/** @param missing - seconds that the file says it has and that could not be read. */
function warningOf(
  name: string,
  { width = 0, height = 0 }: { readonly width?: number | undefined; readonly height?: number | undefined },
  kept: { readonly width: number; readonly height: number },
  missing: Seconds,
): string | null {
  if (missing > MISSED)
    return `“${name}” ends early: ${missing.toFixed(1)} s of it could not be read. The file is probably cut off.`;
  if (Math.max(width, height) <= FULL_SIDE) return null;
  return `“${name}” has ${width}×${height} pixels; it is kept at ${kept.width}×${kept.height}.`;
}
/** Less than this at the end of a film is missed by nobody, seconds. */
const MISSED = 0.5;

/** Sides of the first frame. */
async function firstOf(
  file: string,
  [from = 0, to = 0]: readonly number[],
): Promise<{ width: number; height: number }> {
  const handle = await open(file);
  try {
    const bytes = Buffer.alloc(to - from);
    await handle.read(bytes, 0, bytes.length, from);
    const { width, height } = await loadImage(bytes);
    return { width, height };
  } finally {
    await handle.close();
  }
}
