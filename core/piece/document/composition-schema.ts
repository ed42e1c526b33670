import * as z from 'zod';
import { LONGEST, idsOf, lagSchema, trackSchema, vectorSchema } from '../../motion';
import { idSchema, momentSchema, numberSchema, textSchema } from '../../time';
import { EFFECT_KINDS } from './effect-kinds';
import type { EffectKind } from './effect-kinds';
import { MASK_VALUE_IDS } from './mask-values';
import { fillRuleSchema } from './paint-schema';
import { PROPERTY_IDS } from './properties';
import type { PropertyId } from './properties';
import { trackIdSchema } from './track-ids';
import { formsSchema, pathBoxSchema, pathDataSchema } from './text-content';

/** What layers have to do with one another, and what is done to a layer as a whole. */

const property = z.enum(PROPERTY_IDS as [PropertyId, ...PropertyId[]]);
const seed = z.number().int().min(0).max(0xffff_ffff);

const padding = z.number().min(-2000).max(2000);

const MAX_PARAMETERS = 24;
/** An effect on a layer. Parameters that are left out are as the kind begins; one track each. */
export const effectSchema = z.strictObject({
  id: idSchema,
  kind: z.enum(Object.keys(EFFECT_KINDS) as [EffectKind, ...EffectKind[]]), // keys of a literal object
  isOn: z.boolean(),
  seed: seed.default(0),
  parameters: z
    .record(idSchema, trackSchema)
    .refine((p) => Object.keys(p).length <= MAX_PARAMETERS, `an effect has at most ${MAX_PARAMETERS} parameters`),
});
export type Effect = z.infer<typeof effectSchema>;

/** A mask in the layer's own pixels: what lies within its path is seen, or added to, taken from or met with what was. */
export const maskSchema = z.strictObject({
  id: idSchema,
  name: textSchema(80),
  mode: z.enum(['add', 'subtract', 'intersect']),
  inverted: z.boolean(),
  d: pathDataSchema,
  box: pathBoxSchema,
  rule: fillRuleSchema,
  /** What else its outline can be, drawn in the same box. */
  forms: formsSchema,
  tracks: z.partialRecord(z.enum(MASK_VALUE_IDS), trackSchema),
});
export type Mask = z.infer<typeof maskSchema>;

/** Another layer through which this one is seen. */
export const matteSchema = z.strictObject({
  layerId: idSchema,
  channel: z.enum(['alpha', 'luminance']),
  inverted: z.boolean(),
});

/** Properties of another layer that this one takes over, with an offset of its own and so much later. */
export const followSchema = z.strictObject({
  layerId: idSchema,
  properties: z.array(property).min(1).max(8),
  /** Adds to what is followed (for opacity and scale: multiplies). */
  keepsOwn: z.boolean(),
  delay: lagSchema(LONGEST.movement),
  /** Share of the way that is left after a tenth of a second: 0 follows at once. */
  damping: z.number().min(0).max(1),
  /** Turns to look at it. */
  looksAt: z.boolean(),
});

export const HUG_AXES = { both: 'Both axes', x: 'Horizontal', y: 'Vertical' } as const;
/** A shape about what another layer shows: as large as its ink and some room, pixels of the lead format. */
export const hugSchema = z.strictObject({
  layerId: idSchema,
  padX: padding,
  padY: padding,
  /** Along the other axis it keeps a place and length of its own. */
  axes: z.enum(idsOf(HUG_AXES)).default('both'),
});
export type Hug = z.infer<typeof hugSchema>;

