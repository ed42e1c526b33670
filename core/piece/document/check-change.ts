import type { z } from 'zod';
import { LISTS, LIST_IDS, pieceSchema, repeatedId } from './schema';
import type { ListId, Piece } from './schema';
import { exceededTotal } from './totals';
import { brokenReference } from './tree';

/**
 * Every edit must leave a valid document: what the schema refuses could neither be saved nor opened again. Only what an
 * edit changed is validated; immutable documents tell by identity what that is, so that a drag in a piece of hundreds
 * of layers costs one layer.
 */
const { shape } = pieceSchema;
const isList = (field: keyof Piece): field is ListId => Object.hasOwn(LISTS, field);

function problemOf(schema: z.ZodType, value: unknown, where: string): string | null {
  const parsed = schema.safeParse(value);
  if (parsed.success) return null;
  const issue = parsed.error.issues[0];
  return `${[where, ...(issue?.path ?? [])].join('.')}: ${issue?.message ?? 'not valid'}`;
}

function listProblem(list: ListId, before: readonly unknown[], after: readonly unknown[]): string | null {
  const { most, label, entry } = LISTS[list];
  if (after.length > most) return `a piece holds at most ${most} ${label}`;
  const known = new Set(before);
  for (const one of after) {
    const problem = known.has(one) ? null : problemOf(entry, one, list);
    if (problem) return problem;
  }
  return null;
}

/** What makes the document after a change unfit to be saved, in words; null if nothing does. @param before - valid. */
export function changeProblem(before: Piece, after: Piece): string | null {
  if (before === after) return null;
  for (const field of Object.keys(shape) as (keyof Piece)[]) {
    // keys of the schema
    if (before[field] === after[field]) continue;
    const problem = isList(field)
      ? listProblem(field, before[field], after[field])
      : problemOf(shape[field], after[field], field);
    if (problem) return problem;
  }
  if (!after.formats.some((f) => f.id === after.leadFormatId)) return 'the format that leads the others must stay';
  const isCounted = LIST_IDS.some((list) => before[list] !== after[list]);
  return isCounted ? (repeatedId(after) ?? exceededTotal(after) ?? brokenReference(after)) : null;
}
