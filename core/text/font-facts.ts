import { readColourGlyphs } from './colour-glyphs';
import { axesOf, tableOf } from './harfbuzz-face';
import type { FontFaceObject, HarfBuzz } from './harfbuzz-face';
import type { FontAxis } from './variation';

/** What a font file says of itself. */
export interface FontFacts {
  readonly family: string;
  /** Name of the style within the family: Bold, Light Italic … */
  readonly style: string;
  readonly italic: boolean;
  /** Least and most weight, 1 to 1000; equal for a font that is not variable. */
  readonly weights: readonly [number, number];
  readonly axes: readonly FontAxis[];
  /** Inclusive code point ranges it has letters for, ascending, flattened. */
  readonly ranges: readonly number[];
}

// Name identifiers of the OpenType `name` table.
const [FAMILY, STYLE, TYPOGRAPHIC_FAMILY, TYPOGRAPHIC_STYLE] = [1, 2, 16, 17];
const tidy = (name: string): string => name.replace(/\p{C}/gu, '').trim().slice(0, 80);

/** Code points joined to ranges. @param points - ascending. */
export function rangesOf(points: Iterable<number>): number[] {
  const out: number[] = [];
  for (const point of points) {
    if (out.length > 0 && out[out.length - 1] === point - 1) out[out.length - 1] = point;
    else out.push(point, point);
  }
  return out;
}

/**
 * Names of axes by tag, from the `fvar` table (OpenType 1.9): records of 20 bytes, the name's identifier at byte 18.
 */
function axisNames(face: FontFaceObject): Map<string, string> {
  const out = new Map<string, string>();
  const table = tableOf(face, 'fvar');
  if (!table || table.byteLength < 16) return out;
  const view = new DataView(table.buffer, table.byteOffset, table.byteLength);
  const [at, count, size] = [view.getUint16(4), view.getUint16(8), view.getUint16(10)];
  for (let i = 0; i < count && at + i * size + 20 <= view.byteLength; i++) {
    const tag = String.fromCharCode(...[0, 1, 2, 3].map((k) => view.getUint8(at + i * size + k)));
    const name = tidy(face.getName(view.getUint16(at + i * size + 18), 'en'));
    if (name) out.set(tag, name);
  }
  return out;
}

/** Reads an sfnt file (TTF or OTF). Null if it has no letters that can be drawn: not a font, or a broken one. */
export function readFontFacts(hb: HarfBuzz, bytes: Uint8Array): FontFacts | null {
  // The casts to never bridge the structural subset to the engine's own classes.
  const face = new hb.Face(new hb.Blob(bytes) as never);
  const points = [...face.collectUnicodes()].sort((a, b) => a - b);
  const font = new hb.Font(face as never);
  const colours = readColourGlyphs(tableOf(face, 'COLR'), tableOf(face, 'CPAL'));
  const isInk = (glyph: number): boolean => font.glyphToPath(glyph) !== '';
  const isDrawn = points.some((point) => {
    const glyph = font.nominalGlyph(point) ?? 0;
    return isInk(glyph) || (colours?.(glyph) ?? []).some((layer) => isInk(layer.glyphId));
  });
  if (!isDrawn) return null;
  const name = (id: number) => tidy(face.getName(id, 'en'));
  const names = axisNames(face);
  const axes = axesOf(face).map((axis) => ({ ...axis, name: names.get(axis.tag) ?? axis.name }));
  const os2 = tableOf(face, 'OS/2');
  const view = os2 && os2.byteLength >= 64 ? new DataView(os2.buffer, os2.byteOffset, os2.byteLength) : null;
  // usWeightClass at byte 4, fsSelection at byte 62, whose first bit is italic and tenth oblique.
  const weight = Math.min(1000, Math.max(1, view?.getUint16(4) ?? 400));
  const slope = view?.getUint16(62) ?? 0;
  const style = name(TYPOGRAPHIC_STYLE) || name(STYLE) || 'Regular';
  const variable = axes.find((axis) => axis.tag === 'wght');
  return {
    family: name(TYPOGRAPHIC_FAMILY) || name(FAMILY) || 'Unnamed',
    style,
    italic: (slope & 0b10_0000_0001) !== 0 || /italic|oblique/i.test(style),
    weights: variable ? [variable.min, variable.max] : [weight, weight],
    axes,
    ranges: rangesOf(points),
  };
}
