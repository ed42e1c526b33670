import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { dirname, extname, join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import yazl from 'yazl';
import {
  PIECE_FILE_EXTENSION,
  USUAL_SETTINGS,
  captionCues,
  timingSheet,
  writeMarkerCsv,
  writeMidiTempo,
  writeOtio,
  writeSrt,
  writeVtt,
} from '@core/formats';
import { MEDIA_KINDS, posterFrame, resolveTimes, songOf, spanOf } from '@core/piece';
import type { MediaRef } from '@core/piece';
import { fileNames } from '@core/roster';
import { frameMiddle, framesPerSecond } from '@core/time';
import { packPiece } from '../features/pieces/piece-archive';
import { AppError, Cancelled } from '../platform/errors';
import { encodeSound } from './encode-sound';
import type { ExportRun } from './export-run';
import { createFrameSource } from './frame-source';
import { soundOf } from './piece-sound';
import { renderVideo } from './render-video';
import { createServerFonts } from './skia-host';
import { PCM, VIDEO_RECIPES } from './video-recipes';

/** Of a family of fonts, beside its files. */
const LICENCE = 'LICENSE.txt';

/** Names of media as files, each once: what they were brought in as. */
function mediaNames(media: readonly MediaRef[]): Map<string, string> {
  const once = [...new Map(media.map((ref) => [ref.hash, ref])).values()];
  const bare = once.map(({ name }) => name.slice(0, name.length - extname(name).length));
  const names = fileNames(bare, (i) => `${MEDIA_KINDS[once[i]!.kind].label} ${i + 1}`);
  return new Map(once.map((ref, i) => [ref.hash, `${names[i]!}${extname(ref.name).toLowerCase()}`]));
}

/** What lies in the folder, for whoever opens it. */
function readMe(name: string, lines: readonly (readonly [string, string])[], facts: readonly string[]): string {
  const width = Math.max(...lines.map(([file]) => file.length)) + 2;
  return [`${name}`, '', ...facts, '', ...lines.map(([file, what]) => `${file.padEnd(width)}${what}`), ''].join('\r\n');
}

/**
 * Everything that somebody needs to go on with a piece elsewhere, in one ZIP. Names in the timeline are those of the
 * files beside it.
 */
export async function renderHandover(run: ExportRun): Promise<Record<string, unknown>> {
  const { input, assets, signal, originals = {} } = run;
  const { piece, analysis } = input;
  const times = resolveTimes(piece, analysis);
  const span = spanOf(run.excerpt ?? null, times.end, piece.frameRate);
  if (span.count === 0) throw new AppError('NOTHING_TO_RENDER');
  const work = await mkdtemp(join(dirname(run.out), 'handover-'));
  try {
    const name = fileNames([piece.name], () => 'Piece')[0]!;
    const zip = new yazl.ZipFile();
    const lines: [string, string][] = [];
    const add = (file: string, what: string, content: string | Uint8Array): void => {
      zip.addBuffer(Buffer.from(content), file);
      lines.push([file, what]);
    };
    const addFile = (path: string, file: string, what: string): void => {
      zip.addFile(path, file, { compress: false });
      lines.push([file, what]);
    };

    const picture = `${name}.mp4`;
    const { at: _at, ...whole } = run;
    const facts = await renderVideo({ ...whole, out: join(work, 'picture.mp4'), recipe: VIDEO_RECIPES.mp4 });
    addFile(join(work, 'picture.mp4'), picture, 'the finished picture with its sound');
    const sound = await soundOf(run, times, span);
    const { loudness } = run.settings ?? USUAL_SETTINGS;
    await encodeSound(sound, PCM, loudness, assets.serverDir, join(work, 'sound.wav'), signal);
    addFile(join(work, 'sound.wav'), `${name}.wav`, 'the sound alone, as long as the picture');

    const fonts = new Map<string, Buffer>();
    const source = await createFrameSource(
      input,
      createServerFonts(assets.fontsDir, (path, bytes) => fonts.set(path, bytes)),
    );
    const poster = posterFrame(piece, times, span);
    const { canvas } = await source.paint(frameMiddle(poster, piece.frameRate));
    add('poster.png', 'the frame that stands for it', await canvas.encode('png'));

    const media = mediaNames(piece.media);
    const sheet = timingSheet(piece, analysis, run.excerpt ?? null);
    const song = songOf(piece);
    const inFolder = song ? { ...sheet, song: `media/${media.get(song.hash) ?? song.name}` } : sheet;
    add(
      'timeline.otio',
      'picture and song as they are cut, with sections, markers and bars',
      writeOtio(inFolder, picture),
    );
    add('markers.csv', 'bars, beats, sections and markers', writeMarkerCsv(sheet));
    add('tempo.mid', 'the beats as a tempo map', writeMidiTempo(sheet));
    const cues = captionCues(piece, times, run.excerpt ?? null);
    if (cues.length > 0) {
      add('captions.srt', 'the captions', writeSrt(cues));
      add('captions.vtt', 'the captions, for web pages', writeVtt(cues));
    }
    for (const [hash, file] of media) {
      const { name: known } = piece.media.find((ref) => ref.hash === hash)!; // it was named after one
      const original = originals[hash];
      if (original === undefined) throw new AppError('MEDIA_MISSING', known);
      addFile(original, `media/${file}`, known);
    }
    for (const [path, bytes] of fonts) add(`fonts/${path}`, 'a font that it is written with', bytes);
    for (const family of new Set([...fonts.keys()].map((path) => dirname(path))))
      addFile(join(assets.fontsDir, family, LICENCE), `fonts/${family}/${LICENCE}`, 'what may be done with it');
    const packed = join(work, 'piece');
    const analyses = new Map(song && analysis ? [[song.hash, analysis]] : []);
    await pipeline(
      await packPiece({ piece, media: new Map(Object.entries(originals)), analyses }),
      createWriteStream(packed),
    );
    addFile(packed, `${name}${PIECE_FILE_EXTENSION}`, 'the piece itself, to be opened in Estrella');
    const { width, height } = source;
    add(
      'Read me.txt',
      'this list',
      readMe(piece.name, lines, [
        `${width} × ${height}, ${framesPerSecond(piece.frameRate)
          .toFixed(3)
          .replace(/\.?0+$/, '')} frames a second, ${span.count} frames`,
      ]),
    );
    zip.end();
    // yazl types its stream as the older interface
    await pipeline(zip.outputStream as Readable, createWriteStream(run.out), signal ? { signal } : {});
    if (signal?.aborted) throw new Cancelled();
    return { ...facts, width, height };
  } finally {
    await rm(work, { recursive: true, force: true });
  }
}
