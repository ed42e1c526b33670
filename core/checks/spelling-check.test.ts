import { readFileSync } from 'node:fs';
import { describe, expect, it } from '@jest/globals';
import nspell from 'nspell';
import { DICTIONARIES, runThrough, spellingOf } from '@core/checks';
import { applyEdits, createLayer, resolveTimes } from '@core/piece';
import type { Piece } from '@core/piece';
import { freeMoment } from '@core/time';
import { countingIds, newPiece } from '../../tests/helpers/documents';

const ids = countingIds('s');
const read = (name: string, end: string): Buffer => readFileSync(`node_modules/dictionary-${name}/index.${end}`);
const spelling = spellingOf(DICTIONARIES.map((name) => nspell(read(name, 'aff'), read(name, 'dic'))));
const noWords = (): never => {
  throw new Error('nothing is laid out');
};
const pieceOf = (...texts: string[]): Piece => ({
  ...newPiece('Words'),
  layers: texts.map((text) =>
    createLayer(
      'text',
      { name: text, start: freeMoment(0), end: freeMoment(4), content: { text, family: 'syne' } },
      ids,
    ),
  ),
});
const found = (piece: Piece) =>
  runThrough({ piece, times: resolveTimes(piece, null), layoutText: noWords, spelling }, ['spelling']);
const told = (...texts: string[]): string[] => found(pieceOf(...texts)).map(({ text }) => text);

describe('spelling', () => {
  it('names words that no dictionary has, each once, with what was likely meant', () => {
    expect(told('You will recieve a kite', 'recieve it now')).toEqual([
      '“recieve” isn’t in the dictionary. Is “receive” meant?',
    ]);
    expect(told('THE WIND WILL RECIEVE YOU')).toEqual(['“RECIEVE” isn’t in the dictionary. Is “RECEIVE” meant?']);
  });
  it('knows both spellings of English, typed apostrophes, and plurals', () => {
    expect(told('every colour of the harbour', 'every color of the harbor', 'we don’t see kites')).toEqual([]);
  });
  it('leaves alone names, abbreviations, addresses, numbers and other languages', () => {
    expect(
      told(
        'Inés Vardal flies',
        'TEO MARSH',
        'follow @saltandstrng on kites.exmple',
        'the 3rd wk2 in ABCD',
        'der wind trägt unsere drachen weit hinaus',
        'ветер несёт змея',
      ),
    ).toEqual([]);
  });
  it('is mended by the first fix, in the letters of the word, and taken for right by the second', () => {
    const piece = pieceOf('We recieve what you recieve, not recieved things');
    const [first] = found(piece);
    const after = (i: number): Piece => applyEdits(piece, [...first!.fixes[i]!.edits], resolveTimes(piece, null)).piece;
    expect(after(0).layers[0]).toMatchObject({ content: { text: 'We receive what you receive, not recieved things' } });
    expect(after(1).ownWords).toEqual(['recieve']);
    expect(found(after(1)).map(({ text }) => text.slice(0, 10))).toEqual(['“recieved”']);
  });
  it('is not looked at without a dictionary', () => {
    const piece = pieceOf('recieve');
    expect(runThrough({ piece, times: resolveTimes(piece, null), layoutText: noWords }, ['spelling'])).toEqual([]);
  });
});
