/**
 * A text with its numbers on the way from one value to their own: the same number of decimals and the same grouping as
 * typed.
 * @param amount - 0 gives `from`, 1 the text as it is.
 */
export function countedText(text: string, from: number, amount: number): string {
  if (amount >= 1) return text;
  return text.replace(
    /\d{1,3}(?:([,\u00a0\u202f' ])\d{3})+(?:\.\d+)?|\d+(?:\.\d+)?/g,
    (typed, group: string | undefined) => {
      const decimals = /\.(\d+)$/.exec(typed)?.[1]?.length ?? 0;
      const goal = Number(group ? typed.replaceAll(group, '') : typed);
      const now = (from + (goal - from) * Math.max(0, amount)).toFixed(decimals);
      if (!group) return now;
      const [whole, fraction] = now.split('.') as [string, string?]; // toFixed gives at least one part
      const grouped = whole.replace(/\B(?=(\d{3})+$)/g, group);
      return fraction === undefined ? grouped : `${grouped}.${fraction}`;
    },
  );
}
