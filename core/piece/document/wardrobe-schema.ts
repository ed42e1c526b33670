import * as z from 'zod';
import { literalColourSchema } from '../../colour';
import { idSchema, textSchema } from '../../time';

/**
 * The wardrobe: the piece's own colours, fonts and logos by role. Anything that takes a colour or a font takes a role
 * instead, written `@role`; it is looked up when the scene is prepared and never copied into layers, so that what is
 * changed once is changed everywhere.
 */
export const roleSchema = z.string().regex(/^[a-z][a-z0-9-]{0,39}$/, 'a role is written in small letters');
export const MOST_ROLES = 64;
/** A name as roles are written: small letters, numbers and dashes; empty if nothing of it is left. */
export const roleName = (name: string): string =>
  name
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^[^a-z]+|-+$/g, '')
    .slice(0, 40);

const byRole = <T extends z.ZodType>(value: T) =>
  z
    .record(roleSchema, value)
    .refine((roles) => Object.keys(roles).length <= MOST_ROLES, `a wardrobe has at most ${MOST_ROLES} roles of a kind`)
    .default({});

export const wardrobeSchema = z.strictObject({
  colours: byRole(literalColourSchema),
  /** Families. */
  fonts: byRole(textSchema(120)),
  /** Media ids. */
  logos: byRole(idSchema),
  /** The kept wardrobe it was put on from. */
  from: z
    .strictObject({ id: idSchema, version: z.number().int().min(1).max(1_000_000) })
    .nullable()
    .default(null),
});
export type Wardrobe = z.infer<typeof wardrobeSchema>;
export const EMPTY_WARDROBE: Wardrobe = { colours: {}, fonts: {}, logos: {}, from: null };
