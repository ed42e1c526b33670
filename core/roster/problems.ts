import type { Slot } from '../piece';
import type { Mapping } from './columns';
import { valuesOf } from './columns';

/** What is wrong with a row, in words; of which slot, if of one. */
export interface RowProblem {
  readonly slotId: string | null;
  readonly text: string;
}

/**
 * What can be told of rows without setting their words: needed slots that are empty, pictures that are not there, rows
 * that are there twice.
 */
export function plainProblems(
  rows: readonly (readonly string[])[],
  mapping: Mapping,
  slots: readonly Slot[],
  pictureOf: (cell: string) => string | null,
): RowProblem[][] {
  const first = new Map<string, number>();
  return rows.map((row, i) => {
    const problems: RowProblem[] = [];
    const values = valuesOf(row, mapping, slots, pictureOf);
    for (const slot of slots) {
      const column = mapping[slot.id];
      if (column === undefined) continue;
      const cell = row[column] ?? '';
      if (cell === '') {
        if (slot.isNeeded) problems.push({ slotId: slot.id, text: `${slot.name} is empty` });
      } else if (slot.kind !== 'text' && slot.kind !== 'number' && values[slot.id] === '')
        problems.push({ slotId: slot.id, text: `${slot.name}: there is no picture or mark “${cell.slice(0, 40)}”` });
    }
    const key = JSON.stringify(slots.map((slot) => values[slot.id] ?? ''));
    const before = first.get(key);
    if (before !== undefined) problems.push({ slotId: null, text: `The same as row ${before + 1}` });
    else first.set(key, i);
    return problems;
  });
}
