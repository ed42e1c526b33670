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

/** How a stretch of the text differs from the rest. Ends are exclusive; where spans overlap the last one counts. */
export interface StyleSpan {
  readonly start: number;
  readonly end: number;
  readonly weight?: number | undefined;
  readonly family?: string | undefined;
  readonly italic?: boolean | undefined;
  /** Of the font size. */
  readonly scale?: number | undefined;
}

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
  /** OpenType features as HarfBuzz writes them (`smcp`, `tnum=1`, `ss01`). */
  readonly features?: readonly string[] | undefined;
  readonly spans?: readonly StyleSpan[] | undefined;
  /** Find the largest size at which the text fills this box, its lines balanced; the wrapping width is then not looked at. */
  readonly fit?: FitBox | null | undefined;
}

export interface PlacedGlyph {
  /** Index of the first character of its cluster in the whole text. */
  readonly index: number;
  readonly x: number;
  /** Baseline of its line. */
  readonly y: number;
  readonly advance: number;
  readonly line: number;
  /** Index of its style span, -1 for none. */
  readonly span: number;
  /** Outline where it stands, SVG path data in units. Empty for a space. */
  readonly path: string;
  /** Its outline in another weight, at the same place: letters can be weighed without moving their neighbours. */
  readonly outlineAt: (weight: number) => string;
  readonly weight: number;
}

export interface TextLayout {
  /** Outline of all letters, SVG path data in units. Empty for no visible letter. */
  readonly path: string;
  readonly glyphs: readonly PlacedGlyph[];
  readonly lines: readonly { readonly start: number; readonly end: number; readonly x: number; readonly width: number; readonly baseline: number }[];
  /** Box from the first ascender to the last descender: left, top, right, bottom. */
  readonly box: readonly [number, number, number, number];
  readonly capHeight: number;
  /** Pixels the size was found to be where a box was to be filled; null otherwise. */
  readonly fittedSize: number | null;
}

interface ShapedRun {
  readonly face: ShapingFace;
  readonly glyphs: readonly ShapedGlyph[];
  readonly start: number;
  readonly tracking: number;
  readonly scale: number;
  readonly weight: number;
  readonly span: number;
}

const spanAt = (style: TextStyle, index: number): number => {
  const { spans } = style;
  if (spans) for (let i = spans.length - 1; i >= 0; i--) if (index >= spans[i]!.start && index < spans[i]!.end) return i;
  return -1;
};

/** A paragraph itemised in a style; `offset` is where it begins in the whole text. */
const itemiseStyled = (text: string, offset: number, style: TextStyle, fonts: FontLibrary): Itemised =>
  itemise(text, fonts, (i) => {
    const span = spanAt(style, i + offset);
    const own = style.spans?.[span];
    return { family: own?.family ?? style.family, italic: own?.italic ?? style.italic, span };
  });

