import { beforeAll, describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { FONT_FAMILY_IDS, createLayoutCache, fileForCodePoint, filesForText, layoutText } from '@core/text';
import type { FontLibrary, TextStyle } from '@core/text';
import { testFonts, testTextStyle as style } from '../../tests/helpers/fonts';
import { transformOutline } from './outline-path';

const SCRIPTS = {
  latin: 'Puerto Lumo',
  arabic: 'أسبوع الطائرات',
  hebrew: 'שבוע העפיפונים',
  devanagari: 'पतंग सप्ताह',
  japanese: '風の九日間',
  cyrillic: 'Неделя змеев',
};
let fonts: FontLibrary;

beforeAll(async () => {
  fonts = testFonts();
  for (const text of Object.values(SCRIPTS)) await fonts.load(style.family, false, text);
  await fonts.load('fraunces', true, 'Wind');
  for (const family of ['fraunces', 'recursive', 'oswald']) await fonts.load(family, false, 'Wind');
});

describe('shipped fonts', () => {
  it('are at least twelve families, each with Latin letters', () => {
    expect(FONT_FAMILY_IDS.length).toBeGreaterThanOrEqual(12);
    for (const id of FONT_FAMILY_IDS) expect(fileForCodePoint(fonts.manifest, id, false, 400, 0x61)).not.toBeNull();
  });
  it('name each file a text needs once, fallbacks included', () => {
    const files = filesForText(fonts.manifest, 'bricolage-grotesque', false, 'abc אבג abc');
    expect(new Set(files.map((f) => f.path)).size).toBe(files.length);
    expect(files.map((f) => f.family)).toContain('rubik');
  });
});

describe('layout', () => {
  it.each(Object.entries(SCRIPTS))('draws every letter of %s', (_script, text) => {
    const layout = layoutText(text, style, fonts);
    expect(layout.path.length).toBeGreaterThan(100);
    const clusters = new Set(layout.glyphs.map((g) => g.index));
    expect(Math.max(...clusters)).toBeLessThan(text.length);
    expect(layout.lines[0]!.width).toBeGreaterThan(500);
  });
  it('joins Arabic letters: the word is narrower than its letters alone', () => {
    const word = layoutText('عين', style, fonts).lines[0]!.width;
    const apart = [...'عين'].reduce((sum, letter) => sum + layoutText(letter, style, fonts).lines[0]!.width, 0);
    expect(word).toBeLessThan(apart * 0.95);
  });
  it('sets right-to-left text from the right: the first letter has the largest x', () => {
    const { glyphs } = layoutText('אבג', style, fonts);
    const first = glyphs.find((g) => g.index === 0)!;
    expect(first.x).toBe(Math.max(...glyphs.map((g) => g.x)));
  });
  it('keeps a Latin word in reading order inside Hebrew', () => {
    const { glyphs } = layoutText('אב abc גד', style, fonts);
    const x = (index: number) => glyphs.find((g) => g.index === index)!.x;
    expect(x(3)).toBeLessThan(x(4));
    expect(x(0)).toBeGreaterThan(x(5));
    expect(x(7)).toBeLessThan(x(3));
  });
  it('kerns: AV is closer than A and V', () => {
    const width = (text: string) => layoutText(text, style, fonts).lines[0]!.width;
    expect(width('AV')).toBeLessThan(width('A') + width('V') - 5);
  });
  it('adds tracking between letters and not behind the last', () => {
    const plain = layoutText('nine', style, fonts).lines[0]!.width;
    expect(layoutText('nine', { ...style, tracking: 0.1 }, fonts).lines[0]!.width).toBeCloseTo(plain + 300, 3);
  });
  it('grows heavier with the weight axis', () => {
    const box = (weight: number) => layoutText('wind', { ...style, weight }, fonts).lines[0]!.width;
    expect(box(800)).toBeGreaterThan(box(300));
  });
  it('uses the italic where the family has one', () => {
    const roman = layoutText('Wind', { ...style, family: 'fraunces' }, fonts).path;
    expect(layoutText('Wind', { ...style, family: 'fraunces', italic: true }, fonts).path).not.toBe(roman);
  });
  it('aligns: left starts at 0, right ends at 0, centre is even', () => {
    const line = (align: TextStyle['align']) => layoutText('kite', { ...style, align }, fonts).lines[0]!;
    expect(line('left').x).toBe(0);
    expect(line('right').x + line('right').width).toBeCloseTo(0, 9);
    expect(line('center').x).toBeCloseTo(-line('center').width / 2, 9);
  });
  it('centres capitals: half the cap height lies above the origin', () => {
    const { glyphs, lines } = layoutText('K', style, fonts);
    expect(glyphs).toHaveLength(1);
    expect(lines[0]!.baseline).toBeGreaterThan(300);
    expect(lines[0]!.baseline).toBeLessThan(400);
  });
  it('grows narrower, leans and changes with the other axes, as far as the font has them', () => {
    const at = (family: string, axes: TextStyle['axes']) => layoutText('Wind', { ...style, family, axes }, fonts);
    expect(at('bricolage-grotesque', { width: 75 }).lines[0]!.width).toBeLessThan(
      at('bricolage-grotesque', {}).lines[0]!.width * 0.92,
    );
    expect(at('recursive', { lean: 12 }).path).not.toBe(at('recursive', {}).path);
    expect(at('recursive', { further: [0, 1] }).path).not.toBe(at('recursive', { further: [1, 0] }).path);
    expect(at('fraunces', { opticalSize: 9 }).path).not.toBe(at('fraunces', { opticalSize: 144 }).path);
    // Beyond its limits an axis stands at its end; an axis that a font has not changes nothing.
    expect(at('recursive', { lean: 80 }).path).toBe(at('recursive', { lean: 15 }).path);
    expect(at('oswald', { width: 50, lean: 10, opticalSize: 12, further: [1, 1, 1] }).path).toBe(at('oswald', {}).path);
  });
  it('stands on the edge asked for, measured as asked', () => {
    const at = (trim: TextStyle['trim'], stands: TextStyle['stands'], text = 'one\ntwo') =>
      layoutText(text, { ...style, trim, stands }, fonts);
    for (const trim of ['capitals', 'small', 'full'] as const) {
      expect(at(trim, 'top').edges.top).toBe(0);
      expect(at(trim, 'bottom').edges.bottom).toBeCloseTo(0, 9);
      expect(at(trim, 'middle').edges.top).toBeCloseTo(-at(trim, 'middle').edges.bottom, 9);
      const { edges, lines } = at(trim, 'top');
      expect(lines[1]!.baseline - lines[0]!.baseline).toBeCloseTo(style.leading * 1000, 6);
      expect(edges.bottom >= lines[1]!.baseline - 1e-9).toBe(true);
    }
    expect(at('capitals', 'bottom').lines[1]!.baseline).toBeCloseTo(0, 9);
    const firstLine = (trim: TextStyle['trim']) => at(trim, 'top').lines[0]!.baseline;
    expect(firstLine('small')).toBeLessThan(firstLine('capitals'));
    expect(firstLine('capitals')).toBeLessThan(firstLine('full'));
  });
  it('never drops a character when wrapping, and keeps to the width unless a single letter is wider', () => {
    const words = fc.array(fc.constantFrom('wind', 'kite', 'a', 'harbour', 'nine', 'of', 'string'), {
      minLength: 1,
      maxLength: 14,
    });
    fc.assert(
      fc.property(words, fc.double({ min: 0.2, max: 12, noNaN: true }), (list, wrapWidth) => {
        const text = list.join(' ');
        const { lines } = layoutText(text, { ...style, wrapWidth }, fonts);
        const kept = lines.map((l) => text.slice(l.start, l.end) + (l.cutsWord ? '' : ' ')).join('');
        return kept.trim() === text && lines.every((l) => l.width <= wrapWidth * 1000 + 1e-3 || l.end - l.start === 1);
      }),
      { numRuns: 40 },
    );
  });
  it('breaks where typed, also for an empty line', () => {
    expect(layoutText('one\n\ntwo', style, fonts).lines).toHaveLength(3);
  });
  it('draws nothing for nothing', () => {
    expect(layoutText('', style, fonts)).toMatchObject({ path: '', glyphs: [] });
  });
  it('is laid out anew when a font arrives', async () => {
    const fresh = testFonts();
    const layout = createLayoutCache(fresh);
    expect(layout('kite', style).layout.path).toBe('');
    await fresh.load(style.family, false, 'kite');
    expect(layout('kite', style).layout.path).not.toBe('');
    expect(layout('kite', style).layout).toBe(layout('kite', style).layout);
  });
});

it('moves and scales an outline, y turned over', () => {
  expect(transformOutline('M10,20L30,-40Q1,2,3,4Z', 2, -1, 100, 0)).toBe('M120 -20 L160 40 Q102 -2 106 -4 Z');
});
