import { rm, stat } from 'node:fs/promises';
import { USUAL_SETTINGS, kilobitsFor } from '@core/formats';
import type { ExportSettings } from '@core/formats';
import { resolveTimes, sectionExcerpts, spanOf, withinExcerpt } from '@core/piece';
import type { FrameSpan, NamedExcerpt, ResolvedTimes } from '@core/piece';
import { framesPerSecond, frameToSeconds } from '@core/time';
import { AppError, Cancelled } from '../platform/errors';
import { encodeFile } from './encode-file';
import { encodeSound } from './encode-sound';
import type { SoundFacts } from './encode-sound';
import { COLOUR, startEncoder } from './encoder';
import type { Encoder } from './encoder';
import type { ExportRun } from './export-run';
import { joinParts } from './join-parts';
import { openPainters } from './painters';
import type { Painters } from './painters';
import { soundOf } from './piece-sound';
import { videoParts } from './video-parts';
import type { VideoPart } from './video-parts';
import { MEZZANINES, VIDEO_RECIPES } from './video-recipes';
import type { VideoRecipe } from './video-recipes';

export interface VideoRun extends Omit<ExportRun, 'at'> {
  /** How it is encoded; H.264 in MP4 unless given. */
  readonly recipe?: VideoRecipe;
}

export interface RenderFacts {
  readonly frames: number;
  /** Frames that were painted here; the others equalled the frame before, or came in parts. */
  readonly painted: number;
  readonly width: number;
  readonly height: number;
  readonly loudness?: SoundFacts;
  /** Whether the file is larger than asked for, because it cannot be made so small. */
  readonly isTooLarge?: boolean;
}

/** The recipe, and the frames that are asked for. @throws AppError NOTHING_TO_RENDER. */
function prepare(run: VideoRun): {
  recipe: VideoRecipe;
  settings: ExportSettings;
  times: ResolvedTimes;
  span: FrameSpan;
} {
  const { piece, analysis } = run.input;
  const times = resolveTimes(piece, analysis);
  const span = spanOf(run.excerpt ?? null, times.end, piece.frameRate);
  if (span.count === 0) throw new AppError('NOTHING_TO_RENDER');
  return { recipe: run.recipe ?? VIDEO_RECIPES.mp4, settings: run.settings ?? USUAL_SETTINGS, times, span };
}

const paintersFor = (run: VideoRun, recipe: VideoRecipe): Painters =>
  openPainters({
    input: { ...run.input, isSeeThrough: recipe.isSeeThrough },
    pixels: recipe.pixels,
    longerSide: recipe.longerSide ?? null,
    assets: run.assets,
    signal: run.signal,
    threads: run.threads,
  });

type Encoding = Pick<VideoRecipe, 'pixels' | 'isTagged'> & {
  readonly video: readonly string[];
  readonly container: readonly string[];
};

/**
 * Paints frames and encodes them, each part to a file of its own. While one part is encoded, the encoder of the next one
 * starts, and that of the part before it ends.
 * @param onFrame - is told how many frames were handed over.
 * @returns how many were painted.
 */
async function encodeParts(
  run: VideoRun,
  recipe: Encoding,
  painters: Painters,
  parts: readonly (Pick<VideoPart, 'first' | 'end'> & { readonly file: string })[],
  onFrame: (done: number) => void,
): Promise<number> {
  const { width, height } = painters;
  const { frameRate } = run.input.piece;
  const opened: Encoder[] = [];
  const open = (at: number): void => {
    const part = parts[at];
    if (part) opened.push(startEncoder({ ...recipe, width, height, frameRate, out: part.file }));
  };
  let painted = 0;
  let done = 0;
  let ended = Promise.resolve();
  try {
    open(0);
    for (const [i, part] of parts.entries()) {
      open(i + 1);
      const encoder = opened[i]!; // opened just now, or with the part before
      painted += await painters.paint(part.first, part.end, async (pixels) => {
        await encoder.write(pixels);
        run.onPicture?.({ pixels, kind: recipe.pixels, width, height });
        onFrame(++done);
      });
      await ended; // no more than one ends while another works
      ended = encoder.finish();
      ended.catch(() => {}); // told by whoever waits for it
    }
    await ended;
    return painted;
  } catch (error) {
    for (const encoder of opened) encoder.kill();
    throw error;
  }
}

