import type { FontLibrary } from './font-library';
import { isJoiningScript, itemise, visualRuns } from './itemise';
import type { Itemised } from './itemise';
import { lineBreaks } from './line-breaks';
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

/** Line ranges of a paragraph, spaces at line ends left out. Greedy; a word wider than the line stands alone. */
export function breakLines(text: string, item: Itemised, style: TextStyle): { start: number; end: number }[] {
  if (style.wrapWidth === null) return [{ start: 0, end: trimEnd(text, 0, text.length) }];
  const limit = style.wrapWidth * UNITS;
  const lines: { start: number; end: number }[] = [];
  let start = 0;
  let fits = 0;
  for (const next of lineBreaks(text)) {
    const end = trimEnd(text, start, next);
    if (fits > start && lineWidth(shapeLine(text, item, start, end, style)) > limit) {
      lines.push({ start, end: trimEnd(text, start, fits) });
      start = fits;
    }
    fits = next;
  }
  lines.push({ start, end: trimEnd(text, start, text.length) });
  return lines;
}
