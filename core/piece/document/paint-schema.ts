import * as z from 'zod';
import { colourSchema } from '../../colour';
import { vectorSchema } from '../../motion';
import { idSchema, numberSchema } from '../../time';

/** What shapes are filled and stroked with beyond one colour. The names are those of SVG 2 and of CSS Images 4. */

export const GRADIENT_SHAPES = { linear: 'Linear', radial: 'Radial', conic: 'Conic' } as const;
export const SPREADS = { pad: 'Pad', reflect: 'Reflect', repeat: 'Repeat' } as const;
export const CAPS = { butt: 'Butt', round: 'Round', square: 'Square' } as const;
export const JOINS = { miter: 'Miter', round: 'Round', bevel: 'Bevel' } as const;
export const STROKE_POSITIONS = { centre: 'Centre', inside: 'Inside', outside: 'Outside' } as const;
export const FILL_RULES = ['nonzero', 'evenodd'] as const;
export type FillRule = (typeof FILL_RULES)[number];

const keys = <T extends object>(table: T) => Object.keys(table) as [keyof T & string, ...(keyof T & string)[]]; // keys of a literal object

/** Most stops of a gradient, dashes of a stroke, and paints over the first of a shape. */
export const MAX_STOPS = 64;
const MAX_DASHES = 24;
const MAX_PAINTS = 12;
const share = z.number().min(0).max(1);

export const gradientSchema = z.strictObject({
  shape: z.enum(keys(GRADIENT_SHAPES)),
  /**
   * From the gradient's own space to shares of the layer's box (0 to 1 from its left top corner), in the order of
   * Canvas2D. There a linear one runs from x = 0 to x = 1, a radial one from the middle to the circle of radius 1, and a
   * conic one turns clockwise about the middle from the direction of x.
   */
  matrix: z.tuple([numberSchema, numberSchema, numberSchema, numberSchema, numberSchema, numberSchema]),
  /** In ascending order. */
  stops: z
    .array(z.strictObject({ at: share, colour: colourSchema }))
    .min(1)
    .max(MAX_STOPS)
    .refine((stops) => stops.every((stop, i) => i === 0 || stop.at >= stops[i - 1]!.at), 'stops are in order'),
  /** How it goes on beyond its ends; a conic one has none. */
  spread: z.enum(keys(SPREADS)),
  /** Where a radial one begins, in its own space, within the circle. */
  focus: vectorSchema.refine(([x, y]) => Math.hypot(x, y) <= 1, 'the focus lies within the circle'),
});
export type Gradient = z.infer<typeof gradientSchema>;

export const strokeStyleSchema = z.strictObject({
  cap: z.enum(keys(CAPS)),
  join: z.enum(keys(JOINS)),
  /** Where a point longer than so many half widths is cut. */
  miterLimit: z.number().min(1).max(1000),
  /** Lengths of dash and gap in turn, pixels of the lead format; none for a whole line. */
  dash: z.array(z.number().min(0).max(100_000)).max(MAX_DASHES),
  dashShift: numberSchema,
  position: z.enum(keys(STROKE_POSITIONS)),
});
export type StrokeStyle = z.infer<typeof strokeStyleSchema>;
export const ROUND_STROKE: StrokeStyle = {
  cap: 'round',
  join: 'round',
  miterLimit: 4,
  dash: [],
  dashShift: 0,
  position: 'centre',
};

/** How far a stroke of a width reaches from its path at most, in the width's own units. */
export const strokeReach = (width: number, { position, join, miterLimit, cap }: StrokeStyle): number =>
  (position === 'outside' ? width : width / 2) *
  Math.max(join === 'miter' ? miterLimit : 1, cap === 'square' ? Math.SQRT2 : 1);

/** A further fill or stroke, over the shape's first. */
export const paintSchema = z.strictObject({
  id: idSchema,
  isOn: z.boolean(),
  use: z.enum(['fill', 'stroke']),
  colour: colourSchema,
  gradient: gradientSchema.nullable(),
  /** Of a stroke, pixels of the lead format. */
  width: z.number().min(0).max(1000),
  style: strokeStyleSchema,
});
export type Paint = z.infer<typeof paintSchema>;

/** What every kind of shape has in its content. */
export const SHAPE_CONTENT = {
  fillGradient: gradientSchema.nullable().default(null),
  strokeGradient: gradientSchema.nullable().default(null),
  strokeStyle: strokeStyleSchema.default(ROUND_STROKE),
  /** The last is on top. */
  paints: z.array(paintSchema).max(MAX_PAINTS).default([]),
} as const;
export interface ShapeContent {
  readonly gradient: 'none' | 'linear' | 'radial';
  readonly fillGradient: Gradient | null;
  readonly strokeGradient: Gradient | null;
  readonly strokeStyle: StrokeStyle;
  readonly paints: readonly Paint[];
}

export const fillRuleSchema = z.enum(FILL_RULES).default('nonzero');

/** A gradient of two colours from left to right, as a new one begins. */
export const newGradient = (shape: Gradient['shape'], from: string, to: string): Gradient => ({
  shape,
  matrix: shape === 'linear' ? [1, 0, 0, 1, 0, 0.5] : [0.5, 0, 0, 0.5, 0.5, 0.5],
  stops: [
    { at: 0, colour: from },
    { at: 1, colour: to },
  ],
  spread: 'pad',
  focus: [0, 0],
});
