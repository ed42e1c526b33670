import { channelsOf, colourFrom, mixColours, mixStraight } from '../colour';
import type { Colour } from '../colour';
import { applyMatrix, isFlat, likeness } from '../geometry';
import type { Box, Matrix } from '../geometry';
import { spreadGradient } from '../paint';
import type { Fill } from '../scene';
import type { Look, Tone } from './look';

/** Fills in the terms of a Lottie file, and what a wash of colour makes of them. */

const MIDDLE = { share: 0, degrees: 0 } as const;
/** Two colours mix in Oklab; so many stops show it in a player that mixes in sRGB. */
const GRADIENT_STOPS = 6;

export const solid = (colour: Colour): Tone => ({ type: 'solid', colour });

/** Whether a gradient can be had in the item's own coordinates: a player's circles stay circles. */
export const isPlainGradient = (fill: Extract<Fill, { type: 'gradient' }>): boolean =>
  fill.gradient.shape !== 'radial' || isFlat(fill.matrix) || likeness(fill.matrix) !== 'other';

/**
 * @param within - what is painted, in the coordinates of the fill.
 * @param left - told what a Lottie file has no means for.
 */
export function toneOf(fill: Exclude<Fill, { type: 'picture' }>, within: Box, left: Set<string>): Tone {
  if (fill.type === 'solid') return solid(fill.colour);
  if (fill.type === 'gradient') return gradientTone(fill, within, left);
  const stops = Array.from(
    { length: GRADIENT_STOPS + 1 },
    (_, i) => [i / GRADIENT_STOPS, mixColours(fill.start, fill.end, i / GRADIENT_STOPS)] as const,
  );
  if (fill.type === 'linear') return { type: 'linear', from: fill.from, to: fill.to, stops, focus: MIDDLE };
  const [x, y] = fill.centre;
  return { type: 'radial', from: [x, y], to: [x + Math.max(0.001, fill.radius), y], stops, focus: MIDDLE };
}

function gradientTone({ gradient, matrix }: Extract<Fill, { type: 'gradient' }>, within: Box, left: Set<string>): Tone {
  const own = gradient.stops;
  if (isFlat(matrix)) return solid(own.at(-1)!.colour); // a gradient has stops
  if (gradient.shape === 'conic') {
    left.add('conic gradients');
    return solid(own[0]!.colour);
  }
  // Players mix with straight alpha, as is meant: stops between are for hosts that do not.
  const plain = own.map(({ at, colour }) => [at, colour] as const);
  const { first, last, ...spread } = spreadGradient(gradient, matrix, within);
  const stops = gradient.spread === 'pad' ? plain : spread.stops;
  if (gradient.shape === 'radial') {
    const [fx, fy] = gradient.focus;
    // The circles between focus and edge go on in the same way beyond it.
    const [x, y] = [fx - fx * last, fy - fy * last];
    const turned = applyMatrix(matrix, fx + x, fy + y);
    const middle = applyMatrix(matrix, x, y);
    const direction = Math.atan2(turned[1] - middle[1], turned[0] - middle[0]) - Math.atan2(matrix[1], matrix[0]);
    const focus = { share: Math.hypot(fx, fy), degrees: (direction * 180) / Math.PI };
    return { type: 'radial', from: middle, to: applyMatrix(matrix, x + last, y), stops, focus };
  }
  const [from, to] = [first, last].map((t) => across(matrix, t)) as [[number, number], [number, number]];
  return { type: 'linear', from, to, stops, focus: MIDDLE };
}

/**
 * The point so far along a gradient. Lines of one colour run along the matrix's y; a player's run square to the way from
 * one end to the other.
 */
function across([a, b, c, d, x, y]: Matrix, t: number): [number, number] {
  const [nx, ny] = [-d, c];
  const along = (a * nx + b * ny) / (nx * nx + ny * ny);
  return [x + nx * along * t, y + ny * along * t];
}

function changedTone(tone: Tone, change: (colour: Colour) => Colour): Tone {
  if (tone.type === 'solid') return solid(change(tone.colour));
  return { ...tone, stops: tone.stops.map(([at, own]) => [at, change(own)] as const) };
}

/** A look with the colours of all its paints changed; null if there are pictures in it. */
export function recoloured(look: Look, change: (colour: Colour) => Colour): Look | null {
  const { what } = look;
  if (what.type === 'picture') return null;
  if (what.type === 'shape') {
    const paints = what.paints.map((paint) => ({ ...paint, tone: changedTone(paint.tone, change) }));
    return { ...look, what: { ...what, paints } };
  }
  const children = what.children.map((child) => recoloured(child, change));
  return children.every((child) => child !== null) ? { ...look, what: { ...what, children } } : null;
}

/** The change that a colour laid over another makes. @param share - of it; the other keeps its own opacity. */
export const washedWith =
  (colour: Colour, share: number) =>
  (own: Colour): Colour => {
    const [r, g, b] = channelsOf(mixStraight(own, colour, share));
    return colourFrom([r, g, b, channelsOf(own)[3]]);
  };
