import { ApiError, api, call } from '../platform/api';
import { receivedPiece } from '../platform/received-piece';
import { newId } from '../platform/ids';
import { tabMemory } from '../platform/memory';
import { browserStore } from './browser-store';
import { browserClock } from './clock';
import { createJournal } from './journal';
import { createSend } from './server-saves';
import { createSession } from './session';
import { createTab } from './tab';
import type { Tab } from './tab';

/** Saving in this browser: its storage, its tabs, its network. */
let tab: Promise<Tab> | null = null;
const codeOf = (error: unknown): string => (error instanceof ApiError ? error.code : '');

export const { loadPiece, keepSaved, saveNow, resolveConflict, settleLeftover, sendWaiting } = createSession({
  journal: createJournal(browserStore()),
  send: createSend((url, init) => fetch(url, init)),
  tab: () => (tab ??= createTab(tabMemory, navigator.locks ?? null, newId)),
  clock: browserClock,
  newId,
  date: () => Date.now(),
  fetch: async (id) => {
    const stored = await call(api.pieces[':id'].$get({ param: { id } }));
    return { ...stored, piece: receivedPiece(stored.piece) };
  },
  create: (piece) => call(api.pieces.$post({ json: { piece } })),
  isAway: (error) => error instanceof ApiError && error.isAway,
  isGone: (error) => codeOf(error) === 'NOT_FOUND',
  onPage({ online, leave }) {
    const hidden = () => document.visibilityState === 'hidden' && leave();
    window.addEventListener('online', online);
    window.addEventListener('pagehide', leave);
    document.addEventListener('visibilitychange', hidden);
    return () => {
      window.removeEventListener('online', online);
      window.removeEventListener('pagehide', leave);
      document.removeEventListener('visibilitychange', hidden);
    };
  },
});
