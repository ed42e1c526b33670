import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import yauzl from 'yauzl';
import type { Entry, ZipFile } from 'yauzl';
import yazl from 'yazl';
import { MAX_DOCUMENT_BYTES, pieceFileEntry, readAnalysisEntry, readDocumentEntry } from '@core/formats';
import type { SongAnalysis } from '@core/audio';
import type { Piece } from '@core/piece';
import { rosterSchema } from '@core/roster';
import type { Roster } from '@core/roster';
import { idSchema } from '@core/time';
import { AppError, isDiskFull } from '../../platform/errors';
import { exceededJson } from '../../platform/json-bounds';
import { MAX_PIECE_FILE_BYTES } from '../../platform/limits';

/**
 * Reads and writes piece files (ZIP) as streams: an archive is never in memory as a whole, and unpacking runs beside
 * the event loop. What an archive claims about sizes is not believed: bytes are counted as they come out.
 */
export interface UnpackedPiece {
  readonly piece: Piece;
  readonly analyses: ReadonlyMap<string, SongAnalysis>;
  /** Files of the media by hash, in the folder that was given; their contents match their hashes. */
  readonly media: ReadonlyMap<string, string>;
  /** By the id of their group. */
  readonly rosters: ReadonlyMap<string, Roster>;
}

/** Entries an archive may have: media of a full piece and their analyses, and some room. */
const MOST_ENTRIES = 2000;
/** An hour of music, found in every way, has a quarter of this. */
const ANALYSIS_BYTES = 16_000_000;
const ROSTERS = 'rosters.json';
const MAX_ROSTERS_BYTES = 24_000_000;
const MOST_ROSTERS = 200;

const damaged = (cause?: unknown) => new AppError('NOT_A_PIECE_FILE', '', { cause });

function openZip(file: string): Promise<ZipFile> {
  return new Promise((resolve, reject) => {
    yauzl.open(
      file,
      { lazyEntries: true, autoClose: false, validateEntrySizes: true, strictFileNames: true },
      (error, zip) => (error || !zip ? reject(damaged(error)) : resolve(zip)),
    );
  });
}

function entriesOf(zip: ZipFile): Promise<Entry[]> {
  return new Promise((resolve, reject) => {
    const entries: Entry[] = [];
    zip.on('entry', (entry: Entry) => {
      entries.push(entry);
      if (entries.length > MOST_ENTRIES) reject(new AppError('PIECE_FILE_TOO_LARGE'));
      else zip.readEntry();
    });
    zip.once('end', () => resolve(entries));
    zip.once('error', (error) => reject(damaged(error)));
    zip.readEntry();
  });
}

/** Counts what passes through and stops at a limit. */
function counting(limit: { left: number }): Transform {
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      limit.left -= chunk.length;
      if (limit.left < 0) done(new AppError('PIECE_FILE_TOO_LARGE'));
      else done(null, chunk);
    },
  });
}

function openEntry(zip: ZipFile, entry: Entry): Promise<Readable> {
  return new Promise((resolve, reject) => {
    zip.openReadStream(entry, (error, stream) => (error || !stream ? reject(damaged(error)) : resolve(stream)));
  });
}

async function readWhole(zip: ZipFile, entry: Entry, most: number, total: { left: number }): Promise<Buffer> {
  const chunks: Buffer[] = [];
  const own = { left: most };
  const stream = await openEntry(zip, entry);
  await pipeline(stream, counting(own), counting(total), async (source: AsyncIterable<Buffer>) => {
    for await (const chunk of source) chunks.push(chunk);
  });
  return Buffer.concat(chunks);
}

/** An entry of JSON as text. @throws AppError PIECE_INVALID for what no program of ours would write. */
async function readJson(zip: ZipFile, entry: Entry, most: number, total: { left: number }): Promise<string> {
  const bytes = await readWhole(zip, entry, most, total);
  const exceeded = exceededJson(bytes);
  if (exceeded) throw new AppError('PIECE_INVALID', `${entry.fileName}: ${exceeded}`);
  return bytes.toString('utf8');
}

/** Rosters of the groups of a piece; none where the entry is not there, and what is broken in it is left out. */
async function readRosters(
  zip: ZipFile,
  entry: Entry | undefined,
  total: { left: number },
): Promise<Map<string, Roster>> {
  if (!entry) return new Map();
  const text = await readJson(zip, entry, MAX_ROSTERS_BYTES, total);
  let read: unknown = null;
  try {
    read = JSON.parse(text);
  } catch {
    // left out
  }
  const rosters = Object.entries(typeof read === 'object' && read !== null ? read : {}).slice(0, MOST_ROSTERS);
  return new Map(
    rosters.flatMap(([groupId, value]): [string, Roster][] => {
      const roster = rosterSchema.safeParse(value);
      return roster.success && idSchema.safeParse(groupId).success ? [[groupId, roster.data]] : [];
    }),
  );
}

