import type { FontLibrary } from './font-library';
import { isJoiningScript, itemise, visualRuns } from './itemise';
import type { Itemised } from './itemise';
import { letterEnds, lineBreaks } from './line-breaks';
import type { ShapedGlyph, ShapingFace } from './shaper';
import { UNITS } from './text-style';
import type { TextStyle } from './text-style';
import type { AxisSetting } from './variation';

/** A stretch of a line that one face shapes in one style. */
export interface ShapedRun {
  readonly face: ShapingFace;
  readonly glyphs: readonly ShapedGlyph[];
  readonly start: number;
  readonly tracking: number;
  readonly scale: number;
  readonly setting: AxisSetting;
  readonly span: number;
}

const spanAt = (style: TextStyle, index: number): number => {
  const { spans } = style;
  if (spans)
    for (let i = spans.length - 1; i >= 0; i--) if (index >= spans[i]!.start && index < spans[i]!.end) return i;
  return -1;
};

/** A paragraph itemised in a style; `offset` is where it begins in the whole text. */
export const itemiseStyled = (text: string, offset: number, style: TextStyle, fonts: FontLibrary): Itemised =>
  itemise(text, fonts, (i) => {
    const span = spanAt(style, i + offset);
    const own = style.spans?.[span];
    return {
      family: own?.family ?? style.family,
      italic: own?.italic ?? style.italic,
      weight: own?.weight ?? style.weight,
      span,
    };
  });

export function shapeLine(text: string, item: Itemised, start: number, end: number, style: TextStyle): ShapedRun[] {
  return visualRuns(item, start, end).map((run) => {
    const part = text.slice(run.start, run.end);
    const joining = isJoiningScript(part);
    const span = style.spans?.[run.span];
    const setting: AxisSetting = { ...style.axes, weight: Math.round(span?.weight ?? style.weight) };
    const size = span?.scale ?? 1;
    const features = [...(style.features ?? []), ...(style.tracking !== 0 && !joining ? ['liga=0', 'clig=0'] : [])];
    return {
      face: run.face,
      glyphs: run.face.shape(part, { rtl: run.level % 2 === 1, setting, features }),
      start: run.start,
      tracking: joining ? 0 : style.tracking * UNITS * size,
      scale: (UNITS / run.face.metrics(setting).unitsPerEm) * size,
      setting,
      span: run.span,
    };
  });
}

/** Width without the tracking behind the last letter, which would push centred text to the left. */
export function lineWidth(runs: readonly ShapedRun[]): number {
  let width = 0;
  let trailing = 0;
  for (const run of runs) {
    for (const glyph of run.glyphs) {
      width += glyph.advance * run.scale + run.tracking;
      trailing = run.tracking;
    }
  }
  return width - trailing;
}

export const trimEnd = (text: string, start: number, end: number): number => {
  let e = end;
  while (e > start && /\s/.test(text[e - 1]!)) e--;
  return e;
};

/** A line of a paragraph, without the spaces at its end. */
export interface LineRange {
  readonly start: number;
  readonly end: number;
  /** Whether it ends within a word that is longer than a line. */
  readonly cutsWord: boolean;
}

/**
 * Breaks a paragraph into lines of the wrapping width. Greedy; a word wider than the line begins a line of its own and
 * is cut between letters, as rarely as can be.
 */
export function breakLines(text: string, item: Itemised, style: TextStyle): LineRange[] {
  if (style.wrapWidth === null) return [{ start: 0, end: trimEnd(text, 0, text.length), cutsWord: false }];
  // A line that is as wide as its words to the last bit has room for them.
  const limit = style.wrapWidth * UNITS + ROUNDING;
  const isTooWide = (from: number, to: number): boolean => lineWidth(shapeLine(text, item, from, to, style)) > limit;
  const lines: LineRange[] = [];
  let start = 0;
  let fits = 0;
  for (const next of lineBreaks(text)) {
    const end = trimEnd(text, start, next);
    if (fits > start && isTooWide(start, end)) {
      lines.push({ start, end: trimEnd(text, start, fits), cutsWord: false });
      start = fits;
    }
    if (fits <= start && isTooWide(start, trimEnd(text, start, next))) {
      for (const at of cutsOf(text, start, trimEnd(text, start, next), isTooWide)) {
        lines.push({ start, end: at, cutsWord: true });
        start = at;
      }
    }
    fits = next;
  }
  lines.push({ start, end: trimEnd(text, start, text.length), cutsWord: false });
  return lines;
}

/** Thousandths of an em. */
const ROUNDING = 1e-6;

/** Where a word from `start` to `end` that is too wide is cut: each part as long as fits, at least one letter. */
function cutsOf(text: string, start: number, end: number, isTooWide: (from: number, to: number) => boolean): number[] {
  const letters = letterEnds(text.slice(start, end)).map((at) => at + start);
  const cuts: number[] = [];
  let from = start;
  for (let first = 0; first < letters.length && isTooWide(from, end);) {
    let [low, high] = [first, letters.length - 1];
    // The last letter end up to which it fits; widths grow with letters.
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (isTooWide(from, letters[middle]!)) high = middle - 1;
      else low = middle;
    }
    if (letters[low]! >= end) break;
    cuts.push((from = letters[low]!));
    first = low + 1;
  }
  return cuts;
}