export const REPEAT_WAYS = { line: 'Line', circle: 'Circle', grid: 'Grid' } as const;
const MAX_COPIES = 200;
/** Copies of a layer beside itself. */
export const repeatSchema = z.strictObject({
  way: z.enum(Object.keys(REPEAT_WAYS) as [keyof typeof REPEAT_WAYS, ...(keyof typeof REPEAT_WAYS)[]]), // keys of a literal object
  /** With the layer itself. */
  count: z.number().int().min(1).max(MAX_COPIES),
  /** Of a grid. */
  columns: z.number().int().min(1).max(MAX_COPIES),
  /** From one to the next, pixels of the lead format. */
  step: vectorSchema,
  /** Of the circle, whose middle lies below the first, pixels of the lead format. */
  radius: z.number().min(-20_000).max(20_000),
  /** What each is turned, scaled and faded more than the one before: degrees, factors. */
  turn: numberSchema,
  scale: z.number().min(0.01).max(10),
  fade: z.number().min(0).max(1),
  /** How much later each is than the one before. */
  delay: lagSchema(LONGEST.copies),
});
export type Repeat = z.infer<typeof repeatSchema>;

/** What of the music can be listened to. */
export const LISTEN_SOURCES = ['low', 'mid', 'high', 'onsets', 'hits', 'beats', 'bars', 'energy'] as const;
export type ListenSource = (typeof LISTEN_SOURCES)[number];

/** A property that listens to the sound: value = track + amount × curve(envelope). */
export const listenSchema = z.strictObject({
  id: idSchema,
  /** A number or a vector of the layer, or a number of one of its effects. */
  property: trackIdSchema,
  source: z.enum(LISTEN_SOURCES),
  amount: z.union([numberSchema, z.tuple([numberSchema, numberSchema])]),
  /** Seconds. */
  attack: z.number().min(0).max(10),
  release: z.number().min(0).max(10),
  smoothing: z.number().min(0).max(10),
  /** Exponent of the envelope. */
  curve: z.number().min(0.1).max(10),
  /** Levels of the envelope that count as nothing and as all. */
  range: z.tuple([z.number().min(0).max(1), z.number().min(0).max(1)]),
});

export type Listen = z.infer<typeof listenSchema>;

export type Follow = z.infer<typeof followSchema>;

export const HOLDS_ACROSS = {
  left: 'Left edge',
  centre: 'Centre',
  right: 'Right edge',
  both: 'Both edges',
  share: 'Proportional',
} as const;
export const HOLDS_DOWN = {
  top: 'Top edge',
  middle: 'Middle',
  bottom: 'Bottom edge',
  both: 'Both edges',
  share: 'Proportional',
} as const;
export const HELD_WITHIN = { frame: 'Frame', 'safe-area': 'Safe area' } as const;
export const SCALES_BY = {
  fit: 'to fit',
  width: 'with the width',
  height: 'with the height',
  reading: 'to be read as well',
  not: 'not at all',
} as const;

/** What holds a layer in other frame sizes. */
export const constraintsSchema = z.strictObject({
  horizontal: z.enum(idsOf(HOLDS_ACROSS)),
  vertical: z.enum(idsOf(HOLDS_DOWN)),
  within: z.enum(idsOf(HELD_WITHIN)),
  scales: z.enum(idsOf(SCALES_BY)),
});
export type Constraints = z.infer<typeof constraintsSchema>;

/** A place in a template that is meant to be filled: by the name of its slot. */
export const slotUseSchema = z.strictObject({
  slotId: idSchema,
  /** What of the layer is replaced. */
  part: z.enum(['text', 'picture', 'footage', 'logo', 'colour', 'font', 'number']),
});

/** From one layer into the next, which is its neighbour under the same parent. */
export const transitionSchema = z.strictObject({
  id: idSchema,
  kind: idSchema,
  fromId: idSchema,
  toId: idSchema,
  /** The middle of it. */
  at: momentSchema,
  duration: lagSchema(LONGEST.copies),
  parameters: z
    .record(idSchema, numberSchema)
    .refine((p) => Object.keys(p).length <= MAX_PARAMETERS, `a transition has at most ${MAX_PARAMETERS} parameters`),
});

/** A line that things snap to and nobody sees; in a share of the frame, so that it serves every format. */
export const guideLineSchema = z.strictObject({
  id: idSchema,
  axis: z.enum(['x', 'y']),
  at: z.number().min(-1).max(2),
});
export type GuideLine = z.infer<typeof guideLineSchema>;
