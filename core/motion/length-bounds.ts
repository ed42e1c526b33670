import * as z from 'zod';

/** Longest lengths, in beats or seconds. */
export const LONGEST = {
  /** Of a movement, and of the lag behind what is followed. */
  movement: 600,
  /** Between copies, and of a transition. */
  copies: 60,
  /** Of what is inside a group. */
  inside: 3600,
} as const;

/** Beats after which an accent comes again. */
export const EVERY_BEATS = { min: 1 / 8, max: 64 } as const;
/** Beats that a character of a rhythm stands for. */
export const RHYTHM_STEP = { min: 1 / 16, max: 16 } as const;

/** A length that is counted in beats or in seconds. */
export const lagSchema = (longest: number) =>
  z.strictObject({ unit: z.enum(['beats', 'seconds']), value: z.number().min(0).max(longest) });
