import * as z from 'zod';
import { openingSeconds } from '@core/piece';
import { playhead } from '../platform/clock';
import { RUNGS, openDocument, setView, useDesk } from './desk-store';

const KEY = 'estrella-views';
/** Pieces whose view is remembered; the one left longest ago goes first. */
const MAX_PIECES = 60;
const MAX_IDS = 500;
const SAVE_AFTER_MS = 800;

const ids = z.array(z.string().max(80)).max(MAX_IDS);
const viewSchema = z.object({
  rung: z.enum(RUNGS).nullable(),
  panelTabs: z.partialRecord(z.enum(RUNGS), z.string().max(40)),
  selectedLayers: ids,
  openLayers: ids,
  foldedGroups: ids,
  seconds: z.number().min(0).max(36_000),
});
type RememberedView = z.infer<typeof viewSchema>;
/** The one seen last stands last. */
const viewsSchema = z.array(z.tuple([z.string().max(80), viewSchema])).max(MAX_PIECES);

function stored(): z.infer<typeof viewsSchema> {
  try {
    const read = viewsSchema.safeParse(JSON.parse(localStorage.getItem(KEY) ?? '[]'));
    return read.success ? read.data : [];
  } catch {
    return []; // without storage nothing is remembered
  }
}

function currentView(): RememberedView {
  const { rung, panelTabs, selectedLayers, openLayers, foldedGroups } = useDesk.getState();
  const few = (list: readonly string[]) => list.slice(0, MAX_IDS);
  return {
    rung,
    panelTabs,
    selectedLayers: few(selectedLayers),
    openLayers: few(openLayers),
    foldedGroups: few(foldedGroups),
    seconds: Math.max(0, playhead.seconds),
  };
}

function remember(pieceId: string): void {
  const views = [...stored().filter(([id]) => id !== pieceId), [pieceId, currentView()] as const];
  try {
    localStorage.setItem(KEY, JSON.stringify(views.slice(-MAX_PIECES)));
  } catch {
    // The view is remembered until the page is left.
  }
}

/** Shows the piece on the desk as it was left in this browser, or at the frame it is opened at. */
function restoreView(): void {
  const open = openDocument();
  if (!open) return;
  const view = stored().find(([id]) => id === open.piece.id)?.[1];
  if (!view) return playhead.set(openingSeconds(open.piece, open.times));
  const layers = new Set(open.piece.layers.map(({ id }) => id));
  const there = (list: readonly string[]) => list.filter((id) => layers.has(id));
  setView({
    rung: view.rung,
    panelTabs: view.panelTabs,
    selectedLayers: there(view.selectedLayers),
    openLayers: there(view.openLayers),
    foldedGroups: there(view.foldedGroups),
  });
  playhead.set(Math.min(view.seconds, open.times.end));
}

/** Restores the view of a piece as soon as it is on the desk, and remembers it while it changes. @returns what ends that. */
export function rememberView(pieceId: string): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let isThere = false;
  const save = () => {
    clearTimeout(timer);
    timer = undefined;
    if (isThere && openDocument()?.piece.id === pieceId) remember(pieceId);
  };
  const later = () => {
    if (isThere) timer ??= setTimeout(save, SAVE_AFTER_MS);
  };
  const unsubscribe = [
    useDesk.subscribe(({ piece }) => {
      // Before anything is drawn of it.
      if (!isThere && piece?.id === pieceId) {
        isThere = true;
        restoreView();
      } else later();
    }),
    playhead.subscribe(later),
  ];
  window.addEventListener('pagehide', save);
  return () => {
    if (timer !== undefined) save();
    window.removeEventListener('pagehide', save);
    for (const end of unsubscribe) end();
  };
}
