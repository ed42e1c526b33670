import { createStore, del, get, set } from 'idb-keyval';
import { completePiece } from '@core/piece';
import type { History, Piece } from '@core/piece';

/** What the browser keeps of a piece being worked on: edits not sent yet and the undo list survive a reload. */
export interface LocalWork {
  readonly piece: Piece;
  /** The server's revision these edits stand on. */
  readonly baseRevision: number;
  /** True while the server does not have `piece` yet. */
  readonly unsent: boolean;
  readonly label: string;
  readonly history: History;
}

const store = createStore('estrella', 'work');

export async function readLocalWork(pieceId: string): Promise<LocalWork | undefined> {
  const work = await get<LocalWork>(pieceId, store).catch(() => undefined);
  return work && { ...work, piece: completePiece(work.piece) };
}
export const writeLocalWork = (pieceId: string, work: LocalWork): Promise<void> => set(pieceId, work, store);
export const dropLocalWork = (pieceId: string): Promise<void> => del(pieceId, store);
