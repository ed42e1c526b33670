import { lengthOf, numbersOf } from './values';
import type { Axis, Measures } from './values';
import type { SvgElement } from './xml';

type Bare = Pick<SvgElement, 'name' | 'attributes'>;

/** The path data of an element that is a shape (SVG 2, chapter 10); null for every other or for none. */
export function shapeData(element: Bare, measures: Measures): string | null {
  const { attributes } = element;
  const length = (name: string, axis: Axis): number => lengthOf(attributes[name], axis, measures) ?? 0;
  switch (element.name) {
    case 'path':
      return attributes.d ?? null;
    case 'rect':
      return rectangle(element, measures);
    case 'circle': {
      const r = length('r', 'both');
      return ellipse(length('cx', 'x'), length('cy', 'y'), r, r);
    }
    case 'ellipse': {
      const [rx, ry] = [lengthOf(attributes.rx, 'x', measures), lengthOf(attributes.ry, 'y', measures)];
      return ellipse(length('cx', 'x'), length('cy', 'y'), rx ?? ry ?? 0, ry ?? rx ?? 0);
    }
    case 'line':
      return `M${length('x1', 'x')} ${length('y1', 'y')}L${length('x2', 'x')} ${length('y2', 'y')}`;
    case 'polyline':
      return polyline(attributes.points, false);
    case 'polygon':
      return polyline(attributes.points, true);
    default:
      return null;
  }
}

export const SHAPE_NAMES: ReadonlySet<string> = new Set([
  'path',
  'rect',
  'circle',
  'ellipse',
  'line',
  'polyline',
  'polygon',
]);

function polyline(points: string | undefined, isClosed: boolean): string | null {
  const n = numbersOf(points);
  if (n.length < 4) return null;
  let out = '';
  for (let i = 0; i + 1 < n.length; i += 2) out += `${i === 0 ? 'M' : 'L'}${n[i]!} ${n[i + 1]!}`;
  return isClosed ? `${out}Z` : out;
}

function ellipse(cx: number, cy: number, rx: number, ry: number): string | null {
  if (rx <= 0 || ry <= 0) return null;
  return (
    `M${cx + rx} ${cy}A${rx} ${ry} 0 0 1 ${cx} ${cy + ry}A${rx} ${ry} 0 0 1 ${cx - rx} ${cy}` +
    `A${rx} ${ry} 0 0 1 ${cx} ${cy - ry}A${rx} ${ry} 0 0 1 ${cx + rx} ${cy}Z`
  );
}

function rectangle({ attributes }: Bare, measures: Measures): string | null {
  const length = (name: string, axis: Axis): number | null => lengthOf(attributes[name], axis, measures);
  const [x, y] = [length('x', 'x') ?? 0, length('y', 'y') ?? 0];
  const [w, h] = [length('width', 'x') ?? 0, length('height', 'y') ?? 0];
  if (w <= 0 || h <= 0) return null;
  const [ownX, ownY] = [length('rx', 'x'), length('ry', 'y')];
  const rx = Math.min(w / 2, Math.max(0, ownX ?? ownY ?? 0));
  const ry = Math.min(h / 2, Math.max(0, ownY ?? ownX ?? 0));
  if (rx === 0 || ry === 0) return `M${x} ${y}H${x + w}V${y + h}H${x}Z`;
  const corner = (ex: number, ey: number): string => `A${rx} ${ry} 0 0 1 ${ex} ${ey}`;
  return (
    `M${x + rx} ${y}H${x + w - rx}${corner(x + w, y + ry)}V${y + h - ry}${corner(x + w - rx, y + h)}` +
    `H${x + rx}${corner(x, y + h - ry)}V${y + ry}${corner(x + rx, y)}Z`
  );
}
