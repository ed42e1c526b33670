import * as z from 'zod';
import { FIGURES, PATH_OPERATIONS } from '../../geometry';
import { idsOf } from '../../motion';
import type { TrackValue } from '../../motion';
import { STANDS, TRIMS } from '../../text';
import { idSchema, secondsSchema, textSchema } from '../../time';
import { groupTimeSchema } from './group-time';
import { plainCopy } from './plain-copy';
import { SHAPE_CONTENT, fillRuleSchema } from './paint-schema';
import type { PropertyId } from './properties';
import {
  LETTER_CASES,
  NO_DRESS,
  dressSchema,
  formsSchema,
  pathBoxSchema,
  pathDataSchema,
  phraseTagSchema,
  textAlongSchema,
  textAreaSchema,
  textRoomSchema,
  textSpanSchema,
} from './text-content';

const TRANSFORM = {
  position: [0, 0],
  scale: [1, 1],
  rotation: 0,
  skew: 0,
  anchor: [0, 0],
  opacity: 1,
  blur: 0,
} as const;
const PAINT = {
  fill: '#EEE9DF',
  fillEnd: '#EEE9DF00',
  gradientAngle: 90,
  stroke: '#11151B',
  strokeWidth: 0,
  drawStart: 0,
  drawEnd: 1,
  drawOffset: 0,
} as const;

/** Where on its font's axes a text is; a font without an axis passes it over. */
const AXES = { letterWidth: 100, lean: 0, opticalSize: 0, axisA: 0, axisB: 0, axisC: 0 } as const;

export const GRADIENTS = ['none', 'linear', 'radial'] as const;
const gradient = z.enum(GRADIENTS).default('none');

const cornerShare = z.number().min(0).max(1);
const cornersSchema = z.tuple([cornerShare, cornerShare, cornerShare, cornerShare]).default([1, 1, 1, 1]);

/** How a picture lies in its frame; one that fills it is cut where it is wider or higher. */
export const PICTURE_FITS = { stretch: 'Stretch', fill: 'Fill' } as const;

const NO_MEDIA = (): string | null => null;

/**
 * The kinds of layers: a label, the content that is not animated, the animated properties with what they begin with, and
 * the file that a layer shows.
 */
