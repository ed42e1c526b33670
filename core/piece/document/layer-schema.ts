import * as z from 'zod';
import { gestureUseSchema, trackSchema, vectorSchema } from '../../motion';
import { idSchema, momentSchema, textSchema } from '../../time';
import {
  constraintsSchema,
  effectSchema,
  followSchema,
  hugSchema,
  listenSchema,
  maskSchema,
  matteSchema,
  repeatSchema,
  slotUseSchema,
} from './composition-schema';
import { BLEND_MODE_IDS, LAYER_KINDS, LAYER_KIND_IDS } from './layer-kinds';
import type { LayerKind } from './layer-kinds';
import { PROPERTIES, PROPERTY_IDS, VALUE_KINDS } from './properties';
import type { PropertyId } from './properties';
import { madeFromSchema } from './template-schema';
import { partOf } from './track-ids';

/** Most gestures, effects, masks and listening properties of a layer. */
export const MAX_GESTURES = 24;
const MAX_EFFECTS = 24;
const MAX_MASKS = 24;
const MAX_LISTENS = 24;
const MAX_FORMATS_DIFFERENT = 24;

const propertyTrack = Object.fromEntries(
  PROPERTY_IDS.map((property) => [
    property,
    trackSchema
      .refine(
        (t) =>
          [t.value, ...t.keyframes.map((k) => k.value)].every(
            (v) => VALUE_KINDS[PROPERTIES[property].kind].safeParse(v).success,
          ),
        { message: `${property} takes values of kind ${PROPERTIES[property].kind}` },
      )
      .optional(),
  ]),
) as Record<PropertyId, z.ZodOptional<typeof trackSchema>>; // fromEntries loses the key type
const tracksSchema = z.strictObject(propertyTrack);

/** Values of effects and masks that one format may have of its own. */
const MAX_PARTS = 200;
const partIdSchema = z
  .string()
  .max(200)
  .refine((id) => partOf(id) !== null, 'this is no value of an effect or a mask');

/**
 * How a format differs from the lead for one layer: moved by pixels of that format, scaled by a factor, hidden, and with
 * tracks of its own in place of the layer's (`parts`: of its effects and masks, by their ids, see track-ids.ts).
 */
export const overrideSchema = z.strictObject({
  move: vectorSchema,
  scale: z.number().min(0.001).max(100),
  hidden: z.boolean(),
  tracks: tracksSchema.optional(),
  parts: z
    .record(partIdSchema, trackSchema)
    .refine((parts) => Object.keys(parts).length <= MAX_PARTS, `a format has at most ${MAX_PARTS} values of its own`)
    .optional(),
});
export type FormatOverride = z.infer<typeof overrideSchema>;

const layerBase = z.strictObject({
  id: idSchema,
  /** The group it belongs to; null for the frame itself. */
  parentId: idSchema.nullable().default(null),
  name: textSchema(200),
  hidden: z.boolean(),
  locked: z.boolean(),
  /** Seen on the desk, never painted: what other layers follow. */
  isGuide: z.boolean().default(false),
  blend: z.enum(BLEND_MODE_IDS),
  start: momentSchema,
  end: momentSchema,
  /** Only where they differ from what the kind begins with (see tracks.ts). */
  tracks: tracksSchema,
  overrides: z
    .record(idSchema, overrideSchema)
    .refine(
      (o) => Object.keys(o).length <= MAX_FORMATS_DIFFERENT,
      `a layer differs in at most ${MAX_FORMATS_DIFFERENT} formats`,
    ),
  constraints: constraintsSchema.nullable().default(null),
  gestures: z.array(gestureUseSchema).max(MAX_GESTURES).default([]),
  /** The first is done first. */
  effects: z.array(effectSchema).max(MAX_EFFECTS).default([]),
  masks: z.array(maskSchema).max(MAX_MASKS).default([]),
  matte: matteSchema.nullable().default(null),
  follow: followSchema.nullable().default(null),
  /** How it goes along the way of its position: turned with it, and as fast all along between its first and last keyframe. */
  travel: z.strictObject({ turns: z.boolean(), isEven: z.boolean() }).nullable().default(null),
  /** The layer that a shape is laid about. */
  hug: hugSchema.nullable().default(null),
  repeat: repeatSchema.nullable().default(null),
  listens: z.array(listenSchema).max(MAX_LISTENS).default([]),
  slot: slotUseSchema.nullable().default(null),
  madeFrom: madeFromSchema.nullable().default(null),
  /** Whether it is smeared by its movement; `piece` follows its group, and beyond it the piece's shutter. */
  motionBlur: z.enum(['piece', 'on', 'off']).default('piece'),
  /** Copies that follow it: how many, seconds behind one another, and the share of opacity each keeps. */
  trail: z
    .strictObject({
      copies: z.number().int().min(0).max(24),
      spacing: z.number().min(0.005).max(2),
      fade: z.number().min(0).max(1),
    })
    .nullable()
    .default(null),
});

type ContentOf<K extends LayerKind> = z.infer<(typeof LAYER_KINDS)[K]['content']>;
export type LayerOf<K extends LayerKind> = z.infer<typeof layerBase> & { kind: K; content: ContentOf<K> };
/** The layers of some kinds, one by one. */
export type LayerFor<K extends LayerKind> = K extends LayerKind ? LayerOf<K> : never;
export type Layer = LayerFor<LayerKind>;
export type TextLayer = LayerOf<'text'>;
export type GroupLayer = LayerOf<'group'>;

const options = LAYER_KIND_IDS.map((kind) =>
  layerBase.extend({ kind: z.literal(kind), content: LAYER_KINDS[kind].content as z.ZodType }),
);
/** One option a kind; the table of kinds is the only place that names them. */
export const layerSchema = z.discriminatedUnion(
  'kind',
  options as [(typeof options)[number], ...typeof options], // the table has rows
) as unknown as z.ZodType<Layer> & { readonly options: typeof options };
/** Fields that layers of all kinds have. */
export const layerFields = layerBase.shape;
