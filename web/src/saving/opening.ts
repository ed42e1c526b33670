import equal from 'fast-deep-equal';
import { EMPTY_HISTORY, holds, isAhead, saveName } from '@core/piece';
import type { Piece } from '@core/piece';
import type { LocalWork } from './local-work';
import type { OpenedPiece } from './saver';
import { WORDS } from './words';

/** A piece as the server has it. */
export interface StoredPiece {
  readonly piece: Piece;
  readonly revision: number;
  /** Id of the save that made this revision; null if none was given. */
  readonly saveId: string | null;
}

export interface Opening {
  readonly opened: OpenedPiece;
  /** Work of other, closed tabs that is now part of `opened` or of the server's piece: no longer needed. */
  readonly absorbed: readonly LocalWork[];
  /** Work of closed tabs that fits neither: a person decides. */
  readonly leftovers: readonly LocalWork[];
}

const CHANGED_ELSEWHERE = WORDS.thisBrowserHoldsEdits;

/** Two documents that say the same, in whatever order their fields were stored. */
export const sameContent = (a: Piece, b: Piece): boolean => equal(a, b);

/**
 * Whether work can go on top of what the server has: it stands on that revision, or that revision is a save of its own.
 */
export const fits = (work: LocalWork, stored: StoredPiece): boolean =>
  work.baseRevision === stored.revision ||
  (stored.saveId !== null && holds(saveName(WORDS.thisVisit, 1), work.follows, stored.saveId));

/**
 * What to open of a piece: the server's document, or the edits that this browser still holds.
 * @param stored - null while the server is away. @param own - of this very tab, before a reload. @param closed - of
 * tabs that are gone, the newest last.
 * @returns Null if there is nothing at all.
 */
export function decideOpening(
  stored: StoredPiece | null,
  own: LocalWork | null,
  closed: readonly LocalWork[],
): Opening | null {
  // The server may be ahead of what was kept: the last save of a tab that ended can arrive without a trace left here.
  const isArrived = (work: LocalWork) =>
    !work.unsent ||
    (stored !== null &&
      (sameContent(work.piece, stored.piece) || (stored.saveId !== null && isAhead(work.follows, stored.saveId))));
  const absorbed = closed.filter(isArrived);
  const waiting = closed.filter((work) => !isArrived(work)).sort((a, b) => a.at - b.at);
  const resume = (work: LocalWork): OpenedPiece => {
    const conflict = stored !== null && !fits(work, stored) ? CHANGED_ELSEWHERE : null;
    return {
      piece: work.piece,
      history: work.history,
      revision: work.baseRevision,
      unsent: true,
      follows: work.follows,
      conflict,
    };
  };
  if (own && !isArrived(own)) return { opened: resume(own), absorbed, leftovers: waiting };
  // One visit's edits that fit are simply gone on with; several, or such that don't fit, are offered.
  const only = waiting.length === 1 ? waiting[0] : stored === null ? waiting[waiting.length - 1] : undefined;
  if (only && (stored === null || fits(only, stored))) {
    return { opened: resume(only), absorbed: [...absorbed, only], leftovers: waiting.filter((work) => work !== only) };
  }
  if (stored) {
    // The undo list of the last visit fits if nothing has changed since.
    const last = [...(own ? [own] : []), ...[...closed].sort((a, b) => b.at - a.at)].find((work) =>
      sameContent(work.piece, stored.piece),
    );
    const undoable = last?.history ?? EMPTY_HISTORY;
    return {
      opened: {
        piece: stored.piece,
        history: undoable,
        revision: stored.revision,
        unsent: false,
        follows: [],
        conflict: null,
      },
      absorbed,
      leftovers: waiting,
    };
  }
  return null;
}
