import * as z from 'zod';
import { idsOf } from '../../motion';
import { idSchema, textSchema } from '../../time';

/** Most slots of a template. */
export const MAX_SLOTS = 64;

export const SLOT_KINDS = {
  text: 'Words',
  picture: 'Picture',
  footage: 'Footage',
  logo: 'Logo or mark',
  colour: 'Colour',
  font: 'Font',
  number: 'Number',
  song: 'Song',
} as const;
export type SlotKind = keyof typeof SLOT_KINDS;

/** A place of a template that is meant to be filled. Layers name it by its id. */
export const slotSchema = z.strictObject({
  id: idSchema,
  name: textSchema(80).min(1),
  kind: z.enum(idsOf(SLOT_KINDS)),
  help: textSchema(400),
  /** What it shows until it is filled. */
  sample: textSchema(5000),
  isNeeded: z.boolean(),
  /** For words: those that run from right to left turn what is made about. */
  mirrors: z.boolean(),
});
export type Slot = z.infer<typeof slotSchema>;

export const STRETCHES = { hold: 'Hold only', all: 'Everything' } as const;
/** How what is made from a template behaves in time. */
export const slotTimingSchema = z.strictObject({
  /** What grows when it is made longer: the hold alone, or everything. */
  stretches: z.enum(idsOf(STRETCHES)),
  unit: z.enum(['beats', 'seconds']),
  /** It stands at least as long as its words take to be read. */
  leastReading: z.boolean(),
  endsOnBeat: z.boolean(),
});
export type SlotTiming = z.infer<typeof slotTimingSchema>;

export const TEMPLATE_USES = {
  opening: 'Opening titles',
  quote: 'Quote cards',
  'lower-third': 'Lower thirds',
  closing: 'End cards',
  more: 'Other cards',
} as const;
export type TemplateUse = keyof typeof TEMPLATE_USES;

/** What makes a piece a template. */
export const templateSchema = z.strictObject({
  version: z.number().int().min(1).max(1_000_000),
  use: z.enum(idsOf(TEMPLATE_USES)),
  /** Plain words to find it by. */
  mood: textSchema(120),
  help: textSchema(2000),
  slots: z.array(slotSchema).max(MAX_SLOTS),
  /** Layers that are locked where the template is used. */
  fixed: z.array(idSchema).max(2000),
  timing: slotTimingSchema,
});
export type Template = z.infer<typeof templateSchema>;

/** What a group was made from, and with what. All that is needed to fill it again is here. */
export const madeFromSchema = z.strictObject({
  id: idSchema,
  version: z.number().int().min(1).max(1_000_000),
  name: textSchema(200),
  slots: z.array(slotSchema).max(MAX_SLOTS),
  timing: slotTimingSchema,
  /** By the id of the slot. What is missing shows its sample. */
  values: z
    .record(idSchema, textSchema(5000))
    .refine((values) => Object.keys(values).length <= MAX_SLOTS, `at most ${MAX_SLOTS} slots are filled`),
  /** Whether it is turned about for words that run from right to left. */
  isMirrored: z.boolean(),
});
export type MadeFrom = z.infer<typeof madeFromSchema>;
