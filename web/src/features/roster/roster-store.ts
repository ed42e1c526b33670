import { createStore, del, get } from 'idb-keyval';
import * as z from 'zod';
import { rosterRow, rosterSchema } from '@core/roster';
import type { Roster } from '@core/roster';
import { api, call } from '../../platform/api';

/** Rosters lie on the server, with their piece. */
export interface Kept {
  readonly roster: Roster;
  readonly revision: number;
}

const path = (pieceId: string, groupId: string) => ({ param: { pieceId, groupId } });

/** As browsers kept them once; taken over when the roster is opened there. */
const place = createStore('estrella-rosters', 'rosters');
const oldSchema = z.object({
  columns: rosterSchema.shape.columns,
  rows: z.array(z.array(z.string())),
  mapping: rosterSchema.shape.mapping,
});

async function keptHere(pieceId: string, groupId: string): Promise<Roster | null> {
  const read = oldSchema.safeParse(await get(`${pieceId}/${groupId}`, place).catch(() => null));
  return read.success ? { ...read.data, rows: read.data.rows.map(rosterRow), beginsColumn: null } : null;
}

/** The roster of a group; null if it has none. @throws ApiError. */
export async function readRoster(pieceId: string, groupId: string): Promise<Kept | null> {
  const { roster, revision } = await call(api.rosters[':pieceId'][':groupId'].$get(path(pieceId, groupId)));
  if (roster) return { roster: rosterSchema.parse(roster), revision };
  const here = await keptHere(pieceId, groupId);
  return here && { roster: here, revision: 0 };
}

/** @returns its new revision. @throws ApiError CONFLICT if another tab has changed it since. */
export async function writeRoster(pieceId: string, groupId: string, roster: Roster, base: number): Promise<number> {
  const { revision } = await call(
    api.rosters[':pieceId'][':groupId'].$put({ ...path(pieceId, groupId), json: { roster, base } }),
  );
  if (base === 0) await del(`${pieceId}/${groupId}`, place).catch(() => {});
  return revision;
}
