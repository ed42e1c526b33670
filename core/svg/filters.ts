import { channelsOf, colourFrom, cssColour } from '../colour';
import type { Colour } from '../colour';
import { scaleOf } from '../geometry';
import type { SvgShadow } from './nodes';
import type { Place, Reader } from './reader';
import { styleOf } from './styles';
import { lengthOf, numbersOf } from './values';
import { childElements, referenceOf } from './xml';
import type { SvgElement } from './xml';

/**
 * Filters that are had: a blur, and drop shadows, by the functions of style sheets, by `feDropShadow`, or as drawing
 * programs write them, step by step. Such a filter is followed through its steps with what each makes of the shape:
 * copies of its silhouette that are moved, softened and coloured, with the shape itself above them or not.
 */
export interface SvgFilter {
  /** Standard deviation, pixels of the place. */
  readonly blur: number;
  /** The lowest first. */
  readonly shadows: readonly SvgShadow[];
}
export const NO_FILTER: SvgFilter = { blur: 0, shadows: [] };

/** What one step hands to the next, the lowest first: the shape itself, or its silhouette in a colour. User units. */
type Stack = readonly Item[];
interface Silhouette {
  readonly type: 'silhouette';
  readonly x: number;
  readonly y: number;
  readonly blur: number;
  /** Channels 0 to 1 of sRGB, and what the silhouette's own alpha is multiplied by. */
  readonly rgb: readonly [number, number, number];
  readonly alpha: number;
}
type Item =
  | { readonly type: 'source'; readonly blur: number }
  | Silhouette
  /** A colour all over. */
  | { readonly type: 'flood'; readonly rgb: readonly [number, number, number]; readonly alpha: number };

/** Longest chain of steps, and most copies that one may hand on. */
const [MAX_STEPS, MAX_ITEMS] = [60, 24];
const MAX_SHADOWS = 6;

/** A step that makes something else of the shape than shadows. */
class NotHad extends Error {}

const SILHOUETTE: Silhouette = { type: 'silhouette', x: 0, y: 0, blur: 0, rgb: [0, 0, 0], alpha: 1 };

/** From linear light to sRGB (IEC 61966-2-1). */
const encoded = (value: number): number =>
  value <= 0.0031308 ? 12.92 * value : 1.055 * Math.max(0, value) ** (1 / 2.4) - 0.055;
const clamped = (value: number): number => Math.min(1, Math.max(0, value));

/** Channels 0 to 1 and alpha. */
function partsOf(colour: Colour): { rgb: [number, number, number]; alpha: number } {
  const [r, g, b, alpha] = channelsOf(colour);
  return { rgb: [r / 255, g / 255, b / 255], alpha: alpha / 255 };
}

function floodOf(reader: Reader, step: SvgElement, around: Place): { rgb: [number, number, number]; alpha: number } {
  const style = styleOf(step, around.style, reader.sheet);
  const colour =
    cssColour((style['flood-color'] ?? 'black').replace('currentcolor', style.color ?? 'black')) ?? '#000000';
  const own = partsOf(colour);
  const opacity = Number.parseFloat(style['flood-opacity'] ?? '1');
  return { ...own, alpha: own.alpha * (Number.isFinite(opacity) ? clamped(opacity) : 1) };
}

/** A matrix of colours that gives every pixel one colour and some of its own alpha. */
function recoloured(values: readonly number[], item: Item, isLinear: boolean): Item {
  if (item.type !== 'silhouette' || values.length !== 20) throw new NotHad();
  const [ra, ga, ba] = [values[3]!, values[8]!, values[13]!];
  const own = (row: number): number => {
    // A silhouette from the source's alpha is black: what its channels are multiplied by counts for nothing.
    const [r, g, b] = item.rgb;
    const [kr, kg, kb] = [values[row * 5]!, values[row * 5 + 1]!, values[row * 5 + 2]!];
    return kr * r + kg * g + kb * b + values[row * 5 + 4]!;
  };
  if (ra !== 0 || ga !== 0 || ba !== 0 || values[19] !== 0) throw new NotHad();
  const channel = (row: number): number => {
    const value = clamped(own(row));
    return isLinear ? clamped(encoded(value)) : value;
  };
  return {
    ...item,
    rgb: [channel(0), channel(1), channel(2)],
    // "Hardening" multiplies alpha by 127: it is full wherever there is something.
    alpha: clamped(item.alpha * values[18]!),
  };
}

