import * as z from 'zod';
import { LAYER_KINDS } from './layer-kinds';
import { layerFields, layerSchema } from './layer-schema';
import type { Layer } from './layer-schema';
import { LISTS, LIST_IDS, pieceSchema, repeatedId } from './schema';
import type { ListId, Piece } from './schema';
import { exceededTotal } from './totals';
import { brokenReference, byId } from './tree';

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

type Shape = Readonly<Record<string, z.ZodType | undefined>>;

/** What is wrong with those fields of an object that changed. */
function fieldsProblem(shape: Shape, before: object, after: object, where: string): string | null {
  const [old, now] = [before as Readonly<Record<string, unknown>>, after as Readonly<Record<string, unknown>>];
  for (const field of Object.keys(now)) {
    if (old[field] === now[field]) continue;
    const schema = Object.hasOwn(shape, field) ? shape[field] : undefined;
    const problem = schema ? problemOf(schema, now[field], `${where}.${field}`) : `${where}: unknown field ${field}`;
    if (problem) return problem;
  }
  return Object.keys(old).every((field) => Object.hasOwn(now, field) || shape[field]?.safeParse(undefined).success)
    ? null
    : `${where}: a field is missing`;
}

const { tracks: tracksSchema, ...otherFields } = layerFields;

/** A layer that was valid before: a drag changes one track of it, and only that is looked at. */
function layerProblem(before: Layer, after: Layer): string | null {
  if (before.kind !== after.kind) return problemOf(layerSchema, after, 'layers');
  const { tracks: oldTracks, ...old } = before;
  const { tracks, ...now } = after;
  return (
    fieldsProblem(fieldsOf(after.kind), old, now, 'layers') ??
    (oldTracks === tracks ? null : fieldsProblem(tracksSchema.shape, oldTracks, tracks, 'layers.tracks'))
  );
}

const shapes = new Map<Layer['kind'], Shape>();

/** The fields of a layer but its tracks; made once a kind, since a drag asks for each layer and each move. */
function fieldsOf(kind: Layer['kind']): Shape {
  let shape = shapes.get(kind);
  if (!shape) {
    shape = { ...otherFields, kind: z.literal(kind), content: LAYER_KINDS[kind].content };
    shapes.set(kind, shape);
  }
  return shape;
}

function layersProblem(before: readonly Layer[], after: readonly Layer[]): string | null {
  const { most, label } = LISTS.layers;
  if (after.length > most) return `a piece holds at most ${most} ${label}`;
  const known = byId(before);
  for (const layer of after) {
    const old = known.get(layer.id);
    if (old === layer) continue;
    const problem = old ? layerProblem(old, layer) : problemOf(layerSchema, layer, 'layers');
    if (problem) return problem;
  }
  return null;
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

/**
 * What makes the document after a change unfit to be saved, in words; null if nothing does.
 * @param before - valid.
 * @param hasNewParts - false if only values changed: then nothing needs to be counted.
 */
export function changeProblem(before: Piece, after: Piece, hasNewParts = true): string | null {
  if (before === after) return null;
  for (const field of Object.keys(shape) as (keyof Piece)[]) {
    // keys of the schema
    if (before[field] === after[field]) continue;
    const problem =
      field === 'layers'
        ? layersProblem(before.layers, after.layers)
        : isList(field)
          ? listProblem(field, before[field], after[field])
          : problemOf(shape[field], after[field], field);
    if (problem) return problem;
  }
  if (!after.formats.some((f) => f.id === after.leadFormatId)) return 'the format that leads the others must stay';
  const isCounted = hasNewParts && LIST_IDS.some((list) => before[list] !== after[list]);
  return isCounted ? (repeatedId(after) ?? exceededTotal(after) ?? brokenReference(after)) : null;
}
