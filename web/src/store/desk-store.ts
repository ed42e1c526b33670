import { create } from 'zustand';
import type { SongAnalysis } from '@core/audio';
import { EMPTY_HISTORY, applyEdits, findKey, keepsTimes, recordStep, redo, resolveTimes, undo } from '@core/piece';
import type { LocalWork } from '../saving/local-work';
import type { SaveState } from '../saving/saver';
import { createBursts } from './bursts';
import { knownAnalysis, rememberAnalysis, timingName } from './song-analyses';
import type { Edit, EditResult, History, HistoryStep, KeyRef, Piece, ResolvedTimes } from '@core/piece';
import { WORDS } from './words';

type Patches = EditResult['patches'];

export const RUNGS = ['music', 'words', 'picture', 'motion', 'sound', 'colour', 'run-through', 'send'] as const;
export type Rung = (typeof RUNGS)[number];

/** What a path that is drawn on the canvas is for: words that run along it, a line, a shape of points, a mask. */
export type Drawing =
  | { readonly kind: 'along'; readonly layerId: string }
  | { readonly kind: 'line' }
  | { readonly kind: 'pen' }
  | { readonly kind: 'mask'; readonly layerId: string; readonly maskId: string };

/**
 * Document, selection and view of the piece on the desk. What can be computed is not stored, except `times`, which
 * every part reads.
 */
export interface DeskState {
  readonly piece: Piece | null;
  readonly analysis: SongAnalysis | null;
  readonly times: ResolvedTimes | null;
  readonly history: History;
  /** How the document came from the one before it: what is sent on to the painting worker. Null if it is another one. */
  readonly change: { readonly from: Piece; readonly patches: Patches } | null;
  /** The server's revision the document stands on. */
  readonly revision: number;
  readonly saveState: SaveState;
  readonly saveMessage: string | null;
  readonly selectedLayers: readonly string[];
  readonly selectedKeys: readonly KeyRef[];
  readonly formatId: string;
  readonly rung: Rung | null;
  /** The tab that each panel shows, by its id; the first where none is named. */
  readonly panelTabs: Readonly<Partial<Record<Rung, string>>>;
  readonly openLayers: readonly string[];
  /** Groups whose layers are not shown on the timeline. */
  readonly foldedGroups: readonly string[];
  /** The group that is open on the canvas: clicks mean what is in it. */
  readonly enteredGroup: string | null;
  /** Whether "Find anything" is open. */
  readonly isFinding: boolean;
  readonly showsKeys: boolean;
  /** The page of the guide that is open, by its id; null if none is. */
  readonly helpPage: string | null;
  /** The dialog of templates that is open. */
  readonly templateDialog: 'gallery' | 'keep' | null;
  readonly isPlaying: boolean;
  readonly loop: { readonly from: number; readonly to: number } | null;
  readonly isSnapping: boolean;
  /** Clicks over the music, and beats that flash on the canvas. */
  readonly hasClicks: boolean;
  readonly flashesBeats: boolean;
  /** Onset curves over the waveform. */
  readonly showsCurves: boolean;
  /** Beats can be dragged on the music's staff. */
  readonly isMovingBeats: boolean;
  /** Pixels from which a dragged time is drawn to the lattice. */
  readonly snapPixels: number;
  /** Grid step for snapping in beats. */
  readonly division: number;
  readonly editingText: string | null;
  /** A path is being drawn on the canvas. */
  readonly drawingFor: Drawing | null;
  /** The path whose points are shown on the canvas: a drawn shape's, or a mask's. */
  readonly shaping: { readonly layerId: string; readonly maskId: string | null; readonly formId?: string } | null;
  readonly notice: string | null;
  /** The step that the notice tells of, which it offers to undo; null if it tells of none. */
  readonly noticeStep: HistoryStep | null;
  /** Work of closed tabs on this piece that could not be sent: a person decides. */
  readonly leftovers: readonly LocalWork[];
}

const initial: DeskState = {
  piece: null,
  analysis: null,
  times: null,
  history: EMPTY_HISTORY,
  change: null,
  revision: 0,
  saveState: 'saved',
  saveMessage: null,
  selectedLayers: [],
  selectedKeys: [],
  formatId: '',
  rung: 'music',
  panelTabs: {},
  openLayers: [],
  foldedGroups: [],
  enteredGroup: null,
  isFinding: false,
  showsKeys: false,
  helpPage: null,
  templateDialog: null,
  isPlaying: false,
  loop: null,
  isSnapping: true,
  hasClicks: false,
  flashesBeats: false,
  showsCurves: false,
  isMovingBeats: false,
  snapPixels: 7,
  division: 0.5,
  editingText: null,
  drawingFor: null,
  shaping: null,
  notice: null,
  noticeStep: null,
  leftovers: [],
};

export const useDesk = create<DeskState>(() => initial);
const { setState: set, getState: get } = useDesk;

/** Puts a document on the desk. @param found - the analysis of its song, if it is known. */
export function openPiece(piece: Piece, revision: number, history: History, found: SongAnalysis | null = null): void {
  const name = timingName(piece);
  if (name && found) rememberAnalysis(name, found);
  const analysis = name ? knownAnalysis(name) : null;
  const old = get();
  const keepView = old.piece?.id === piece.id;
  set({
    ...initial,
    ...(keepView
      ? { rung: old.rung, panelTabs: old.panelTabs, loop: old.loop, selectedLayers: old.selectedLayers }
      : {}),
    piece,
    revision,
    history,
    analysis,
    times: resolveTimes(piece, analysis),
    formatId: keepView && piece.formats.some((f) => f.id === old.formatId) ? old.formatId : piece.leadFormatId,
  });
}

