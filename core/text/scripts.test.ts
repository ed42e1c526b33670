import { readFileSync } from 'node:fs';
import * as hb from 'harfbuzzjs';
import { describe, expect, it } from '@jest/globals';
import {
  createFontLibrary,
  createHarfBuzzFace,
  hanFamilyFor,
  layoutText,
  letterClusters,
  lineBreaks,
} from '@core/text';
import type { FontLibrary, HarfBuzz, TextStyle } from '@core/text';
import { testFonts, testTextStyle as style } from '../../tests/helpers/fonts';
import { readColourGlyphs } from './colour-glyphs';

const fonts: FontLibrary = testFonts();
const laid = async (text: string, more: Partial<TextStyle> = {}) => {
  await fonts.load(style.family, false, text);
  return layoutText(text, { ...style, ...more }, fonts);
};

describe('letters of the world', () => {
  it.each([
    ['Greek', 'Εβδομάδα χαρταετών'],
    ['Thai', 'สัปดาห์ว่าว'],
    ['Korean', '연 주간'],
    ['Chinese, simplified', '欧阳晓雯'],
    ['Chinese, traditional', '臺灣風箏節'],
    ['Bengali', 'ঘুড়ি সপ্তাহ'],
    ['Tamil', 'காற்றாடி வாரம்'],
    ['Telugu', 'గాలిపటం'],
    ['Kannada', 'ಗಾಳಿಪಟ'],
    ['Malayalam', 'പട്ടം'],
    ['Gujarati', 'પતંગ'],
    ['Punjabi', 'ਪਤੰਗ'],
    ['Sinhala', 'සරුංගල්'],
    ['Georgian', 'ქართული'],
    ['Armenian', 'Հայերեն'],
    ['Ethiopic', 'አማርኛ'],
    ['Khmer', 'ខ្លែង'],
    ['Lao', 'ວ່າວ'],
    ['Burmese', 'စွန်'],
    ['signs', '₿ ₺ ⅓ ∞ ≈ → ☎ ♪'],
    ['marks', 'x̱ ẹ̄ m̃ Å'],
  ])('%s is drawn, every letter by a font that has it', async (_, text) => {
    const { missing, glyphs, hasColours } = await laid(text);
    expect(missing).toEqual([]);
    expect(hasColours).toBe(false);
    const drawn = new Set(glyphs.filter((glyph) => glyph.path !== '').map((glyph) => glyph.index));
    for (const { start, text: letter } of letterClusters(text))
      if (letter.trim() !== '' && !/\p{M}/u.test(letter)) expect([letter, drawn.has(start)]).toEqual([letter, true]);
  });

  it('takes all Han letters of a paragraph from one family, by its other letters or by what it has', () => {
    const { manifest } = fonts;
    expect(hanFamilyFor(manifest, '欧阳晓雯')).toBe('noto-sans-sc');
    expect(hanFamilyFor(manifest, '山田太郎')).toBe('noto-sans-jp');
    expect(hanFamilyFor(manifest, '山田さん')).toBe('noto-sans-jp');
    expect(hanFamilyFor(manifest, '李舜臣 장군')).toBe('noto-sans-kr');
    expect(hanFamilyFor(manifest, '李ㄌㄧˇ')).toBe('noto-sans-tc');
  });

  it('loads what parts of a Chinese name need that are set by themselves', async () => {
    const fresh = testFonts();
    await fresh.load(style.family, false, '欧阳晓雯');
    for (const part of ['欧阳', '晓雯', '雯', '阳'])
      expect([part, layoutText(part, style, fresh).missing]).toEqual([part, []]);
  });
});

describe('a letter that no font has', () => {
  it('is a box, and is named', async () => {
    const { missing, glyphs, lines } = await laid('A\u{E001}B');
    expect(missing).toEqual([1]);
    expect(glyphs).toHaveLength(3);
    expect(glyphs[1]!.path.match(/Z/g)).toHaveLength(2);
    expect(lines[0]!.width).toBeGreaterThan((await laid('AB')).lines[0]!.width + 400);
  });
  it('is a box in words that run from right to left too, where it stands', async () => {
    const { glyphs } = await laid('א\u{E001}ב');
    const at = (index: number) => glyphs.find((glyph) => glyph.index === index)!.x;
    expect(at(0)).toBeGreaterThan(at(1));
    expect(at(1)).toBeGreaterThan(at(2));
  });
  it('is nothing while its font is on its way', () => {
    const fresh = testFonts();
    const { glyphs, missing } = layoutText('ว่าว', style, fresh);
    expect(glyphs).toEqual([]);
    expect(missing.length).toBeGreaterThan(0);
  });
  it('is a box too where there are no fonts at all', () => {
    const none = createFontLibrary({} as never, { files: [], families: {} }, () => Promise.reject(new Error('none')));
    expect(layoutText('ab', style, none).glyphs).toHaveLength(2);
  });
});

