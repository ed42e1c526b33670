import LineBreaker from 'linebreak';
import type { FontLibrary } from './font-library';
import { isJoiningScript, itemise, visualRuns } from './itemise';
import type { Itemised } from './itemise';
import { transformOutline } from './outline-path';
import type { FaceMetrics, ShapedGlyph, ShapingFace } from './shaper';

/**
 * Text becomes geometry: paragraphs are split into runs (bidi, font), broken into lines (UAX #14), shaped by HarfBuzz and
 * placed. All measures are thousandths of the font size ("units"), y down, so that one layout serves every size.
 * The origin is the alignment edge horizontally and the middle between the first line's cap height and the last
 * baseline vertically: that is what looks centred.
 */
export const UNITS = 1000;

export interface TextStyle {
  readonly family: string;
  readonly italic: boolean;
  readonly weight: number;
  /** Added after each letter, in em. Joining scripts are not spaced. */
  readonly tracking: number;
  /** Distance of baselines in em. */
  readonly leading: number;
  readonly align: 'left' | 'center' | 'right';
  /** Wrapping width in em, null for none. */
  readonly wrapWidth: number | null;
}

export interface PlacedGlyph {
  /** Index of the first character of its cluster in the whole text. */
  readonly index: number;
  readonly x: number;
  /** Baseline of its line. */
  readonly y: number;
  readonly advance: number;
  readonly line: number;
}

export interface TextLayout {
  /** Outline of all letters, SVG path data in units. Empty for no visible letter. */
  readonly path: string;
  readonly glyphs: readonly PlacedGlyph[];
  readonly lines: readonly { readonly start: number; readonly end: number; readonly x: number; readonly width: number; readonly baseline: number }[];
  /** Box from the first ascender to the last descender: left, top, right, bottom. */
  readonly box: readonly [number, number, number, number];
}

interface ShapedRun {
  readonly face: ShapingFace;
  readonly glyphs: readonly ShapedGlyph[];
  readonly start: number;
  readonly tracking: number;
  readonly scale: number;
}

function shapeLine(text: string, item: Itemised, start: number, end: number, style: TextStyle): ShapedRun[] {
  return visualRuns(item, start, end).map((run) => {
    const part = text.slice(run.start, run.end);
    const joining = isJoiningScript(part);
    const features = style.tracking !== 0 && !joining ? ['liga=0', 'clig=0'] : [];
    return {
      face: run.face,
      glyphs: run.face.shape(part, { rtl: run.level % 2 === 1, weight: style.weight, features }),
      start: run.start,
      tracking: joining ? 0 : style.tracking * UNITS,
      scale: UNITS / run.face.metrics(style.weight).unitsPerEm,
    };
  });
}

/** Width without the tracking behind the last letter, which would push centred text to the left. */
function lineWidth(runs: readonly ShapedRun[]): number {
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

const trimEnd = (text: string, start: number, end: number): number => {
  let e = end;
  while (e > start && /\s/.test(text[e - 1]!)) e--;
  return e;
};

/** Line ranges of a paragraph, spaces at line ends left out. Greedy; a word wider than the line stands alone. */
function breakLines(text: string, item: Itemised, style: TextStyle): { start: number; end: number }[] {
  if (style.wrapWidth === null) return [{ start: 0, end: trimEnd(text, 0, text.length) }];
  const limit = style.wrapWidth * UNITS;
  const breaker = new LineBreaker(text);
  const lines: { start: number; end: number }[] = [];
  let start = 0;
  let fits = 0;
  for (let next = breaker.nextBreak(); next; next = breaker.nextBreak()) {
    const end = trimEnd(text, start, next.position);
    if (fits > start && lineWidth(shapeLine(text, item, start, end, style)) > limit) {
      lines.push({ start, end: trimEnd(text, start, fits) });
      start = fits;
    }
    fits = next.position;
  }
  lines.push({ start, end: trimEnd(text, start, text.length) });
  return lines;
}

const NO_FONT: FaceMetrics = { unitsPerEm: UNITS, ascender: 900, descender: -250, capHeight: 700 };

export function layoutText(text: string, style: TextStyle, fonts: FontLibrary): TextLayout {
  const face = fonts.faceFor(style.family, style.italic, 0x78);
  const metrics = face?.metrics(style.weight) ?? NO_FONT;
  const scale = UNITS / metrics.unitsPerEm;
  const shaped: { runs: ShapedRun[]; start: number; end: number; width: number }[] = [];
  let offset = 0;
  for (const paragraph of text.split('\n')) {
    const item = itemise(paragraph, fonts, style.family, style.italic);
    for (const { start, end } of breakLines(paragraph, item, style)) {
      const runs = shapeLine(paragraph, item, start, end, style).map((run) => ({ ...run, start: run.start + offset }));
      shaped.push({ runs, start: start + offset, end: end + offset, width: lineWidth(runs) });
    }
    offset += paragraph.length + 1;
  }
  const pitch = style.leading * UNITS;
  const cap = metrics.capHeight * scale;
  const firstBaseline = (cap - (shaped.length - 1) * pitch) / 2;
  let path = '';
  const glyphs: PlacedGlyph[] = [];
  const lines = shaped.map(({ runs, start, end, width }, lineIndex) => {
    const baseline = firstBaseline + lineIndex * pitch;
    const left = style.align === 'left' ? 0 : style.align === 'right' ? -width : -width / 2;
    let x = left;
    for (const run of runs) {
      for (const glyph of run.glyphs) {
        const outline = run.face.outline(glyph.glyphId, style.weight);
        if (outline) path += transformOutline(outline, run.scale, -run.scale, x + glyph.xOffset * run.scale, baseline - glyph.yOffset * run.scale);
        const advance = glyph.advance * run.scale + run.tracking;
        glyphs.push({ index: run.start + glyph.cluster, x, y: baseline, advance, line: lineIndex });
        x += advance;
      }
    }
    return { start, end, x: left, width, baseline };
  });
  const widest = Math.max(0, ...lines.map((line) => line.width));
  const left = style.align === 'left' ? 0 : style.align === 'right' ? -widest : -widest / 2;
  const box = [left, firstBaseline - metrics.ascender * scale, left + widest, firstBaseline + (lines.length - 1) * pitch - metrics.descender * scale] as const;
  return { path, glyphs, lines, box };
}

/** Layouts by text and style; a layout is a few milliseconds, a look-up is nothing. */
export function createLayoutCache(fonts: FontLibrary, limit = 300): (text: string, style: TextStyle) => { key: string; layout: TextLayout } {
  const cache = new Map<string, TextLayout>();
  return (text, style) => {
    const key = `${fonts.generation}|${style.family}|${style.italic ? 1 : 0}|${Math.round(style.weight)}|${style.tracking.toFixed(4)}|${style.leading.toFixed(4)}|${style.align}|${style.wrapWidth?.toFixed(4) ?? ''}|${text}`;
    let layout = cache.get(key);
    if (!layout) {
      layout = layoutText(text, { ...style, weight: Math.round(style.weight) }, fonts);
      if (cache.size >= limit) cache.delete(cache.keys().next().value as string); // size ≥ limit > 0: there is a first key
      cache.set(key, layout);
    }
    return { key, layout };
  };
}
