import { applyPatches } from 'immer';
import type { Patch } from 'immer';
import type { EditResult } from './edits';
import type { Piece } from './schema';

/** One undo step as plain data: it survives a reload in the browser's storage. */
export interface HistoryStep {
  readonly label: string;
  readonly patches: Patch[];
  readonly inverse: Patch[];
  /** Steps of one drag share a gesture and are one undo. */
  readonly gesture: string | null;
}

export interface History {
  readonly done: readonly HistoryStep[];
  readonly undone: readonly HistoryStep[];
}

export const EMPTY_HISTORY: History = { done: [], undone: [] };
const LIMIT = 400;

const touches = (patches: readonly Patch[]): string => patches.map((p) => `${p.op}${p.path.join('/')}`).sort().join('|');
const onlyReplaces = (patches: readonly Patch[]) => patches.every((p) => p.op === 'replace');

/** Adds a step, or grows the last one if both belong to the same gesture. */
export function recordStep(history: History, result: EditResult, gesture: string | null): History {
  if (result.patches.length === 0) return history;
  const last = history.done[history.done.length - 1];
  if (gesture !== null && last?.gesture === gesture) {
    // Replacing the same places again: the newest values and the oldest way back are enough.
    const same = onlyReplaces(result.patches) && touches(result.patches) === touches(last.patches);
    const merged: HistoryStep = same
      ? { ...last, patches: result.patches }
      : { ...last, patches: [...last.patches, ...result.patches], inverse: [...result.inverse, ...last.inverse] };
    return { done: [...history.done.slice(0, -1), merged], undone: [] };
  }
  const step: HistoryStep = { label: result.label, patches: result.patches, inverse: result.inverse, gesture };
  return { done: [...history.done.slice(-(LIMIT - 1)), step], undone: [] };
}

export function undo(piece: Piece, history: History): { piece: Piece; history: History; label: string } | null {
  const step = history.done[history.done.length - 1];
  if (!step) return null;
  return { piece: applyPatches(piece, step.inverse), history: { done: history.done.slice(0, -1), undone: [...history.undone, step] }, label: step.label };
}

export function redo(piece: Piece, history: History): { piece: Piece; history: History; label: string } | null {
  const step = history.undone[history.undone.length - 1];
  if (!step) return null;
  return { piece: applyPatches(piece, step.patches), history: { done: [...history.done, { ...step, gesture: null }], undone: history.undone.slice(0, -1) }, label: step.label };
}
