import type { ColourLayer } from './colour-glyphs';
import type { AxisSetting, FontAxis } from './variation';

/** What text layout needs of a shaping engine. Units are font units; y up, as in the font. */
export interface ShapedGlyph {
  readonly glyphId: number;
  /** Index into the shaped text (UTF-16) of the first character of the glyph's cluster. */
  readonly cluster: number;
  readonly advance: number;
  readonly xOffset: number;
  readonly yOffset: number;
}

export interface FaceMetrics {
  readonly unitsPerEm: number;
  readonly ascender: number;
  /** Negative below the baseline. */
  readonly descender: number;
  readonly capHeight: number;
  readonly xHeight: number;
}

/** A loaded font file. */
export interface ShapingFace {
  readonly id: string;
  readonly axes: readonly FontAxis[];
  metrics(setting: AxisSetting): FaceMetrics;
  /** Whether the font has a glyph of its own for a code point. */
  has(codePoint: number): boolean;
  /** @param text - one run of one direction and script. @returns Glyphs in visual order, left to right. */
  shape(text: string, options: { rtl: boolean; setting: AxisSetting; features?: readonly string[] }): ShapedGlyph[];
  /** Outline as SVG path data in font units, y up. */
  outline(glyphId: number, setting: AxisSetting): string;
  /** The layers of a letter in colours of its own, lowest first; null, or no such function, for one without. */
  coloursOf?(glyphId: number): readonly ColourLayer[] | null;
}
