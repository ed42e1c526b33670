import { createStore, get, set } from 'idb-keyval';
import { z } from 'zod';
import { MAX_CELL, MAX_COLUMNS, MAX_ROWS } from '@core/roster';

/** A roster as this browser keeps it: its table, and the column that fills each slot. */
const rosterSchema = z.object({
  columns: z.array(z.string().max(100)).max(MAX_COLUMNS),
  rows: z.array(z.array(z.string().max(MAX_CELL)).max(MAX_COLUMNS)).max(MAX_ROWS),
  mapping: z.record(z.string(), z.number().int().min(0).max(MAX_COLUMNS)),
});
export type Roster = z.infer<typeof rosterSchema>;

const place = createStore('estrella-rosters', 'rosters');

/** The roster of a group; null if there is none that can be read. */
export async function keptRoster(pieceId: string, groupId: string): Promise<Roster | null> {
  const read = rosterSchema.safeParse(await get(`${pieceId}/${groupId}`, place).catch(() => null));
  return read.success ? read.data : null;
}

export const keepRoster = (pieceId: string, groupId: string, roster: Roster): Promise<void> =>
  set(`${pieceId}/${groupId}`, roster, place);
