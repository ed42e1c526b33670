import type { Layer } from './layer-schema';
import type { Piece } from './schema';

/**
 * Layers stand in one flat list; `parentId` makes a tree of it. Painting goes through the children of a parent in the
 * order of the list. Edits keep the list so that what is in a group stands right before (below) it: {@link inTreeOrder}.
 */

/** Deepest nesting of groups: far beyond what a person can follow, near enough that nothing overflows. */
export const MAX_DEPTH = 16;

type Node = Pick<Layer, 'id' | 'parentId' | 'kind'>;

/** The layers of each parent, in the order of the list; null is the frame. */
export function childrenByParent<T extends Node>(layers: readonly T[]): Map<string | null, T[]> {
  const children = new Map<string | null, T[]>();
  for (const layer of layers) {
    const siblings = children.get(layer.parentId);
    if (siblings) siblings.push(layer);
    else children.set(layer.parentId, [layer]);
  }
  return children;
}

/** The groups a layer is in, the nearest first. Stops at a parent that is not there. */
export function ancestorsOf<T extends Node>(layers: ReadonlyMap<string, T>, id: string): T[] {
  const out: T[] = [];
  let parentId = layers.get(id)?.parentId ?? null;
  while (parentId !== null && out.length <= MAX_DEPTH) {
    const parent = layers.get(parentId);
    if (!parent) break;
    out.push(parent);
    parentId = parent.parentId;
  }
  return out;
}

export const byId = <T extends { readonly id: string }>(entries: readonly T[]): Map<string, T> =>
  new Map(entries.map((entry) => [entry.id, entry]));

/** Layers that are drawn: neither hidden nor a guide, nor in a group that is. */
export function shownLayers(layers: readonly Layer[]): Layer[] {
  const known = byId(layers);
  const isShown = ({ hidden, isGuide }: Layer): boolean => !hidden && !isGuide;
  return layers.filter((layer) => isShown(layer) && ancestorsOf(known, layer.id).every(isShown));
}

/** The given layers and everything in them, in the order of the list. */
export function withDescendants<T extends Node>(layers: readonly T[], ids: readonly string[]): T[] {
  const children = childrenByParent(layers);
  const taken = new Set<string>();
  const take = (id: string): void => {
    if (taken.has(id)) return;
    taken.add(id);
    for (const child of children.get(id) ?? []) take(child.id);
  };
  for (const id of ids) take(id);
  return layers.filter((layer) => taken.has(layer.id));
}

/** Those of the given layers that are in none of the others: what is done to a group is done to all in it. */
export function outermost<T extends Node>(layers: readonly T[], ids: readonly string[]): T[] {
  const wanted = new Set(ids);
  const known = byId(layers);
  return layers.filter((layer) => wanted.has(layer.id) && !ancestorsOf(known, layer.id).some((a) => wanted.has(a.id)));
}

/** The list with what is in a group right before it, and the order among siblings kept. */
export function inTreeOrder<T extends Node>(layers: readonly T[]): T[] {
  const children = childrenByParent(layers);
  const out: T[] = [];
  const visit = (parentId: string | null): void => {
    for (const layer of children.get(parentId) ?? []) {
      if (layer.kind === 'group') visit(layer.id);
      out.push(layer);
    }
  };
  visit(null);
  // What hangs on nothing is refused elsewhere; here nothing is lost.
  const placed = new Set(out);
  return out.length === layers.length ? out : [...out, ...layers.filter((layer) => !placed.has(layer))];
}

/** Whatever a layer names that is not there, or that leads back to it, in words; null if all is well. */
export function brokenReference(piece: Pick<Piece, 'layers' | 'transitions'>): string | null {
  const known = byId(piece.layers);
  for (const layer of piece.layers) {
    const problem = brokenParent(known, layer) ?? brokenNeighbour(known, layer);
    if (problem) return problem;
  }
  for (const { id, fromId, toId } of piece.transitions) {
    if (!known.has(fromId) || !known.has(toId)) return `transitions: ${id} names a layer that is not there`;
  }
  return null;
}

function brokenParent(known: ReadonlyMap<string, Layer>, layer: Layer): string | null {
  if (layer.parentId === null) return null;
  const parent = known.get(layer.parentId);
  if (!parent) return `layers: ${layer.id} is in a group that is not there`;
  if (parent.kind !== 'group') return `layers: ${layer.id} is in a layer that is no group`;
  const above = ancestorsOf(known, layer.id);
  if (above.some((a) => a.id === layer.id)) return `layers: ${layer.id} is in itself`;
  return above.length > MAX_DEPTH ? `layers: groups are nested at most ${MAX_DEPTH} deep` : null;
}

function brokenNeighbour(known: ReadonlyMap<string, Layer>, layer: Layer): string | null {
  for (const id of [layer.matte?.layerId, layer.follow?.layerId, layer.hug?.layerId]) {
    if (id === undefined) continue;
    if (!known.has(id)) return `layers: ${layer.id} names a layer that is not there`;
    if (id === layer.id) return `layers: ${layer.id} names itself`;
  }
  // A chain of followers that comes back to its beginning has no first position.
  let next = layer.follow?.layerId;
  for (let steps = 0; next !== undefined; steps++) {
    if (next === layer.id || steps > known.size) return `layers: ${layer.id} follows itself`;
    next = known.get(next)?.follow?.layerId;
  }
  return null;
}
