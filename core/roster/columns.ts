import type { Slot } from '../piece';
import type { Table } from './read-table';

/** Columns by the slots that they fill; a slot that is not named is filled by none. */
export type Mapping = Readonly<Record<string, number>>;

const bare = (name: string): string =>
  name
    .normalize('NFD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** How well the name of a column fits a slot: 3 the same, 2 one within the other, 1 a word in common, 0 not. */
function likeness(column: string, slot: Slot): number {
  const a = bare(column);
  return Math.max(
    ...[slot.name, slot.id].map((name) => {
      const b = bare(name);
      if (a === b) return 3;
      if (a.length > 2 && b.length > 2 && (a.includes(b) || b.includes(a))) return 2;
      const words = new Set(a.split(' '));
      return b.split(' ').some((word) => word.length > 2 && words.has(word)) ? 1 : 0;
    }),
  );
}

/**
 * The column for each slot: by name, the best fit first. Where no name fits at all, slots of words are filled by the
 * columns in order.
 */
export function matchColumns({ columns }: Table, slots: readonly Slot[]): Mapping {
  const fits = columns
    .flatMap((column, i) => slots.map((slot) => ({ column: i, slot: slot.id, fit: likeness(column, slot) })))
    .filter(({ fit }) => fit > 0)
    .sort((a, b) => b.fit - a.fit || a.column - b.column);
  const mapping: Record<string, number> = {};
  const used = new Set<number>();
  for (const { column, slot } of fits) {
    if (slot in mapping || used.has(column)) continue;
    mapping[slot] = column;
    used.add(column);
  }
  if (Object.keys(mapping).length > 0) return mapping;
  return Object.fromEntries(
    slots.flatMap((slot, i) => (slot.kind === 'text' && i < columns.length ? [[slot.id, i]] : [])),
  );
}

/** Whether a first row names columns: one of its cells is the name of a slot. */
export const looksLikeHeader = (cells: readonly string[], slots: readonly Slot[]): boolean =>
  cells.some((cell) => slots.some((slot) => likeness(cell, slot) === 3));

/** Whether a slot is filled by something that is seen: a mark, a picture or a film. */
export const showsPicture = ({ kind }: Slot): boolean => kind === 'logo' || kind === 'picture' || kind === 'footage';

/** The values of a row by slot. Marks are named by their label; pictures by the name of a file of the piece. */
export function valuesOf(
  row: readonly string[],
  mapping: Mapping,
  slots: readonly Slot[],
  pictureOf: (cell: string) => string | null,
): Record<string, string> {
  return Object.fromEntries(
    slots.flatMap((slot) => {
      const column = mapping[slot.id];
      const cell = column === undefined ? undefined : row[column];
      if (cell === undefined) return [];
      return [[slot.id, showsPicture(slot) ? (pictureOf(cell) ?? '') : cell]];
    }),
  );
}
