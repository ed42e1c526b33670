import { mkdtemp, rename, rm, stat, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { extname, join } from 'node:path';
import { ANALYSIS_RATE, analyseSong } from '@core/audio';
import { EXPORT_KINDS, EXPORT_KIND_IDS, USUAL_SETTINGS, exportSettingsSchema, settingsFor } from '@core/formats';
import type { ExportKindId, ExportSettings } from '@core/formats';
import type { Excerpt, MediaRef, Piece } from '@core/piece';
import { CHECKS, finding, tellFlashing } from '@core/checks';
import { MAX_PIECE_SECONDS, MEDIA_KINDS, resolveTimes, songOf } from '@core/piece';
import { progressOn } from './progress';
import { UsageError, numberOf } from './usage';
import { convertSong } from '../features/media/convert-song';
import { makeFrames } from '../features/media/make-frames';
import { SERVED_MEDIA } from '../features/media/media-kinds';
import { sniff } from '../features/media/sniff';
import { unpackPiece } from '../features/pieces/piece-archive';
import { assets } from '../platform/config';
import { AppError } from '../platform/errors';
import { decodeMono, openAs } from '../platform/ffmpeg';
import { MAX_SONG_SECONDS } from '../platform/limits';
import { readHead } from '../platform/read-head';
import { flashesOf } from '../render/flashes-of';
import { createFrameSource } from '../render/frame-source';
import type { RenderInput } from '../render/frame-source';
import { EXPORTERS } from '../render/export-kinds';
import type { ExportRun } from '../render/export-run';
import { findingsIn } from '../render/mistakes-in';
import { createServerFonts } from '../render/skia-host';

const LIMIT_MS = 600_000;
/** Frames of a film. */
const FILM_MS = 3_600_000;

/** Makes of a file what its kind is painted or written with. @returns The path of it. */
async function makeVariant(original: string, ref: MediaRef): Promise<string> {
  const { extension } = MEDIA_KINDS[ref.kind];
  const to = `${original}.${extension}`;
  if (ref.kind === 'audio') {
    await convertSong(original, to, { limitMs: LIMIT_MS }).catch((cause: unknown) => {
      throw new AppError('AUDIO_UNREADABLE', ref.name, { cause });
    });
    return to;
  }
  const sniffed = await sniff(await readHead(original), ref.kind);
  if (sniffed?.kind !== ref.kind) throw new AppError('FILE_UNKNOWN', ref.name);
  if (ref.kind === 'footage') {
    await makeFrames(original, sniffed.format, ref.name, to, { limitMs: FILM_MS });
    return to;
  }
  const { size } = await stat(original);
  await SERVED_MEDIA[ref.kind].take(
    { file: original, bytes: size, name: ref.name, format: sniffed.format, assets },
    to,
  );
  return to;
}

/** A piece with the files it is painted from. */
export interface LoadedPiece extends Omit<RenderInput, 'formatId'> {
  readonly songFile: string | null;
  /** The media as they were imported, by hash. */
  readonly originals: Readonly<Record<string, string>>;
}

/** Unpacks a project file into a folder that lives as long as `use` runs. */
export async function withPiece<T>(file: string, use: (loaded: LoadedPiece) => Promise<T>): Promise<T> {
  const dir = await mkdtemp(join(tmpdir(), 'estrella-'));
  try {
    const { piece, media, analyses } = await unpackPiece(file, dir);
    const files: Record<string, string> = {};
    const isRead = (ref: MediaRef) => ref.kind !== 'audio' || ref.id === piece.music?.mediaId;
    for (const ref of piece.media.filter(isRead)) files[ref.hash] = await makeVariant(media.get(ref.hash) ?? '', ref);
    const song = songOf(piece);
    const songFile = song ? (files[song.hash] ?? null) : null;
    let analysis = song ? (analyses.get(song.hash) ?? null) : null;
    if (songFile && !analysis)
      analysis = analyseSong(
        await decodeMono(openAs('flac', songFile), ANALYSIS_RATE, { maxSeconds: MAX_SONG_SECONDS, limitMs: LIMIT_MS }),
      );
    return await use({ piece, analysis, files, songFile, originals: Object.fromEntries(media) });
  } finally {
    await rm(dir, { recursive: true, force: true });
  }
}

function formatOf(piece: Piece, id: string | undefined): string {
  const wanted = id ?? piece.leadFormatId;
  if (!piece.formats.some((f) => f.id === wanted))
    throw new UsageError(`the piece has no format ${wanted}; it has ${piece.formats.map((f) => f.id).join(', ')}`);
  return wanted;
}

/** The kind of that name. @throws UsageError. */
export function kindNamed(name: string): ExportKindId {
  const kind = EXPORT_KIND_IDS.find((id) => id === name);
  if (!kind) throw new UsageError(`--kind is one of ${EXPORT_KIND_IDS.join(', ')}; got ${name}`);
  return kind;
}

/** The first kind whose files end like that one. @throws UsageError. */
function kindOfFile(out: string): ExportKindId {
  const extension = extname(out).slice(1).toLowerCase();
  const kind = EXPORT_KIND_IDS.find((id) => EXPORT_KINDS[id].extension === extension);
  const known = [...new Set(EXPORT_KIND_IDS.map((id) => `.${EXPORT_KINDS[id].extension}`))].join(', ');
  if (!kind) throw new UsageError(`--out must end in one of ${known}; got ${out}`);
  return kind;
}

/** Lists the kinds of files that a piece can be exported to. */
export function kinds(asJson: boolean): void {
  const rows = EXPORT_KIND_IDS.map((id) => {
    const { label, hint, extension } = EXPORT_KINDS[id];
    return { id, label, extension, hint };
  });
  if (asJson) return console.log(JSON.stringify({ kinds: rows }));
  const width = Math.max(...rows.map(({ id }) => id.length));
  for (const { id, label, extension, hint } of rows)
    console.log(`${id.padEnd(width)}  ${label} (.${extension}): ${hint}`);
}

/** How it is rendered, as it was typed. */
export interface RenderWords {
  readonly from?: string | undefined;
  readonly to?: string | undefined;
  /** LUFS. */
  readonly loudness?: string | undefined;
  /** Megabytes. */
  readonly size?: string | undefined;
}

const TRUE_PEAK = -1;

/** @throws UsageError. */
function readWords(kind: ExportKindId, words: RenderWords): { excerpt: Excerpt | null; settings: ExportSettings } {
  const number = (name: keyof RenderWords): number | null => {
    const typed = words[name];
    return typed === undefined ? null : numberOf(`--${name}`, typed);
  };
  const [from, to, target, megabytes] = [number('from'), number('to'), number('loudness'), number('size')];
  if ((from ?? 0) < 0 || (to ?? Infinity) <= (from ?? 0))
    throw new UsageError('--to must be after --from, and neither before 0');
  const parsed = exportSettingsSchema.safeParse({
    ...(target === null ? {} : { loudness: { target, peak: TRUE_PEAK } }),
    ...(megabytes === null ? {} : { rate: { by: 'size', megabytes }, moving: { ...USUAL_SETTINGS.moving, megabytes } }),
  });
  if (!parsed.success) throw new UsageError('--loudness is from -40 to -6, --size from 0.05 to 20000');
  const settings = settingsFor(EXPORT_KINDS[kind].settings, parsed.data);
  const isWhole = from === null && to === null;
  return { excerpt: isWhole ? null : { from: from ?? 0, to: to ?? MAX_PIECE_SECONDS }, settings };
}

/** Exports a piece to a file, which stands under its name only when it is whole. @returns what the exporter says. */
export async function exportTo(
  { songFile, originals, ...input }: LoadedPiece,
  kind: ExportKindId,
  format: string | undefined,
  out: string,
  more: Pick<ExportRun, 'onProgress' | 'excerpt' | 'settings'> & { readonly at?: number } = {},
): Promise<Record<string, unknown>> {
  const temporary = `${out}.part`;
  try {
    const facts = await EXPORTERS[kind]({
      input: { ...input, formatId: formatOf(input.piece, format) },
      songFile,
      originals,
      ...{ at: 0, ...more },
      out: temporary,
      assets,
    });
    await rename(temporary, out);
    return facts;
  } finally {
    await rm(temporary, { force: true });
  }
}

export interface RenderOptions extends RenderWords {
  readonly format?: string | undefined;
  readonly out: string;
  /** Where several kinds have the same ending. */
  readonly kind?: string | undefined;
  /** Seconds of the piece, for kinds of files that show one moment. */
  readonly at: number;
  readonly json: boolean;
}

/** Exports a project file. */
export async function render(
  file: string,
  { format, out, kind: named, at, json, ...how }: RenderOptions,
): Promise<void> {
  const kind = named === undefined ? kindOfFile(out) : kindNamed(named);
  const { excerpt, settings } = readWords(kind, how);
  await withPiece(file, async (loaded) => {
    const onProgress = progressOn(process.stderr, 'exporting');
    const facts = await exportTo(loaded, kind, format, out, { at, excerpt, settings, onProgress });
    console.log(json ? JSON.stringify({ kind, out, ...facts }) : `${summary(kind, facts)}: ${out}`);
  });
}

function summary(kind: ExportKindId, facts: Record<string, unknown>): string {
  const fact = (name: string) => String(facts[name]);
  const { isFormatless, isMoment } = EXPORT_KINDS[kind];
  if ('entries' in facts) return `${fact('entries')} entries`;
  if (isFormatless) return `${fact('samples')} samples`;
  const size = `${fact('width')}×${fact('height')}`;
  return isMoment
    ? `frame ${fact('frame')}, ${size}`
    : `${fact('frames')} frames (${fact('painted')} painted), ${size}`;
}

/** Runs every check over a piece and prints what they find. @returns Whether there was an error among it. */
export async function check(file: string, asJson: boolean): Promise<boolean> {
  return withPiece(file, async ({ songFile: _song, originals: _originals, ...input }) => {
    const { piece } = input;
    const told = await findingsIn(input, assets);
    const source = await createFrameSource(
      { ...input, formatId: piece.leadFormatId },
      createServerFonts(assets.fontsDir),
    );
    const flashes = (await flashesOf(source, piece.frameRate)).map((found) => ({
      ...finding('error', tellFlashing(found), { at: found.from }),
      check: 'flashes' as const,
    }));
    const findings = [...told, ...flashes];
    if (asJson) console.log(JSON.stringify({ findings }));
    else {
      for (const { severity, check: id, text, at } of findings)
        console.log(
          `${severity}: ${id === 'flashes' ? 'Flashing' : CHECKS[id].label}: ${text}${at === null ? '' : ` (${at.toFixed(2)} s)`}`,
        );
      if (findings.length === 0) console.log('no problems found');
    }
    return findings.some((found) => found.severity === 'error');
  });
}

/** The file of the n-th of several frames: `beat.png` becomes `beat-1.png`, `beat-2.png` … */
function numbered(out: string, n: number): string {
  const extension = extname(out);
  return `${out.slice(0, out.length - extension.length)}-${n}${extension}`;
}

/** @param times - seconds of the piece; one is written to `out` itself, several to numbered files beside it. */
export async function frames(file: string, times: number[], format: string | undefined, out: string): Promise<void> {
  await withPiece(file, async ({ songFile: _song, originals: _originals, ...input }) => {
    const { piece } = input;
    const end = resolveTimes(piece, input.analysis).end;
    const outside = times.find((at) => at < 0 || at >= end);
    if (outside !== undefined)
      throw new UsageError(`--at must be from 0 to below the piece's end, ${end.toFixed(3)} s; got ${outside}`);
    const source = await createFrameSource(
      { ...input, formatId: formatOf(piece, format) },
      createServerFonts(assets.fontsDir),
    );
    for (const [index, at] of times.entries()) {
      source.forget(); // each is as it would be alone, to the last level
      const png = await (await source.paint(at)).canvas.encode('png');
      await writeFile(times.length === 1 ? out : numbered(out, index + 1), png);
    }
  });
}