export const LAYER_KINDS = {
  text: {
    label: 'Text',
    content: z.strictObject({
      text: textSchema(5000),
      family: textSchema(120),
      align: z.enum(['left', 'center', 'right']).default('center'),
      /** Wrapping width in pixels of the lead format; null keeps the lines as typed. */
      wrapWidth: z.number().min(1).max(100_000).nullable().default(null),
      italic: z.boolean().default(false),
      gradient,
      letterCase: z.enum(idsOf(LETTER_CASES)).default('typed'),
      /** OpenType features that are on. */
      features: z
        .array(z.string().regex(/^[a-z0-9]{4}$/))
        .max(20)
        .default([]),
      spans: z.array(textSpanSchema).max(200).default([]),
      /** Fill this place in the frame; `size` is then the largest wanted. */
      area: textAreaSchema.nullable().default(null),
      /** Keep to a room about the position; `size` is then the largest wanted. */
      room: textRoomSchema.nullable().default(null),
      /** What counts as its top and bottom, and which of them stands on its position. */
      trim: z.enum(idsOf(TRIMS)).default('capitals'),
      stands: z.enum(idsOf(STANDS)).default('middle'),
      /** The curve its lines run along; null for straight lines. */
      along: textAlongSchema.nullable().default(null),
      /** A picture that is seen through the letters. */
      picture: idSchema.nullable().default(null),
      /** The saved style it wears. */
      style: idSchema.nullable().default(null),
      dress: dressSchema.default(NO_DRESS),
      phrase: phraseTagSchema.nullable().default(null),
    }),
    properties: {
      ...TRANSFORM,
      size: 120,
      weight: 600,
      tracking: 0,
      leading: 1.1,
      ...AXES,
      bend: 90,
      pathShift: 0,
      pictureZoom: 1,
      pictureShift: [0, 0],
      reveal: 1,
      ...PAINT,
    },
    mediaOf: (content: { picture: string | null }) => content.picture,
  },
  rectangle: {
    label: 'Rectangle',
    /** `corners`: of the corner radius, clockwise from the left top. */
    content: z.strictObject({ gradient, ...SHAPE_CONTENT, corners: cornersSchema }),
    properties: { ...TRANSFORM, dimensions: [400, 240], cornerRadius: 0, ...PAINT },
    mediaOf: NO_MEDIA,
  },
  ellipse: {
    label: 'Ellipse',
    content: z.strictObject({ gradient, ...SHAPE_CONTENT }),
    properties: { ...TRANSFORM, dimensions: [300, 300], ...PAINT },
    mediaOf: NO_MEDIA,
  },
  path: {
    label: 'Drawn shape',
    /** `d`: SVG path data in a box of `box` pixels, which `dimensions` stretches. */
    content: z.strictObject({
      d: pathDataSchema,
      box: pathBoxSchema,
      rule: fillRuleSchema,
      /** What else it can be, drawn in the same box. */
      forms: formsSchema,
      gradient,
      ...SHAPE_CONTENT,
    }),
    properties: { ...TRANSFORM, dimensions: [300, 300], form: 0, ...PAINT },
    mediaOf: NO_MEDIA,
  },
  figure: {
    label: 'Figure',
    content: z.strictObject({ figure: z.enum(idsOf(FIGURES)).default('polygon'), gradient, ...SHAPE_CONTENT }),
    properties: {
      ...TRANSFORM,
      dimensions: [300, 300],
      points: 5,
      inner: 0.5,
      head: 0.4,
      sweepFrom: 0,
      sweep: 270,
      cornerRadius: 0,
      ...PAINT,
    },
    mediaOf: NO_MEDIA,
  },
  /** A picture, or footage: a picture that moves. */
  picture: {
    label: 'Picture',
    content: z.strictObject({
      mediaId: idSchema,
      fit: z.enum(idsOf(PICTURE_FITS)).default('stretch'),
      /** Seconds of footage that are passed over. */
      from: secondsSchema.default(0),
      time: groupTimeSchema.nullable().default(null),
    }),
    properties: { ...TRANSFORM, dimensions: [640, 360], cornerRadius: 0, focus: [0.5, 0.5], pictureZoom: 1 },
    mediaOf: (content: { mediaId: string }) => content.mediaId,
  },
  /** Layers that move, fade and blend as one; its own pixels are those of the frame. */
  group: {
    label: 'Group',
    content: z.strictObject({
      time: groupTimeSchema.nullable().default(null),
      /** Makes one shape of what is in it, painted as the lowest; null leaves them as they are. */
      combine: z.enum(idsOf(PATH_OPERATIONS)).nullable().default(null),
    }),
    properties: TRANSFORM,
    mediaOf: NO_MEDIA,
  },
  /** Another piece, as it was when it was last looked at. */
  piece: {
    label: 'Piece',
    content: z.strictObject({
      /** The piece it is, by which it is looked at again. */
      pieceId: idSchema,
      mediaId: idSchema,
      /** Seconds of it that are shown first. */
      from: secondsSchema.default(0),
      time: groupTimeSchema.nullable().default(null),
      /** Whether its background is seen. */
      showsGround: z.boolean().default(false),
    }),
    properties: { ...TRANSFORM, dimensions: [1920, 1080] },
    mediaOf: (content: { mediaId: string }) => content.mediaId,
  },
  /** Draws nothing: its effects are done to everything below it, within the same group. */
  look: { label: 'Look', content: z.strictObject({}), properties: TRANSFORM, mediaOf: NO_MEDIA },
} as const satisfies Record<
  string,
  {
    label: string;
    content: z.ZodType;
    properties: Partial<Record<PropertyId, unknown>>;
    mediaOf: (content: never) => string | null;
  }
>;
export type LayerKind = keyof typeof LAYER_KINDS;
export const LAYER_KIND_IDS = Object.keys(LAYER_KINDS) as LayerKind[]; // keys of a literal object

/** Default values by property, in the order in which they are listed to people. */
export function kindProperties(kind: LayerKind): Partial<Record<PropertyId, TrackValue>> {
  // The table is `as const`; tracks hold mutable tuples, so each default is copied.
  return plainCopy(LAYER_KINDS[kind].properties) as Partial<Record<PropertyId, TrackValue>>;
}

/** How a layer's colours combine with what is below it (W3C Compositing and Blending Level 1). */
export const BLEND_MODES = {
  normal: { label: 'Normal', operation: 'source-over' },
  multiply: { label: 'Multiply', operation: 'multiply' },
  screen: { label: 'Screen', operation: 'screen' },
  overlay: { label: 'Overlay', operation: 'overlay' },
  darken: { label: 'Darken', operation: 'darken' },
  lighten: { label: 'Lighten', operation: 'lighten' },
  'colour-dodge': { label: 'Colour dodge', operation: 'color-dodge' },
  'colour-burn': { label: 'Colour burn', operation: 'color-burn' },
  'hard-light': { label: 'Hard light', operation: 'hard-light' },
  'soft-light': { label: 'Soft light', operation: 'soft-light' },
  difference: { label: 'Difference', operation: 'difference' },
  exclusion: { label: 'Exclusion', operation: 'exclusion' },
  hue: { label: 'Hue', operation: 'hue' },
  saturation: { label: 'Saturation', operation: 'saturation' },
  colour: { label: 'Colour', operation: 'color' },
  luminosity: { label: 'Luminosity', operation: 'luminosity' },
  add: { label: 'Add', operation: 'lighter' },
} as const;
export type BlendMode = keyof typeof BLEND_MODES;
export const BLEND_MODE_IDS = Object.keys(BLEND_MODES) as [BlendMode, ...BlendMode[]]; // keys of a literal object
