import { songAnalysisSchema } from '../audio';
import type { SongAnalysis } from '../audio';
import { parsePiece } from '../piece';
import type { Piece } from '../piece';

/**
 * The piece file (.estrella): a ZIP with the document, the analysis of its song and the media by content hash.
 *   piece.json            the document
 *   analysis/HASH.json    what the analysis of a song found
 *   media/HASH            the file as it was imported
 * docs/FORMATS.md describes it for others. Packing and unpacking is the host's; here is what the entries are called and
 * mean.
 */
export const PIECE_FILE_EXTENSION = '.estrella';
/** Largest document. */
export const MAX_DOCUMENT_BYTES = 16_000_000;

const ENTRIES = {
  media: (hash: string) => `media/${hash}`,
  analysis: (hash: string) => `analysis/${hash}.json`,
} as const;
export const pieceFileEntry = (kind: keyof typeof ENTRIES, hash: string): string => ENTRIES[kind](hash);

export type PieceFileProblem =
  | { code: 'NOT_A_PIECE_FILE' }
  | { code: 'PIECE_VERSION_UNKNOWN'; detail: string }
  | { code: 'PIECE_INVALID'; detail: string };

/** The document of a piece file. */
export function readDocumentEntry(text: string): { ok: true; piece: Piece } | { ok: false; problem: PieceFileProblem } {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return { ok: false, problem: { code: 'NOT_A_PIECE_FILE' } };
  }
  const parsed = parsePiece(json);
  if (parsed.ok) return parsed;
  const { code, detail } = parsed.problem;
  return {
    ok: false,
    problem: code === 'UNKNOWN_VERSION' ? { code: 'PIECE_VERSION_UNKNOWN', detail } : { code: 'PIECE_INVALID', detail },
  };
}

/** An analysis of a piece file; null if it is none. */
export function readAnalysisEntry(text: string): SongAnalysis | null {
  try {
    const parsed = songAnalysisSchema.safeParse(JSON.parse(text));
    return parsed.success ? parsed.data : null;
  } catch {
    return null;
  }
}
