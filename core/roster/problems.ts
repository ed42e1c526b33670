import { isFilled } from '../piece';
import type { Slot } from '../piece';
import type { FrameRate } from '../time';
import { valuesOf } from './columns';
import { beginsAt } from './row-begins';
import type { Roster } from './roster-schema';

/** What is wrong with a row, in words; of which slot, if of one. */
export interface RowProblem {
  readonly slotId: string | null;
  readonly text: string;
  /** Whether it only tells something, and nothing is wrong. */
  readonly isNote?: true;
}

const hasWords = ({ kind }: Slot): boolean => kind === 'text' || kind === 'number';

/** Columns that fill nothing, and slots that no column fills and that show no more than their sample in every row. */
export interface Unmatched {
  readonly columns: readonly string[];
  readonly slots: readonly Slot[];
}

/** @param shown - what the group shows in its slots, by their ids. */
export function unmatched(
  { columns, mapping, beginsColumn }: Pick<Roster, 'columns' | 'mapping' | 'beginsColumn'>,
  slots: readonly Slot[],
  shown: Readonly<Record<string, string>>,
): Unmatched {
  const used = new Set([...slots.flatMap((slot) => mapping[slot.id] ?? []), beginsColumn]);
  return {
    columns: columns.filter((_, i) => !used.has(i)),
    slots: slots.filter(
      (slot) => hasWords(slot) && mapping[slot.id] === undefined && !isFilled(slot, shown[slot.id] ?? ''),
    ),
  };
}

/**
 * What can be told of rows without setting their words: needed slots that are empty or show their sample, pictures that
 * are not there, times that are none, rows that are there twice. A row that was changed by hand answers for itself.
 * @param shown - what the group shows in its slots: what rows without a column for them show.
 */
export function plainProblems(
  { rows, mapping, beginsColumn }: Pick<Roster, 'rows' | 'mapping' | 'beginsColumn'>,
  slots: readonly Slot[],
  pictureOf: (cell: string) => string | null,
  rate: FrameRate,
  shown: Readonly<Record<string, string>>,
): RowProblem[][] {
  const first = new Map<string, number>();
  return rows.map(({ cells: row, ownPieceId }, i) => {
    const problems: RowProblem[] = [];
    if (ownPieceId !== null) return problems;
    const values = valuesOf(row, mapping, slots, pictureOf);
    const begins = beginsColumn === null ? '' : (row[beginsColumn] ?? '');
    if (begins !== '' && beginsAt(begins, rate) === null)
      problems.push({ slotId: null, text: `“${begins.slice(0, 40)}” is no time it could begin at` });
    for (const slot of slots) {
      const column = mapping[slot.id];
      if (column === undefined) {
        if (slot.isNeeded && !isFilled(slot, shown[slot.id] ?? ''))
          problems.push({ slotId: slot.id, text: `${slot.name} has no column and shows its sample` });
        continue;
      }
      const cell = row[column] ?? '';
      if (cell === '') {
        if (slot.isNeeded) problems.push({ slotId: slot.id, text: `${slot.name} is empty` });
      } else if (slot.isNeeded && hasWords(slot) && !isFilled(slot, cell))
        // Somebody may be called as the sample is: it is told, and nothing is kept back.
        problems.push({ slotId: slot.id, text: `${slot.name} still says “${slot.sample.slice(0, 40)}”`, isNote: true });
      else if (!hasWords(slot) && values[slot.id] === '')
        problems.push({ slotId: slot.id, text: `${slot.name}: there is no picture or mark “${cell.slice(0, 40)}”` });
    }
    const key = JSON.stringify([begins, ...slots.map((slot) => values[slot.id] ?? '')]);
    const before = first.get(key);
    if (before !== undefined) problems.push({ slotId: null, text: `The same as row ${before + 1}` });
    else first.set(key, i);
    return problems;
  });
}
