import { IDENTITY, multiply } from '../geometry';
import type { Box, Matrix } from '../geometry';
import { MAX_NUMBER } from '../time';

/** Numbers, lengths, lists and transforms as SVG writes them. What is no number is nothing. */

const NUMBER = /[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?/g;
const bounded = (value: number): number => Math.max(-MAX_NUMBER, Math.min(MAX_NUMBER, value));

/** Pixels a unit makes (CSS Values 4, section 6.2). */
const UNITS: Readonly<Record<string, number>> = {
  '': 1,
  px: 1,
  pt: 96 / 72,
  pc: 16,
  in: 96,
  cm: 96 / 2.54,
  mm: 96 / 25.4,
  q: 96 / 101.6,
};

/** What shares are of, and the size of an em. */
export interface Measures {
  readonly width: number;
  readonly height: number;
  readonly em: number;
}

/** The length that a share of neither width nor height is of (SVG 2, section 8.9). */
const diagonal = ({ width, height }: Measures): number => Math.sqrt((width ** 2 + height ** 2) / 2);

export type Axis = 'x' | 'y' | 'both';

/** Pixels; null for what is no length. */
export function lengthOf(text: string | undefined, axis: Axis, measures: Measures): number | null {
  const match = /^\s*([+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)\s*([a-zA-Z%]*)\s*$/.exec(text ?? '');
  if (!match) return null;
  const value = bounded(Number(match[1]));
  const unit = match[2]!.toLowerCase(); // a group that is always there
  if (unit === '%') {
    const whole = axis === 'x' ? measures.width : axis === 'y' ? measures.height : diagonal(measures);
    return (value / 100) * whole;
  }
  if (unit === 'em' || unit === 'rem') return value * measures.em;
  if (unit === 'ex') return (value * measures.em) / 2;
  const factor = UNITS[unit];
  return factor === undefined ? null : bounded(value * factor);
}

/** A share from 0 to 1, as a number or with a per cent sign. */
export function shareOf(text: string | undefined, otherwise: number): number {
  const value = parseFloat(text ?? '');
  if (!Number.isFinite(value)) return otherwise;
  return Math.max(0, Math.min(1, (text ?? '').includes('%') ? value / 100 : value));
}

export const numbersOf = (text: string | undefined): number[] =>
  (text?.match(NUMBER) ?? []).map((one) => bounded(Number(one)));

const TURN = Math.PI / 180;

function oneTransform(name: string, n: readonly number[]): Matrix | null {
  const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0] = n;
  switch (name) {
    case 'matrix':
      return n.length === 6 ? [a, b, c, d, e, f] : null;
    case 'translate':
    case 'translateX':
      return [1, 0, 0, 1, a, b];
    case 'translateY':
      return [1, 0, 0, 1, 0, a];
    case 'scale':
      return [a, 0, 0, n.length > 1 ? b : a, 0, 0];
    case 'rotate': {
      const [cos, sin] = [Math.cos(a * TURN), Math.sin(a * TURN)];
      const turn: Matrix = [cos, sin, -sin, cos, 0, 0];
      return n.length === 3 ? multiply(multiply([1, 0, 0, 1, b, c], turn), [1, 0, 0, 1, -b, -c]) : turn;
    }
    case 'skewX':
      return [1, 0, Math.tan(a * TURN), 1, 0, 0];
    case 'skewY':
      return [1, Math.tan(a * TURN), 0, 1, 0, 0];
    default:
      return null;
  }
}

/** A list of transforms as one matrix. What is written wrongly counts as none, as SVG has it. */
export function transformOf(text: string | undefined): Matrix {
  let matrix = IDENTITY;
  for (const [, name, numbers] of (text ?? '').matchAll(/([a-zA-Z]+)\s*\(([^)]*)\)/g)) {
    const one = oneTransform(name!, numbersOf(numbers)); // groups that are always there
    if (!one) return IDENTITY;
    matrix = multiply(matrix, one);
  }
  return matrix;
}

