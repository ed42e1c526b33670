import * as z from 'zod';
import type { FrameRate } from './frame-rate';

export const MAX_FRAMES_PER_SECOND = 120;
/** A frame rate in a document. */
export const frameRateSchema: z.ZodType<FrameRate> = z
  .strictObject({ num: z.number().int().min(1).max(240_000), den: z.number().int().min(1).max(2002) })
  .refine(
    ({ num, den }) => num / den >= 1 && num / den <= MAX_FRAMES_PER_SECOND,
    `a frame rate is 1 to ${MAX_FRAMES_PER_SECOND} frames a second`,
  );
