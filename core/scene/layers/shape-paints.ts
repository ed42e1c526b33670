import type { Box, Matrix } from '../../geometry';
import { ROUND_STROKE } from '../../piece';
import type { FillRule, Gradient, ShapeContent, StrokeStyle } from '../../piece';
import type { Fill, ItemPaint, ItemStroke, ShapeItem } from '../list/display-list';
import { printFill, shapeItem } from './layer-reader';
import type { LayerReader, Outline } from './layer-reader';
import type { PreparedLayer } from './prepare';

/** Gradients of many stops, strokes of a style and further paints of the kinds of layers that are shapes. */

const gradientFill = (gradient: Gradient, [l, t, r, b]: Box): Fill => {
  const [w, h] = [r - l, b - t];
  const [ma, mb, mc, md, me, mf] = gradient.matrix;
  const matrix: Matrix = [ma * w, mb * h, mc * w, md * h, me * w + l, mf * h + t];
  return { type: 'gradient', gradient, matrix };
};

const isRound = (style: StrokeStyle): boolean =>
  style.cap === ROUND_STROKE.cap &&
  style.join === ROUND_STROKE.join &&
  style.dash.length === 0 &&
  style.position === ROUND_STROKE.position;

/** A style in the item's coordinates; none if it is the plain one. */
function styled(stroke: ItemStroke, style: StrokeStyle, unitsPerPixel: number): ItemStroke {
  if (isRound(style)) return stroke;
  const dash = style.dash.map((length) => length * unitsPerPixel);
  return { ...stroke, style: { ...style, dash, dashShift: style.dashShift * unitsPerPixel } };
}

function furtherPaints(content: ShapeContent, { box, unitsPerPixel }: Outline): ItemPaint[] {
  return content.paints
    .filter((paint) => paint.isOn && (paint.use === 'fill' || paint.width > 0))
    .map(({ use, colour, gradient, width, style }): ItemPaint => {
      const fill: Fill = gradient ? gradientFill(gradient, box) : { type: 'solid', colour };
      if (use === 'fill') return { use, fill };
      const stroke = { colour, width: width * unitsPerPixel, behind: false, fill };
      return { use, stroke: styled(stroke, style, unitsPerPixel) };
    });
}

const printStroke = ({ width, fill, style }: ItemStroke): string =>
  `${width}${fill ? printFill(fill) : ''}${style ? JSON.stringify(style) : ''}`;

/** The item of a shape with all it is painted with. */
export function paintedShape(
  prepared: PreparedLayer,
  read: LayerReader,
  outline: Outline,
  content: ShapeContent & { readonly rule?: FillRule },
  opacity: number,
): ShapeItem {
  const { fillGradient, strokeGradient, rule = 'nonzero' } = content;
  const plain = shapeItem(prepared, read, outline, content.gradient, opacity);
  const more = furtherPaints(content, outline);
  const fill = fillGradient ? gradientFill(fillGradient, outline.box) : plain.fill;
  let { stroke } = plain;
  if (stroke) {
    stroke = styled(stroke, content.strokeStyle, outline.unitsPerPixel);
    if (strokeGradient) stroke = { ...stroke, fill: gradientFill(strokeGradient, outline.box) };
  }
  const print =
    (fillGradient && fill ? printFill(fill) : '') +
    (stroke && (stroke.style || stroke.fill) ? `s${printStroke(stroke)}` : '') +
    (rule === 'evenodd' ? 'e' : '') +
    more.map((paint) => (paint.use === 'fill' ? `f${printFill(paint.fill)}` : `s${printStroke(paint.stroke)}`)).join();
  return {
    ...plain,
    fill,
    stroke,
    ...(rule === 'evenodd' ? { rule } : {}),
    ...(more.length > 0 ? { more } : {}),
    fingerprint: print === '' ? plain.fingerprint : `${plain.fingerprint}~${print}`,
  };
}
