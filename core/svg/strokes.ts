import { CAPS, JOINS } from '../piece';
import type { StrokeStyle } from '../piece';
import type { SvgPaint, SvgStroke } from './nodes';
import type { Style } from './styles';
import { lengthOf } from './values';
import type { Measures } from './values';

const MAX_DASHES = 24;
const oneOf = <T extends string>(table: Readonly<Record<T, string>>, value: string | undefined, otherwise: T): T =>
  value !== undefined && Object.hasOwn(table, value) ? (value as T) : otherwise; // a key of the table

/** Lengths of dashes and gaps; none for a whole line or where one is negative (SVG 2, section 13.5.6). */
function dashesOf(value: string | undefined, measures: Measures, unit: number): number[] {
  if (value === undefined || value === 'none') return [];
  const lengths = value
    .trim()
    .split(/[\s,]+/)
    .map((one) => (lengthOf(one, 'both', measures) ?? -1) * unit);
  if (lengths.some((length) => length < 0) || lengths.every((length) => length === 0)) return [];
  // An odd number of lengths counts twice.
  const even = lengths.length % 2 === 0 ? lengths : [...lengths, ...lengths];
  return even.slice(0, MAX_DASHES);
}

/** The stroke of a shape in its own user units; null for none. @param unit - user units that a unit of dashes makes. */
export function strokeOf(style: Style, measures: Measures, paint: SvgPaint | null, unit: number): SvgStroke | null {
  const width = lengthOf(style['stroke-width'], 'both', measures) ?? 1;
  if (!paint || width <= 0) return null;
  const limit = parseFloat(style['stroke-miterlimit'] ?? '4');
  const own: StrokeStyle = {
    cap: oneOf(CAPS, style['stroke-linecap'], 'butt'),
    join: oneOf(JOINS, style['stroke-linejoin'], 'miter'),
    miterLimit: Number.isFinite(limit) && limit >= 1 ? Math.min(1000, limit) : 4,
    dash: dashesOf(style['stroke-dasharray'], measures, unit),
    dashShift: (lengthOf(style['stroke-dashoffset'], 'both', measures) ?? 0) * unit,
    position: 'centre',
  };
  return { paint, width, style: own };
}