function shapeLine(text: string, item: Itemised, start: number, end: number, style: TextStyle): ShapedRun[] {
  return visualRuns(item, start, end).map((run) => {
    const part = text.slice(run.start, run.end);
    const joining = isJoiningScript(part);
    const span = style.spans?.[run.span];
    const weight = Math.round(span?.weight ?? style.weight);
    const size = span?.scale ?? 1;
    const features = [...(style.features ?? []), ...(style.tracking !== 0 && !joining ? ['liga=0', 'clig=0'] : [])];
    return {
      face: run.face,
      glyphs: run.face.shape(part, { rtl: run.level % 2 === 1, weight, features }),
      start: run.start,
      tracking: joining ? 0 : style.tracking * UNITS * size,
      scale: (UNITS / run.face.metrics(weight).unitsPerEm) * size,
      weight,
      span: run.span,
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

/** A box in pixels for text to fill, and the largest size that is wanted. */
export interface FitBox {
  readonly width: number;
  readonly height: number;
  readonly maxSize: number;
}

/** Room below the last baseline for descenders, of the cap height. */
const DESCENT_SHARE = 0.3;
/** More lines than this beyond the fewest never make words larger in any box that people use. */
const MOST_EXTRA_LINES = 24;

const NO_FONT: FaceMetrics = { unitsPerEm: UNITS, ascender: 900, descender: -250, capHeight: 700 };

export function layoutText(text: string, wanted: TextStyle, fonts: FontLibrary): TextLayout {
  const fitted = wanted.fit ? fitToBox(text, wanted, wanted.fit, fonts) : null;
  const style: TextStyle = fitted ? { ...wanted, wrapWidth: fitted.wrapWidth } : wanted;
  const face = fonts.faceFor(style.family, style.italic, 0x78);
  const metrics = face?.metrics(style.weight) ?? NO_FONT;
  const scale = UNITS / metrics.unitsPerEm;
  const shaped: { runs: ShapedRun[]; start: number; end: number; width: number }[] = [];
  let offset = 0;
  for (const paragraph of text.split('\n')) {
    const item = itemiseStyled(paragraph, offset, style, fonts);
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
        const [gx, gy] = [x + glyph.xOffset * run.scale, baseline - glyph.yOffset * run.scale];
        const outlineAt = (weight: number) => {
          const outline = run.face.outline(glyph.glyphId, weight);
          return outline ? transformOutline(outline, run.scale, -run.scale, gx, gy) : '';
        };
        const own = outlineAt(run.weight);
        path += own;
        const advance = glyph.advance * run.scale + run.tracking;
        glyphs.push({ index: run.start + glyph.cluster, x, y: baseline, advance, line: lineIndex, span: run.span, path: own, outlineAt, weight: run.weight });
        x += advance;
      }
    }
    return { start, end, x: left, width, baseline };
  });
  const widest = Math.max(0, ...lines.map((line) => line.width));
  const left = style.align === 'left' ? 0 : style.align === 'right' ? -widest : -widest / 2;
  const box = [left, firstBaseline - metrics.ascender * scale, left + widest, firstBaseline + (lines.length - 1) * pitch - metrics.descender * scale] as const;
  return { path, glyphs, lines, box, capHeight: cap, fittedSize: fitted?.size ?? null };
}

/** Widths of the pieces between allowed breaks, so that a breaking can be judged without shaping every line anew. */
function breakWidths(text: string, offset: number, style: TextStyle, fonts: FontLibrary): { ink: number; whole: number }[] {
  const item = itemiseStyled(text, offset, style, fonts);
  const breaker = new LineBreaker(text);
  const out: { ink: number; whole: number }[] = [];
  let start = 0;
  for (let next = breaker.nextBreak(); next; next = breaker.nextBreak()) {
    const width = (end: number) => lineWidth(shapeLine(text, item, start, end, style));
    out.push({ ink: width(trimEnd(text, start, next.position)), whole: width(next.position) });
    start = next.position;
  }
  return out;
}

/**
 * The largest size at which a text fits a box, and the wrapping width that gives it. For each number of lines the narrowest width
 * that needs no more is found by bisection, which also balances the lines; the number whose size is largest wins, fewer at a tie.
 */
function fitToBox(text: string, style: TextStyle, box: FitBox, fonts: FontLibrary): { size: number; wrapWidth: number } {
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
  const metrics = fonts.faceFor(style.family, style.italic, 0x78)?.metrics(style.weight) ?? NO_FONT;
  const lineHeight = metrics.capHeight * (UNITS / metrics.unitsPerEm) * (1 + DESCENT_SHARE);
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

/** Layouts by text and style; a layout is a few milliseconds, a look-up is nothing. */
export function createLayoutCache(fonts: FontLibrary, limit = 300): (text: string, style: TextStyle) => { key: string; layout: TextLayout } {
  const cache = new Map<string, TextLayout>();
  return (text, style) => {
    const { fit } = style;
    const spans = style.spans?.map((p) => `${p.start}-${p.end}${p.weight ?? ''},${p.family ?? ''},${p.italic ?? ''},${p.scale ?? ''}`).join(';') ?? '';
    const key = `${fonts.generation}|${style.family}|${style.italic ? 1 : 0}|${Math.round(style.weight)}|${style.tracking.toFixed(4)}|${style.leading.toFixed(4)}|${style.align}|${style.wrapWidth?.toFixed(4) ?? ''}|${style.features?.join() ?? ''}|${spans}|${fit ? `${fit.width.toFixed(1)},${fit.height.toFixed(1)},${fit.maxSize.toFixed(1)}` : ''}|${text}`;
    let layout = cache.get(key);
    if (!layout) {
      layout = layoutText(text, { ...style, weight: Math.round(style.weight) }, fonts);
      if (cache.size >= limit) cache.delete(cache.keys().next().value as string); // size ≥ limit > 0: there is a first key
      cache.set(key, layout);
    }
    return { key, layout };
  };
}