/** What an element of a filter makes of what it is given. */
function stepOf(reader: Reader, step: SvgElement, around: Place, input: (name: string | undefined) => Stack): Stack {
  const { attributes } = step;
  const own = input(attributes.in);
  const number = (name: string, otherwise: number): number => {
    const [value = otherwise] = numbersOf(attributes[name]);
    return value;
  };
  const deviation = (): number => {
    const [across = 0, down = across] = numbersOf(attributes.stdDeviation);
    if (across !== down) reader.left.add('blurs of two widths');
    return Math.max(0, (across + down) / 2);
  };
  const moved = (item: Item, x: number, y: number): Item => {
    if (item.type === 'silhouette') return { ...item, x: item.x + x, y: item.y + y };
    if (item.type === 'source' && (x !== 0 || y !== 0)) throw new NotHad();
    return item;
  };
  const softened = (item: Item, by: number): Item =>
    item.type === 'flood' ? item : { ...item, blur: Math.hypot(item.blur, by) };
  switch (step.name) {
    case 'feFlood': {
      const { rgb, alpha } = floodOf(reader, step, around);
      return alpha === 0 ? [] : [{ type: 'flood', rgb, alpha }];
    }
    case 'feOffset':
      return own.map((item) => moved(item, number('dx', 0), number('dy', 0)));
    case 'feGaussianBlur':
      return own.map((item) => softened(item, deviation()));
    case 'feDropShadow': {
      const { rgb, alpha } = floodOf(reader, step, around);
      const [x, y] = [number('dx', 2), number('dy', 2)];
      if (own.length !== 1 || own[0]!.type !== 'source' || own[0]!.blur !== 0) throw new NotHad();
      const blur = attributes.stdDeviation === undefined ? 2 : deviation();
      return [{ type: 'silhouette', x, y, blur, rgb, alpha }, ...own];
    }
    case 'feColorMatrix': {
      if ((attributes.type ?? 'matrix') !== 'matrix') throw new NotHad();
      const style = styleOf(step, around.style, reader.sheet);
      const isLinear = (style['color-interpolation-filters'] ?? 'linearRGB') !== 'sRGB';
      return own.map((item) => recoloured(numbersOf(attributes.values), item, isLinear));
    }
    case 'feComponentTransfer': {
      const [only, ...more] = childElements(step);
      if (!only || more.length > 0 || only.name !== 'feFuncA' || only.attributes.type !== 'linear') throw new NotHad();
      const slope = clamped(numbersOf(only.attributes.slope)[0] ?? 1);
      return own.map((item) => {
        if (item.type === 'source') throw new NotHad();
        return { ...item, alpha: item.alpha * slope };
      });
    }
    case 'feComposite': {
      const other = input(attributes.in2);
      const operator = attributes.operator ?? 'over';
      if (operator === 'over') return [...other, ...own];
      // A shadow that is cut out under the shape lies under it anyhow.
      if (operator === 'out') return own;
      const [flood, shape] = [own[0], other[0]];
      if (operator !== 'in' || own.length !== 1 || other.length !== 1 || flood!.type !== 'flood') throw new NotHad();
      if (shape!.type === 'flood') throw new NotHad();
      const silhouette = shape!.type === 'silhouette' ? shape! : { ...SILHOUETTE, blur: shape!.blur };
      return [{ ...silhouette, rgb: flood!.rgb, alpha: flood!.alpha * silhouette.alpha }];
    }
    case 'feBlend':
      if ((attributes.mode ?? 'normal') !== 'normal') throw new NotHad();
      return [...input(attributes.in2), ...own];
    case 'feMerge':
      return childElements(step).flatMap((node) => input(node.attributes.in));
    default:
      throw new NotHad();
  }
}