/** Degrees of an angle with its unit (CSS Values 4, section 7.1); null for what is none. */
function degreesOf(text: string): number | null {
  const match = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)(deg|grad|rad|turn)?$/i.exec(text.trim());
  if (!match) return null;
  const per = { deg: 1, grad: 0.9, rad: 180 / Math.PI, turn: 360 }[match[2]?.toLowerCase() ?? 'deg'];
  return per === undefined ? null : bounded(Number(match[1]) * per);
}

/**
 * Transforms as style sheets write them (CSS Transforms 1): with units and shares of a box. What is written wrongly, or
 * leaves the plane, counts as none.
 */
export function cssTransformOf(text: string, measures: Measures): Matrix {
  let matrix = IDENTITY;
  for (const [, name = '', list = ''] of text.matchAll(/([a-zA-Z]+)\s*\(([^)]*)\)/g)) {
    const values = list.split(/[\s,]+/).filter(Boolean);
    const numbers = values.map((value, i) => {
      if (/^translate/i.test(name)) return lengthOf(value, /Y$/i.test(name) || i === 1 ? 'y' : 'x', measures);
      if (/^(rotate|skew)/i.test(name)) return degreesOf(value);
      return value.endsWith('%') ? parseFloat(value) / 100 : (numbersOf(value)[0] ?? null);
    });
    const all = numbers.filter((one) => one !== null);
    const [a = 0, b = 0] = all;
    const one =
      all.length !== values.length
        ? null
        : name === 'scaleX'
          ? ([a, 0, 0, 1, 0, 0] as Matrix)
          : name === 'scaleY'
            ? ([1, 0, 0, a, 0, 0] as Matrix)
            : name === 'skew'
              ? ([1, Math.tan(b * TURN), Math.tan(a * TURN), 1, 0, 0] as Matrix)
              : oneTransform(name === 'rotateZ' ? 'rotate' : name, name === 'rotate' ? all.slice(0, 1) : all);
    if (!one) return IDENTITY;
    matrix = multiply(matrix, one);
  }
  return matrix;
}

/** The point that `transform-origin` names within a box (CSS Transforms 1, section 6). */
export function originOf(text: string, [l, t, r, b]: Box, em: number): [number, number] {
  const words = text.trim().toLowerCase().split(/\s+/);
  const shares: Readonly<Record<string, string>> = {
    left: '0%',
    right: '100%',
    top: '0%',
    bottom: '100%',
    center: '50%',
  };
  const isVertical = (word: string | undefined): boolean => word === 'top' || word === 'bottom';
  const [first = '50%', second = '50%'] =
    isVertical(words[0]) || words[1] === 'left' || words[1] === 'right' ? [words[1], words[0]] : words;
  const measures: Measures = { width: r - l, height: b - t, em };
  return [
    l + (lengthOf(shares[first] ?? first, 'x', measures) ?? 0),
    t + (lengthOf(shares[second] ?? second, 'y', measures) ?? 0),
  ];
}

/**
 * From a view box to the viewport it is shown in (SVG 2, section 8.6); null if the box is empty, so that nothing is shown.
 */
export function viewMatrix(viewBox: string | undefined, aspect: string | undefined, viewport: Box): Matrix | null {
  const [left, top, right, bottom] = viewport;
  const box = numbersOf(viewBox);
  if (box.length !== 4) return [1, 0, 0, 1, left, top];
  const [x, y, width, height] = box as [number, number, number, number];
  if (width <= 0 || height <= 0) return null;
  const [w, h] = [right - left, bottom - top];
  const [align = 'xMidYMid', how] = (aspect ?? '').trim().split(/\s+/).filter(Boolean);
  let [sx, sy] = [w / width, h / height];
  if (align === 'none') return [sx, 0, 0, sy, left - x * sx, top - y * sy];
  sx = sy = how === 'slice' ? Math.max(sx, sy) : Math.min(sx, sy);
  const share = (name: string): number => (name === 'Min' ? 0 : name === 'Max' ? 1 : 0.5);
  const [, alignX = 'Mid', alignY = 'Mid'] = /^x(Min|Mid|Max)Y(Min|Mid|Max)$/.exec(align) ?? [];
  return [
    sx,
    0,
    0,
    sy,
    left - x * sx + (w - width * sx) * share(alignX),
    top - y * sy + (h - height * sy) * share(alignY),
  ];
}
