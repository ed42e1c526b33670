import { PIECE_VERSION, compacted, patched } from '@core/piece';
import type { HistoryStep, Patches, Piece } from '@core/piece';
import { keyOf, readWork } from './local-work';
import type { KeyValueStore, LocalWork } from './local-work';

/**
 * Keeps work in the browser's storage by adding to it: a step of the undo list is written once, and of the document
 * what has changed since it was last written whole. So keeping costs what an edit costs, not what the piece weighs.
 *
 * Of each work there is a head under its own name; it says which document and which steps it stands on, and what has
 * changed in the document since. Both lie beside it under numbers that are never used again. Head and parts are
 * written together, so that a head never names what is not there.
 */
interface Head extends Omit<LocalWork, 'piece' | 'history'> {
  readonly document: number;
  readonly tail: Patches;
  readonly done: readonly number[];
  readonly undone: readonly number[];
}

/** How a document came of the one that was written before it. */
export interface Trail {
  readonly from: Piece;
  readonly patches: Patches;
}

/** Work of several tabs side by side: none overwrites another's. */
export interface Journal {
  read(pieceId: string, tabId: string): Promise<LocalWork | null>;
  /** Work on a piece in all tabs, living or not. */
  of(pieceId: string): Promise<LocalWork[]>;
  all(): Promise<LocalWork[]>;
  /**
   * @param trail - how the document came of the one written before; without it the document is written whole.
   * @throws whatever the storage throws.
   */
  write(work: LocalWork, trail?: Trail | null): Promise<void>;
  drop(pieceId: string, tabId: string): Promise<void>;
}

/** More changes than this are not applied one by one when a piece is opened: the document is written whole again. */
const MOST_CHANGES = 2000;

/** Parts bear the name of their head, this, and a number. */
const PART = '\u0001';
const isPart = (key: string): boolean => key.includes(PART);
const partKey = (key: string, number: number): string => `${key}${PART}${number}`;

/** What lies in the storage under a head, as far as this page has written it. */
interface Written {
  readonly piece: Piece;
  readonly document: number;
  readonly tail: Patches;
  readonly steps: ReadonlyMap<HistoryStep, number>;
  readonly last: number;
}

const isHead = (stored: unknown): stored is Head =>
  typeof stored === 'object' && stored !== null && 'document' in stored && 'tail' in stored;

/** @param store - null in a browser without storage: nothing is kept, and writing says so by rejecting. */
export function createJournal(store: KeyValueStore | null): Journal {
  const written = new Map<string, Written>();
  const underway = new Map<string, Promise<unknown>>();

  const load = async (key: string): Promise<LocalWork | null> => {
    const stored = await store?.get(key).catch(() => undefined);
    return readWork(key, isHead(stored) && store ? await assembled(store, key, stored) : stored);
  };
  const list = async (wanted: (key: string) => boolean): Promise<LocalWork[]> => {
    const keys = (await store?.keys().catch((): string[] => [])) ?? [];
    const works = await Promise.all(keys.filter((key) => !isPart(key) && wanted(key)).map(load));
    return works.filter((work) => work !== null);
  };
  const partsOf = async (kept: KeyValueStore, key: string): Promise<string[]> =>
    (await kept.keys()).filter((other) => other.startsWith(`${key}${PART}`));

  const writeNow = async (kept: KeyValueStore, work: LocalWork, trail: Trail | null): Promise<void> => {
    const key = keyOf(work.pieceId, work.tabId);
    const before = written.get(key);
    // Parts that a page before this one has written are replaced; their numbers are not used again.
    const old = before ? [] : await partsOf(kept, key);
    const last = before?.last ?? Math.max(0, ...old.map((part) => Number(part.slice(key.length + PART.length)) || 0));
    const { entries, head, now } = added(key, work, before && trail?.from === before.piece ? before : null, last, {
      steps: before?.steps ?? new Map<HistoryStep, number>(),
      patches: trail?.patches ?? [],
    });
    // Should it fail, nothing is known of the storage any more.
    written.delete(key);
    await kept.setMany([...entries, [key, head]]);
    written.set(key, now);
    const needed = new Set([now.document, ...now.steps.values()]);
    const gone = before
      ? [before.document, ...before.steps.values()]
          .filter((number) => !needed.has(number))
          .map((number) => partKey(key, number))
      : old;
    if (gone.length > 0) await kept.deleteMany(gone).catch(() => {});
  };

  return {
    read: (pieceId, tabId) => load(keyOf(pieceId, tabId)),
    of: (pieceId) => list((key) => key === pieceId || key.startsWith(`${pieceId}/`)),
    all: () => list(() => true),
    async write(work, trail = null) {
      if (!store) throw new Error('this browser has no storage');
      const key = keyOf(work.pieceId, work.tabId);
      // One after another: each adds to what the one before has written.
      const mine = (underway.get(key) ?? Promise.resolve()).catch(() => {}).then(() => writeNow(store, work, trail));
      underway.set(key, mine);
      await mine;
    },
    async drop(pieceId, tabId) {
      if (!store) return;
      const key = tabId === '' ? pieceId : keyOf(pieceId, tabId);
      written.delete(key);
      await partsOf(store, key)
        .then((parts) => store.deleteMany([key, ...parts]))
        .catch(() => {});
    },
  };
}

/** What is to be written of a work, given what is there; null where the document has to be written whole. */
function added(
  key: string,
  { piece, history, ...rest }: LocalWork,
  before: Written | null,
  last: number,
  known: { readonly steps: ReadonlyMap<HistoryStep, number>; readonly patches: Patches },
): { entries: [string, unknown][]; head: Head; now: Written } {
  const entries: [string, unknown][] = [];
  let number = last;
  const tail = before ? compacted([...before.tail, ...known.patches]) : [];
  const isWhole = before === null || tail.length > MOST_CHANGES;
  const document = isWhole ? ++number : before.document;
  if (isWhole) entries.push([partKey(key, document), piece]);
  const steps = new Map<HistoryStep, number>();
  const numbered = (step: HistoryStep): number => {
    let own = known.steps.get(step);
    if (own === undefined) entries.push([partKey(key, (own = ++number)), step]);
    steps.set(step, own);
    return own;
  };
  const [done, undone] = [history.done.map(numbered), history.undone.map(numbered)];
  const changes = isWhole ? [] : tail;
  return {
    entries,
    head: { ...rest, document, tail: changes, done, undone },
    now: { piece, document, tail: changes, steps, last: number },
  };
}

/** A work as it was before it was taken apart; null if its document is not there. */
async function assembled(store: KeyValueStore, key: string, head: Head): Promise<unknown> {
  const { document, tail, done, undone, ...rest } = head;
  const numbers = [document, ...done, ...undone];
  const parts = await store.getMany(numbers.map((number) => partKey(key, number))).catch((): unknown[] => []);
  const [whole, ...steps] = parts as [Piece | undefined, ...(HistoryStep | undefined)[]]; // as `added` wrote them
  if (!whole) return null;
  const piece = tail.length === 0 ? whole : patched(whole, tail);
  // A step that is missing makes those before it useless.
  const isComplete = whole.version === PIECE_VERSION && steps.every((step) => step !== undefined);
  const history = isComplete ? { done: steps.slice(0, done.length), undone: steps.slice(done.length) } : undefined;
  return { ...rest, piece: piece ?? whole, history };
}