/** What the codec is told: how good, or so many bits. */
const videoArguments = (recipe: VideoRecipe, fps: number, settings: ExportSettings): string[] => [
  ...recipe.video(fps, settings),
  ...(settings.rate.by === 'bits' ? (recipe.bits?.(settings.rate.kilobits) ?? []) : []),
];

/** Renders one part of a video by itself. @returns how many frames were painted. */
export async function renderPart(run: VideoRun, part: VideoPart): Promise<number> {
  const { recipe, settings } = prepare(run);
  const painters = paintersFor(run, recipe);
  const video = videoArguments(recipe, framesPerSecond(run.input.piece.frameRate), settings);
  try {
    const file = { ...part, file: run.out };
    return await encodeParts(run, { ...recipe, video, container: recipe.part.args }, painters, [file], (done) =>
      run.onProgress?.(done / (part.end - part.first)),
    );
  } finally {
    await painters.close();
  }
}

/** How often a file of a given size is tried, and by how much more it is made smaller than it was too large. */
const SIZE_TRIES = 4;
const SMALLER = 0.97;

/**
 * Encodes to a number of bits in two passes, or to a size: frames are painted once, kept without loss, and encoded from
 * there as often as it takes.
 */
async function encodeBySize(
  run: VideoRun,
  recipe: VideoRecipe,
  painters: Painters,
  span: FrameSpan,
  finish: (picture: string) => Promise<void>,
): Promise<Pick<RenderFacts, 'painted' | 'isTooLarge'>> {
  const settings = run.settings ?? USUAL_SETTINGS;
  const { rate } = settings;
  if (rate.by === 'quality') throw new AppError('INTERNAL', 'no number of bits is asked for');
  const frameRate = run.input.piece.frameRate;
  const fps = framesPerSecond(frameRate);
  const duration = span.count / fps;
  const mezzanine = MEZZANINES[recipe.pixels];
  const [whole, log, picture] = [
    `${run.out}.${mezzanine.part.extension}`,
    `${run.out}.log`,
    `${run.out}.${recipe.part.extension}`,
  ];
  const passes = recipe.pass ? 2 : 1;
  try {
    const painted = await encodeParts(
      run,
      { ...recipe, isTagged: true, video: mezzanine.video(fps, settings), container: mezzanine.part.args },
      painters,
      [{ first: span.first, end: span.first + span.count, file: whole }],
      (done) => run.onProgress?.((0.5 * done) / span.count),
    );
    let kilobits = rate.by === 'bits' ? rate.kilobits : kilobitsFor(rate.megabytes, duration, recipe.sound !== null);
    for (let i = 1; ; i++) {
      for (let n = 1; n <= passes; n++) {
        const isFirst = n < passes;
        await encodeFile(
          [
            ...[
              '-i',
              `file:${whole}`,
              '-map',
              '0:v',
              ...recipe.video(fps, settings),
              ...(recipe.bits?.(kilobits) ?? []),
            ],
            ...(recipe.pass ? recipe.pass(isFirst ? 1 : 2, log) : []),
            ...(recipe.isTagged ? COLOUR : []),
            ...(isFirst ? ['-f', 'null'] : recipe.part.args),
          ],
          isFirst ? '-' : picture,
          run.signal,
          (seconds) => run.onProgress?.(0.5 + (0.45 * (n - 1 + Math.min(1, seconds / duration))) / passes),
        );
      }
      await finish(picture);
      if (rate.by === 'bits') return { painted };
      const bytes = (await stat(run.out)).size;
      const most = rate.megabytes * 1e6;
      if (bytes <= most) return { painted };
      if (i === SIZE_TRIES) return { painted, isTooLarge: true };
      kilobits = Math.max(10, Math.floor(kilobits * (most / bytes) * SMALLER));
    }
  } finally {
    for (const file of [whole, picture, log, `${log}-0.log`, `${log}-0.log.mbtree`, `${log}.cutree`])
      await rm(file, { force: true });
  }
}

