import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { runsRightToLeft, shorterForms } from '@core/text';

const graphemes = (text: string): number => [...new Intl.Segmenter().segment(text)].length;

describe('shorter forms', () => {
  it('of a name lose the middle first, then the first name', () => {
    expect([...shorterForms('Maximiliana Josefina Vardal')].slice(0, 4)).toEqual([
      'Maximiliana J. Vardal',
      'M. J. Vardal',
      'Maximiliana Vardal',
      'M. Vardal',
    ]);
  });
  it('keep particles with the family name', () => {
    expect([...shorterForms('Oona van der Castell')][0]).toBe('O. van der Castell');
  });
  it('of a double first name keep both letters', () => {
    expect([...shorterForms('Anne-Marie Vardal')][0]).toBe('A.-M. Vardal');
  });
  it('of other words end in an ellipsis at the end of a word, without loose marks', () => {
    expect([...shorterForms('kite maker, and pilot')].slice(0, 2)).toEqual(['kite maker, and…', 'kite maker…']);
  });
  it('are never the text itself, end in a single letter, and are never longer than it', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', minLength: 2, maxLength: 40 }), (text) => {
        const plain = text.replace(/\s+/gu, ' ').trim();
        for (const form of shorterForms(text)) {
          expect(form).not.toBe(plain);
          expect(graphemes(form)).toBeLessThanOrEqual(graphemes(plain) + 1);
        }
      }),
    );
  });
});

describe('words run from right to left', () => {
  it('by their first strong letter', () => {
    expect(runsRightToLeft('نور')).toBe(true);
    expect(runsRightToLeft('  «תמר» Levi')).toBe(true);
    expect(runsRightToLeft('12 Teo תמר')).toBe(false);
    expect(runsRightToLeft('12 – !')).toBe(false);
  });
});
