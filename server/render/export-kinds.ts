import { readFile, rm, writeFile } from 'node:fs/promises';
import type { Canvas } from '@napi-rs/canvas';
import type { ExportKindId } from '@core/formats';
import { needsOf } from '@core/paint';
import { MEDIA_KINDS, resolveTimes } from '@core/piece';
import type { DisplayList } from '@core/scene';
import { writeSvg } from '@core/svg';
import { frameCount, frameMiddle, secondsToFrame } from '@core/time';
import { AppError, Cancelled } from '../platform/errors';
import { SOUND_RATE } from './encoder';
import type { ExportRun } from './export-run';
import { createFrameSource } from './frame-source';
import type { FrameSource, RenderInput } from './frame-source';
import { pieceSound, soundLength } from './piece-sound';
import { encodeFile } from './encode-file';
import { renderFrames } from './render-frames';
import { renderGif } from './render-gif';
import { renderVideo } from './render-video';
import { VIDEO_RECIPES } from './video-recipes';
import type { VideoRecipeId } from './video-recipes';
import { createServerFonts } from './skia-host';
import { encodeWav } from './wav';

/** The frame that is shown at the moment: what the video has there. */
async function stillOf({
  input,
  at,
  assets,
}: ExportRun): Promise<{ source: FrameSource; frame: number; seconds: number }> {
  const source = await createFrameSource(input, createServerFonts(assets.fontsDir));
  const rate = input.piece.frameRate;
  const last = frameCount(source.duration, rate) - 1;
  if (last < 0) throw new AppError('NOTHING_TO_RENDER');
  const frame = Math.max(0, Math.min(last, secondsToFrame(at, rate)));
  return { source, frame, seconds: frameMiddle(frame, rate) };
}

/** The pictures that a frame shows, as addresses that hold them. */
async function picturesOf(list: DisplayList, files: RenderInput['files']): Promise<Map<string, string>> {
  const out = new Map<string, string>();
  for (const { hash } of needsOf(list)) {
    const file = files[hash];
    if (file === undefined) continue;
    // The file that is painted with is a PNG already.
    out.set(hash, `data:${MEDIA_KINDS.picture.type};base64,${await readFile(file, 'base64')}`);
  }
  return out;
}

type Exporter = (run: ExportRun) => Promise<Record<string, unknown>>;

/** The sound of the whole piece, silence where there is none. */
async function soundOf({
  input,
  songFile,
  signal,
}: ExportRun): Promise<{ frames: number; sound: readonly [Float32Array, Float32Array] }> {
  const times = resolveTimes(input.piece, input.analysis);
  const frames = frameCount(times.end, input.piece.frameRate);
  if (frames === 0) throw new AppError('NOTHING_TO_RENDER');
  const samples = soundLength(frames, input.piece.frameRate);
  const sound = await pieceSound(input, songFile, times, samples, signal);
  if (signal?.aborted) throw new Cancelled();
  return { frames, sound: sound ?? [new Float32Array(samples), new Float32Array(samples)] };
}

const video =
  (id: VideoRecipeId): Exporter =>
  async ({ onProgress, at: _at, ...run }) => {
    const facts = await renderVideo({
      ...run,
      recipe: VIDEO_RECIPES[id],
      ...(onProgress ? { onFrame: (done: number, total: number) => onProgress(done / total) } : {}),
    });
    return { ...facts };
  };

const still =
  (write: (canvas: Canvas) => Promise<Buffer>): Exporter =>
  async (run) => {
    const { source, frame, seconds } = await stillOf(run);
    const { canvas } = await source.paint(seconds);
    if (run.signal?.aborted) throw new Cancelled();
    await writeFile(run.out, await write(canvas));
    return { frame, width: source.width, height: source.height };
  };

/** The sound as a WAV, and what ffmpeg makes of it. */
const encodedSound =
  (...args: readonly string[]): Exporter =>
  async (run) => {
    const { frames, sound } = await soundOf(run);
    const wav = `${run.out}.wav`;
    try {
      await writeFile(wav, encodeWav(sound, SOUND_RATE));
      await encodeFile(['-i', `file:${wav}`, ...args], run.out, run.signal);
    } finally {
      await rm(wav, { force: true });
    }
    return { samples: sound[0].length, frames };
  };

/** How each kind of export is made: writes `out` and gives the facts about it. */
export const EXPORTERS: Readonly<Record<ExportKindId, Exporter>> = {
  mp4: video('mp4'),
  hevc: video('hevc'),
  webm: video('webm'),
  av1: video('av1'),
  prores: video('prores'),
  'prores-alpha': video('prores-alpha'),
  'webm-alpha': video('webm-alpha'),
  apng: video('apng'),
  'webp-animated': video('webp-animated'),
  'png-sequence': renderFrames,
  gif: renderGif,
  png: still((canvas) => canvas.encode('png')),
  jpeg: still((canvas) => canvas.encode('jpeg', 92)),
  webp: still((canvas) => canvas.encode('webp', 90)),
  async svg(run) {
    const { source, frame, seconds } = await stillOf(run);
    const list = source.resolve(seconds);
    const pictures = await picturesOf(list, run.input.files);
    const { svg, left } = writeSvg(list, { picture: (hash) => pictures.get(hash) ?? null });
    if (run.signal?.aborted) throw new Cancelled();
    await writeFile(run.out, svg);
    return { frame, width: source.width, height: source.height, left };
  },
  async wav(run) {
    const { frames, sound } = await soundOf(run);
    await writeFile(run.out, encodeWav(sound, SOUND_RATE));
    return { samples: sound[0].length, frames };
  },
  mp3: encodedSound('-c:a', 'libmp3lame', '-b:a', '256k', '-f', 'mp3'),
  m4a: encodedSound('-c:a', 'aac', '-b:a', '192k', '-movflags', '+faststart', '-f', 'ipod'),
  opus: encodedSound('-c:a', 'libopus', '-b:a', '160k', '-f', 'opus'),
};
