import * as z from 'zod';
import { colourSchema } from '../colour';
import { idSchema, momentSchema, numberSchema, textSchema } from '../time';
import { actorTracksSchema } from './actor';
import { EVERY_BEATS, LONGEST } from './length-bounds';
import { staggerSchema } from './stagger';
import { idsOf } from './table-ids';

export const GESTURE_ROLES = { entrance: 'entrance', accent: 'accent', exit: 'exit' } as const;
export type GestureRole = keyof typeof GESTURE_ROLES;
export const UNIT_KINDS = { whole: 'Whole layer', line: 'Lines', word: 'Words', letter: 'Letters' } as const;
export type UnitKind = keyof typeof UNIT_KINDS;
export const LANDINGS = { start: 'Start', peak: 'Peak', end: 'End' } as const;
export type Landing = keyof typeof LANDINGS;

/** A gesture as a layer wears it. */
export const gestureUseSchema = z.strictObject({
  id: idSchema,
  /** A gesture of the table, or the id of one of the piece's own. */
  gesture: idSchema,
  role: z.enum(idsOf(GESTURE_ROLES)),
  unit: z.enum(idsOf(UNIT_KINDS)),
  /** `stay`: as long as the layer stands, whatever the value. */
  duration: z.strictObject({
    unit: z.enum(['beats', 'seconds', 'stay']),
    value: z.number().min(0).max(LONGEST.movement),
  }),
  /** The moment it lands on; null lets an entrance begin with its layer and an exit end with it. */
  at: momentSchema.nullable(),
  landing: z.enum(idsOf(LANDINGS)),
  /** For accents: again every so many beats. Null plays once. */
  every: z.number().min(EVERY_BEATS.min).max(EVERY_BEATS.max).nullable(),
  stagger: staggerSchema,
  parameters: z
    .record(idSchema, numberSchema)
    .refine((p) => Object.keys(p).length <= 32, 'a gesture has at most 32 parameters'),
  colour: colourSchema,
  /** Only these words take part, counted from 0; null takes all. */
  words: z.array(z.number().int().min(0).max(5000)).max(500).nullable(),
  /** Opened up: these tracks in place of the gesture's. */
  tracks: actorTracksSchema.nullable(),
});
export type GestureUse = z.infer<typeof gestureUseSchema>;

/** A gesture made from one's own keyframes, kept with the piece. */
export const ownGestureSchema = z.strictObject({
  id: idSchema,
  name: textSchema(80).min(1),
  role: z.enum(idsOf(GESTURE_ROLES)),
  duration: z.number().positive().max(LONGEST.movement),
  tracks: actorTracksSchema,
});
export type OwnGesture = z.infer<typeof ownGestureSchema>;