/**
 * Unpacks a piece file into a folder.
 * @throws AppError NOT_A_PIECE_FILE, PIECE_FILE_TOO_LARGE, PIECE_VERSION_UNKNOWN, PIECE_INVALID, PIECE_MEDIA_MISSING.
 */
export async function unpackPiece(file: string, into: string): Promise<UnpackedPiece> {
  const zip = await openZip(file);
  const total = { left: MAX_PIECE_FILE_BYTES };
  try {
    const entries = new Map<string, Entry>();
    for (const entry of await entriesOf(zip)) entries.set(entry.fileName, entry);
    const document = entries.get('piece.json');
    if (!document) throw damaged();
    const read = readDocumentEntry(await readJson(zip, document, MAX_DOCUMENT_BYTES, total));
    if (!read.ok) throw new AppError(read.problem.code, 'detail' in read.problem ? read.problem.detail : '');
    const { piece } = read;
    const media = new Map<string, string>();
    const analyses = new Map<string, SongAnalysis>();
    // Only what the document names is unpacked.
    for (const ref of piece.media) {
      if (media.has(ref.hash)) continue;
      const entry = entries.get(pieceFileEntry('media', ref.hash));
      if (!entry) throw new AppError('PIECE_MEDIA_MISSING', ref.name);
      const target = join(into, ref.hash);
      const hash = createHash('sha256');
      await pipeline(
        await openEntry(zip, entry),
        counting(total),
        async function* (source: AsyncIterable<Buffer>) {
          for await (const chunk of source) {
            hash.update(chunk);
            yield chunk;
          }
        },
        createWriteStream(target),
      );
      if (hash.digest('hex') !== ref.hash)
        throw new AppError('PIECE_INVALID', `${ref.name} does not match its checksum`);
      media.set(ref.hash, target);
      const found = ref.kind === 'audio' ? entries.get(pieceFileEntry('analysis', ref.hash)) : undefined;
      // A broken analysis is made anew from the audio; nothing is lost by leaving it out.
      const analysis = found && readAnalysisEntry(await readJson(zip, found, ANALYSIS_BYTES, total));
      if (analysis) analyses.set(ref.hash, analysis);
    }
    return { piece, analyses, media, rosters: await readRosters(zip, entries.get(ROSTERS), total) };
  } catch (error) {
    throw error instanceof AppError || isDiskFull(error) ? error : damaged(error);
  } finally {
    zip.close();
  }
}

export interface PackedPiece {
  readonly piece: Piece;
  readonly analyses: ReadonlyMap<string, SongAnalysis>;
  /** Files of the media by hash. */
  readonly media: ReadonlyMap<string, string>;
  /** By the id of their group. */
  readonly rosters?: ReadonlyMap<string, Roster>;
}

/**
 * A piece file as a stream. Media is stored, not compressed: it is compressed already. @throws AppError MEDIA_MISSING
 * before anything is sent.
 */
export async function packPiece({ piece, analyses, media, rosters }: PackedPiece): Promise<Readable> {
  for (const ref of piece.media) {
    const file = media.get(ref.hash);
    if (
      !file ||
      !(await stat(file).then(
        () => true,
        () => false,
      ))
    )
      throw new AppError('MEDIA_MISSING', ref.name);
  }
  const zip = new yazl.ZipFile();
  zip.addBuffer(Buffer.from(JSON.stringify(piece, null, 1)), 'piece.json');
  for (const [hash, analysis] of analyses)
    zip.addBuffer(Buffer.from(JSON.stringify(analysis)), pieceFileEntry('analysis', hash));
  if (rosters && rosters.size > 0) zip.addBuffer(Buffer.from(JSON.stringify(Object.fromEntries(rosters))), ROSTERS);
  for (const hash of new Set(piece.media.map((ref) => ref.hash)))
    zip.addReadStreamLazy(pieceFileEntry('media', hash), { compress: false }, (ready) =>
      ready(null, createReadStream(media.get(hash) ?? '')),
    );
  zip.end();
  return zip.outputStream as Readable; // yazl types it as the older stream interface
}

/**
 * Writes a stream to a file, of at most so many bytes. @throws AppError PIECE_FILE_TOO_LARGE, NOT_A_PIECE_FILE for
 * nothing.
 */
export async function receivePieceFile(body: ReadableStream<Uint8Array>, file: string): Promise<void> {
  const limit = { left: MAX_PIECE_FILE_BYTES };
  try {
    // the two ReadableStream types differ in name only
    await pipeline(Readable.fromWeb(body as never), counting(limit), createWriteStream(file));
  } catch (error) {
    await rm(file, { force: true });
    throw error;
  }
  if (limit.left === MAX_PIECE_FILE_BYTES) throw damaged();
}
