import * as z from 'zod';
import { idSchema, textSchema } from '../../time';
import { mediaRefSchema } from './media-schema';
import { MOST_ROLES, wardrobeSchema } from './wardrobe-schema';

/** A wardrobe as it is kept for all pieces, with the files of its logos. */
export const keptWardrobeSchema = z.strictObject({
  wardrobe: wardrobeSchema.omit({ from: true }),
  media: z.array(mediaRefSchema).max(MOST_ROLES).default([]),
});

/** What is kept. Templates are whole documents, and are read as such. */
export const KEPT_KINDS = ['wardrobe', 'template'] as const;
export type KeptKind = (typeof KEPT_KINDS)[number];

/** Most that one person keeps of a kind. */
export const MOST_KEPT = 200;

export const keptNameSchema = textSchema(80).min(1);

/** A kept thing as it is listed. */
export const keptSchema = z.strictObject({
  id: idSchema,
  name: keptNameSchema,
  version: z.number().int().min(1),
  body: keptWardrobeSchema,
});
export type KeptWardrobe = z.infer<typeof keptSchema>;
