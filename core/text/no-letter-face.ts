import type { FaceMetrics, ShapedGlyph, ShapingFace } from './shaper';

/** Advance and box of what stands for a letter that no font has; thousandths of an em, y up. */
const ADVANCE = 640;
const BOX = { left: 60, right: 580, bottom: 0, top: 700, line: 48 };
const METRICS: FaceMetrics = { unitsPerEm: 1000, ascender: 800, descender: -200, capHeight: 700, xHeight: 500 };

const { left, right, bottom, top, line } = BOX;
/** An empty box. The inner edge runs against the outer one, so that either rule of filling leaves it empty. */
const OUTLINE =
  `M${left} ${bottom}L${right} ${bottom}L${right} ${top}L${left} ${top}Z` +
  `M${left + line} ${bottom + line}L${left + line} ${top - line}L${right - line} ${top - line}L${right - line} ${bottom + line}Z`;

/** Draws a box for each letter that no font has, so that it is seen to be missing instead of closing up. */
export const NO_LETTER_FACE: ShapingFace = {
  id: 'no-letter',
  axes: [],
  metrics: () => METRICS,
  has: () => true,
  shape(text, { rtl }) {
    const glyphs: ShapedGlyph[] = [];
    let index = 0;
    for (const char of text) {
      if (!/\p{M}/u.test(char) || index === 0)
        glyphs.push({ glyphId: 1, cluster: index, advance: ADVANCE, xOffset: 0, yOffset: 0 });
      index += char.length;
    }
    return rtl ? glyphs.reverse() : glyphs;
  },
  outline: () => OUTLINE,
};
