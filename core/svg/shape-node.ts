import { cssColour, withAlpha } from '../colour';
import { IDENTITY, flattenPath, lengthOf as pathLength, likeness, multiply, scaleOf, tightBox } from '../geometry';
import type { Box, Matrix } from '../geometry';
import { gradientPaint } from './gradients';
import type { PaintPlace } from './gradients';
import type { SvgNode, SvgPaint, SvgShape } from './nodes';
import { plainPath } from './path-data';
import { measuresIn, plainNode } from './reader';
import type { Place, Reader } from './reader';
import { strokeOf } from './strokes';
import { shareOf } from './values';
import { baseOf } from './whole';
import { referenceOf } from './xml';
import type { SvgElement } from './xml';

/** Shapes with their fills and strokes. */

function paintOf(reader: Reader, value: string, place: PaintPlace): SvgPaint | null {
  const { style, opacity } = place;
  const solid = (text: string): SvgPaint | null => {
    const colour = cssColour(text.toLowerCase() === 'currentcolor' ? (style.color ?? '') : text);
    return colour === null ? null : { type: 'colour', colour: withAlpha(colour, opacity) };
  };
  if (value === 'none') return null;
  const url = /^url\(\s*["']?([^"')]*)["']?\s*\)\s*(.*)$/.exec(value);
  if (!url) return solid(value);
  const target = reader.byId.get(referenceOf(url[1]) ?? '');
  if (target?.name === 'linearGradient' || target?.name === 'radialGradient') return gradientPaint(target, place);
  if (target?.name === 'pattern') reader.left.add('patterns');
  // Otherwise what is written behind the reference; without it nothing.
  return url[2] ? solid(url[2]) : null;
}

/**
 * User units that a unit of the dashes makes: a path may say how long it is meant to be (SVG 2, section 9.6.1).
 * @param local - its data, enlarged by k.
 */
function dashUnit({ attributes }: SvgElement, local: string, k: number): number {
  const said = parseFloat(attributes.pathLength ?? '');
  if (!(said > 0)) return 1;
  const length = flattenPath(local).reduce((sum, contour) => sum + pathLength(contour), 0) / k;
  return length / said;
}

/** Lines of no length get one that nobody sees: with round or square ends they are dots (SVG 2, section 13.5.3). */
const withDots = (data: string): string =>
  data.replace(/M(\S+) (\S+)L\1 \2(?=M|Z|$)/g, (_, x: string, y: string) => `M${x} ${y}L${Number(x) + 0.01} ${y}`);

/** A shape of path data in user units. */
export function shapeNode(reader: Reader, element: SvgElement, data: string, place: Place): SvgNode | null {
  const { style, matrix } = place;
  if (style.visibility !== 'visible') return null;
  const measures = measuresIn(place);
  const k = Math.max(1e-6, scaleOf(matrix));
  // At the size in which it is drawn, so that rounding does not matter.
  const isDotted = style['stroke-linecap'] !== 'butt' && style.stroke !== 'none';
  const drawnAt = (at: Matrix): string | null => {
    const plain = plainPath(data, at);
    return plain !== null && isDotted ? withDots(plain) : plain;
  };
  const local = drawnAt([k, 0, 0, k, 0, 0]);
  if (local === null) {
    reader.left.add('paths of too many points');
    return null;
  }
  const tight = tightBox(local);
  const box: Box | null = tight && [tight[0] / k, tight[1] / k, tight[2] / k, tight[3] / k];
  const paint = (which: 'fill' | 'stroke'): SvgPaint | null =>
    paintOf(reader, style[which] ?? 'none', {
      ...{ byId: reader.byId, sheet: reader.sheet, left: reader.left, style, measures, box, matrix },
      opacity: shareOf(style[`${which}-opacity`], 1),
    });
  const fill = paint('fill');
  const stroke = strokeOf(style, measures, paint('stroke'), dashUnit(element, local, k));
  const isFixed = style['vector-effect'] === 'non-scaling-stroke';
  const isBaked = !stroke || likeness(matrix) !== 'other' || isFixed;
  const d = isBaked ? drawnAt(matrix) : local;
  if (d === null || (!fill && !stroke)) return null;
  for (const marker of ['marker-start', 'marker-mid', 'marker-end'])
    if (style[marker] !== 'none') reader.left.add('markers on lines');
  const size = isFixed ? 1 : k;
  const scaled = stroke && {
    ...stroke,
    width: stroke.width * size,
    style: {
      ...stroke.style,
      dash: stroke.style.dash.map((length) => length * size),
      dashShift: stroke.style.dashShift * size,
    },
  };
  const base = baseOf(reader, element, place);
  const shape: SvgShape = {
    ...base,
    type: 'shape',
    name: base.name || element.name,
    d,
    matrix: isBaked ? IDENTITY : multiply(matrix, [1 / k, 0, 0, 1 / k, 0, 0]),
    rule: style['fill-rule'] === 'evenodd' ? 'evenodd' : 'nonzero',
    fill,
    stroke: scaled,
  };
  const strokeFirst = (style['paint-order'] ?? '').trim().startsWith('stroke');
  if (!strokeFirst || !fill || !scaled) return shape;
  const part = (changes: Partial<SvgShape>): SvgShape => ({ ...shape, ...plainNode(shape.name), ...changes });
  return { ...base, type: 'group', children: [part({ fill: null }), part({ stroke: null })] };
}
