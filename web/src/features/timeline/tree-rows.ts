import { animatedTracks, childrenByParent } from '@core/piece';
import type { Layer } from '@core/piece';
import { rowHeight } from './row-size';

/** A row of the timeline: front first, as layers lie on the canvas, what is in a group below the group. */
export interface TreeRow {
  readonly layer: Layer;
  readonly top: number;
  readonly height: number;
  /** How many groups it is in. */
  readonly depth: number;
  /** Its keyframes have rows of their own. */
  readonly isOpen: boolean;
  readonly isFolded: boolean;
}

export function treeRows(
  layers: readonly Layer[],
  openLayers: readonly string[],
  foldedGroups: readonly string[],
): TreeRow[] {
  const children = childrenByParent(layers);
  const rows: TreeRow[] = [];
  let top = 0;
  const visit = (parentId: string | null, depth: number): void => {
    for (const layer of [...(children.get(parentId) ?? [])].reverse()) {
      const isOpen = openLayers.includes(layer.id) && animatedTracks(layer).length > 0;
      const isFolded = foldedGroups.includes(layer.id);
      const height = rowHeight(layer, isOpen);
      rows.push({ layer, top, height, depth, isOpen, isFolded });
      top += height;
      if (layer.kind === 'group' && !isFolded) visit(layer.id, depth + 1);
    }
  };
  visit(null, 0);
  return rows;
}

/** Where layers that are dragged over the rows would come to lie. */
export interface Drop {
  readonly parentId: string | null;
  /** The layer they come to lie in front of; null puts them furthest back. */
  readonly behind: string | null;
  /** The line that shows it, pixels of the rows; null when it is the whole row of a group. */
  readonly line: number | null;
  readonly depth: number;
}

/** Share of a group's row, at its top and at its bottom, that means before and behind it. */
const EDGE = 0.28;

/**
 * @param y - pixels of the rows.
 * @param dragged - ids of the layers that are dragged: nothing is dropped into itself.
 */
export function dropAt(rows: readonly TreeRow[], y: number, dragged: ReadonlySet<string>): Drop | null {
  const row = rows.find((r) => y < r.top + r.height) ?? rows[rows.length - 1];
  if (!row) return null;
  const siblings = rows.filter((r) => r.layer.parentId === row.layer.parentId && !dragged.has(r.layer.id));
  const share = (y - row.top) / row.height;
  const isGroup = row.layer.kind === 'group' && !dragged.has(row.layer.id);
  if (isGroup && share > EDGE && (share < 1 - EDGE || !row.isFolded)) {
    const front = rows.find((r) => r.layer.parentId === row.layer.id && !dragged.has(r.layer.id));
    return { parentId: row.layer.id, behind: front?.layer.id ?? null, line: null, depth: row.depth + 1 };
  }
  const isBefore = share < 0.5;
  const at = siblings.findIndex((r) => r.layer.id === row.layer.id);
  // In front of the row means in front of its layer; behind it, in front of the next one further back.
  const next = isBefore ? row : siblings[at + 1];
  return {
    parentId: row.layer.parentId,
    behind: next && !dragged.has(next.layer.id) ? next.layer.id : (siblings[at + 1]?.layer.id ?? null),
    line: isBefore ? row.top : row.top + row.height,
    depth: row.depth,
  };
}
