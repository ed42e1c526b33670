import type { FaceMetrics } from './shaper';
import type { FontLibrary } from './font-library';
import { printSetting } from './variation';
import type { AxisSetting } from './variation';

/**
 * Text becomes geometry: paragraphs are split into runs (bidi, font), broken into lines (UAX #14), shaped by HarfBuzz
 * and placed. All measures are thousandths of the font size ("units"), y down, so that one layout serves every size.
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

/**
 * What counts as the top and bottom of a text: capitals and the baseline, small letters and the baseline, or the whole
 * line with what hangs below.
 */
export const TRIMS = { capitals: 'Capital height', small: 'x-height', full: 'Full line' } as const;
export type Trim = keyof typeof TRIMS;
/** Which edge of a text stands on its position. */
export const STANDS = { top: 'Top', middle: 'Middle', bottom: 'Bottom' } as const;
export type Stands = keyof typeof STANDS;

/** A box in pixels for text to fill, and the largest size that is wanted. */
export interface FitBox {
  readonly width: number;
  readonly height: number;
  readonly maxSize: number;
  /** Lines as large as can be, the default, or lines that end where the sense does at the cost of some size. */
  readonly breaks?: 'largest' | 'sense';
  /** Breaking for sense does not go below this size where it can be reached. */
  readonly leastSize?: number;
}

export interface TextStyle {
  readonly family: string;
  readonly italic: boolean;
  readonly weight: number;
  /** Where on its other axes a variable font is to be; left out, at the font's own. */
  readonly axes?: Omit<AxisSetting, 'weight'> | undefined;
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
  /** Capitals if left out, which looks centred where `stands` is the middle. */
  readonly trim?: Trim | undefined;
  /** The middle if left out. */
  readonly stands?: Stands | undefined;
  /**
   * Find the largest size at which the text fills this box, its lines balanced; the wrapping width is then not looked
   * at.
   */
  readonly fit?: FitBox | null | undefined;
}

const NO_FONT: FaceMetrics = { unitsPerEm: UNITS, ascender: 900, descender: -250, capHeight: 700, xHeight: 500 };

/** Metrics of the style's own face in units, or plausible ones before it is loaded. */
export function metricsOf(style: TextStyle, fonts: FontLibrary): FaceMetrics {
  const face = fonts.faceFor(style, { text: 'x', isEmoji: false });
  const metrics = face && face !== 'none' ? face.metrics({ ...style.axes, weight: style.weight }) : NO_FONT;
  const scale = UNITS / metrics.unitsPerEm;
  return {
    unitsPerEm: UNITS,
    ascender: metrics.ascender * scale,
    descender: metrics.descender * scale,
    capHeight: metrics.capHeight * scale,
    xHeight: metrics.xHeight * scale,
  };
}

/** From the first baseline up to the top of the text and from the last one down to its bottom, units. */
export function trimmedEdges(trim: Trim, metrics: FaceMetrics): { above: number; below: number } {
  switch (trim) {
    case 'capitals':
      return { above: metrics.capHeight, below: 0 };
    case 'small':
      return { above: metrics.xHeight, below: 0 };
    case 'full':
      return { above: metrics.ascender, below: -metrics.descender };
  }
}

const axesPrints = new WeakMap<NonNullable<TextStyle['axes']>, string>();

function printAxes(axes: NonNullable<TextStyle['axes']>): string {
  let print = axesPrints.get(axes);
  if (print === undefined) axesPrints.set(axes, (print = printSetting({ ...axes, weight: 0 })));
  return print;
}

/** Says the same for equal styles. */
export function printStyle(style: TextStyle): string {
  const { axes, fit } = style;
  const spans =
    style.spans
      ?.map((p) => `${p.start}-${p.end}${p.weight ?? ''},${p.family ?? ''},${p.italic ?? ''},${p.scale ?? ''}`)
      .join(';') ?? '';
  const box = fit
    ? `${fit.width.toFixed(1)},${fit.height.toFixed(1)},${fit.maxSize.toFixed(1)}${fit.breaks ?? ''}${fit.leastSize?.toFixed(1) ?? ''}`
    : '';
  return `${style.family}|${style.italic ? 1 : 0}|${Math.round(style.weight)}${axes ? printAxes(axes) : ''}|${style.tracking.toFixed(4)}|${style.leading.toFixed(4)}|${style.align}|${style.wrapWidth?.toFixed(4) ?? ''}|${style.features?.join() ?? ''}|${style.trim ?? ''}${style.stands ?? ''}|${spans}|${box}`;
}
