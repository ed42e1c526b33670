import { z } from 'zod';
import { idSchema, textSchema } from '../../time';

/** What makes a piece a template: the places that are filled, and how it stretches. */
export const slotSchema = z.strictObject({
  id: idSchema,
  name: textSchema(80).min(1),
  kind: z.enum(['text', 'picture', 'footage', 'logo', 'colour', 'font', 'number', 'song']),
  help: textSchema(400),
  /** What it shows until it is filled. */
  sample: textSchema(5000),
  isNeeded: z.boolean(),
  /** For words: what is done when they are too long, in this order, and the least size in pixels of the lead format. */
  fits: z.array(z.enum(['shrink', 'wrap', 'abbreviate'])).max(3),
  leastSize: z.number().min(1).max(4000).nullable(),
  mirrors: z.boolean(),
});

export const templateSchema = z.strictObject({
  version: z.number().int().min(1).max(1_000_000),
  use: textSchema(80),
  help: textSchema(2000),
  slots: z.array(slotSchema).max(64),
  /** Layers of which nothing may be changed where the template is used. */
  fixed: z.array(idSchema).max(2000),
  timing: z.strictObject({
    /** What grows when the piece is made longer: the hold alone, or everything. */
    stretches: z.enum(['hold', 'all']),
    unit: z.enum(['beats', 'seconds']),
    leastReading: z.boolean(),
    endsOnBeat: z.boolean(),
  }),
});
export type Template = z.infer<typeof templateSchema>;

/** The template a piece or a group was made from, and with what. */
export const madeFromSchema = z.strictObject({
  id: idSchema,
  version: z.number().int().min(1).max(1_000_000),
  values: z
    .record(idSchema, textSchema(5000))
    .refine((values) => Object.keys(values).length <= 64, 'at most 64 slots are filled'),
});
