import { createStore, del, get, keys, set } from 'idb-keyval';
import { EMPTY_HISTORY } from '@core/piece';
import type { Piece } from '@core/piece';
import { ApiError, api, call } from '../platform/api';
import { newId } from '../platform/ids';
import { tabMemory } from '../platform/memory';
import { openPiece, setView, useDesk } from '../store/desk-store';
import { browserClock } from './clock';
import { closedWork, sendLeftovers } from './leftovers';
import type { LeftoverParts } from './leftovers';
import { createJournal } from './local-work';
import type { Journal, KeyValueStore, LocalWork } from './local-work';
import { decideOpening } from './opening';
import type { StoredPiece } from './opening';
import { createSaver } from './saver';
import type { Saver } from './saver';
import { createSend } from './server-saves';
import { createTab } from './tab';
import type { Tab } from './tab';

/** Saving in this browser: the parts of saving put together with the desk. */
function browserStore(): KeyValueStore | null {
  try {
    if (typeof indexedDB === 'undefined') return null;
    const store = createStore('estrella', 'work');
    return { get: (key) => get(key, store), set: (key, value) => set(key, value, store), delete: (key) => del(key, store), keys: async () => (await keys(store)).map(String) };
  } catch {
    return null;
  }
}

const journal: Journal = createJournal(browserStore());
const send = createSend((url, init) => fetch(url, init));
let tab: Promise<Tab> | null = null;
const thisTab = (): Promise<Tab> => (tab ??= createTab(tabMemory, navigator.locks ?? null, newId));
/** Savers of pieces that were left, until all of theirs is sent. */
const active = new Map<string, Saver>();

async function fetchPiece(id: string): Promise<StoredPiece | null> {
  try {
    return await call(api.pieces[':id'].$get({ param: { id } }));
  } catch (error) {
    if (error instanceof ApiError && error.code === 'NOT_FOUND') return null;
    throw error;
  }
}

/** The saver of the piece on the desk. */
const current = (): Saver | undefined => active.get(useDesk.getState().piece?.id ?? '');

/** Sends what is unsent now, before an export. */
export const saveNow = async (): Promise<void> => current()?.flush();

function startSaver(opening: NonNullable<ReturnType<typeof decideOpening>>['opened'], tabId: string): Saver {
  const { id } = opening.piece;
  const saver = createSaver(opening, {
    clock: browserClock,
    send,
    keep: journal.write,
    writer: newId(),
    date: () => Date.now(),
    tabId,
    report: ({ state, message, revision }) => {
      if (useDesk.getState().piece?.id === id) setView({ saveState: state, saveMessage: message, revision });
    },
  });
  active.set(id, saver);
  return saver;
}

/**
 * Opens a piece: the server's document, or the edits that this browser still holds. Work of closed tabs that fits neither is put into
 * `leftovers` of the desk. @throws ApiError if there is nothing to open.
 */
export async function loadPiece(id: string): Promise<void> {
  const { id: tabId, isAlive } = await thisTab();
  // Left a moment ago and still being sent: what it kept is taken up from there.
  await active.get(id)?.retire();
  active.delete(id);
  const own = await journal.read(id, tabId);
  const closed = (await closedWork(await journal.of(id), isAlive)).filter((work) => work.tabId !== tabId);
  let stored: StoredPiece | null = null;
  let problem: unknown = null;
  try {
    stored = await call(api.pieces[':id'].$get({ param: { id } }));
  } catch (error) {
    problem = error;
  }
  const isAway = problem instanceof ApiError && problem.isAway;
  const opening = problem !== null && !isAway ? null : decideOpening(stored, own, closed);
  if (!opening) throw problem ?? new ApiError('NOT_FOUND', 'This piece is not here any more.');
  const { opened } = opening;
  openPiece(opened.piece, opened.revision, opened.history);
  setView({ leftovers: opening.leftovers });
  startSaver(opened, tabId);
  // What was taken up from closed tabs is first kept under this tab's own name.
  const kept = { pieceId: id, tabId, piece: opened.piece, baseRevision: opened.revision, unsent: opened.unsent, follows: opened.follows, label: 'Edit', history: opened.history, at: Date.now() };
  try {
    await journal.write(kept);
    for (const work of opening.absorbed) if (work.unsent) await journal.drop(id, work.tabId);
  } catch {
    // A browser without storage had nothing to take up; a full one keeps what it has.
  }
}

