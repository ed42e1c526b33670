import type { ExportKindId } from '@core/formats';
import type { Piece, Slot } from '@core/piece';
import { fileNames, madeGroup, nameFrom, pictureNamed, rowFields, valuesOf } from '@core/roster';
import type { Roster, RowScope } from '@core/roster';
import type { ServerContext } from '../../jobs/context';
import { AppError } from '../../platform/errors';
import { textDigest } from '../../platform/file-digest';
import type { Principal } from '../pieces/repository';

/** What is to be made of the rows of a roster. */
export interface RowRequest {
  readonly formatIds: readonly string[];
  readonly kind: ExportKindId;
  readonly scope: RowScope;
  /** Of the names of files, with fields in braces. */
  readonly pattern: string;
}

/** A document that rows are made from, by the hash of all that it shows. */
export interface RowSource {
  readonly hash: string;
  readonly document: Piece;
}

/** One file of one row: what it is made from, and what tells it from every other. */
export interface RowWork {
  readonly row: number;
  readonly formatId: string;
  readonly fileName: string;
  /** Null if its own piece is gone. */
  readonly source: RowSource | null;
  readonly values: Readonly<Record<string, string>>;
  readonly fingerprint: string;
}

export const batchOf = (pieceId: string, groupId: string): string => `${pieceId}/${groupId}`;

/** The document as rows are made from it: what it is called, and who it is, are not seen in any frame. */
async function sourceOf({ media }: Pick<ServerContext, 'media'>, piece: Piece): Promise<RowSource> {
  const analysis = await media.analysisOf(piece).catch(() => null);
  const heard = analysis ? [analysis.beats, analysis.downbeats, analysis.hits.map((hit) => hit.time)] : null;
  return { hash: textDigest(JSON.stringify([{ ...piece, id: '', name: '' }, heard])), document: piece };
}

const inOrder = (values: Readonly<Record<string, string>>): [string, string][] =>
  Object.entries(values).sort(([a], [b]) => (a < b ? -1 : 1));

/** The names of the files, a format in each where there are several. */
function namesOf(request: RowRequest, roster: Roster, slots: readonly Slot[], piece: Piece): string[] {
  const { formatIds, pattern } = request;
  const several = formatIds.length > 1 && !/\{\s*format\s*\}/i.test(pattern) ? `${pattern} {format}` : pattern;
  const wanted = roster.rows.flatMap((_, row) =>
    formatIds.map((id) => {
      const format = piece.formats.find((one) => one.id === id)?.name ?? id;
      return nameFrom(several, { ...rowFields(roster, row, slots, piece.name), format });
    }),
  );
  return fileNames(wanted, (i) => `${piece.name.slice(0, 60)} ${Math.floor(i / formatIds.length) + 1}`);
}

/**
 * The files that the rows of a roster are to become, whether they are there or not. The same words in the same document
 * have the same fingerprint, so that a changed row is another file and an unchanged one is not made again.
 * @throws AppError NOT_FOUND without the piece or the group, BAD_REQUEST for a format that is not there.
 */
export async function workOf(
  context: Pick<ServerContext, 'pieces' | 'media' | 'rosters'>,
  who: Principal,
  pieceId: string,
  groupId: string,
  request: RowRequest,
): Promise<{ work: RowWork[]; revision: number }> {
  const { piece } = await context.pieces.get(who, pieceId);
  const kept = await context.rosters.get(who, pieceId, groupId);
  const found = madeGroup(piece, groupId);
  if (!kept || !found) throw new AppError('NOT_FOUND');
  if (request.formatIds.some((id) => !piece.formats.some((format) => format.id === id)))
    throw new AppError('BAD_REQUEST', 'the piece has no such format');
  const { roster, revision } = kept;
  const { slots } = found.made;
  const own = new Map<string, RowSource | null>();
  const base = await sourceOf(context, piece);
  const pictureOf = pictureNamed(piece);
  const names = namesOf(request, roster, slots, piece);
  const work: RowWork[] = [];
  for (const [row, { cells, ownPieceId }] of roster.rows.entries()) {
    if (ownPieceId !== null && !own.has(ownPieceId)) {
      const changed = await context.pieces.get(who, ownPieceId).catch((error: unknown) => {
        if (error instanceof AppError && error.code === 'NOT_FOUND') return null;
        throw error;
      });
      own.set(ownPieceId, changed && (await sourceOf(context, changed.piece)));
    }
    const source = ownPieceId === null ? base : (own.get(ownPieceId) ?? null);
    const values = ownPieceId === null ? valuesOf(cells, roster.mapping, slots, pictureOf) : {};
    for (const formatId of request.formatIds)
      work.push({
        row,
        formatId,
        fileName: names[work.length] ?? `${row + 1}`,
        source,
        values,
        fingerprint: textDigest(
          JSON.stringify([source?.hash ?? null, groupId, request.scope, formatId, request.kind, inOrder(values)]),
        ),
      });
  }
  return { work, revision };
}
