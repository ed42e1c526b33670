import { dataAddress, readSource } from './read-source';
import { writeFile } from 'node:fs/promises';
import type { Canvas } from '@napi-rs/canvas';
import { USUAL_SETTINGS } from '@core/formats';
import type { ExportKindId } from '@core/formats';
import { needsOf, sourceKey } from '@core/paint';
import { resolveTimes, spanOf } from '@core/piece';
import type { DisplayList } from '@core/scene';
import { writeSvg } from '@core/svg';
import { frameCount, frameMiddle, secondsToFrame } from '@core/time';
import { AppError, Cancelled } from '../platform/errors';
import { encodeSound } from './encode-sound';
import type { ExportRun } from './export-run';
import { createFrameSource } from './frame-source';
import type { FrameSource, RenderInput } from './frame-source';
import { soundOf } from './piece-sound';
import { renderFrames } from './render-frames';
import { renderHandover } from './render-handover';
import { renderLottie } from './render-lottie';
import { renderMoving } from './render-moving';
import type { MOVING_KINDS } from './render-moving';
import { renderPage } from './render-page';
import { markersCsv, midiTempo, otio, srt, vtt } from './render-times';
import { renderVideo } from './render-video';
import { AAC, MP3, OPUS, PCM, VIDEO_RECIPES } from './video-recipes';
import type { SoundRecipe, VideoRecipeId } from './video-recipes';
import { createServerFonts } from './skia-host';

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

/** The pictures and frames of footage that a frame shows, as addresses that hold them, by their keys. */
async function picturesOf(list: DisplayList, files: RenderInput['files']): Promise<Map<string, string>> {
  const out = new Map<string, string>();
  for (const source of needsOf(list)) {
    const file = files[source.hash];
    if (file !== undefined) out.set(sourceKey(source), dataAddress(await readSource(file, source)));
  }
  return out;
}

export type Exporter = (run: ExportRun) => Promise<Record<string, unknown>>;

const video =
  (id: VideoRecipeId): Exporter =>
  async ({ at: _at, ...run }) => ({ ...(await renderVideo({ ...run, recipe: VIDEO_RECIPES[id] })) });

const moving =
  (id: keyof typeof MOVING_KINDS): Exporter =>
  async (run) => ({ ...(await renderMoving(id, run)) });

const still =
  (write: (canvas: Canvas, quality: number) => Promise<Buffer>): Exporter =>
  async (run) => {
    const { source, frame, seconds } = await stillOf(run);
    const { canvas } = await source.paint(seconds);
    if (run.signal?.aborted) throw new Cancelled();
    await writeFile(run.out, await write(canvas, (run.settings ?? USUAL_SETTINGS).still.quality));
    return { frame, width: source.width, height: source.height };
  };

/** The sound alone. */
const sound =
  (recipe: SoundRecipe): Exporter =>
  async (run) => {
    const { piece, analysis } = run.input;
    const settings = run.settings ?? USUAL_SETTINGS;
    const times = resolveTimes(piece, analysis);
    const span = spanOf(run.excerpt ?? null, times.end, piece.frameRate);
    if (span.count === 0) throw new AppError('NOTHING_TO_RENDER');
    const heard = await soundOf(run, times, span);
    const loudness = await encodeSound(heard, recipe, settings.loudness, run.assets.serverDir, run.out, run.signal);
    return { samples: heard[0].length, frames: span.count, loudness };
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
  'webp-animated': moving('webp-animated'),
  'png-sequence': renderFrames,
  gif: moving('gif'),
  png: still((canvas) => canvas.encode('png')),
  jpeg: still((canvas, quality) => canvas.encode('jpeg', quality)),
  webp: still((canvas, quality) => canvas.encode('webp', quality)),
  async svg(run) {
    const { source, frame, seconds } = await stillOf(run);
    const list = source.resolve(seconds);
    const pictures = await picturesOf(list, run.input.files);
    const { svg, left } = writeSvg(list, { picture: (source) => pictures.get(sourceKey(source)) ?? null });
    if (run.signal?.aborted) throw new Cancelled();
    await writeFile(run.out, svg);
    return { frame, width: source.width, height: source.height, left };
  },
  wav: sound(PCM),
  mp3: sound(MP3),
  m4a: sound({ ...AAC, file: { extension: 'm4a', args: ['-movflags', '+faststart', '-f', 'ipod'] } }),
  opus: sound({ ...OPUS, file: { extension: 'opus', args: ['-f', 'opus'] } }),
  srt,
  vtt,
  'markers-csv': markersCsv,
  'midi-tempo': midiTempo,
  otio,
  lottie: (run) => renderLottie(run, false),
  'lottie-alpha': (run) => renderLottie(run, true),
  html: renderPage,
  handover: renderHandover,
};
