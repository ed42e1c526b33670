import type { Colour } from '../colour';
import { IDENTITY } from '../geometry';
import type { Matrix } from '../geometry';
import type { BlendMode, FillRule, StrokeStyle } from '../piece';

/**
 * What one frame shows, in the terms that a Lottie file has: shapes, pictures and compositions, each with a blur, a
 * clip, a cover by which it is seen, an opacity and a blend mode, which count in this order.
 */
export interface Look {
  /** The layer that it belongs to. */
  readonly layerId: string;
  readonly what: ShapeLook | PictureLook | CompositionLook;
  /** Standard deviation of a Gaussian, pixels. */
  readonly blur: number;
  /** Corners of what is kept, pixels. */
  readonly clip: readonly (readonly [number, number])[] | null;
  readonly cover: Cover | null;
  readonly opacity: number;
  readonly blend: BlendMode;
}

export interface ShapeLook {
  readonly type: 'shape';
  /** SVG path data, absolute M, L, Q, C, Z. */
  readonly path: string;
  readonly pathKey: string;
  readonly matrix: Matrix;
  /** The first is at the bottom. */
  readonly paints: readonly PaintLook[];
}

export type PaintLook =
  | { readonly use: 'fill'; readonly tone: Tone; readonly rule: FillRule }
  | { readonly use: 'stroke'; readonly tone: Tone; readonly width: number; readonly style: LineStyle };

export type LineStyle = Pick<StrokeStyle, 'cap' | 'join' | 'miterLimit' | 'dash' | 'dashShift'>;

/** One colour, or a gradient in the shape's own coordinates. */
export type Tone =
  | { readonly type: 'solid'; readonly colour: Colour }
  | {
      readonly type: 'linear' | 'radial';
      readonly from: readonly [number, number];
      /** The far end of a linear one; a point of the circle of a radial one. */
      readonly to: readonly [number, number];
      readonly stops: readonly (readonly [at: number, colour: Colour])[];
      /** Of a radial one: how far from its middle it begins, as a share of its radius, and in which direction. */
      readonly focus: { readonly share: number; readonly degrees: number };
    };

export interface PictureLook {
  readonly type: 'picture';
  readonly hash: string;
  /** From the unit square to pixels. */
  readonly matrix: Matrix;
}

export interface CompositionLook {
  readonly type: 'composition';
  readonly children: readonly Look[];
  /** From where its looks lie to where they are seen, pixels. */
  readonly move: Matrix;
}

/** A picture of looks by which another is seen. */
export interface Cover {
  readonly looks: readonly Look[];
  readonly channel: 'alpha' | 'luminance';
  readonly inverted: boolean;
}

const PLAIN = { blur: 0, clip: null, cover: null, opacity: 1, blend: 'normal' } as const;

export const lookOf = (layerId: string, what: Look['what']): Look => ({ layerId, what, ...PLAIN });

export const composition = (layerId: string, children: readonly Look[], move: Matrix = IDENTITY): Look =>
  lookOf(layerId, { type: 'composition', children, move });

/** Several looks as one; one that nothing blends in stays as it is. */
export const asOne = (layerId: string, looks: readonly Look[]): Look =>
  looks.length === 1 && looks[0]!.blend === 'normal' ? looks[0]! : composition(layerId, looks);

const isBare = (look: Look): boolean => !look.clip && !look.cover && look.opacity === 1 && look.blend === 'normal';
const inner = (look: Look, isFree: boolean): Look => (isFree ? look : composition(look.layerId, [look]));
/** Blurs and clips lie in pixels, which the coordinates of pictures and of what is moved are not. */
const hasPixels = ({ what }: Look): boolean =>
  what.type === 'shape' || (what.type === 'composition' && what.move === IDENTITY);

export function blurred(look: Look, blur: number): Look {
  if (blur <= 0) return look;
  return { ...inner(look, isBare(look) && look.blur === 0 && hasPixels(look)), blur };
}

export function clipped(look: Look, clip: Look['clip']): Look {
  return clip ? { ...inner(look, isBare(look) && hasPixels(look)), clip } : look;
}

export function seenBy(look: Look, cover: Cover): Look {
  const isFree = !look.cover && look.opacity === 1 && look.blend === 'normal';
  return { ...inner(look, isFree), cover };
}

export function faded(look: Look, opacity: number, blend: BlendMode): Look {
  if (opacity >= 1 && blend === 'normal') return look;
  return { ...inner(look, look.blend === 'normal'), opacity: look.opacity * opacity, blend };
}
