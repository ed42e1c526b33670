import { mkdtemp, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ANALYSIS_RATE, analyseSong } from '@core/audio';
import { readPieceFile } from '@core/formats';
import type { Piece } from '@core/piece';
import { resolveTimes } from '@core/piece';
import { MAX_SONG_SECONDS } from './platform/limits';
import { UsageError } from './cli-usage';
import { assets } from './platform/config';
import { AppError } from './platform/errors';
import { decodeFont } from './features/media/decode-font';
import { decodeMono, runProgram } from './platform/ffmpeg';
import { createFrameSource } from './render/frame-source';
import type { RenderInput } from './render/frame-source';
import { renderVideo } from './render/render-video';
import { createServerFonts } from './render/skia-host';

/** Unpacks a piece file into a folder that lives as long as `use` runs. */
async function withPiece<T>(file: string, use: (piece: Piece, input: Omit<RenderInput, 'formatId'>, songFile: string | null) => Promise<T>): Promise<T> {
  const read = readPieceFile(new Uint8Array(await readFile(file)));
  if (!read.ok) throw new AppError(read.problem.code, 'detail' in read.problem ? read.problem.detail : '');
  const { piece, media, analyses } = read.file;
  const dir = await mkdtemp(join(tmpdir(), 'estrella-'));
  try {
    const pictures: Record<string, string> = {};
    const fonts: Record<string, string> = {};
    for (const ref of piece.media) {
      const original = join(dir, ref.hash);
      await writeFile(original, media.get(ref.hash)!); // readPieceFile refuses files that lack media
      if (ref.kind === 'font') {
        await writeFile(`${original}.ttf`, await decodeFont(media.get(ref.hash)!)); // as above
        fonts[ref.hash] = `${original}.ttf`;
      }
      if (ref.kind === 'picture') {
        await runProgram('ffmpeg', ['-v', 'error', '-nostdin', '-i', original, '-frames:v', '1', '-vf', `scale=${ref.width ?? -1}:${ref.height ?? -1}:flags=lanczos`, '-pix_fmt', 'rgba', `${original}.png`]);
        pictures[ref.hash] = `${original}.png`;
      }
    }
    const song = piece.media.find((m) => m.id === piece.music?.mediaId);
    const songFile = song ? join(dir, song.hash) : null;
    let analysis = song ? analyses.get(song.hash) ?? null : null;
    if (songFile && !analysis) analysis = analyseSong(await decodeMono(songFile, ANALYSIS_RATE, { maxSeconds: MAX_SONG_SECONDS }));
    return await use(piece, { piece, analysis, pictures, fonts }, songFile);
  } finally {
    await rm(dir, { recursive: true, force: true });
  }
}

function formatOf(piece: Piece, id: string | undefined): string {
  const wanted = id ?? piece.leadFormatId;
  if (!piece.formats.some((f) => f.id === wanted)) throw new UsageError(`the piece has no format ${wanted}; it has ${piece.formats.map((f) => f.id).join(', ')}`);
  return wanted;
}

export async function render(file: string, format: string | undefined, out: string): Promise<void> {
  await withPiece(file, async (piece, input, songFile) => {
    const temporary = `${out}.part`;
    try {
      const facts = await renderVideo({ input: { ...input, formatId: formatOf(piece, format) }, songFile, out: temporary, assets });
      await rename(temporary, out);
      console.log(`${facts.frames} frames (${facts.painted} painted), ${facts.width}×${facts.height}: ${out}`);
    } finally {
      await rm(temporary, { force: true });
    }
  });
}

export async function frame(file: string, at: number, format: string | undefined, out: string): Promise<void> {
  await withPiece(file, async (piece, input) => {
    const end = resolveTimes(piece, input.analysis).end;
    if (at < 0 || at >= end) throw new UsageError(`--at must be from 0 to below the piece's end, ${end.toFixed(3)} s; got ${at}`);
    const source = await createFrameSource({ ...input, formatId: formatOf(piece, format) }, createServerFonts(assets.fontsDir));
    await writeFile(out, await source.paint(at).canvas.encode('png'));
  });
}
