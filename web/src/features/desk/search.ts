/** What is searched: a name, and other words people use for it. */
export interface Searchable {
  readonly label: string;
  readonly words?: readonly string[];
}

/** Words shorter than this are never taken for a slip of the fingers. */
const MIN_SLIP_LETTERS = 4;
const TWO_SLIPS_FROM = 7;

const tokens = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];

/** How well a text answers: 0 exactly, 1 it begins so, 2 its words begin so, 3 it contains it; null not at all. */
function fitOf(text: string, asked: string, askedTokens: readonly string[]): number | null {
  const plain = tokens(text).join(' ');
  if (plain === asked) return 0;
  if (plain.startsWith(`${asked} `)) return 1;
  const words = plain.split(' ');
  if (askedTokens.every((token) => words.some((word) => word.startsWith(token))))
    return plain.startsWith(asked) ? 1.5 : words.includes(asked) ? 2 : 2.2;
  return asked.length >= 3 && plain.includes(asked) ? 3 : null;
}

/**
 * Letters to add, leave out, change or swap with the next to make one word of the other.
 * Source: optimal string alignment distance (Damerau 1964, restricted).
 */
function slipsBetween(a: string, b: string): number {
  const rows = Array.from({ length: a.length + 1 }, (_, i) => [i, ...Array<number>(b.length).fill(0)]);
  rows[0] = Array.from({ length: b.length + 1 }, (_, j) => j);
  const at = (i: number, j: number): number => rows[i]![j]!; // within the table
  for (let i = 1; i <= a.length; i++)
    for (let j = 1; j <= b.length; j++) {
      const isSame = a[i - 1] === b[j - 1];
      const isSwap = i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1];
      rows[i]![j] = Math.min(
        at(i - 1, j) + 1,
        at(i, j - 1) + 1,
        at(i - 1, j - 1) + (isSame ? 0 : 1),
        isSwap ? at(i - 2, j - 2) + 1 : Infinity,
      );
    }
  return at(a.length, b.length);
}

const isSlipOf = (asked: string, word: string): boolean =>
  word.startsWith(asked) ||
  (asked.length >= MIN_SLIP_LETTERS && slipsBetween(asked, word) <= (asked.length >= TWO_SLIPS_FROM ? 2 : 1));

/**
 * Searches by name and by other words for the same thing: whole names first, then beginnings, then parts of words.
 * Slips of the fingers are forgiven only where nothing else is found, so that nothing comes that merely shares letters.
 */
export function createSearch<T extends Searchable>(all: readonly T[]): (asked: string) => T[] {
  return (text) => {
    const askedTokens = tokens(text);
    const asked = askedTokens.join(' ');
    if (asked === '') return [];
    const scored = all.flatMap((thing, order) => {
      const label = fitOf(thing.label, asked, askedTokens);
      const words = (thing.words ?? []).flatMap((word) => fitOf(word, asked, askedTokens) ?? []);
      // Another word for a thing counts a little less than its name.
      const fits = [...(label === null ? [] : [label]), ...words.map((fit) => fit + 0.5)];
      return fits.length === 0 ? [] : [{ thing, order, fit: Math.min(...fits) }];
    });
    if (scored.length > 0) return scored.sort((a, b) => a.fit - b.fit || a.order - b.order).map(({ thing }) => thing);
    return all.filter(({ label, words = [] }) => {
      const known = tokens([label, ...words].join(' '));
      return askedTokens.every((token) => known.some((word) => isSlipOf(token, word)));
    });
  };
}
