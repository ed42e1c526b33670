import { readFile, rm, writeFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { PAGE_DATA_ID, PATH_ENGINE_ADDRESS, USUAL_SETTINGS } from '@core/formats';
import type { PageData } from '@core/formats';
import { MEDIA_KINDS, combinesShapes, posterFrame, resolveTimes, spanOf } from '@core/piece';
import { frameMiddle } from '@core/time';
import { AppError, Cancelled } from '../platform/errors';
import { escapeHtml } from '../platform/escape-html';
import { encodeSound } from './encode-sound';
import type { SoundFacts } from './encode-sound';
import type { ExportRun } from './export-run';
import { createFrameSource } from './frame-source';
import { footageOfPage } from './page-footage';
import { soundOf } from './piece-sound';
import { createServerFonts } from './skia-host';
import { MP3 } from './video-recipes';

/** Nothing is loaded from anywhere: whatever the page needs is in it. */
const POLICY = [
  "default-src 'none'",
  "script-src 'unsafe-inline' 'wasm-unsafe-eval'",
  "style-src 'unsafe-inline'",
  'img-src data: blob:',
  'connect-src data:',
].join('; ');

const STYLE = `
html, body { height: 100%; margin: 0; background: #000; color: #eee; font: 16px/1.4 sans-serif; }
body { display: grid; place-items: center; overflow: hidden; }
img, canvas, button { grid-area: 1 / 1; max-width: 100vw; max-height: 100vh; width: auto; height: auto; }
canvas { visibility: hidden; }
body[data-state=shown] canvas, body[data-state=playing] canvas { visibility: visible; }
button { position: absolute; inset: 0; border: 0; background: none; cursor: pointer; outline-offset: -4px; }
button:not(:focus-visible) { outline: none; }
p { grid-area: 1 / 1; z-index: 1; padding: 1em; background: #000c; }
p:empty { display: none; }
`;

interface PageParts {
  readonly title: string;
  readonly width: number;
  readonly height: number;
  readonly poster: Buffer;
  readonly data: PageData;
  readonly player: string;
}

function pageOf({ title, width, height, poster, data, player }: PageParts): string {
  const packed = gzipSync(JSON.stringify(data), { level: 9 }).toString('base64');
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta http-equiv="Content-Security-Policy" content="${POLICY}">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escapeHtml(title)}</title>
<style>${STYLE}</style>
</head>
<body data-state="loading">
<img alt="" width="${width}" height="${height}" src="data:image/jpeg;base64,${poster.toString('base64')}">
<canvas width="${width}" height="${height}" aria-label="${escapeHtml(title)}"></canvas>
<button aria-label="Play"></button>
<p role="status"></p>
<noscript><p>This page needs JavaScript to play.</p></noscript>
<script type="text/plain" id="${PAGE_DATA_ID}">${packed}</script>
<script type="module">${player.replaceAll('</script', '<\\/script')}</script>
</body>
</html>
`;
}

/** One HTML file that plays the piece by itself: our painter, what it paints, and a poster until it is ready. */
export async function renderPage(run: ExportRun): Promise<Record<string, unknown>> {
  const { input, assets, signal } = run;
  const { piece, analysis, formatId } = input;
  const times = resolveTimes(piece, analysis);
  const span = spanOf(run.excerpt ?? null, times.end, piece.frameRate);
  if (span.count === 0) throw new AppError('NOTHING_TO_RENDER');
  const files: Record<string, string> = {};
  const keep = (address: string, bytes: Buffer): void => void (files[address] = bytes.toString('base64'));
  // Whatever font is read to draw the piece is what the page needs.
  const fonts = createServerFonts(assets.fontsDir, (path, bytes) => keep(`/fonts/${path}`, bytes));
  keep('/fonts/manifest.json', await readFile(join(assets.fontsDir, 'manifest.json')));
  const source = await createFrameSource(input, fonts);
  for (const { hash, kind } of piece.media)
    if (kind !== 'audio' && kind !== 'footage')
      keep(`/api/media/${hash}/${MEDIA_KINDS[kind].variant}`, await readFile(input.files[hash] ?? ''));
  if (piece.media.some(({ kind }) => kind === 'footage'))
    for (const [address, bytes] of await footageOfPage(source, span, piece.frameRate, input.files, signal))
      keep(address, bytes);
  if (combinesShapes(piece))
    keep(PATH_ENGINE_ADDRESS, await readFile(createRequire(import.meta.url).resolve('pathkit-wasm/bin/pathkit.wasm')));
  const poster = posterFrame(piece, times, span);
  const { canvas } = await source.paint(frameMiddle(poster, piece.frameRate));
  const heard = await soundFile(run, times, span);
  if (signal?.aborted) throw new Cancelled();
  const player = await readFile(join(assets.pageDir, 'player.js'), 'utf8');
  const data: PageData = {
    ...{ piece, analysis, formatId, files, first: span.first, count: span.count },
    sound: heard?.bytes.toString('base64') ?? null,
  };
  const { width, height } = source;
  await writeFile(
    run.out,
    pageOf({ title: piece.name, width, height, poster: await canvas.encode('jpeg', 85), data, player }),
  );
  return { frames: span.count, width, height, ...(heard ? { loudness: heard.loudness } : {}) };
}

/** The sound of the frames as a file; null if the piece has no music. */
async function soundFile(
  run: ExportRun,
  times: ReturnType<typeof resolveTimes>,
  span: ReturnType<typeof spanOf>,
): Promise<{ bytes: Buffer; loudness: SoundFacts } | null> {
  if (!run.input.piece.music) return null;
  const file = `${run.out}.sound`;
  try {
    const { loudness } = run.settings ?? USUAL_SETTINGS;
    const sound = await soundOf(run, times, span);
    const facts = await encodeSound(sound, MP3, loudness, run.assets.serverDir, file, run.signal);
    return { bytes: await readFile(file), loudness: facts };
  } finally {
    await rm(file, { force: true });
  }
}
