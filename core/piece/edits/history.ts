import { applyPatches } from 'immer';
import type { Patch } from 'immer';
import type { EditResult } from '.';
import type { Piece } from '../document/schema';

/** One undo step as plain data: it survives a reload in the browser's storage. */
export interface HistoryStep {
  readonly label: string;
  readonly patches: readonly Patch[];
  readonly inverse: readonly Patch[];
  /** Edits of one drag have one id and are one undo. Null: never joined. */
  readonly dragId: string | null;
}

export type Patches = readonly Patch[];

export interface History {
  readonly done: readonly HistoryStep[];
  readonly undone: readonly HistoryStep[];
}

export const EMPTY_HISTORY: History = { done: [], undone: [] };
const LIMIT = 400;

const keyOf = (path: Patch['path']): string => JSON.stringify(path);

/** Whether a patch gives one place of an object a value, or takes the place away; lists grow and shrink otherwise. */
const isPlain = (patch: Patch): boolean =>
  patch.op === 'replace' || typeof patch.path[patch.path.length - 1] === 'string';

/** The place that a path lies in among those that were changed; undefined if there is none. */
function holderOf(places: ReadonlyMap<string, Patch>, path: Patch['path']): Patch | undefined {
  for (let n = path.length - 1; n > 0; n--) {
    const found = places.get(keyOf(path.slice(0, n)));
    if (found) return found;
  }
  return undefined;
}

const liesIn = (path: Patch['path'], holder: Patch['path']): boolean =>
  path.length > holder.length && holder.every((step, i) => step === path[i]);

/**
 * What patches come to: one value a place, the newest. Null if they grow or shrink lists, where order counts.
 */
function compact(patches: readonly Patch[]): Patch[] | null {
  const places = new Map<string, Patch>();
  for (const patch of patches) {
    if (!isPlain(patch)) return null;
    const key = keyOf(patch.path);
    const isKnown = places.has(key);
    const holder = isKnown ? undefined : holderOf(places, patch.path);
    if (holder) {
      if (holder.op === 'remove') return null;
      const inner = { ...patch, path: patch.path.slice(holder.path.length) };
      places.set(keyOf(holder.path), { ...holder, value: applyPatches(holder.value as object, [inner]) });
      continue;
    }
    if (!isKnown) for (const [other, { path }] of places) if (liesIn(path, patch.path)) places.delete(other);
    // A place that is given a value and one whose value changes are the same to whoever applies it.
    places.set(key, patch.op === 'remove' ? patch : { ...patch, op: 'replace' });
  }
  return [...places.values()];
}

/** Patches as few as they can be that come to the same: one value a place where no list grows or shrinks. */
export const compacted = (patches: Patches): Patches => compact(patches) ?? patches;

/** A step and what came after it in the same drag as one: the newest values, and the oldest way back. */
function joined(last: HistoryStep, result: EditResult): HistoryStep {
  const patches = [...last.patches, ...result.patches];
  const inverse = [...result.inverse, ...last.inverse];
  const [forward, back] = [compact(patches), compact(inverse)];
  return forward && back ? { ...last, patches: forward, inverse: back } : { ...last, patches, inverse };
}

/** Adds a step, or grows the last one if both belong to the same drag. */
export function recordStep(history: History, result: EditResult, dragId: string | null): History {
  if (result.patches.length === 0) return history;
  const last = history.done[history.done.length - 1];
  if (dragId !== null && last?.dragId === dragId)
    return { done: [...history.done.slice(0, -1), joined(last, result)], undone: [] };
  const step: HistoryStep = { label: result.label, patches: result.patches, inverse: result.inverse, dragId };
  return { done: [...history.done.slice(-(LIMIT - 1)), step], undone: [] };
}

/** A document after patches; null if they do not fit it. Patches are what travels: to workers, stores and servers. */
export const patched = (piece: Piece, patches: readonly Patch[]): Piece | null => stepped(piece, patches);

/** A step that no longer fits its document (stored by another version, or damaged) changes nothing. */
function stepped(piece: Piece, patches: readonly Patch[]): Piece | null {
  try {
    return applyPatches(piece, patches);
  } catch {
    return null;
  }
}

/** Where a step back or forth leads, and the patches it took. */
export interface Stepped {
  readonly piece: Piece;
  readonly history: History;
  readonly label: string;
  readonly patches: Patch[];
}

/** The document before the last step; null if there is none, or none that fits. */
export function undo(piece: Piece, history: History): Stepped | null {
  const step = history.done[history.done.length - 1];
  const before = step && stepped(piece, step.inverse);
  if (!step || !before) return null;
  return {
    piece: before,
    patches: [...step.inverse],
    history: { done: history.done.slice(0, -1), undone: [...history.undone, step] },
    label: step.label,
  };
}

export function redo(piece: Piece, history: History): Stepped | null {
  const step = history.undone[history.undone.length - 1];
  const after = step && stepped(piece, step.patches);
  if (!step || !after) return null;
  return {
    piece: after,
    patches: [...step.patches],
    history: { done: [...history.done, { ...step, dragId: null }], undone: history.undone.slice(0, -1) },
    label: step.label,
  };
}
