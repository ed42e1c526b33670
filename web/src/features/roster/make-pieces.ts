import { applyEdits, resolveTimes } from '@core/piece';
import type { GroupLayer, Piece } from '@core/piece';
import { ApiError, api, call } from '../../platform/api';
import { newId } from '../../platform/ids';
import { WORDS } from './words';

/** The name of a row's piece: fields in braces are replaced by what stands in the row. */
export function nameFrom(
  pattern: string,
  fields: Readonly<Record<string, string>>,
  row: number,
  piece: Pick<Piece, 'name'>,
): string {
  const known = new Map(Object.entries(fields).map(([name, value]) => [name.toLowerCase(), value]));
  known.set('row', String(row));
  known.set('piece', piece.name);
  const name = pattern
    .replace(/\{([^{}]*)\}/g, (_, field: string) => known.get(field.trim().toLowerCase()) ?? '')
    .replace(/\s+/g, ' ')
    .trim();
  return (name || `${piece.name} ${row}`).slice(0, 200);
}

/** Makes a piece of each row. @returns what to tell. */
export async function makePieces(
  piece: Piece,
  group: GroupLayer,
  rows: readonly { readonly values: Readonly<Record<string, string>>; readonly name: string }[],
  onProgress: (done: number) => void,
  signal: AbortSignal,
): Promise<string> {
  let done = 0;
  for (const { values, name } of rows) {
    if (signal.aborted) return WORDS.stoppedAt(done);
    onProgress(done + 1);
    const { piece: filled } = applyEdits(
      { ...piece, id: newId(), name },
      [{ type: 'slots.fill', id: group.id, values: { ...values } }],
      resolveTimes(piece, null),
    );
    try {
      await call(api.pieces.$post({ json: { piece: filled } }));
    } catch (error) {
      return WORDS.couldNotMake(done, error instanceof ApiError ? error.message : WORDS.theServerDoesNotAnswer);
    }
    done++;
  }
  return WORDS.piecesMade(done);
}
