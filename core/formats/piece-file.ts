import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { songAnalysisSchema } from '../audio';
import type { SongAnalysis } from '../audio';
import { parsePiece } from '../piece';
import type { Piece } from '../piece';

/**
 * The piece file (.estrella): a ZIP with the document, the analysis of its song and the media by content hash.
 *   piece.json            the document
 *   analysis/HASH.json    what the analysis of a song found
 *   media/HASH            the file as it was imported
 * docs/FORMATS.md describes it for others.
 */
export const PIECE_FILE_EXTENSION = '.estrella';
/** What unpacking may yield in all: a guard against archives that explode. */
const MAX_UNPACKED_BYTES = 1_500_000_000;

export interface PieceFile {
  readonly piece: Piece;
  readonly media: ReadonlyMap<string, Uint8Array>;
  readonly analyses: ReadonlyMap<string, SongAnalysis>;
}

export type PieceFileProblem =
  | { code: 'NOT_A_PIECE_FILE' }
  | { code: 'PIECE_FILE_TOO_LARGE' }
  | { code: 'PIECE_VERSION_UNKNOWN'; detail: string }
  | { code: 'PIECE_INVALID'; detail: string }
  | { code: 'PIECE_MEDIA_MISSING'; detail: string };

/** Media is stored, not compressed: it is compressed already. */
export function writePieceFile(file: PieceFile): Uint8Array {
  const entries: Parameters<typeof zipSync>[0] = { 'piece.json': [strToU8(JSON.stringify(file.piece, null, 1)), { level: 6 }] };
  for (const [hash, analysis] of file.analyses) entries[`analysis/${hash}.json`] = [strToU8(JSON.stringify(analysis)), { level: 6 }];
  for (const [hash, bytes] of file.media) entries[`media/${hash}`] = [bytes, { level: 0 }];
  return zipSync(entries);
}

export function readPieceFile(bytes: Uint8Array): { ok: true; file: PieceFile } | { ok: false; problem: PieceFileProblem } {
  let entries: Record<string, Uint8Array>;
  let total = 0;
  try {
    entries = unzipSync(bytes, {
      filter: (entry) => {
        total += entry.originalSize;
        return total <= MAX_UNPACKED_BYTES && /^(piece\.json|analysis\/[0-9a-f]{64}\.json|media\/[0-9a-f]{64})$/.test(entry.name);
      },
    });
  } catch {
    return { ok: false, problem: { code: 'NOT_A_PIECE_FILE' } };
  }
  if (total > MAX_UNPACKED_BYTES) return { ok: false, problem: { code: 'PIECE_FILE_TOO_LARGE' } };
  const document = entries['piece.json'];
  if (!document) return { ok: false, problem: { code: 'NOT_A_PIECE_FILE' } };
  let json: unknown;
  try {
    json = JSON.parse(strFromU8(document));
  } catch {
    return { ok: false, problem: { code: 'NOT_A_PIECE_FILE' } };
  }
  const parsed = parsePiece(json);
  if (!parsed.ok) {
    const { code, detail } = parsed.problem;
    if (code === 'UNKNOWN_VERSION') return { ok: false, problem: { code: 'PIECE_VERSION_UNKNOWN', detail } };
    return { ok: false, problem: { code: 'PIECE_INVALID', detail } };
  }
  const media = new Map<string, Uint8Array>();
  const analyses = new Map<string, SongAnalysis>();
  for (const [name, content] of Object.entries(entries)) {
    if (name.startsWith('media/')) media.set(name.slice(6), content);
    if (name.startsWith('analysis/')) {
      try {
        analyses.set(name.slice(9, -5), songAnalysisSchema.parse(JSON.parse(strFromU8(content))));
      } catch {
        // A broken analysis is made anew from the audio; nothing is lost by leaving it out.
      }
    }
  }
  const missing = parsed.piece.media.find((ref) => !media.has(ref.hash));
  if (missing) return { ok: false, problem: { code: 'PIECE_MEDIA_MISSING', detail: missing.name } };
  return { ok: true, file: { piece: parsed.piece, media, analyses } };
}
