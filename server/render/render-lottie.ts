import { readFile, writeFile } from 'node:fs/promises';
import { loadImage } from '@napi-rs/canvas';
import { LottieWriter } from '@core/lottie';
import type { FilePicture } from '@core/lottie';
import { MEDIA_KINDS, resolveTimes, spanOf } from '@core/piece';
import { frameMiddle, framesPerSecond } from '@core/time';
import { AppError } from '../platform/errors';
import { turnUnless } from '../platform/turns';
import type { ExportRun } from './export-run';
import { createFrameSource } from './frame-source';
import type { RenderInput } from './frame-source';
import { dataAddress } from './read-source';
import { createServerFonts } from './skia-host';

/** Frames between looks at whether to go on. */
const AT_ONCE = 8;

async function readPicture(file: string): Promise<FilePicture> {
  const bytes = await readFile(file);
  const { width, height } = await loadImage(bytes);
  // The file that is painted with is a PNG already.
  return { address: dataAddress({ bytes, type: MEDIA_KINDS.picture.type }), width, height };
}

/** @throws AppError MEDIA_MISSING */
async function picturesOf({ piece, files }: RenderInput): Promise<Map<string, FilePicture>> {
  const out = new Map<string, FilePicture>();
  for (const { hash, kind, name } of piece.media) {
    if (kind !== 'picture') continue;
    out.set(
      hash,
      await readPicture(files[hash] ?? '').catch((cause: unknown) => {
        throw new AppError('MEDIA_MISSING', name, { cause });
      }),
    );
  }
  return out;
}

/** The frames as a Lottie file. @param isSeeThrough - leaves the background out. */
export async function renderLottie(run: ExportRun, isSeeThrough: boolean): Promise<Record<string, unknown>> {
  const { input, assets, signal, onProgress } = run;
  const { piece } = input;
  const rate = piece.frameRate;
  const { end } = resolveTimes(piece, input.analysis);
  const { first, count } = spanOf(run.excerpt ?? null, end, rate);
  if (count === 0) throw new AppError('NOTHING_TO_RENDER');
  const source = await createFrameSource({ ...input, isSeeThrough }, createServerFonts(assets.fontsDir));
  const pictures = await picturesOf(input);
  const names = new Map(piece.layers.map(({ id, name }) => [id, name]));
  const { width, height } = source;
  const writer = new LottieWriter({
    ...{ width, height, name: piece.name, framesPerSecond: framesPerSecond(rate) },
    nameOf: (id) => names.get(id) ?? 'Background',
    picture: (hash) => pictures.get(hash) ?? null,
  });
  for (let frame = 0; frame < count; frame++) {
    writer.push(source.resolve(frameMiddle(first + frame, rate)));
    if (frame % AT_ONCE !== 0) continue;
    onProgress?.(frame / count);
    await turnUnless(signal);
  }
  const { lottie, left } = writer.finish();
  await writeFile(run.out, JSON.stringify(lottie));
  return { frames: count, width, height, left: piece.music ? [...left, 'the sound'] : left };
}
