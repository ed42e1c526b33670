import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { bestSplit, readingTime, splitPhrases } from '@core/text';

const QUOTE =
  'A kite is a question you ask the wind. Some days it answers at once; some days you stand on the harbour wall with a cold hand and a slack string, and you learn to wait.';

describe('splitting into phrases', () => {
  it('parts at sentences and clauses, and long clauses where one breathes', () => {
    expect(splitPhrases(QUOTE)).toEqual([
      'A kite is a question',
      'you ask the wind.',
      'Some days it answers at once;',
      'some days you stand',
      'on the harbour wall',
      'with a cold hand',
      'and a slack string,',
      'and you learn to wait.',
    ]);
  });

  it('never leaves an article, a short preposition or a possessive at the end of a phrase', () => {
    const words = [
      'the',
      'a',
      'of',
      'my',
      'to',
      'kite',
      'harbour',
      'string',
      'wind',
      'lamp',
      'holds',
      'answers',
      'slowly',
    ];
    const leaning = new Set(['the', 'a', 'of', 'my', 'to']);
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...words), { minLength: 1, maxLength: 40 }), (list) => {
        const phrases = splitPhrases(list.join(' '));
        for (const phrase of phrases.slice(0, -1)) {
          // Only a run of leaning words that reaches back to the first word can leave no other choice.
          const last = phrase.split(' ').pop()!;
          if (leaning.has(last)) expect(phrase.split(' ').every((w) => leaning.has(w))).toBe(true);
        }
      }),
      { seed: 4 },
    );
  });

  it('loses and adds no word, whatever the text', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 200 }), (text) => {
        expect(splitPhrases(text).join('').replace(/\s/gu, '')).toBe(text.replace(/\s/gu, ''));
      }),
      { seed: 5 },
    );
  });

  it('leaves numbers and initials whole, takes typed lines as they are, and joins a lone first word to its clause', () => {
    expect(splitPhrases('T. Marsh flew 3.5 miles.')).toEqual(['T. Marsh flew 3.5 miles.']);
    expect(splitPhrases('Nine days\nof wind')).toEqual(['Nine days', 'of wind']);
    expect(splitPhrases('Yes, it flies.')).toEqual(['Yes, it flies.']);
  });

  it('parts scripts without spaces where lines may break', () => {
    const parts = splitPhrases('風がこたえるまで港の壁に立って糸を持って待つ。それが凧だ。');
    expect(parts.length).toBeGreaterThan(2);
    expect(parts.every((p) => [...p].length <= 20)).toBe(true);
    expect(parts[parts.length - 1]).toBe('それが凧だ。');
  });

  it('finds a gap near the middle that leaves no article behind', () => {
    expect(bestSplit('you stand on the harbour wall')).toBe('you stand'.length);
    expect(bestSplit('wind')).toBeNull();
  });
});

describe('reading time', () => {
  it('is the noticing alone for nothing, grows with words and with long words, and follows the pace', () => {
    expect(readingTime('')).toBe(0);
    expect(readingTime('wind')).toBeCloseTo(0.43 + 60 / 238, 6);
    expect(readingTime('a kite is a question')).toBeCloseTo(0.43 + (5 * 60) / 238, 6);
    // Characters rule where words are long: 29 characters at 20 a second, and five letters beyond eight.
    expect(readingTime('harbourmaster lanterns bright')).toBeCloseTo(0.43 + 29 / 20 + 5 * 0.03, 6);
    expect(readingTime('nine days of wind', 'calm') - 0.43).toBeCloseTo(
      (readingTime('nine days of wind') - 0.43) * 1.4,
      6,
    );
  });

  it('never shrinks when words are added', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('kite', 'harbourmaster', 'of', 'wind', '風'), { minLength: 1, maxLength: 30 }),
        (words) => {
          expect(readingTime(words.join(' '))).toBeGreaterThanOrEqual(readingTime(words.slice(0, -1).join(' ')));
        },
      ),
      { seed: 6 },
    );
  });
});
