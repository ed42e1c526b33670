import type { FontLibrary } from './font-library';
import { lineBreaks } from './line-breaks';
import { itemiseStyled, lineWidth, shapeLine, trimEnd } from './shape-lines';
import { UNITS, metricsOf, trimmedEdges } from './text-style';
import { senseLines } from './sense-lines';
import type { Unbroken } from './sense-lines';
import type { FitBox, TextStyle } from './text-style';

/** Room below the last baseline for descenders, of the cap height. */
const DESCENT_SHARE = 0.3;
/** More lines than this beyond the fewest never make words larger in any box that people use. */
const MOST_EXTRA_LINES = 24;

/** Widths of the pieces between allowed breaks, so that a breaking can be judged without shaping every line anew. */
function breakWidths(text: string, offset: number, style: TextStyle, fonts: FontLibrary): Unbroken[] {
  const item = itemiseStyled(text, offset, style, fonts);
  const out: Unbroken[] = [];
  let start = 0;
  for (const next of lineBreaks(text)) {
    const width = (end: number) => lineWidth(shapeLine(text, item, start, end, style));
    const end = trimEnd(text, start, next);
    out.push({ ink: width(end), whole: width(next), text: text.slice(start, end) });
    start = next;
  }
  return out;
}

/** What fills a box: the size, and either the wrapping width or the lines themselves, as indices where each ends. */
export interface Fitted {
  readonly size: number;
  readonly wrapWidth: number;
  /** For each paragraph the index behind the last character of each line; null where the width decides. */
  readonly ends: readonly (readonly number[])[] | null;
}

/** Longer paragraphs than this are wrapped without regard to their sense, which is for what stands large in a frame. */
const MOST_SENSE = 120;

/**
 * The largest size at which a text fits a box, with lines that are balanced or, where the box asks for it, that end
 * where the sense does.
 */
export function fitToBox(text: string, style: TextStyle, box: FitBox, fonts: FontLibrary): Fitted {
  const paragraphs: Unbroken[][] = [];
  let offset = 0;
  for (const paragraph of text.split('\n')) {
    paragraphs.push(breakWidths(paragraph, offset, style, fonts));
    offset += paragraph.length + 1;
  }
  const metrics = metricsOf(style, fonts);
  const { above, below } = trimmedEdges(style.trim ?? 'capitals', metrics);
  const lineHeight = above + Math.max(below, metrics.capHeight * DESCENT_SHARE);
  const height = (lines: number) => lineHeight + (lines - 1) * style.leading * UNITS;
  const sizeOf = (lines: number, widest: number) =>
    Math.min(box.maxSize, (box.width / widest) * UNITS, (box.height / height(lines)) * UNITS);
  const isBrokenForSense = box.breaks === 'sense' && paragraphs.every((p) => p.length <= MOST_SENSE);
  return isBrokenForSense ? fitForSense(text, paragraphs, box, sizeOf) : fitLargest(paragraphs, sizeOf);
}

type SizeOf = (lines: number, widest: number) => number;

const widestOf = (paragraphs: readonly Unbroken[][]): { piece: number; line: number } => {
  const piece = Math.max(1, ...paragraphs.flat().map((w) => w.ink));
  return { piece, line: Math.max(piece, ...paragraphs.map((p) => p.reduce((sum, w) => sum + w.whole, 0))) };
};

/**
 * For each number of lines the narrowest width that needs no more is found by bisection, which also balances the lines;
 * the number whose size is largest wins, fewer at a tie.
 */
function fitLargest(paragraphs: readonly Unbroken[][], sizeOf: SizeOf): Fitted {
  const { piece: widestPiece, line: widestLine } = widestOf(paragraphs);
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
    const size = sizeOf(lines, breaking(high).widest);
    if (size > best.size * 1.001) best = { size, wrapWidth: (high + 0.5) / UNITS };
  }
  return { size: Math.max(1, best.size), wrapWidth: best.wrapWidth, ends: null };
}

/** Widths are tried from the widest down in these steps. */
const WIDTH_STEP = 0.97;

/**
 * Of the lines that end best for each width, those win whose size, less what is lost in being read, is largest. Where a
 * least size is given, lines that do not reach it come last: texts of one run keep one size.
 */
function fitForSense(text: string, paragraphs: readonly Unbroken[][], box: FitBox, sizeOf: SizeOf): Fitted {
  const { piece, line } = widestOf(paragraphs);
  const least = (box.leastSize ?? 0) * 0.999;
  let best: { size: number; score: number; ends: readonly (readonly number[])[] } | null = null;
  for (let limit = line; ; limit *= WIDTH_STEP) {
    const lines = senseLines(paragraphs, Math.max(piece, limit));
    const size = sizeOf(lines.lines, lines.widest);
    const score = size * Math.exp(-lines.cost) * (size < least ? 1e-6 : 1);
    if (!best || score > best.score * 1.001) best = { size, score, ends: lines.ends };
    if (limit <= piece) break;
  }
  return { size: Math.max(1, best.size), wrapWidth: line / UNITS, ends: inText(text, paragraphs, best.ends) };
}

/** Ends of lines as indices of the text's paragraphs instead of counts of stretches. */
function inText(
  text: string,
  paragraphs: readonly Unbroken[][],
  ends: readonly (readonly number[])[],
): readonly (readonly number[])[] {
  return text.split('\n').map((paragraph, p) => {
    const breaks = lineBreaks(paragraph);
    return paragraphs[p]!.length === 0 ? [0] : ends[p]!.map((end) => breaks[end - 1]!);
  });
}
