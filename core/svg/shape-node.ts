import { cssColour, withAlpha } from '../colour';
import { IDENTITY, likeness, multiply, scaleOf, tightBox } from '../geometry';
import type { Box } from '../geometry';
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

/** A shape of path data in user units. */
export function shapeNode(reader: Reader, element: SvgElement, data: string, place: Place): SvgNode | null {
  const { style, matrix } = place;
  if (style.visibility !== 'visible') return null;
  const measures = measuresIn(place);
  const k = Math.max(1e-6, scaleOf(matrix));
  // At the size in which it is drawn, so that rounding does not matter.
  const local = plainPath(data, [k, 0, 0, k, 0, 0]);
  if (local === null) {
    reader.left.add('paths of too many points');
    return null;
  }
  const tight = tightBox(local);
  const box: Box | null = tight && [tight[0] / k, tight[1] / k, tight[2] / k, tight[3] / k];
  const paint = (which: 'fill' | 'stroke'): SvgPaint | null =>
    paintOf(reader, style[which] ?? 'none', {
      ...{ byId: reader.byId, sheet: reader.sheet, style, measures, box, matrix },
      opacity: shareOf(style[`${which}-opacity`], 1),
    });
  const fill = paint('fill');
  const stroke = strokeOf(style, measures, paint('stroke'));
  const isFixed = style['vector-effect'] === 'non-scaling-stroke';
  const isBaked = !stroke || likeness(matrix) !== 'other' || isFixed;
  const d = isBaked ? plainPath(data, matrix) : local;
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