/** Keeps the piece on the desk saved until it is left. Returns what to call then; it sends what is unsent, in the background. */
export function keepSaved(id: string): () => void {
  let leaveLock: (() => void) | null = null;
  let isLeft = false;
  void thisTab().then(async (here) => {
    const { isAlsoOpen, leave } = await here.enter(id);
    if (isLeft) leave();
    else leaveLock = leave;
    if (isAlsoOpen && !isLeft) setView({ notice: 'This piece is open in another tab as well. Nothing is overwritten: whoever saves second is asked.' });
  });
  const stopWatching = useDesk.subscribe((state, before) => {
    if (state.piece?.id === id && before.piece?.id === id && (state.piece !== before.piece || state.history !== before.history)) active.get(id)?.changed(state.piece, state.history);
  });
  const online = () => void active.get(id)?.flush();
  const leave = () => active.get(id)?.leave();
  const hidden = () => document.visibilityState === 'hidden' && leave();
  window.addEventListener('online', online);
  window.addEventListener('pagehide', leave);
  document.addEventListener('visibilitychange', hidden);
  return () => {
    isLeft = true;
    leaveLock?.();
    stopWatching();
    window.removeEventListener('online', online);
    window.removeEventListener('pagehide', leave);
    document.removeEventListener('visibilitychange', hidden);
    const saver = active.get(id);
    if (!saver) return;
    void saver.flush();
  };
}

/** The three ways out of a conflict. Returns the id of the copy, if one was made. */
export async function resolveConflict(choice: 'mine' | 'theirs' | 'copy'): Promise<string | null> {
  const { piece } = useDesk.getState();
  const saver = current();
  if (!piece || !saver) return null;
  if (choice === 'copy') {
    const copy = await keepAsNew(piece, 'my version');
    await saver.retire();
    active.delete(piece.id);
    await journal.drop(piece.id, (await thisTab()).id);
    return copy;
  }
  const remote = await call(api.pieces[':id'].$get({ param: { id: piece.id } }));
  if (choice === 'theirs') {
    await saver.retire();
    openPiece(remote.piece, remote.revision, EMPTY_HISTORY);
    startSaver({ piece: remote.piece, history: EMPTY_HISTORY, revision: remote.revision, unsent: false, follows: [], conflict: null }, (await thisTab()).id).changed(remote.piece, EMPTY_HISTORY);
    return null;
  }
  saver.standOn(remote.revision);
  await saver.flush();
  return null;
}

/** Makes a new piece of a document. Returns its id. */
async function keepAsNew(piece: Piece, suffix: string): Promise<string> {
  const copy = { ...piece, id: newId(), name: `${piece.name} (${suffix})`.slice(0, 200) };
  await call(api.pieces.$post({ json: { piece: copy } }));
  return copy.id;
}

/** Leftover work of a closed tab: kept as a piece of its own, or let go. */
export async function settleLeftover(work: LocalWork, choice: 'keep' | 'drop'): Promise<string | null> {
  const copy = choice === 'keep' ? await keepAsNew(work.piece, 'from an earlier visit') : null;
  await journal.drop(work.pieceId, work.tabId);
  const { leftovers } = useDesk.getState();
  setView({ leftovers: leftovers.filter((other) => other !== work) });
  return copy;
}

/** For the home: sends what closed tabs left behind, and lists what cannot be sent. */
export async function sendWaiting(): Promise<readonly LocalWork[]> {
  const { isAlive } = await thisTab();
  const parts: LeftoverParts = { journal, send, newId, fetch: fetchPiece, isAlive: async (tabId) => isAlive(tabId) };
  return sendLeftovers(parts);
}
