import * as z from 'zod';
import { colourSchema } from '../../colour';
import { idsOf } from '../../motion';
import { READING_PACES } from '../../text';

/** Compositions of size, place and gesture for a run of phrases. Their making is in stagings.ts. */
export const STAGING_LABELS = {
  lantern: { label: 'Lantern', feel: 'centred, out of the mist, calm' },
  pennants: { label: 'Pennants', feel: 'left and right in turn, quick slides' },
  tidemark: { label: 'Tidemark', feel: 'low on the left, rising, a rule under it' },
  'kite-tail': { label: 'Kite tail', feel: 'steps down across the frame, swinging' },
  drumhead: { label: 'Drumhead', feel: 'fills the frame, word by word on the beat' },
  logbook: { label: 'Logbook', feel: 'serif, quiet, set like a page' },
  signal: { label: 'Signal', feel: 'typed with a caret, technical' },
  bunting: { label: 'Bunting', feel: 'each word on its own band, playful' },
  'star-chart': { label: 'Star chart', feel: 'letters gather and glow, dreamy' },
  searchlight: { label: 'Searchlight', feel: 'wide letters, a soft edge sweeps across' },
} as const;
export type StagingId = keyof typeof STAGING_LABELS;
export const STAGING_IDS = idsOf(STAGING_LABELS);

export const MANNERS = {
  single: { label: 'One by one', hint: 'each leaves before the next enters' },
  build: { label: 'Build up', hint: 'phrases stay until their group is complete' },
  replace: { label: 'Replace', hint: 'hard cuts without exits' },
} as const;
export type Manner = keyof typeof MANNERS;

export const sheetSchema = z.strictObject({
  staging: z.enum(STAGING_IDS),
  manner: z.enum(idsOf(MANNERS)),
  pace: z.enum(idsOf(READING_PACES)),
  /** The first phrase in another colour, so that a loop is noticed. */
  hasLoopCue: z.boolean(),
  colour: colourSchema,
  accent: colourSchema,
});
export type Sheet = z.infer<typeof sheetSchema>;
export const DEFAULT_SHEET: Sheet = {
  staging: 'lantern',
  manner: 'single',
  pace: 'even',
  hasLoopCue: false,
  colour: '#EEE9DF',
  accent: '#FFB74A',
};
