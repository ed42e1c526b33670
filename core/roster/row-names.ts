import type { Slot } from '../piece';
import type { Roster } from './roster-schema';

/** Names of what is made of rows. */

const LONGEST = 200;

/** Fields in braces are replaced by what they stand for, whatever their case; those that are not known, by nothing. */
export function nameFrom(pattern: string, fields: Readonly<Record<string, string>>): string {
  const known = new Map(Object.entries(fields).map(([name, value]) => [name.toLowerCase(), value]));
  return pattern
    .replace(/\{([^{}]*)\}/g, (_, field: string) => known.get(field.trim().toLowerCase()) ?? '')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, LONGEST);
}

/** Letters, digits and what all file systems take; no dot at either end, which some hide or drop. */
const fileSafe = (name: string): string =>
  name
    .replace(/[^\p{L}\p{M}\p{N} ,._()+&-]/gu, '')
    .replace(/^[. ]+|[. ]+$/g, '')
    .slice(0, 120);

/**
 * Names of files, each once whatever the case of its letters: the second of two that are alike gets a number.
 * @param otherwise - the name of one of which nothing is left, by its place in the list.
 */
export function fileNames(names: readonly string[], otherwise: (i: number) => string): string[] {
  const taken = new Set<string>();
  const key = (name: string): string => name.normalize('NFC').toLowerCase();
  return names.map((wanted, i) => {
    const plain = fileSafe(wanted) || otherwise(i);
    let name = plain;
    for (let n = 2; taken.has(key(name)); n++) name = `${plain} ${n}`;
    taken.add(key(name));
    return name;
  });
}

/** What the fields of a pattern stand for: the cells of the slots by their names, and what is the same for all. */
export function rowFields(
  { rows, mapping }: Pick<Roster, 'rows' | 'mapping'>,
  row: number,
  slots: readonly Slot[],
  pieceName: string,
): Record<string, string> {
  const cells = rows[row]?.cells ?? [];
  return {
    ...Object.fromEntries(slots.map((slot) => [slot.name, cells[mapping[slot.id] ?? -1] ?? ''])),
    row: String(row + 1),
    piece: pieceName,
  };
}
