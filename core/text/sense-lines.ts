import { leans, opens } from './sense';

/** A stretch of a paragraph between two allowed breaks. Widths in units. */
export interface Unbroken {
  /** Without the spaces at its end, as it is at the end of a line. */
  readonly ink: number;
  readonly whole: number;
  readonly text: string;
}

/** Lines of a paragraph: for each the index behind its last stretch. */
export interface SenseLines {
  readonly ends: readonly (readonly number[])[];
  readonly lines: number;
  readonly widest: number;
  /** What is lost in being read: 0 for lines that are even and end where the sense does. */
  readonly cost: number;
}

/** Costs of a line: for its raggedness, a word at its end that leans on the next, a word that stands alone. */
const RAGGED = 0.3;
const LEANS = 0.28;
const ALONE = 0.12;
/** The last line's word alone, where it is short besides. */
const WIDOW = 0.3;
const WIDOW_SHARE = 0.6;
/** A line more has to make the words larger by this. */
const LINE = 0.03;
/** What a line is worth that ends with a mark, or whose next begins with a word before which one breathes. */
const ENDS_WITH_MARK = -0.06;
const OPENS_NEXT = -0.05;

const MARK = /[,.;:!?…–—、，。；：]["”’»')\]]*$/u;

function lineCost(words: readonly Unbroken[], from: number, to: number, width: number, limit: number): number {
  const isLast = to === words.length;
  let cost = LINE + RAGGED * ((limit - width) / limit) ** 2;
  const isAlone = to - from === 1 && words.length > 2;
  if (isAlone) cost += isLast && width < WIDOW_SHARE * limit ? WIDOW : ALONE;
  if (isLast) return cost;
  const end = words[to - 1]!.text;
  if (MARK.test(end)) return cost + ENDS_WITH_MARK;
  if (leans(end)) return cost + LEANS;
  return opens(words[to]!.text) ? cost + OPENS_NEXT : cost;
}

/** The best lines of one paragraph no wider than a limit, by dynamic programming over its breaks. */
function breakParagraph(words: readonly Unbroken[], limit: number): { ends: number[]; widest: number; cost: number } {
  const best = [0, ...words.map(() => Infinity)];
  const from = words.map(() => 0);
  const wide = words.map(() => 0);
  for (let to = 1; to <= words.length; to++) {
    let width = words[to - 1]!.ink;
    for (let start = to - 1; start >= 0; start--) {
      if (start < to - 1) width += words[start]!.whole;
      if (width > limit && start < to - 1) break;
      const cost = best[start]! + lineCost(words, start, to, width, Math.max(limit, width));
      if (cost < best[to]!) [best[to], from[to - 1], wide[to - 1]] = [cost, start, width];
    }
  }
  const ends: number[] = [];
  let widest = 0;
  for (let to = words.length; to > 0; to = from[to - 1]!) {
    ends.unshift(to);
    widest = Math.max(widest, wide[to - 1]!);
  }
  return { ends, widest, cost: best[words.length]! };
}

/** Lines that end where the sense does and are even, none wider than the limit where words allow it. */
export function senseLines(paragraphs: readonly (readonly Unbroken[])[], limit: number): SenseLines {
  const broken = paragraphs.map((words) => breakParagraph(words, limit));
  return {
    ends: broken.map((b) => b.ends),
    lines: broken.reduce((sum, b) => sum + Math.max(1, b.ends.length), 0),
    widest: Math.max(1, ...broken.map((b) => b.widest)),
    cost: broken.reduce((sum, b) => sum + b.cost, 0),
  };
}
