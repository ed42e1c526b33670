import type { History, Piece } from '@core/piece';
import { EMPTY_HISTORY } from '@core/piece';
import { ApiError, api, call } from '../platform/api';
import { dropLocalWork, readLocalWork, writeLocalWork } from '../platform/local-work';
import { openPiece, setAnalysis, setView, useDesk } from './desk-store';

/**
 * Saving: every edit is first written to the browser's own storage, then sent within a second. If the server is away the
 * edits wait there and are sent when it answers again. If another tab has saved meanwhile, nothing is overwritten:
 * the person chooses.
 */
const SEND_AFTER_MS = 700;
const RETRY_MS = 2500;

let timer: ReturnType<typeof setTimeout> | null = null;
let sending: Promise<void> | null = null;

function label(history: History): string {
  return history.done[history.done.length - 1]?.label ?? 'Edit';
}

function keepLocally(unsent: boolean): Promise<void> {
  const { piece, revision, history } = useDesk.getState();
  if (!piece) return Promise.resolve();
  return writeLocalWork(piece.id, { piece, baseRevision: revision, unsent, label: label(history), history }).catch(() => {
    setView({ saveMessage: 'This browser cannot keep a copy of your edits (its storage is full or closed). They are still sent to the server.' });
  });
}

async function send(): Promise<void> {
  const { piece, revision, history, saveState } = useDesk.getState();
  if (!piece || saveState === 'conflict' || saveState === 'saved') return;
  setView({ saveState: 'saving' });
  try {
    const saved = await call(api.pieces[':id'].$put({ param: { id: piece.id }, json: { piece, baseRevision: revision, label: label(history) } }));
    const now = useDesk.getState();
    if (now.piece?.id !== piece.id) return;
    setView({ revision: saved.revision, saveMessage: null, saveState: now.piece === piece ? 'saved' : 'unsaved' });
    await keepLocally(now.piece !== piece);
    if (now.piece !== piece) schedule(SEND_AFTER_MS);
  } catch (error) {
    if (!(error instanceof ApiError)) throw error;
    if (useDesk.getState().piece?.id !== piece.id) return;
    if (error.code === 'CONFLICT') setView({ saveState: 'conflict', saveMessage: error.message });
    else {
      setView({ saveState: 'away', saveMessage: error.message });
      schedule(RETRY_MS);
    }
  }
}

function schedule(ms: number): void {
  if (timer !== null) clearTimeout(timer);
  timer = setTimeout(() => {
    timer = null;
    sending = (sending ?? Promise.resolve()).then(send);
  }, ms);
}

/** Sends what is unsent now, before an export or when leaving. */
export async function saveNow(): Promise<void> {
  if (timer !== null) clearTimeout(timer);
  timer = null;
  sending = (sending ?? Promise.resolve()).then(send);
  await sending;
}

/** Watches the document; returns what stops watching. */
export function startSaving(): () => void {
  const stopWatching = useDesk.subscribe((state, before) => {
    if (state.piece && before.piece && state.piece.id === before.piece.id && state.piece !== before.piece && state.saveState !== 'saved') {
      void keepLocally(true);
      schedule(SEND_AFTER_MS);
    }
  });
  const online = () => schedule(0);
  window.addEventListener('online', online);
  return () => {
    stopWatching();
    window.removeEventListener('online', online);
    void saveNow();
  };
}

/** The analysis of the piece's song; null while there is none. */
export async function loadAnalysis(piece: Piece): Promise<void> {
  const song = piece.media.find((m) => m.id === piece.music?.mediaId);
  if (!song) return setAnalysis(null);
  const hash = song.hash;
  for (let attempt = 0; ; attempt++) {
    try {
      const analysis = await call(api.media[':hash'].analysis.$get({ param: { hash } }));
      const now = useDesk.getState().piece;
      if (now?.media.find((m) => m.id === now.music?.mediaId)?.hash === hash) setAnalysis(analysis);
      return;
    } catch {
      // Not analysed yet (the demo's first start, an opened piece file): asked again until it is.
      if (attempt > 120 || useDesk.getState().piece?.id !== piece.id) return;
      await new Promise((resolve) => setTimeout(resolve, 1000));
    }
  }
}

/** Opens a piece: the server's document, or the edits this browser still holds. @throws ApiError if there is neither. */
export async function loadPiece(id: string): Promise<void> {
  const local = await readLocalWork(id);
  let remote: { piece: Piece; revision: number } | null = null;
  try {
    remote = await call(api.pieces[':id'].$get({ param: { id } }));
  } catch (error) {
    if (!local?.unsent || !(error instanceof ApiError) || !error.isAway) throw error;
  }
  if (remote && local?.unsent && local.baseRevision !== remote.revision && JSON.stringify(local.piece) !== JSON.stringify(remote.piece)) {
    openPiece(local.piece, local.baseRevision, local.history, null);
    setView({ saveState: 'conflict', saveMessage: 'This browser holds edits that were not sent, and the piece was changed elsewhere since.' });
  } else if (local?.unsent && (!remote || local.baseRevision === remote.revision)) {
    openPiece(local.piece, local.baseRevision, local.history, null);
    setView({ saveState: 'unsaved' });
    schedule(0);
  } else if (remote) {
    openPiece(remote.piece, remote.revision, local && local.baseRevision === remote.revision ? local.history : EMPTY_HISTORY, null);
  }
  const { piece } = useDesk.getState();
  if (piece) void loadAnalysis(piece);
}

/** The three ways out of a conflict. */
export async function resolveConflict(choice: 'mine' | 'theirs' | 'copy', newId: () => string): Promise<string | null> {
  const { piece, history, analysis } = useDesk.getState();
  if (!piece) return null;
  if (choice === 'copy') {
    const copy = { ...piece, id: newId(), name: `${piece.name} (my version)`.slice(0, 200) };
    await call(api.pieces.$post({ json: { piece: copy } }));
    await dropLocalWork(piece.id);
    return copy.id;
  }
  const remote = await call(api.pieces[':id'].$get({ param: { id: piece.id } }));
  if (choice === 'theirs') {
    await dropLocalWork(piece.id);
    openPiece(remote.piece, remote.revision, EMPTY_HISTORY, analysis);
    void loadAnalysis(remote.piece);
    return null;
  }
  openPiece(piece, remote.revision, history, analysis);
  setView({ saveState: 'unsaved' });
  await saveNow();
  return null;
}
