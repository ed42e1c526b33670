import { beforeAll, describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { TextRoom } from '@core/piece';
import { UNITS, createLayoutCache } from '@core/text';
import type { TextStyle } from '@core/text';
import { testFonts } from '../../../tests/helpers/fonts';
import { setInRoom } from './in-room';

const fonts = testFonts();
let layoutText: ReturnType<typeof createLayoutCache>;
const STYLE: TextStyle = {
  family: 'spline-sans',
  italic: false,
  weight: 600,
  tracking: 0,
  leading: 1.1,
  align: 'left',
  wrapWidth: null,
};
const ROOM: TextRoom = { width: 600, lines: 2, leastSize: 30, ways: ['shrink', 'wrap', 'abbreviate'] };
const setIn = (text: string, room: Partial<TextRoom> = {}) =>
  setInRoom(layoutText, layoutText(text, STYLE).key, text, STYLE, 60, { ...ROOM, ...room });
const widest = (set: ReturnType<typeof setIn>): number =>
  (Math.max(...set.layout.lines.map((line) => line.width)) / UNITS) * set.size;

beforeAll(async () => {
  await fonts.load('spline-sans', false, 'abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ.…- é');
  layoutText = createLayoutCache(fonts);
});

describe('words in a room', () => {
  it('stay as they are where there is room', () => {
    expect(setIn('Bo Li')).toMatchObject({ text: 'Bo Li', size: 60, isTooLong: false });
  });
  it('shrink first, on the line they have', () => {
    const set = setIn('Maximiliana Vardal of Lumo');
    expect(set.layout.lines).toHaveLength(1);
    expect(set.size).toBeLessThan(60);
    expect(set.size).toBeGreaterThanOrEqual(30);
    expect(widest(set)).toBeLessThanOrEqual(601);
  });
  it('wrap next, and are then as large as they come', () => {
    const set = setIn('Maximiliana Josefina Vardal of the harbour of Puerto Lumo');
    expect(set.layout.lines).toHaveLength(2);
    expect(set.text).toContain('Puerto Lumo');
    expect(set.size).toBeGreaterThan(30);
  });
  it('are shortened last', () => {
    const set = setIn('Maximiliana Josefina Echeverria Vardal Castell Marsh', { lines: 1 });
    expect(set.text).toMatch(/^Maximiliana .*Marsh$/);
    expect(set.text.length).toBeLessThan(52);
    expect(set.isTooLong).toBe(false);
  });
  it('are too long where nothing of it is allowed', () => {
    expect(setIn('Maximiliana Josefina Vardal of Lumo', { ways: [] })).toMatchObject({ isTooLong: true });
  });
  it('never reach over it but where they are told to be too long', () => {
    const word = fc.string({ unit: fc.constantFrom(...'aeinorstéWM'), minLength: 1, maxLength: 14 });
    fc.assert(
      fc.property(
        fc.array(word, { minLength: 1, maxLength: 9 }),
        fc.integer({ min: 60, max: 900 }),
        fc.integer({ min: 1, max: 3 }),
        fc.subarray(['shrink', 'wrap', 'abbreviate'] as const),
        (words, width, lines, ways) => {
          const set = setIn(words.join(' '), { width, lines, ways });
          expect(set.size).toBeLessThanOrEqual(60);
          expect(set.size).toBeGreaterThanOrEqual(30);
          if (set.isTooLong) return;
          expect(widest(set)).toBeLessThanOrEqual(width * 1.002);
          expect(set.layout.lines.length).toBeLessThanOrEqual(lines);
        },
      ),
      { numRuns: 120 },
    );
  });
});
