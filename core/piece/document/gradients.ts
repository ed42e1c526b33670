import { mixStraight } from '../../colour';
import type { Colour } from '../../colour';
import { applyMatrix } from '../../geometry';
import type { Vector } from '../../motion';
import { MAX_STOPS } from './paint-schema';
import type { Gradient } from './paint-schema';

/** Changes of gradients as they are made by hand. Places are shares of the layer's box. */

type Stops = Gradient['stops'];

/** The colour of a gradient between its stops. @param literal - what a stop's colour stands for. */
export function colourBetween(stops: Stops, at: number, literal: (colour: Colour) => Colour): Colour {
  const next = stops.findIndex((stop) => stop.at >= at);
  if (next === 0) return stops[0]!.colour;
  if (next < 0) return stops[stops.length - 1]!.colour;
  const [a, b] = [stops[next - 1]!, stops[next]!];
  return mixStraight(literal(a.colour), literal(b.colour), (at - a.at) / Math.max(1e-9, b.at - a.at));
}

/** One more stop that changes nothing yet. @returns The stops and its place among them; null if there is no room. */
export function withStop(
  stops: Stops,
  at: number,
  literal: (colour: Colour) => Colour,
): { readonly stops: Stops; readonly index: number } | null {
  if (stops.length >= MAX_STOPS) return null;
  const found = stops.findIndex((stop) => stop.at > at);
  const index = found < 0 ? stops.length : found;
  const stop = { at, colour: colourBetween(stops, at, literal) };
  return { stops: [...stops.slice(0, index), stop, ...stops.slice(index)], index };
}

/** Where a new stop has most room: the middle of the widest gap. */
export function widestGap(stops: Stops): number {
  const edges = [0, ...stops.map((stop) => stop.at), 1];
  let best = 0;
  for (let i = 1; i + 1 < edges.length; i++) if (edges[i + 1]! - edges[i]! > edges[best + 1]! - edges[best]!) best = i;
  return (edges[best]! + edges[best + 1]!) / 2;
}

/** The points by which a gradient is held: where it begins, where it ends, and how wide it is across (not of a conic). */
export interface GradientPoints {
  readonly from: Vector;
  readonly to: Vector;
  /** Of a radial one: the end of its other radius. */
  readonly across: Vector;
}

export function gradientPoints({ matrix }: Gradient): GradientPoints {
  return { from: applyMatrix(matrix, 0, 0), to: applyMatrix(matrix, 1, 0), across: applyMatrix(matrix, 0, 1) };
}

/** What a way is turned by a right angle, in pixels, for ways in shares of a box. */
const turned = ([x, y]: Vector, [w, h]: Vector): Vector => [(-y * h) / w, (x * w) / h];

/**
 * The gradient with one of its points elsewhere. Moving where it begins moves a radial or conic one as a whole; moving
 * where it ends keeps it as round as it was.
 * @param size - sides of the box in pixels, so that a right angle stays one.
 */
export function withPoint(gradient: Gradient, point: keyof GradientPoints, at: Vector, size: Vector): Gradient {
  const box: Vector = [Math.max(1e-6, size[0]), Math.max(1e-6, size[1])];
  const { from, to, across } = gradientPoints(gradient);
  const isLinear = gradient.shape === 'linear';
  const less = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1]];
  const length = ([x, y]: Vector) => Math.hypot(x * box[0], y * box[1]);
  let [origin, along, side] = [from, less(to, from), less(across, from)];
  const ratio = length(side) / Math.max(1e-9, length(along));
  if (point === 'from') {
    origin = at;
    if (isLinear) along = less(to, at);
  } else if (point === 'to') along = less(at, from);
  else side = less(at, from);
  if (point !== 'across') {
    const right = turned(along, box);
    const k = isLinear ? 1 : ratio;
    side = [right[0] * k, right[1] * k];
  }
  return { ...gradient, matrix: [along[0], along[1], side[0], side[1], origin[0], origin[1]] };
}
