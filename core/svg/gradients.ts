import { cssColour, withAlpha } from '../colour';
import { isFlat, multiply } from '../geometry';
import type { Box, Matrix } from '../geometry';
import { MAX_STOPS } from '../piece';
import type { Gradient } from '../piece';
import type { PlacedGradient, SvgPaint } from './nodes';
import { styleOf } from './styles';
import type { Sheet, Style } from './styles';
import { lengthOf, shareOf, transformOf } from './values';
import type { Axis, Measures } from './values';
import { childElements, referenceOf } from './xml';
import type { SvgElement } from './xml';

/** Gradients of SVG (SVG 2, section 14.2). */

const NAMES = new Set(['linearGradient', 'radialGradient']);
/** Longest chain of gradients that take over from one another. */
const MAX_CHAIN = 16;

/** Where a gradient is asked for. */
export interface PaintPlace {
  readonly byId: ReadonlyMap<string, SvgElement>;
  readonly sheet: Sheet;
  readonly style: Style;
  readonly measures: Measures;
  /** The shape's box in its own coordinates, without its stroke. */
  readonly box: Box | null;
  /** From those to pixels of the place. */
  readonly matrix: Matrix;
  /** 0 to 1, for all of it. */
  readonly opacity: number;
  /** What is not had, by name. */
  readonly left: Set<string>;
}

/** A gradient and those it takes over from, the nearest first. */
function chainOf(element: SvgElement, byId: ReadonlyMap<string, SvgElement>): SvgElement[] {
  const chain = [element];
  while (chain.length < MAX_CHAIN) {
    const next = byId.get(referenceOf(chain.at(-1)!.attributes.href) ?? ''); // never empty
    if (!next || !NAMES.has(next.name) || chain.includes(next)) break;
    chain.push(next);
  }
  return chain;
}

function stopsOf(chain: readonly SvgElement[], place: PaintPlace): Gradient['stops'] {
  const owner = chain.find((element) => childElements(element).some((child) => child.name === 'stop'));
  if (!owner) return [];
  let last = 0;
  const own = styleOf(owner, place.style, place.sheet);
  return childElements(owner)
    .filter((child) => child.name === 'stop')
    .slice(0, MAX_STOPS)
    .map((stop) => {
      const style = styleOf(stop, own, place.sheet);
      // Each is at least where the one before it is.
      last = Math.max(last, shareOf(stop.attributes.offset, 0));
      const named = style['stop-color'] === 'currentcolor' || style['stop-color'] === 'currentColor';
      const colour = cssColour((named ? style.color : style['stop-color']) ?? '') ?? '#000000';
      return { at: last, colour: withAlpha(colour, shareOf(style['stop-opacity'], 1) * place.opacity) };
    });
}

/** What a gradient paints with; null for nothing, so that the shape is not painted at all. */
export function gradientPaint(element: SvgElement, place: PaintPlace): SvgPaint | null {
  const chain = chainOf(element, place.byId);
  const attribute = (name: string, isOwn: (at: SvgElement) => boolean = () => true): string | undefined =>
    chain.find((at) => isOwn(at) && at.attributes[name] !== undefined)?.attributes[name];
  const stops = stopsOf(chain, place);
  const first = stops[0];
  if (!first) return null;
  if (stops.length === 1) return { type: 'colour', colour: first.colour };
  const isOfBox = attribute('gradientUnits') !== 'userSpaceOnUse';
  if (isOfBox && (!place.box || place.box[0] >= place.box[2] || place.box[1] >= place.box[3])) return null;
  const measures: Measures = isOfBox ? { width: 1, height: 1, em: 0 } : place.measures;
  const isSame = (at: SvgElement): boolean => at.name === element.name;
  const length = (name: string, axis: Axis, otherwise: string): number =>
    lengthOf(attribute(name, isSame) ?? otherwise, axis, measures) ?? 0;
  const [l, t, r, b] = place.box ?? [0, 0, 1, 1];
  const ofBox: Matrix = [r - l, 0, 0, b - t, l, t];
  const units = isOfBox ? multiply(place.matrix, ofBox) : place.matrix;
  const outer = multiply(units, transformOf(attribute('gradientTransform')));
  const method = attribute('spreadMethod');
  const spread = method === 'reflect' || method === 'repeat' ? method : 'pad';
  const lastColour = stops.at(-1)!.colour; // not empty
  const solid: SvgPaint = { type: 'colour', colour: lastColour };
  const made = (shape: 'linear' | 'radial', own: Matrix, focus: [number, number]): SvgPaint => {
    const matrix = multiply(outer, own);
    if (isFlat(matrix)) return solid;
    const gradient: PlacedGradient = { shape, matrix, stops, spread, focus };
    return { type: 'gradient', gradient };
  };
  if (element.name === 'linearGradient') {
    const [x1, y1] = [length('x1', 'x', '0%'), length('y1', 'y', '0%')];
    const [dx, dy] = [length('x2', 'x', '100%') - x1, length('y2', 'y', '0%') - y1];
    return made('linear', [dx, dy, -dy, dx, x1, y1], [0, 0]);
  }
  const [cx, cy, radius] = [length('cx', 'x', '50%'), length('cy', 'y', '50%'), length('r', 'both', '50%')];
  if (radius <= 0) return solid;
  const fx = attribute('fx', isSame) === undefined ? cx : length('fx', 'x', '0');
  const fy = attribute('fy', isSame) === undefined ? cy : length('fy', 'y', '0');
  if (length('fr', 'both', '0%') > 0) place.left.add('gradients that begin at a circle');
  const focus: [number, number] = [(fx - cx) / radius, (fy - cy) / radius];
  // A focus outside the circle stands just within it.
  const far = Math.hypot(...focus);
  const within = far > 0.99 ? 0.99 / far : 1;
  return made('radial', [radius, 0, 0, radius, cx, cy], [focus[0] * within, focus[1] * within]);
}