/** The open document and its times, for commands; null while none is open. */
export function openDocument(): { readonly piece: Piece; readonly times: ResolvedTimes } | null {
  const { piece, times } = get();
  return piece && times ? { piece, times } : null;
}

export const closePiece = (): void => set(initial);

/**
 * What was found in a song, null to forget it; shown at once if the piece is timed by it.
 * @param name - of the analysis (song-analyses.ts).
 */
export function setAnalysis(name: string, analysis: SongAnalysis | null): void {
  rememberAnalysis(name, analysis);
  const { piece } = get();
  if (piece && timingName(piece) === name) set({ analysis, times: resolveTimes(piece, analysis) });
}

const bursts = createBursts({ now: () => performance.now(), isHeld: () => heldPointers > 0 });
let heldPointers = 0;
if (typeof window !== 'undefined') {
  window.addEventListener('pointerdown', () => heldPointers++, true);
  for (const end of ['pointerup', 'pointercancel', 'blur'])
    window.addEventListener(end, () => (heldPointers = 0), true);
}

/** @param patches - what makes the document of the one before it; null if it is another one. */
function place(piece: Piece, history: History, patches: Patches | null): void {
  const {
    piece: before,
    times,
    analysis: heard,
    selectedLayers,
    selectedKeys,
    formatId,
    enteredGroup,
    shaping,
  } = get();
  // Undo may bring another song back: beats follow the song, never the other way round.
  const name = timingName(piece);
  const analysis = name ? knownAnalysis(name) : null;
  const ids = new Set(piece.layers.map((layer) => layer.id));
  const keyStands = (ref: KeyRef) => findKey(piece, ref) !== undefined;
  set({
    piece,
    history,
    analysis,
    change: before && patches ? { from: before, patches } : null,
    times: times && patches && analysis === heard && keepsTimes(patches) ? times : resolveTimes(piece, analysis),
    selectedLayers: selectedLayers.filter((id) => ids.has(id)),
    selectedKeys: selectedKeys.filter(keyStands),
    shaping: shaping !== null && ids.has(shaping.layerId) ? shaping : null,
    enteredGroup: enteredGroup !== null && ids.has(enteredGroup) ? enteredGroup : null,
    formatId: piece.formats.some((f) => f.id === formatId) ? formatId : piece.leadFormatId,
  });
}

/** What was done just now: a notice in the same breath is about it. */
let freshStep: HistoryStep | null = null;

/**
 * Applies edits as one undo step. Edits with the same drag id in a row are one step. What the document cannot hold
 * changes nothing and is told.
 * @param drag - id of a drag, or the name of a field (see bursts.ts).
 * @returns True if anything changed.
 */
export function edit(edits: readonly Edit[], drag: string | null = null): boolean {
  const { piece, times, history } = get();
  if (!piece || !times) return false;
  const result = applyEdits(piece, edits, times);
  if (result.refused !== null) set({ notice: WORDS.thatWasLeftOut(result.refused), noticeStep: null });
  if (result.patches.length === 0) return false;
  const recorded = recordStep(history, result, bursts(drag, edits));
  place(result.piece, recorded, result.patches);
  freshStep = recorded.done[recorded.done.length - 1] ?? null;
  queueMicrotask(() => (freshStep = null));
  return true;
}

/** Puts another document in the place of this one, as a step that can be undone: an earlier revision, say. */
export function replaceDocument(next: Piece, label: string): void {
  const { piece, history } = get();
  if (!piece) return;
  const whole = (value: Piece) => [{ op: 'replace' as const, path: [], value }];
  place(
    next,
    recordStep(history, { piece: next, patches: whole(next), inverse: whole(piece), label, refused: null }, null),
    null,
  );
}

export function undoEdit(): void {
  const { piece, history } = get();
  const result = piece && undo(piece, history);
  if (!result) return;
  place(result.piece, result.history, result.patches);
  set({ notice: WORDS.undone(result.label), noticeStep: null });
}

export function redoEdit(): void {
  const { piece, history } = get();
  const result = piece && redo(piece, history);
  if (!result) return;
  place(result.piece, result.history, result.patches);
  set({ notice: WORDS.redone(result.label), noticeStep: null });
}

export const setView = (
  view: Partial<
    Pick<
      DeskState,
      | 'selectedLayers'
      | 'selectedKeys'
      | 'formatId'
      | 'rung'
      | 'panelTabs'
      | 'openLayers'
      | 'foldedGroups'
      | 'enteredGroup'
      | 'isFinding'
      | 'showsKeys'
      | 'helpPage'
      | 'templateDialog'
      | 'isPlaying'
      | 'loop'
      | 'isSnapping'
      | 'hasClicks'
      | 'flashesBeats'
      | 'showsCurves'
      | 'isMovingBeats'
      | 'division'
      | 'snapPixels'
      | 'editingText'
      | 'drawingFor'
      | 'shaping'
      | 'notice'
      | 'saveState'
      | 'saveMessage'
      | 'revision'
      | 'leftovers'
    >
  >,
): void => set('notice' in view ? { ...view, noticeStep: freshStep } : view);

/** Undoes what the notice tells of, if nothing else has been done since. */
export function undoNoticed(): void {
  const { history, noticeStep } = get();
  if (noticeStep && history.done[history.done.length - 1] === noticeStep) undoEdit();
}

export function selectLayers(ids: readonly string[]): void {
  const { shaping } = get();
  set({
    shaping: shaping && ids.length === 1 && ids[0] === shaping.layerId ? shaping : null,
    selectedLayers: ids,
    selectedKeys: get().selectedKeys.filter((ref) => ids.includes(ref.layerId)),
  });
}