/** The stack that a filter ends with. @throws NotHad. */
function followed(reader: Reader, filter: SvgElement, around: Place): Stack {
  const steps = childElements(filter);
  if (steps.length > MAX_STEPS) throw new NotHad();
  const known = new Map<string, Stack>([
    ['SourceGraphic', [{ type: 'source', blur: 0 }]],
    ['SourceAlpha', [SILHOUETTE]],
    // There is nothing behind the shape in a filter.
    ['BackgroundImage', []],
  ]);
  let last: Stack = known.get('SourceGraphic')!;
  const input = (name: string | undefined): Stack => {
    if (name === undefined || name === '') return last;
    const found = known.get(name);
    if (!found) throw new NotHad();
    return found;
  };
  const inner: Place = { ...around, style: styleOf(filter, around.style, reader.sheet) };
  for (const step of steps) {
    last = stepOf(reader, step, inner, input);
    if (last.length > MAX_ITEMS) throw new NotHad();
    if (step.attributes.result) known.set(step.attributes.result, last);
  }
  return last;
}

type Four = [number, number, number, number];

/** Shadows below the shape itself, in pixels of the place. @throws NotHad for anything else. */
function asShadows(stack: Stack, { matrix }: Place): SvgFilter {
  const source = stack.at(-1);
  const below = stack.slice(0, -1);
  if (source?.type !== 'source' || below.length > MAX_SHADOWS) throw new NotHad();
  const k = scaleOf(matrix);
  const [a, b, c, d] = matrix;
  const shadows = below.map((item): SvgShadow => {
    if (item.type !== 'silhouette') throw new NotHad();
    return {
      x: a * item.x + c * item.y,
      y: b * item.x + d * item.y,
      blur: item.blur * k,
      colour: colourFrom([...item.rgb, clamped(item.alpha)].map((v) => Math.round(v * 255)) as Four),
    };
  });
  // What softens the shape as well as its shadow is no layer's blur and shadow.
  if (source.blur > 0 && shadows.length > 0) throw new NotHad();
  return { blur: source.blur * k, shadows };
}

const LENGTH = String.raw`[-+]?[\d.]+(?:e[-+]?\d+)?[a-z%]*`;
const DROP_SHADOW = new RegExp(
  String.raw`^(?:(.*?)\s+)??(${LENGTH})\s+(${LENGTH})(?:\s+(${LENGTH}))?(?:\s+(.*))?$`,
  'i',
);

/** One function of a style sheet. @throws NotHad. */
function functionOf(name: string, given: string, around: Place): Stack {
  const length = (text: string | undefined): number => lengthOf(text ?? '0', 'both', around.measures) ?? 0;
  if (name === 'blur') return [{ type: 'source', blur: Math.max(0, length(given || '0')) }];
  const found = name === 'drop-shadow' ? DROP_SHADOW.exec(given.replaceAll(')', ') ').trim()) : null;
  if (!found) throw new NotHad();
  const [, before = '', x, y, blur, after = ''] = found;
  const written = (before || after || 'currentcolor').trim().toLowerCase();
  const colour = cssColour(written === 'currentcolor' ? (around.style.color ?? '#000000') : written);
  if (!colour) throw new NotHad();
  const shadow: Item = { type: 'silhouette', x: length(x), y: length(y), blur: length(blur), ...partsOf(colour) };
  return [shadow, { type: 'source', blur: 0 }];
}

const FUNCTIONS = /([a-z-]+)\(((?:[^()]|\([^()]*\))*)\)/gi;

/** What the filter of an element comes to; anything that is not had is told, and left out. */
export function filterOf(reader: Reader, place: Place): SvgFilter {
  const asked = (place.style.filter ?? 'none').trim();
  if (asked === '' || asked === 'none') return NO_FILTER;
  try {
    const id = referenceOf(asked);
    if (id !== null) {
      const filter = reader.byId.get(id);
      if (filter?.name !== 'filter') return NO_FILTER;
      if (filter.attributes.primitiveUnits === 'objectBoundingBox') throw new NotHad();
      return asShadows(followed(reader, filter, place), place);
    }
    const functions = [...asked.matchAll(FUNCTIONS)];
    const [only] = functions;
    // One after another, each filters what the one before it gives: shadows of shadows.
    if (functions.length !== 1 || only![0] !== asked) throw new NotHad();
    return asShadows(functionOf(only![1]!.toLowerCase(), only![2]!, place), place);
  } catch (error) {
    if (!(error instanceof NotHad)) throw error;
    reader.left.add('filters other than blurs and shadows');
    return NO_FILTER;
  }
}