describe('emoji', () => {
  it('are one cluster each, whatever they are put together from', () => {
    const emoji = ['😀', '👩‍🚀', '🇪🇸', '❤️', '👍🏽', '1️⃣', '🏴󠁧󠁢󠁷󠁬󠁳󠁿', '❤️‍🔥'];
    expect(letterClusters(emoji.join('')).map(({ text, isEmoji }) => [text, isEmoji])).toEqual(
      emoji.map((text) => [text, true]),
    );
    for (const text of ['a', '1', '#', '☎', '❤', '☎︎', 'é'])
      expect([text, letterClusters(text).map((c) => c.isEmoji)]).toEqual([text, [false]]);
  });
  it('are drawn in colours of their own, one glyph each, and leave the words beside them alone', async () => {
    const { glyphs, hasColours, missing } = await laid('Go 🪁👩‍🚀!');
    expect([hasColours, missing]).toEqual([true, []]);
    const coloured = glyphs.filter((glyph) => glyph.colours);
    expect(coloured.map((glyph) => glyph.index)).toEqual([3, 5]);
    for (const { colours, path } of coloured) {
      expect(path).toBe('');
      expect(new Set(colours!.map((layer) => layer.colour)).size).toBeGreaterThan(1);
      expect(colours!.every((layer) => layer.path.startsWith('M'))).toBe(true);
    }
    expect(glyphs.filter((glyph) => glyph.path !== '').map((glyph) => glyph.index)).toEqual([0, 1, 10]);
  });
  it('are drawn also where the memory of the engine moves between its tables', () => {
    const bytes = readFileSync('dist/fonts/twemoji/twemoji.ttf');
    let memory = new Uint8Array(0);
    // As the engine does: what was handed out before is gone once it has handed out more.
    const engine = {
      ...hb,
      Face: class extends hb.Face {
        override referenceTable(tag: string): Uint8Array | undefined {
          const table = super.referenceTable(tag)?.slice();
          if (!table) return undefined;
          structuredClone(memory.buffer, { transfer: [memory.buffer] });
          memory = table;
          return memory;
        }
      },
    };
    const face = createHarfBuzzFace(engine as unknown as HarfBuzz, 'emoji', bytes);
    const [glyph] = face.shape('🪁', { rtl: false, setting: { weight: 400 } });
    expect(face.coloursOf?.(glyph!.glyphId)?.length).toBeGreaterThan(3);
  });
  it('of a broken font are none: tables that point outside themselves', () => {
    const colr = new Uint8Array(40);
    const view = new DataView(colr.buffer);
    view.setUint16(2, 1);
    view.setUint32(4, 14);
    view.setUint32(8, 36);
    view.setUint16(12, 50);
    view.setUint16(14, 7);
    view.setUint16(18, 50);
    const cpal = new Uint8Array([0, 0, 0, 1, 0, 1, 0, 1, 0, 0, 0, 90, 0, 0]);
    expect(readColourGlyphs(colr, cpal)!(7)).toEqual([{ glyphId: 0, colour: null }]);
    expect(readColourGlyphs(colr, cpal)!(8)).toBeNull();
    view.setUint32(4, 4000);
    expect(readColourGlyphs(colr, cpal)).toBeNull();
    expect(readColourGlyphs(colr.subarray(0, 9), cpal)).toBeNull();
  });
});

describe('lines', () => {
  const parts = (text: string) => {
    const ends = lineBreaks(text);
    return ends.map((end, i) => text.slice(ends[i - 1] ?? 0, end));
  };
  it('of Thai, Lao, Khmer and Burmese end between words of a dictionary', () => {
    expect(parts('สัปดาห์ว่าวเก้าวัน')).toEqual(['สัปดาห์', 'ว่าว', 'เก้า', 'วัน']);
    expect(parts('ອາທິດວ່າວ')).toEqual(['ອາທິດ', 'ວ່າວ']);
    for (const text of ['ការហោះហើរខ្លែង', 'စွန်ပွဲတော်ရက်သတ္တပတ်']) expect(parts(text).length).toBeGreaterThan(1);
  });
  it('of Korean end between words, also beside Han letters', () => {
    expect(parts('연 주간은 바람이다')).toEqual(['연 ', '주간은 ', '바람이다']);
  });
  it('cut a word that is longer than they are, between letters and with their marks', async () => {
    const text = 'Sturmvogelpfad e\u0301e\u0301e\u0301e\u0301e\u0301e\u0301';
    const { lines } = await laid(text, { wrapWidth: 2 });
    expect(lines.length).toBeGreaterThan(3);
    for (const { start, end, width } of lines) {
      expect(width).toBeLessThanOrEqual(2000.001);
      expect(text[end]).not.toBe('\u0301');
      expect(text[start]).not.toBe('\u0301');
    }
  });
});
