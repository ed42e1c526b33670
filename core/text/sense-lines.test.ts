import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { senseLines } from './sense-lines';
import type { Unbroken } from './sense-lines';

/** Words as wide as their letters, in a face where each is 10 units. */
const wordsOf = (text: string): Unbroken[] => {
  const words = text.split(' ');
  return words.map((word, i) => ({
    text: word,
    ink: word.length * 10,
    whole: (word.length + (i < words.length - 1 ? 1 : 0)) * 10,
  }));
};
const lines = (text: string, limit: number): string[] => {
  const words = text.split(' ');
  const { ends } = senseLines([wordsOf(text)], limit);
  return ends[0]!.map((end, i) => words.slice(i === 0 ? 0 : ends[0]![i - 1]!, end).join(' '));
};

describe('lines that end where the sense does', () => {
  it('do not end with a word that leans on the next where there is another way', () => {
    expect(lines('A kite is a question you ask the wind', 230)).toEqual(['A kite is a question', 'you ask the wind']);
    expect(lines('we stood on the harbour wall', 200)).toEqual(['we stood', 'on the harbour wall']);
  });

  it('end with a mark rather than before it, and leave no short word alone', () => {
    expect(lines('At first light, we let it go', 200)).toEqual(['At first light,', 'we let it go']);
    expect(lines('nobody would stay out here', 260)[0]).not.toBe('nobody would stay out');
  });

  it('are no wider than the limit unless one word is, keep every word, and cost least of all ways to break', () => {
    const word = fc.constantFrom('a', 'the', 'wind', 'harbour', 'and', 'kites,', 'of', 'question.', 'nine');
    fc.assert(
      fc.property(fc.array(word, { minLength: 1, maxLength: 8 }), fc.integer({ min: 30, max: 300 }), (texts, limit) => {
        const words = wordsOf(texts.join(' '));
        const found = senseLines([words], limit);
        const ends = found.ends[0]!;
        expect(ends[ends.length - 1]).toBe(words.length);
        const width = (from: number, to: number) =>
          words.slice(from, to - 1).reduce((sum, w) => sum + w.whole, 0) + words[to - 1]!.ink;
        for (const [i, end] of ends.entries()) {
          const from = i === 0 ? 0 : ends[i - 1]!;
          expect(end).toBeGreaterThan(from);
          if (end - from > 1) expect(width(from, end)).toBeLessThanOrEqual(limit);
        }
        // Every way there is: a set bit ends a line behind that word.
        for (let bits = 0; bits < 1 << (words.length - 1); bits++) {
          const way = [...words.keys()].map((i) => i + 1).filter((i) => i === words.length || (bits >> (i - 1)) & 1);
          const isAllowed = way.every(
            (end, i) => end - (way[i - 1] ?? 0) === 1 || width(way[i - 1] ?? 0, end) <= limit,
          );
          if (isAllowed) expect(found.cost).toBeLessThanOrEqual(costOf(words, way, limit) + 1e-9);
        }
      }),
      { seed: 61, numRuns: 150 },
    );
  });
});

/** The cost of given lines by the rules written out a second time. */
function costOf(words: readonly Unbroken[], way: readonly number[], limit: number): number {
  const lines = way.map((end, i) => words.slice(way[i - 1] ?? 0, end));
  return lines.reduce((sum, line, i) => sum + lineAlone(line, lines[i + 1]?.[0], limit, words.length), 0);
}

function lineAlone(line: readonly Unbroken[], next: Unbroken | undefined, limit: number, count: number): number {
  const width = line.slice(0, -1).reduce((sum, w) => sum + w.whole, 0) + line[line.length - 1]!.ink;
  const most = Math.max(limit, width);
  let cost = 0.03 + 0.3 * ((most - width) / most) ** 2;
  if (line.length === 1 && count > 2) cost += next || width >= 0.6 * most ? 0.12 : 0.3;
  if (!next) return cost;
  const end = line[line.length - 1]!.text;
  if (/[,.]$/.test(end)) return cost - 0.06;
  if (['a', 'the', 'and', 'of'].includes(end)) return cost + 0.28;
  return next.text === 'and' ? cost - 0.05 : cost;
}
