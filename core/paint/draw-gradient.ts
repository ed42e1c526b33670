import { IDENTITY, applyMatrix, invert, isFlat, likeness, multiply, transformBox } from '../geometry';
import type { Box, Matrix } from '../geometry';
import type { Gradient } from '../piece';
import type { Fill } from '../scene';
import type { DrawContext, GradientStops } from './draw-target';
import { spreadStops, straightStops } from './gradient-stops';
import type { Stops } from './gradient-stops';

/** Gradients of any number of stops on a canvas, which knows circles and lines, but no gradient with a matrix. */

export type GradientFill = Extract<Fill, { type: 'gradient' }>;

/** Whether the canvas can paint it in the item's own coordinates. */
export function isDirect({ gradient, matrix }: GradientFill): boolean {
  if (gradient.shape === 'linear' || isFlat(matrix)) return true;
  const like = likeness(matrix);
  return like === 'same' || (like === 'mirrored' && gradient.shape === 'radial');
}

/** A gradient space that a matrix makes a line or point of shows the colour of its end (SVG 2, 14.2.2). */
const endColour = ({ stops }: Gradient): string => stops.at(-1)!.colour; // a gradient has stops

/** Least and most of the way along a gradient within a box that lies in the gradient's space. */
function reach(gradient: Gradient, [l, t, r, b]: Box): [number, number] {
  if (gradient.shape === 'linear') return [l, r];
  const far = Math.max(Math.hypot(l, t), Math.hypot(r, t), Math.hypot(l, b), Math.hypot(r, b));
  // From a point near the edge the way to a place behind it is that much longer.
  return [0, far / Math.max(0.02, 1 - Math.hypot(...gradient.focus))];
}

/** The part of a gradient's way that is painted, from `first` to `last` times its own length, and the stops on it. */
interface SpreadGradient {
  readonly stops: Stops;
  readonly first: number;
  readonly last: number;
}

/**
 * A gradient with whatever it does beyond its ends within a box as stops.
 * @param m - from the gradient's space to the coordinates of the box; not flat.
 */
export function spreadGradient(gradient: Gradient, m: Matrix, within: Box): SpreadGradient {
  const stops = straightStops(gradient.stops);
  if (gradient.spread === 'pad' || gradient.shape === 'conic') return { stops, first: 0, last: 1 };
  const [least, most] = reach(gradient, transformBox(invert(m), within));
  const [first, last] = [Math.min(0, Math.floor(least)), Math.max(1, Math.ceil(most))];
  const spread = spreadStops(stops, gradient.spread, first, last);
  return spread === stops ? { stops, first: 0, last: 1 } : { stops: spread, first, last };
}

/**
 * What the canvas takes for a gradient.
 * @param m - from the gradient's space to the coordinates that are set.
 * @param within - what is painted, in the same coordinates.
 */
function styled(context: DrawContext, gradient: Gradient, m: Matrix, within: Box): GradientStops | string {
  if (isFlat(m)) return endColour(gradient);
  const { stops, first, last } = spreadGradient(gradient, m, within);
  const made = shaped(context, gradient, m, first, last);
  for (const [at, colour] of stops) made.addColorStop(at, colour);
  return made;
}

function shaped(context: DrawContext, gradient: Gradient, m: Matrix, first: number, last: number): GradientStops {
  const middle = applyMatrix(m, 0, 0);
  if (gradient.shape === 'conic') return context.createConicGradient(Math.atan2(m[1], m[0]), ...middle);
  if (gradient.shape === 'radial') {
    const [fx, fy] = gradient.focus;
    // The circles between focus and edge go on in the same way beyond it.
    const centre = applyMatrix(m, fx - fx * last, fy - fy * last);
    const radius = Math.hypot(m[0], m[1]) * last;
    return context.createRadialGradient(...applyMatrix(m, fx, fy), 0, ...centre, Math.max(1e-3, radius));
  }
  // Lines of one colour run along the matrix's y; the gradient itself runs across them.
  const [nx, ny] = [-m[3], m[2]];
  const along = (m[0] * nx + m[1] * ny) / (nx * nx + ny * ny);
  const at = (t: number): [number, number] => [middle[0] + nx * along * t, middle[1] + ny * along * t];
  return context.createLinearGradient(...at(first), ...at(last));
}

/** The style for what the canvas can paint by itself. */
export const gradientStyle = (context: DrawContext, { gradient, matrix }: GradientFill, within: Box): unknown =>
  styled(context, gradient, matrix, within);

/**
 * The same in the gradient's own space, where the canvas can paint any gradient that has one.
 * @param m - from the gradient's space to the coordinates of `within`; not flat.
 */
export const ownGradientStyle = (context: DrawContext, { gradient, matrix }: GradientFill, within: Box): unknown =>
  styled(context, gradient, IDENTITY, transformBox(invert(matrix), within));

/**
 * Paints over what a surface already shows.
 * @param matrix - from the item's coordinates to the surface's.
 * @param within - the surface, in its own pixels.
 */
export function tintWithGradient(context: DrawContext, fill: GradientFill, matrix: Matrix, within: Box): void {
  const m = multiply(matrix, fill.matrix);
  context.save();
  context.globalCompositeOperation = 'source-in';
  context.globalAlpha = 1;
  const isLost = isFlat(m);
  context.setTransform(...(isLost ? IDENTITY : m));
  const [l, t, r, b] = isLost ? within : transformBox(invert(m), within);
  context.fillStyle = isLost ? endColour(fill.gradient) : styled(context, fill.gradient, IDENTITY, [l, t, r, b]);
  context.fillRect(l, t, r - l, b - t);
  context.restore();
}
