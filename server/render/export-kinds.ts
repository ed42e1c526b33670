import { readFile, writeFile } from 'node:fs/promises';
import type { ExportKindId } from '@core/formats';
import { needsOf } from '@core/paint';
import { MEDIA_KINDS, resolveTimes } from '@core/piece';
import type { DisplayList } from '@core/scene';
import { writeSvg } from '@core/svg';
import { frameCount, frameMiddle, secondsToFrame } from '@core/time';
import type { Assets } from '../platform/config';
import { AppError, Cancelled } from '../platform/errors';
import { SOUND_RATE } from './encoder';
import { createFrameSource } from './frame-source';
import type { FrameSource, RenderInput } from './frame-source';
import { pieceSound, soundLength } from './piece-sound';
import { renderVideo } from './render-video';
import { createServerFonts } from './skia-host';
import { encodeWav } from './wav';

/** What every kind of export is made from. */
export interface ExportRun {
  readonly input: RenderInput;
  /** The song as FLAC of 48 kHz. */
  readonly songFile: string | null;
  /** Seconds of the piece, for kinds that show one moment. */
  readonly at: number;
  readonly out: string;
  readonly assets: Assets;
  readonly signal?: AbortSignal;
  /** 0 to 1. */
  readonly onProgress?: (share: number) => void;
}

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

/** How each kind of export is made: writes `out` and gives the facts about it. */
export const EXPORTERS: Readonly<Record<ExportKindId, (run: ExportRun) => Promise<Record<string, unknown>>>> = {
  async mp4({ onProgress, at: _at, ...run }) {
    const facts = await renderVideo({
      ...run,
      ...(onProgress ? { onFrame: (done: number, total: number) => onProgress(done / total) } : {}),
    });
    return { ...facts };
  },
  async png(run) {
    const { source, frame, seconds } = await stillOf(run);
    const { canvas } = await source.paint(seconds);
    if (run.signal?.aborted) throw new Cancelled();
    await writeFile(run.out, await canvas.encode('png'));
    return { frame, width: source.width, height: source.height };
  },
  async svg(run) {
    const { source, frame, seconds } = await stillOf(run);
    const list = source.resolve(seconds);
    const pictures = await picturesOf(list, run.input.files);
    const { svg, left } = writeSvg(list, { picture: (hash) => pictures.get(hash) ?? null });
    if (run.signal?.aborted) throw new Cancelled();
    await writeFile(run.out, svg);
    return { frame, width: source.width, height: source.height, left };
  },
  async wav({ input, songFile, out, signal }) {
    const times = resolveTimes(input.piece, input.analysis);
    const frames = frameCount(times.end, input.piece.frameRate);
    if (frames === 0) throw new AppError('NOTHING_TO_RENDER');
    const samples = soundLength(frames, input.piece.frameRate);
    const sound = await pieceSound(input, songFile, times, samples, signal);
    if (signal?.aborted) throw new Cancelled();
    await writeFile(out, encodeWav(sound ?? [new Float32Array(samples), new Float32Array(samples)], SOUND_RATE));
    return { samples, frames };
  },
};
