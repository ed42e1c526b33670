import { saveName } from '@core/piece';
import type { Journal } from './journal';
import type { LocalWork } from './local-work';
import { fits, sameContent } from './opening';
import type { StoredPiece } from './opening';
import type { SaveAnswer, SaveRequest } from './saver';

export interface LeftoverParts {
  readonly journal: Journal;
  readonly isAlive: (tabId: string) => Promise<boolean>;
  /** The piece as the server has it; null if it is gone. @throws if the server is away. */
  readonly fetch: (pieceId: string) => Promise<StoredPiece | null>;
  readonly send: (request: SaveRequest, isLeaving: boolean) => Promise<SaveAnswer>;
  readonly newId: () => string;
}

/** Work of tabs that are gone which the server does not have. */
export async function closedWork(works: readonly LocalWork[], isAlive: LeftoverParts['isAlive']): Promise<LocalWork[]> {
  const alive = await Promise.all(works.map((work) => isAlive(work.tabId)));
  return works.filter((_, i) => !alive[i]);
}

/**
 * Sends what closed tabs left behind, where it fits; called by the home. What doesn't fit stays, and is offered when
 * its piece is opened.
 * @returns What still waits.
 */
export async function sendLeftovers(parts: LeftoverParts): Promise<LocalWork[]> {
  const works = await closedWork(await parts.journal.all(), parts.isAlive);
  const waiting: LocalWork[] = [];
  for (const work of works) {
    if (!work.unsent) {
      // Of work that has arrived only the undo list counts, and of these the newest.
      if (works.some((other) => other.pieceId === work.pieceId && other.at > work.at))
        await parts.journal.drop(work.pieceId, work.tabId);
      continue;
    }
    try {
      const stored = await parts.fetch(work.pieceId);
      if (!stored || !fits(work, stored)) {
        waiting.push(work);
        continue;
      }
      const isThere = sameContent(stored.piece, work.piece);
      const answer = isThere
        ? ({ kind: 'saved', revision: stored.revision } as const)
        : await parts.send(
            {
              piece: work.piece,
              baseRevision: work.baseRevision,
              label: work.label,
              saveId: saveName(parts.newId(), 1),
              follows: work.follows,
            },
            false,
          );
      if (answer.kind === 'saved') await parts.journal.drop(work.pieceId, work.tabId);
      else waiting.push(work);
    } catch {
      waiting.push(work);
    }
  }
  return waiting;
}
