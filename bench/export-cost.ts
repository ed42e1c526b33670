import { execFileSync, spawn } from 'node:child_process';
import { once } from 'node:events';
import { rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { ANALYSIS_RATE, analyseSong } from '@core/audio';
import type { SongAnalysis } from '@core/audio';
import { newGestureUse } from '@core/motion';
import { createLayer, createPiece, resolveTimes } from '@core/piece';
import type { Piece } from '@core/piece';
import { FRAME_RATES, frameCount, frameMiddle, freeMoment } from '@core/time';
import { convertSong } from '../server/features/media/convert-song';
import { unpackPiece } from '../server/features/pieces/piece-archive';
import { assets } from '../server/platform/config';
import { decodeMono, openAs } from '../server/platform/ffmpeg';
import { keepPaintThread } from '../server/render/paint-pool';
import { renderVideo } from '../server/render/render-video';
import { screenshotRate } from './frame-page';

/** What exports cost, beside the encoder alone and beside screenshots of the app's own frame page. */
const SCREENSHOT_FRAMES = 24;

interface Exported {
  readonly piece: Piece;
  readonly formatId: string;
  readonly analysis: SongAnalysis | null;
  readonly songFile: string | null;
}

/** Seconds that work takes. */
const seconds = async (work: () => Promise<unknown>): Promise<number> => {
  const start = performance.now();
  await work();
  return (performance.now() - start) / 1000;
};

/** Encoder alone: the very frames of the export, decoded to raw pixels beforehand, with the export's own settings. */
async function encoderLimit(dir: string, video: string, width: number, height: number): Promise<number> {
  const raw = join(dir, 'frames.yuv');
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-i', video, '-pix_fmt', 'yuv420p', '-f', 'rawvideo', raw]);
  const frames = (await stat(raw)).size / ((width * height * 3) / 2);
  const time = await seconds(async () => {
    const child = spawn('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-f',
      'rawvideo',
      '-pix_fmt',
      'yuv420p',
      '-s',
      `${width}x${height}`,
      '-framerate',
      '30',
      '-i',
      raw,
      '-c:v',
      'libx264',
      '-preset',
      'veryfast',
      '-profile:v',
      'high',
      '-crf',
      '17',
      '-f',
      'mp4',
      join(dir, 'limit.mp4'),
    ]);
    await once(child, 'close');
  });
  await rm(raw);
  return frames / time;
}

/** Words on a plain ground, 1920×1080 at 30 frames a second. @param isBlurred - they come and go out of a blur, letter by letter. */
function wordsPiece(name: string, phrases: readonly string[], each: number, isBlurred: boolean): Exported {
  let n = 0;
  const ids = (): string => `w${++n}`;
  const base = createPiece(
    { name, formats: [{ id: 'wide', name: 'Wide', width: 1920, height: 1080 }], frameRate: FRAME_RATES['30'] },
    ids,
  );
  const gesture = (role: 'entrance' | 'exit') => ({
    ...newGestureUse('mist', role, ids()),
    unit: 'letter' as const,
    duration: { unit: 'seconds' as const, value: each / 2 },
  });
  const layers = phrases.map((text, i) => ({
    ...createLayer(
      'text',
      {
        name: text,
        start: freeMoment(i * each),
        end: freeMoment((i + 1) * each),
        content: {
          text,
          family: 'bricolage-grotesque',
          area: { x: 0.05, y: 0.05, width: 0.9, height: 0.9, valign: 'middle' },
        },
        values: { size: 120 },
      },
      ids,
    ),
    gestures: isBlurred ? [gesture('entrance'), gesture('exit')] : [],
  }));
  const piece = { ...base, layers, end: freeMoment(phrases.length * each) };
  return { piece, formatId: 'wide', analysis: null, songFile: null };
}

const QUOTE = 'The wind has no hands, and yet it turns every page of the harbour before breakfast.';
const PHRASES = ['Nine days of wind', 'and one of rain', 'The kites came down', 'when the harbour slept'];

async function demo(dir: string, file: string, song: string, formatId: string): Promise<Exported> {
  const { piece } = await unpackPiece(join(dir, `${file}.estrella`), dir);
  const songFile = join(dir, `${song}.flac`);
  await convertSong(join(dir, `${song}.wav`), songFile, { limitMs: 60_000 });
  const mono = await decodeMono(openAs('flac', songFile), ANALYSIS_RATE, { maxSeconds: 600, limitMs: 60_000 });
  return { piece, formatId, analysis: analyseSong(mono), songFile };
}

/** Long enough for a thread to load. */
const WARM_MS = 3000;

async function row({ piece, formatId, analysis, songFile }: Exported, dir: string, shoots: boolean): Promise<string> {
  const format = piece.formats.find((f) => f.id === formatId)!; // the pieces' own formats
  const out = join(dir, 'out.mp4');
  let facts = { frames: 0, painted: 0 };
  const time = await seconds(async () => {
    facts = await renderVideo({ input: { piece, analysis, formatId, files: {} }, songFile, out, assets });
  });
  const limit = await encoderLimit(dir, out, format.width, format.height);
  const fps = facts.frames / time;
  const total = frameCount(resolveTimes(piece, analysis).end, piece.frameRate);
  const times = Array.from({ length: SCREENSHOT_FRAMES }, (_, i) =>
    frameMiddle(Math.floor((i * total) / SCREENSHOT_FRAMES), piece.frameRate),
  );
  const shots = shoots ? await screenshotRate({ piece, analysis, files: {} }, times, dir) : null;
  const beside = shots === null ? ' | ' : `${shots.toFixed(2)} | ${(fps / shots).toFixed(1)}`;
  return `| ${piece.name}, ${format.name} | ${facts.frames} | ${facts.painted} | ${fps.toFixed(1)} | ${limit.toFixed(1)} | ${(fps / limit).toFixed(2)} | ${beside} |`;
}

/** Prints a table: the demo's pieces, a quote that stands still, and words that are blurred all the time. */
export async function printExportCost(dir: string): Promise<void> {
  execFileSync(process.execPath, [join(assets.serverDir, 'make-demo.js'), dir]);
  // As in the app's workers: a thread is loaded before somebody renders.
  keepPaintThread(assets);
  await new Promise((resolve) => setTimeout(resolve, WARM_MS));
  console.log(
    '| piece, format | frames | painted | export fps | (a) encoder alone | ratio to (a), aim 0.7; 0.95 for the quote | (b) screenshots fps | ratio to (b), aim 10 |',
  );
  console.log('|---|---|---|---|---|---|---|---|');
  console.log(await row(await demo(dir, 'demo-nine-days', 'salt-and-string', 'wide'), dir, true));
  console.log(await row(await demo(dir, 'demo-kite-maker', 'harbour-lamps', 'tall'), dir, false));
  console.log(await row(await demo(dir, 'demo-kite-week', 'salt-and-string', 'wide'), dir, false));
  console.log(await row(wordsPiece('A quote that stands still', [QUOTE], 15, false), dir, false));
  console.log(await row(wordsPiece('Words out of a blur (aim: 15 fps)', PHRASES, 3, true), dir, false));
}
