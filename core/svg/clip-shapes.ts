import type { Box } from '../geometry';
import type { FillRule } from '../piece';
import { shapeData } from './shapes';
import { lengthOf, originOf } from './values';
import type { Axis, Measures } from './values';

/** Clips made of basic shapes (CSS Shapes 1, section 3; CSS Masking 1, section 4.1). */

export interface ClipShape {
  /** Path data in user units. */
  readonly d: string;
  readonly rule: FillRule;
}

const FUNCTION = /^(?:([a-z-]+)\s+)?(circle|ellipse|inset|polygon|path)\(((?:[^()]|\([^()]*\))*)\)(?:\s+([a-z-]+))?$/i;

/** Which box a shape is laid in; the box with its stroke where nothing is said. */
export type ClipBox = 'fill' | 'stroke' | 'view';

const BOXES: Readonly<Record<string, ClipBox>> = {
  'fill-box': 'fill',
  'content-box': 'fill',
  'padding-box': 'fill',
  'stroke-box': 'stroke',
  'border-box': 'stroke',
  'margin-box': 'stroke',
  'view-box': 'view',
};

export interface AskedShape {
  readonly name: string;
  readonly given: string;
  readonly box: ClipBox;
}

/** What `clip-path` asks for, if it is a basic shape; null for anything else. */
export function askedShape(text: string): AskedShape | null {
  const found = FUNCTION.exec(text.trim());
  if (!found) return null;
  const [, before, name = '', given = '', after] = found;
  const word = (before ?? after ?? 'border-box').toLowerCase();
  const box = BOXES[word];
  // Style sheets that were read come without the spaces that they can do without.
  const spaced = given.replace(/%(?=[\d.+-])/g, '% ').trim();
  return box ? { name: name.toLowerCase(), given: spaced, box } : null;
}

/** Radius from a side of the box: the nearest or the farthest. */
function sideRadius(word: string, at: number, from: number, to: number): number | null {
  const [near, far] = [Math.min(at - from, to - at), Math.max(at - from, to - at)].map(Math.abs) as [number, number];
  return word === 'closest-side' ? near : word === 'farthest-side' ? far : null;
}

function round({ name, given }: AskedShape, box: Box, em: number): string | null {
  const [l, t, r, b] = box;
  const measures: Measures = { width: r - l, height: b - t, em };
  const [sizes = '', place = '50% 50%'] = given.split(/\bat\b/i).map((part) => part.trim());
  const [cx, cy] = originOf(place || '50% 50%', box, em);
  const words = sizes.split(/\s+/).filter(Boolean);
  const radius = (word: string, axis: Axis): number | null => {
    const [across, down] = [sideRadius(word, cx, l, r), sideRadius(word, cy, t, b)];
    if (across === null || down === null) return lengthOf(word, axis, measures);
    if (axis !== 'both') return axis === 'x' ? across : down;
    return word === 'closest-side' ? Math.min(across, down) : Math.max(across, down);
  };
  const [first = 'closest-side', second = first] = words;
  const isCircle = name === 'circle';
  const [rx, ry] = isCircle
    ? [radius(first, 'both'), radius(first, 'both')]
    : [radius(first, 'x'), radius(words.length > 0 ? second : first, 'y')];
  if (rx === null || ry === null) return null;
  const attributes = { cx: String(cx), cy: String(cy), rx: String(rx), ry: String(ry) };
  // A circle of no radius hides all.
  return shapeData({ name: 'ellipse', attributes }, measures) ?? '';
}

function inset({ given }: AskedShape, [l, t, r, b]: Box, em: number): string | null {
  const measures: Measures = { width: r - l, height: b - t, em };
  const [sides = '', corners = ''] = given.split(/\bround\b/i).map((part) => part.trim());
  const [top = '0', right = top, bottom = top, left = right] = sides.split(/\s+/);
  const radii = corners.split(/\s+/).filter(Boolean);
  // Corners of different radii are no rectangle here.
  if (radii.length > 1) return null;
  const length = (word: string, axis: Axis): number | null => lengthOf(word, axis, measures);
  const [dt, dr, db, dl] = [length(top, 'y'), length(right, 'x'), length(bottom, 'y'), length(left, 'x')];
  const radius = radii[0] === undefined ? 0 : length(radii[0], 'both');
  if (dt === null || dr === null || db === null || dl === null || radius === null) return null;
  const attributes = {
    ...{ x: String(l + dl), y: String(t + dt) },
    ...{ width: String(r - dr - l - dl), height: String(b - db - t - dt) },
    ...{ rx: String(radius), ry: String(radius) },
  };
  return shapeData({ name: 'rect', attributes }, measures) ?? '';
}

function polygon(points: string, [l, t, r, b]: Box, em: number): string | null {
  const measures: Measures = { width: r - l, height: b - t, em };
  const corners = points.split(',').map((pair) => pair.trim().split(/\s+/));
  const out = corners.map(([x, y]) => [lengthOf(x, 'x', measures), lengthOf(y, 'y', measures)] as const);
  if (out.length < 3 || out.some(([x, y]) => x === null || y === null)) return null;
  return `${out.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${l + x!} ${t + y!}`).join('')}Z`;
}

/**
 * The path of a basic shape. @param box - that it is laid in, user units. @param em - size of an em.
 * @returns Null for what is not had; an empty path hides all.
 */
export function clipShape(asked: AskedShape, box: Box, em: number): ClipShape | null {
  const { name, given } = asked;
  const plain = (d: string | null): ClipShape | null => (d === null ? null : { d, rule: 'nonzero' });
  if (name === 'circle' || name === 'ellipse') return plain(round(asked, box, em));
  if (name === 'inset') return plain(inset(asked, box, em));
  const ruled = /^(nonzero|evenodd)\s*,\s*/i.exec(given);
  const rest = ruled ? given.slice(ruled[0].length) : given;
  const rule: FillRule = ruled?.[1]?.toLowerCase() === 'evenodd' ? 'evenodd' : 'nonzero';
  if (name === 'polygon') {
    const d = polygon(rest, box, em);
    return d === null ? null : { d, rule };
  }
  const quoted = /^(["'])(.*)\1$/s.exec(rest.trim());
  return quoted ? { d: quoted[2]!, rule } : null;
}