/** Sections of the song within the frames that are asked for, by the file's own time. */
function chaptersOf(run: VideoRun, times: ResolvedTimes, span: FrameSpan): NamedExcerpt[] {
  const { piece, analysis } = run.input;
  const from = frameToSeconds(span.first, piece.frameRate);
  const to = frameToSeconds(span.first + span.count, piece.frameRate);
  return withinExcerpt(sectionExcerpts(piece, times, analysis), { from, to });
}

/** Makes the sound's file while pictures are painted. Whoever needs it waits for it and hears then what went wrong. */
function soundBeside(
  run: VideoRun,
  { sound }: VideoRecipe,
  times: ResolvedTimes,
  span: FrameSpan,
  file: string | null,
): Promise<SoundFacts | undefined> {
  const make = async (): Promise<SoundFacts | undefined> => {
    if (!sound || file === null) return undefined;
    const { loudness } = run.settings ?? USUAL_SETTINGS;
    return encodeSound(await soundOf(run, times, span), sound, loudness, run.assets.serverDir, file, run.signal);
  };
  const made = make();
  made.catch(() => {});
  return made;
}

/**
 * Renders one format of a piece to a file of moving pictures: the sound, beside it the pictures in parts, which are
 * joined with it as they are.
 * @throws AppError NOTHING_TO_RENDER, MEDIA_MISSING, ENCODER_FAILED, DISK_FULL; Cancelled if the signal fires.
 * `out` may be left half-written then: the caller removes it.
 */
export async function renderVideo(run: VideoRun): Promise<RenderFacts> {
  const { recipe, settings, times, span } = prepare(run);
  const { piece } = run.input;
  const painters = paintersFor(run, recipe);
  const soundFile = recipe.sound ? `${run.out}.${recipe.sound.file.extension}` : null;
  const made: string[] = [];
  const heard = soundBeside(run, recipe, times, span, soundFile);
  try {
    if (run.signal?.aborted) throw new Cancelled();
    const finish = async (parts: readonly VideoPart[], files: readonly string[]): Promise<void> => {
      await heard;
      await joinParts({
        ...{ files, parts, rate: piece.frameRate, sound: soundFile, out: run.out, signal: run.signal },
        chapters: settings.hasChapters ? chaptersOf(run, times, span) : [],
        container: recipe.container ?? recipe.part.args,
      });
    };
    const all: VideoPart = { index: 0, first: span.first, end: span.first + span.count };
    const video = videoArguments(recipe, framesPerSecond(piece.frameRate), settings);
    const { rate } = settings;
    let painted = 0;
    let isTooLarge = false;
    if (recipe.bits && (rate.by === 'size' || (rate.by === 'bits' && rate.isTwoPass && recipe.pass)))
      ({ painted, isTooLarge = false } = await encodeBySize(run, recipe, painters, span, (picture) =>
        finish([all], [picture]),
      ));
    else if (recipe.container === null)
      painted = await encodeParts(
        run,
        { ...recipe, video, container: recipe.part.args },
        painters,
        [{ ...all, file: run.out }],
        (done) => run.onProgress?.(done / span.count),
      );
    else {
      const parts = recipe.isInParts ? videoParts(span, piece.frameRate) : [all];
      if (run.makeParts && parts.length > 1) await finish(parts, await run.makeParts(parts));
      else {
        made.push(...parts.map(({ index }) => `${run.out}.${index}.${recipe.part.extension}`));
        painted = await encodeParts(
          run,
          { ...recipe, video, container: recipe.part.args },
          painters,
          parts.map((part, i) => ({ ...part, file: made[i]! })), // one for each
          (done) => run.onProgress?.((0.98 * done) / span.count),
        );
        await finish(parts, made);
      }
    }
    const format = piece.formats.find((f) => f.id === run.input.formatId);
    const loudness = await heard;
    return {
      ...{
        frames: span.count,
        painted,
        width: format?.width ?? painters.width,
        height: format?.height ?? painters.height,
      },
      ...(loudness ? { loudness } : {}),
      ...(isTooLarge ? { isTooLarge } : {}),
    };
  } finally {
    await painters.close();
    // Nothing is written any more when the files go.
    await heard.catch(() => {});
    for (const file of [...made, ...(soundFile ? [soundFile] : [])]) await rm(file, { force: true });
  }
}
