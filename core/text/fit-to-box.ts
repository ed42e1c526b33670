import type { FontLibrary } from './font-library';
import { lineBreaks } from './line-breaks';
import { itemiseStyled, lineWidth, shapeLine, trimEnd } from './shape-lines';
import { UNITS, metricsOf, trimmedEdges } from './text-style';
import type { FitBox, TextStyle } from './text-style';

/** Room below the last baseline for descenders, of the cap height. */
const DESCENT_SHARE = 0.3;
/** More lines than this beyond the fewest never make words larger in any box that people use. */
const MOST_EXTRA_LINES = 24;

/** Widths of the pieces between allowed breaks, so that a breaking can be judged without shaping every line anew. */
function breakWidths(
  text: string,
  offset: number,
  style: TextStyle,
  fonts: FontLibrary,
): { ink: number; whole: number }[] {
  const item = itemiseStyled(text, offset, style, fonts);
  const out: { ink: number; whole: number }[] = [];
  let start = 0;
  for (const next of lineBreaks(text)) {
    const width = (end: number) => lineWidth(shapeLine(text, item, start, end, style));
    out.push({ ink: width(trimEnd(text, start, next)), whole: width(next) });
    start = next;
  }
  return out;
}

/**
 * The largest size at which a text fits a box, and the wrapping width that gives it. For each number of lines the
 * narrowest width that needs no more is found by bisection, which also balances the lines; the number whose size is
 * largest wins, fewer at a tie.
 */
export function fitToBox(
  text: string,
  style: TextStyle,
  box: FitBox,
  fonts: FontLibrary,
): { size: number; wrapWidth: number } {
  const paragraphs: { ink: number; whole: number }[][] = [];
  let offset = 0;
  for (const paragraph of text.split('\n')) {
    paragraphs.push(breakWidths(paragraph, offset, style, fonts));
    offset += paragraph.length + 1;
  }
  const inks = paragraphs.flat().map((w) => w.ink);
  const widestPiece = Math.max(1, ...inks);
  const widestLine = Math.max(widestPiece, ...paragraphs.map((p) => p.reduce((sum, w) => sum + w.whole, 0)));
  const breaking = (limit: number): { lines: number; widest: number } => {
    let lines = 0;
    let widest = 0;
    for (const pieces of paragraphs) {
      let x = 0;
      lines++;
      for (const piece of pieces) {
        if (x > 0 && x + piece.ink > limit) {
          lines++;
          x = 0;
        }
        widest = Math.max(widest, x + piece.ink);
        x += piece.whole;
      }
    }
    return { lines, widest };
  };
  const metrics = metricsOf(style, fonts);
  const { above, below } = trimmedEdges(style.trim ?? 'capitals', metrics);
  const lineHeight = above + Math.max(below, metrics.capHeight * DESCENT_SHARE);
  const height = (lines: number) => lineHeight + (lines - 1) * style.leading * UNITS;
  const fewest = breaking(widestLine + 1).lines;
  const most = Math.min(breaking(widestPiece).lines, fewest + MOST_EXTRA_LINES);
  let best = { size: 0, wrapWidth: widestLine / UNITS + 0.01 };
  for (let lines = fewest; lines <= most; lines++) {
    let [low, high] = [widestPiece, widestLine + 1];
    for (let i = 0; i < 22; i++) {
      const middle = (low + high) / 2;
      if (breaking(middle).lines <= lines) high = middle;
      else low = middle;
    }
    const { widest } = breaking(high);
    const size = Math.min(box.maxSize, (box.width / widest) * UNITS, (box.height / height(lines)) * UNITS);
    if (size > best.size * 1.001) best = { size, wrapWidth: (high + 0.5) / UNITS };
  }
  return { size: Math.max(1, best.size), wrapWidth: best.wrapWidth };
}
