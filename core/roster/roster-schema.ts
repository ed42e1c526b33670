import * as z from 'zod';
import { idSchema, textSchema } from '../time';
import { MAX_CELL, MAX_COLUMNS, MAX_ROWS } from './read-table';

/** A row: its cells, and the piece that was made of it when it was changed by hand; null while the table says it all. */
const rosterRowSchema = z.strictObject({
  cells: z.array(textSchema(MAX_CELL)).max(MAX_COLUMNS),
  ownPieceId: idSchema.nullable(),
});
export type RosterRow = z.infer<typeof rosterRowSchema>;

const columnSchema = z
  .number()
  .int()
  .min(0)
  .max(MAX_COLUMNS - 1);

/** The roster of a group: its table, the column that fills each slot, and the one that says when a row begins. */
export const rosterSchema = z.strictObject({
  columns: z.array(textSchema(100)).max(MAX_COLUMNS),
  rows: z.array(rosterRowSchema).max(MAX_ROWS),
  /** By the id of the slot. */
  mapping: z.record(idSchema, columnSchema),
  /** Null while rows follow one another. */
  beginsColumn: columnSchema.nullable(),
});
export type Roster = z.infer<typeof rosterSchema>;

/** Cells that nobody has changed by hand. */
export const rosterRow = (cells: readonly string[]): RosterRow => ({ cells: [...cells], ownPieceId: null });
