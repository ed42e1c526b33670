import { songAnalysisSchema } from '../../audio';
import type { SongAnalysis } from '../../audio';
import { parsePiece } from './parse-piece';
import type { Piece } from './schema';

/** A piece that is seen within another: as it was, with what was found in its music, so that nothing else is needed. */
export interface PieceWithin {
  readonly piece: Piece;
  readonly analysis: SongAnalysis | null;
}

/** How a file that holds one begins. */
export const WITHIN_HEAD = '{"estrella":"piece-within"';
/** Pieces stand within pieces at most so deep. */
export const MAX_WITHIN = 4;

/** The file's text: JSON, with the head first. */
export const writeWithin = ({ piece, analysis }: PieceWithin): string =>
  JSON.stringify({ estrella: 'piece-within', piece, analysis });

/** @returns null for what is no such file, or holds no piece that can be read. */
export function readWithin(text: string): PieceWithin | null {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return null;
  }
  if (typeof json !== 'object' || json === null || !('piece' in json)) return null;
  const parsed = parsePiece(json.piece);
  if (!parsed.ok) return null;
  const analysis = 'analysis' in json && json.analysis !== null ? songAnalysisSchema.safeParse(json.analysis) : null;
  if (analysis && !analysis.success) return null;
  return { piece: parsed.piece, analysis: analysis?.data ?? null };
}

/** Pieces that were read, by the hash of their files: what a hash stands for never changes. */
const known = new Map<string, PieceWithin>();
const MOST_KNOWN = 100;

export const withinOf = (hash: string): PieceWithin | null => known.get(hash) ?? null;

export function rememberWithin(hash: string, within: PieceWithin): void {
  if (known.size >= MOST_KNOWN) known.delete(known.keys().next().value!); // not empty
  known.set(hash, within);
}

/** Hashes of the pieces that stand in a piece itself. */
const hashesIn = ({ media, layers }: Piece): string[] => {
  const used = new Set(layers.flatMap((layer) => (layer.kind === 'piece' ? [layer.content.mediaId] : [])));
  return media.filter(({ id, kind }) => kind === 'piece' && used.has(id)).map(({ hash }) => hash);
};

/**
 * Reads every piece that stands within a piece, however deep, before it is drawn. Rejects as `load` does.
 * @param load - the text of the file of a hash.
 */
export async function loadWithin(piece: Piece, load: (hash: string) => Promise<string>, depth = 0): Promise<void> {
  if (depth >= MAX_WITHIN) return;
  await Promise.all(
    hashesIn(piece).map(async (hash) => {
      let within = withinOf(hash);
      if (!within) {
        within = readWithin(await load(hash));
        if (within) rememberWithin(hash, within);
      }
      if (within) await loadWithin(within.piece, load, depth + 1);
    }),
  );
}

/** A piece and all that stand within it, however deep; those that were not read yet are left out. */
export function piecesDrawn(piece: Piece, depth = 0): Piece[] {
  const within = depth >= MAX_WITHIN ? [] : hashesIn(piece).flatMap((hash) => withinOf(hash) ?? []);
  return [piece, ...within.flatMap((inner) => piecesDrawn(inner.piece, depth + 1))];
}

/** How deep pieces stand within a piece: 0 for one that holds none. */
export const depthWithin = (piece: Piece, depth = 0): number =>
  depth > MAX_WITHIN
    ? 0
    : Math.max(
        0,
        ...hashesIn(piece).map((hash) => {
          const within = withinOf(hash);
          return 1 + (within ? depthWithin(within.piece, depth + 1) : 0);
        }),
      );

/** The ids of all pieces that stand within a piece, however deep. */
export const piecesWithin = (piece: Piece): Set<string> =>
  new Set(
    piecesDrawn(piece).flatMap(({ layers }) =>
      layers.flatMap((layer) => (layer.kind === 'piece' ? [layer.content.pieceId] : [])),
    ),
  );

/** Whether a piece makes one shape of several anywhere, also in what stands within it. */
export const combinesShapes = (piece: Piece): boolean =>
  piecesDrawn(piece).some(({ layers }) =>
    layers.some((layer) => layer.kind === 'group' && layer.content.combine !== null),
  );
