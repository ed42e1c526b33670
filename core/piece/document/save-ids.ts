/**
 * Names of saves. A *writer* is one visit of one tab to a piece; it numbers its saves from 1: "WRITER:3". A later save
 * of a writer holds all that its earlier ones held, so that a stored revision made by one of them is no stranger's. A
 * visit that goes on with the work of an earlier one (after a reload) is a new writer that names what it follows: "OLD
 * WRITER:7" means up to its seventh save.
 */
const parse = (id: string): { writer: string; number: number } | null => {
  const at = id.lastIndexOf(':');
  const number = Number(id.slice(at + 1));
  return at > 0 && Number.isInteger(number) && number >= 0 ? { writer: id.slice(0, at), number } : null;
};

export const saveName = (writer: string, number: number): string => `${writer}:${number}`;

/**
 * Whether a stored revision was made by work that this save holds. @param stored - name of the save that made it.
 * @param follows - what the writer follows.
 */
export function holds(save: string, follows: readonly string[], stored: string): boolean {
  const made = parse(stored);
  const mine = parse(save);
  if (!made || !mine) return false;
  if (made.writer === mine.writer) return made.number < mine.number;
  return follows.some((name) => {
    const followed = parse(name);
    return followed?.writer === made.writer && made.number <= followed.number;
  });
}

/**
 * Whether a stored revision was made by a later save of work that is known only up to an earlier one: the store is
 * ahead.
 */
export function isAhead(follows: readonly string[], stored: string): boolean {
  const made = parse(stored);
  return (
    made !== null &&
    follows.some((name) => {
      const known = parse(name);
      return known?.writer === made.writer && made.number > known.number;
    })
  );
}
