import { EMPTY_HISTORY, PIECE_VERSION, completePiece } from '@core/piece';
import type { History, Piece } from '@core/piece';
import { WORDS } from './words';

/**
 * What the browser keeps of a piece being worked on in one tab: edits not sent yet and the undo list survive a reload.
 */
export interface LocalWork {
  readonly pieceId: string;
  readonly tabId: string;
  readonly piece: Piece;
  /** The server's revision these edits stand on. */
  readonly baseRevision: number;
  /** True while the server is not known to have `piece`. */
  readonly unsent: boolean;
  /**
   * Saves that this work holds, by the last of each writer (see core's save-ids.ts): the server may have any of them.
   */
  readonly follows: readonly string[];
  readonly label: string;
  readonly history: History;
  /** Whether it had steps to undo that belong to an earlier version's document, and went with it. */
  readonly hasLostSteps?: true;
  /** When it was written, milliseconds since 1970. */
  readonly at: number;
}

/**
 * The browser's storage, as far as it is used here. Any call may reject: storage can be full, closed, or not there at
 * all.
 */
export interface KeyValueStore {
  get(key: string): Promise<unknown>;
  getMany(keys: readonly string[]): Promise<unknown[]>;
  /** All of them or none. */
  setMany(entries: readonly (readonly [string, unknown])[]): Promise<void>;
  deleteMany(keys: readonly string[]): Promise<void>;
  keys(): Promise<string[]>;
}

/** Name under which a tab's work on a piece lies. */
export const keyOf = (pieceId: string, tabId: string): string => `${pieceId}/${tabId}`;

/** Work as it was stored, by this version or one before tabs were told apart; null if it is none. */
export function readWork(key: string, stored: unknown): LocalWork | null {
  if (typeof stored !== 'object' || stored === null || !('piece' in stored)) return null;
  const work = stored as Partial<LocalWork> & { piece: Piece }; // written by `write`, or by the version before
  const slash = key.indexOf('/');
  const isOlder = (work.piece.version as number) !== PIECE_VERSION;
  return {
    pieceId: slash < 0 ? key : key.slice(0, slash),
    tabId: slash < 0 ? '' : key.slice(slash + 1),
    piece: completePiece(work.piece),
    baseRevision: work.baseRevision ?? 0,
    unsent: work.unsent ?? false,
    follows: work.follows ?? [],
    label: work.label ?? WORDS.edit,
    // Steps are patches of the document as it was: they do not fit one of a later version.
    history: !isOlder && work.history ? work.history : EMPTY_HISTORY,
    ...(isOlder && (work.history?.done.length ?? 0) > 0 ? { hasLostSteps: true as const } : {}),
    at: work.at ?? 0,
  };
}
