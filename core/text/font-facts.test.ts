import { describe, expect, it } from '@jest/globals';
import { readFileSync } from 'node:fs';
import * as hb from 'harfbuzzjs';
import { createFontLibrary, familyFiles, layoutText, rangesOf, readFontFacts } from '@core/text';
import type { FontLibrary, HarfBuzz, OwnFontFile, ShapingFace, TextStyle } from '@core/text';
import { testFonts } from '../../tests/helpers/fonts';
import { makeFont } from '../../tests/helpers/make-font';

const engine = hb as unknown as HarfBuzz; // core knows the engine by the part it uses
const facts = (data: Uint8Array) => readFontFacts(engine, data);
const style: TextStyle = {
  family: 'own:Lumo Block',
  italic: false,
  weight: 400,
  tracking: 0,
  leading: 1.2,
  align: 'left',
  wrapWidth: null,
};

/** The loaded face of a letter of the block font. */
function faceIn(fonts: FontLibrary, text: string): ShapingFace | null {
  const face = fonts.faceFor({ family: 'own:Lumo Block', italic: false, weight: 400 }, { text, isEmoji: false });
  return face === 'none' ? null : face;
}

describe('what a font file says of itself', () => {
  it('names, weight and slope of a made font', () => {
    const read = facts(makeFont({ family: 'Lumo Block', style: 'Bold Italic', weight: 700, italic: true }))!;
    expect(read).toMatchObject({
      family: 'Lumo Block',
      style: 'Bold Italic',
      weights: [700, 700],
      italic: true,
      axes: [],
    });
    expect(read.ranges).toEqual([32, 32, 48, 57, 65, 90, 97, 122]);
  });
  it('axes with the names the font gives them', () => {
    const read = facts(readFileSync('dist/fonts/recursive/recursive-latin-full-normal.ttf'))!;
    expect(read.axes.map((a) => [a.tag, a.name, a.min, a.max])).toEqual(
      expect.arrayContaining([
        ['slnt', 'Slant', -15, 0],
        ['CASL', 'Casual', 0, 1],
        ['wght', 'Weight', 300, 1000],
      ]),
    );
    expect(read.weights).toEqual([300, 1000]);
  });
  it('nothing for what is no font, is cut off or empty', () => {
    const whole = makeFont({ family: 'Lumo Block', style: 'Regular', weight: 400 });
    for (const bad of [
      new Uint8Array(0),
      new Uint8Array([0, 1, 0, 0]),
      new TextEncoder().encode('<svg/>'),
      whole.slice(0, 400),
      whole.map((b, i) => (i > 60 && i < 4000 ? b ^ 0x5a : b)),
    ])
      expect(facts(bad)).toBeNull();
  });
  it('joins code points to ranges', () => {
    expect(rangesOf([1, 2, 3, 7, 9, 10])).toEqual([1, 3, 7, 7, 9, 10]);
    expect(rangesOf([])).toEqual([]);
  });
});

describe('a family of several files', () => {
  const weights = [300, 400, 700, 900];
  const files = weights.map((weight): OwnFontFile => ({
    path: `own/${weight}`,
    family: 'own:Lumo Block',
    italic: false,
    weights: [weight, weight],
    axes: [],
    ranges: [32, 126],
  }));
  const manifest = { files, families: {} };
  const nearest = (weight: number) => familyFiles(manifest, 'own:Lumo Block', false, weight)[0]!.weights[0];

  it('chooses the file of a weight as CSS does', () => {
    // CSS Fonts 4, section 5.2: below 400 lighter first, above 500 heavier first, between them up to 500 first.
    expect([100, 300, 350, 400, 450, 500, 550, 800, 1000].map(nearest)).toEqual([
      300, 300, 300, 400, 400, 400, 700, 900, 900,
    ]);
    expect(familyFiles(manifest, 'own:Lumo Block', true, 700)[0]!.weights[0]).toBe(700);
  });

  it('is laid out with its own letters, others fall back', async () => {
    const shipped = testFonts();
    const fonts = shipped.withFiles(files, async (path) =>
      makeFont({ family: 'Lumo Block', style: 'x', weight: Number(path.slice(4)) }),
    );
    await fonts.load('own:Lumo Block', false, 'Wind é');
    const [light, heavy] = [300, 900].map((weight) => layoutText('Wind é', { ...style, weight }, fonts));
    expect(light!.glyphs).toHaveLength(6);
    // The stem of a block is 60 + weight / 8 units wide: W is 40 to 137 or to 212, notched at 60 + weight / 16.
    expect(light!.glyphs[0]!.path).toContain('L137 350');
    expect(heavy!.glyphs[0]!.path).toContain('L212 350');
    expect(light!.glyphs[5]!.path).not.toBe('');
    // The library it came from knows nothing of them.
    expect(faceIn(shipped, 'W')?.id.startsWith('own/')).toBe(false);
  });

  it('rejects if a file cannot be read, and reads it when asked again', async () => {
    let isAway = true;
    const fonts = createFontLibrary(engine, { files: [], families: {} }, () =>
      Promise.reject(new Error('no')),
    ).withFiles(files, async () => {
      if (isAway) throw new Error('away');
      return makeFont({ family: 'Lumo Block', style: 'x', weight: 400 });
    });
    await expect(fonts.load('own:Lumo Block', false, 'a')).rejects.toThrow('away');
    // Meanwhile nothing of it can be drawn with; with other fonts about, they stand in.
    expect(faceIn(fonts, 'a')).toBeNull();
    const shipped = testFonts().withFiles(files, () => Promise.reject(new Error('gone')));
    await expect(shipped.load('own:Lumo Block', false, 'a')).rejects.toThrow('gone');
    expect(faceIn(shipped, 'a')?.id).toMatch(/^rubik/);
    isAway = false;
    await fonts.load('own:Lumo Block', false, 'a');
    expect(fonts.isLoaded('own:Lumo Block', false, 'a')).toBe(true);
  });
});
