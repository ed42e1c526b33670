import type { SongAnalysis } from '@core/audio';
import type { Piece } from '@core/piece';
import { prepareRows } from '@core/roster';
import { ApiError, api, call, saidBy } from '../../platform/api';
import { newId } from '../../platform/ids';
import { WORDS } from './words';

/** A row, and what its piece is called. */
export interface NamedRow {
  readonly values: Readonly<Record<string, string>>;
  readonly name: string;
}

const why = (error: unknown): string => saidBy(error, WORDS.theServerDoesNotAnswer);

/** Makes a piece of a row. @returns its id. @throws ApiError. */
async function makePiece(made: ReturnType<ReturnType<typeof prepareRows>>, name: string): Promise<string> {
  if (!made.ok) throw new ApiError('ROW_NOT_MADE', made.why);
  const id = newId();
  await call(api.pieces.$post({ json: { piece: { ...made.piece, id, name } } }));
  return id;
}

/** Makes a piece of each row. @returns what to tell. */
export async function makePieces(
  piece: Piece,
  groupId: string,
  analysis: SongAnalysis | null,
  rows: readonly NamedRow[],
  onProgress: (done: number) => void,
  signal: AbortSignal,
): Promise<string> {
  const fill = prepareRows(piece, groupId, 'whole', analysis);
  let done = 0;
  for (const { values, name } of rows) {
    if (signal.aborted) return WORDS.stoppedAt(done);
    onProgress(done + 1);
    try {
      await makePiece(fill(values), name);
    } catch (error) {
      return WORDS.couldNotMake(done, why(error));
    }
    done++;
  }
  return WORDS.piecesMade(done);
}

/** A piece of one row, to be changed by hand. */
export async function makeOwnPiece(
  piece: Piece,
  groupId: string,
  analysis: SongAnalysis | null,
  { values, name }: NamedRow,
): Promise<{ readonly id: string } | { readonly why: string }> {
  try {
    return { id: await makePiece(prepareRows(piece, groupId, 'whole', analysis)(values), name) };
  } catch (error) {
    return { why: why(error) };
  }
}
