import type { Colour } from '../colour';
import { fitToBox } from './fit-to-box';
import type { FontLibrary } from './font-library';
import { transformOutline } from './outline-path';
import type { Itemised } from './itemise';
import { breakLines, itemiseStyled, lineWidth, shapeLine, trimEnd } from './shape-lines';
import type { LineRange, ShapedRun } from './shape-lines';
import { UNITS, metricsOf, printStyle, trimmedEdges } from './text-style';
import type { TextStyle } from './text-style';
import type { AxisSetting } from './variation';

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
  /** Outline where it stands, SVG path data in units. Empty for a space, and for a letter in colours of its own. */
  readonly path: string;
  /** The layers of a letter in colours of its own where it stands, lowest first; null is the colour of the text. */
  readonly colours?: readonly { readonly path: string; readonly colour: Colour | null }[];
  /** Its outline in another weight, at the same place: letters can be weighed without moving their neighbours. */
  readonly outlineAt: (weight: number) => string;
  readonly weight: number;
}

export interface TextLayout {
  /** Outline of all letters but those in colours of their own, SVG path data in units. */
  readonly path: string;
  /** Whether some letters have colours of their own. */
  readonly hasColours: boolean;
  readonly glyphs: readonly PlacedGlyph[];
  readonly lines: readonly {
    readonly start: number;
    readonly end: number;
    readonly x: number;
    readonly width: number;
    readonly baseline: number;
    /** Whether its paragraph runs from right to left. */ readonly rtl: boolean;
    /** Whether it ends within a word that is longer than a line. */ readonly cutsWord: boolean;
  }[];
  /** Character indices at which no font has a glyph. */
  readonly missing: readonly number[];
  /** Box from the first ascender to the last descender: left, top, right, bottom. */
  readonly box: readonly [number, number, number, number];
  readonly capHeight: number;
  /** Where the text begins and ends as it is trimmed. */
  readonly edges: { readonly top: number; readonly bottom: number };
  /** Pixels the size was found to be where a box was to be filled; null otherwise. */
  readonly fittedSize: number | null;
}

/** Line ranges of a paragraph: where its lines were found to end, or as the wrapping width has them. */
function linesOf(
  paragraph: string,
  item: Itemised,
  style: TextStyle,
  ends: readonly number[] | undefined,
): LineRange[] {
  if (!ends) return breakLines(paragraph, item, style);
  return ends.map((end, i) => {
    const start = i === 0 ? 0 : ends[i - 1]!;
    return { start, end: trimEnd(paragraph, start, end), cutsWord: false };
  });
}

/**
 * Lays text out. The origin is the alignment edge horizontally, and vertically the edge of the trimmed text that stands
 * there: by default the middle between the first line's cap height and the last baseline, which is what looks centred.
 */
export function layoutText(text: string, wanted: TextStyle, fonts: FontLibrary): TextLayout {
  const fitted = wanted.fit ? fitToBox(text, wanted, wanted.fit, fonts) : null;
  const style: TextStyle = fitted ? { ...wanted, wrapWidth: fitted.wrapWidth } : wanted;
  const metrics = metricsOf(style, fonts);
  const missing: number[] = [];
  const shaped: { runs: ShapedRun[]; start: number; end: number; width: number; rtl: boolean; cutsWord: boolean }[] =
    [];
  let offset = 0;
  for (const [p, paragraph] of text.split('\n').entries()) {
    const item = itemiseStyled(paragraph, offset, style, fonts);
    for (const index of item.missing) missing.push(offset + index);
    for (const { start, end, cutsWord } of linesOf(paragraph, item, style, fitted?.ends?.[p])) {
      const runs = shapeLine(paragraph, item, start, end, style).map((run) => ({ ...run, start: run.start + offset }));
      const width = lineWidth(runs);
      shaped.push({ runs, start: start + offset, end: end + offset, width, rtl: item.rtl, cutsWord });
    }
    offset += paragraph.length + 1;
  }
  const pitch = style.leading * UNITS;
  const { above, below } = trimmedEdges(style.trim ?? 'capitals', metrics);
  const height = above + (shaped.length - 1) * pitch + below;
  const stands = style.stands ?? 'middle';
  const top = stands === 'top' ? 0 : stands === 'bottom' ? -height : -height / 2;
  const firstBaseline = top + above;
  let path = '';
  let hasColours = false;
  const glyphs: PlacedGlyph[] = [];
  const lines = shaped.map(({ runs, start, end, width, rtl, cutsWord }, lineIndex) => {
    const baseline = firstBaseline + lineIndex * pitch;
    const left = style.align === 'left' ? 0 : style.align === 'right' ? -width : -width / 2;
    let x = left;
    for (const run of runs) {
      for (const glyph of run.glyphs) {
        const [gx, gy] = [x + glyph.xOffset * run.scale, baseline - glyph.yOffset * run.scale];
        const outlineOf = (glyphId: number, setting: AxisSetting) => {
          const outline = run.face.outline(glyphId, setting);
          return outline ? transformOutline(outline, run.scale, -run.scale, gx, gy) : '';
        };
        const colours = run.face
          .coloursOf?.(glyph.glyphId)
          ?.map((layer) => ({ path: outlineOf(layer.glyphId, run.setting), colour: layer.colour }));
        hasColours ||= colours !== undefined;
        const outlineIn = (setting: AxisSetting) => (colours ? '' : outlineOf(glyph.glyphId, setting));
        const own = outlineIn(run.setting);
        path += own;
        const advance = glyph.advance * run.scale + run.tracking;
        glyphs.push({
          index: run.start + glyph.cluster,
          x,
          y: baseline,
          advance,
          line: lineIndex,
          span: run.span,
          path: own,
          ...(colours ? { colours } : {}),
          outlineAt: (weight) => outlineIn({ ...run.setting, weight }),
          weight: run.setting.weight,
        });
        x += advance;
      }
    }
    return { start, end, x: left, width, baseline, rtl, cutsWord };
  });
  const widest = Math.max(0, ...lines.map((line) => line.width));
  const left = style.align === 'left' ? 0 : style.align === 'right' ? -widest : -widest / 2;
  const box = [
    left,
    firstBaseline - metrics.ascender,
    left + widest,
    firstBaseline + (lines.length - 1) * pitch - metrics.descender,
  ] as const;
  return {
    path,
    hasColours,
    glyphs,
    missing,
    lines,
    box,
    capHeight: metrics.capHeight,
    edges: { top, bottom: top + height },
    fittedSize: fitted?.size ?? null,
  };
}

/** Layouts by text and style; a layout is a few milliseconds, a look-up is nothing. */
export function createLayoutCache(
  fonts: FontLibrary,
  limit = 300,
): (text: string, style: TextStyle) => { key: string; layout: TextLayout } {
  const cache = new Map<string, TextLayout>();
  return (text, style) => {
    const key = `${fonts.generation}|${printStyle(style)}|${text}`;
    let layout = cache.get(key);
    if (!layout) {
      layout = layoutText(text, { ...style, weight: Math.round(style.weight) }, fonts);
      // size ≥ limit > 0: there is a first key
      if (cache.size >= limit) cache.delete(cache.keys().next().value as string);
      cache.set(key, layout);
    }
    return { key, layout };
  };
}
