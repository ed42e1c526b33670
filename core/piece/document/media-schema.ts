import { z } from 'zod';
import { fontAxisSchema } from '../../text';
import { idSchema, lengthSchema, numberSchema, textSchema } from '../../time';
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

/** Facts about an imported file; the bytes live in the media store under the hash. */
export const mediaRefSchema = z.strictObject({
  id: idSchema,
  hash: z.string().regex(/^[0-9a-f]{64}$/),
  kind: z.enum(MEDIA_KIND_IDS),
  name: textSchema(255),
  /** Audio only, seconds. */
  duration: lengthSchema.positive().optional(),
  width: z.number().int().min(1).max(MAX_MEDIA_SIDE).optional(),
  height: z.number().int().min(1).max(MAX_MEDIA_SIDE).optional(),
  /** Fonts only. */
  font: fontRefSchema.optional(),
});
export type MediaRef = z.infer<typeof mediaRefSchema>;
