import * as z from 'zod';
import { fontAxisSchema } from '../../text';
import { frameRateSchema, idSchema, lengthSchema, numberSchema, textSchema } from '../../time';
import { MEDIA_KIND_IDS } from './media-kinds';

const MAX_MEDIA_SIDE = 100_000;

/** What a font file brought in says of itself. */
export const fontRefSchema = z.strictObject({
  family: textSchema(80).min(1),
  style: textSchema(80),
  italic: z.boolean(),
  weights: z.tuple([numberSchema, numberSchema]),
  axes: z.array(fontAxisSchema).max(64),
  /** Inclusive code point ranges, flattened. */
  ranges: z.array(z.number().int().min(0).max(0x10ffff)).max(20_000),
});
export type FontRef = z.infer<typeof fontRefSchema>;

/** Most frames of one film: ten minutes at sixty a second. */
export const MAX_FOOTAGE_FRAMES = 36_000;

/** The frames that were made of a film: evenly spaced, whatever they were in it. */
export const footageRefSchema = z.strictObject({
  frameRate: frameRateSchema,
  frames: z.number().int().min(1).max(MAX_FOOTAGE_FRAMES),
  /** Whether the film has sound, which is not heard with it. */
  hasSound: z.boolean(),
});
export type FootageRef = z.infer<typeof footageRefSchema>;

/** Facts about an imported file; the bytes live in the media store under the hash. */
export const mediaRefSchema = z.strictObject({
  id: idSchema,
  hash: z.string().regex(/^[0-9a-f]{64}$/),
  kind: z.enum(MEDIA_KIND_IDS),
  name: textSchema(255),
  /** Seconds, of what lasts. */
  duration: lengthSchema.positive().optional(),
  width: z.number().int().min(1).max(MAX_MEDIA_SIDE).optional(),
  height: z.number().int().min(1).max(MAX_MEDIA_SIDE).optional(),
  /** Fonts only. */
  font: fontRefSchema.optional(),
  /** Footage only. */
  footage: footageRefSchema.optional(),
});
export type MediaRef = z.infer<typeof mediaRefSchema>;
