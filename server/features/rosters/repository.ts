import type { DataSource } from 'typeorm';
import { rosterSchema } from '@core/roster';
import type { Roster } from '@core/roster';
import { RosterEntity } from '../../db/entities';
import { AppError } from '../../platform/errors';
import type { Principal } from '../pieces/repository';

export interface KeptRoster {
  readonly roster: Roster;
  readonly revision: number;
}

/** Rosters of groups of pieces. They go with their piece. */
export interface RosterRepository {
  /** Null if the group has none. @throws AppError STORED_UNREADABLE. */
  get(who: Principal, pieceId: string, groupId: string): Promise<KeptRoster | null>;
  /**
   * Keeps a roster. @param base - the revision it was made from, 0 if there was none.
   * @returns the new revision. @throws AppError CONFLICT if another one came between, NOT_FOUND without the piece.
   */
  keep(who: Principal, pieceId: string, groupId: string, roster: Roster, base: number): Promise<number>;
  /** The rosters of a piece by the ids of their groups, for a file; what does not fit any more is left out. */
  ofPiece(pieceId: string): Promise<Map<string, Roster>>;
  /** Gives a copy of a piece the rosters of its original. */
  copy(who: Principal, fromPieceId: string, toPieceId: string): Promise<void>;
}

export function createRosterRepository(source: DataSource): RosterRepository {
  const rosters = source.getRepository(RosterEntity);
  return {
    async get({ owner }, pieceId, groupId) {
      const row = await rosters.findOneBy({ pieceId, groupId, owner });
      if (!row) return null;
      const read = rosterSchema.safeParse(row.body);
      if (!read.success) throw new AppError('STORED_UNREADABLE', 'its roster');
      return { roster: read.data, revision: row.revision };
    },
    async keep({ owner }, pieceId, groupId, roster, base) {
      // A piece of somebody else, or one that is gone, gets none.
      const rows = (await source.query(
        `WITH mine AS (SELECT id FROM piece WHERE id = $1 AND owner = $3 AND deleted_at IS NULL),
         made AS (
           INSERT INTO roster (piece_id, group_id, owner, revision, body, updated_at)
           SELECT id, $2, $3, 1, $4, now() FROM mine WHERE $5 = 0
           ON CONFLICT DO NOTHING RETURNING revision),
         changed AS (
           UPDATE roster SET revision = revision + 1, body = $4, updated_at = now()
           WHERE piece_id IN (SELECT id FROM mine) AND group_id = $2 AND owner = $3 AND revision = $5
           RETURNING revision)
         SELECT (SELECT count(*)::int FROM mine) AS pieces, (SELECT revision FROM made) AS made, (SELECT revision FROM changed) AS changed`,
        [pieceId, groupId, owner, JSON.stringify(roster), base],
      )) as { pieces: number; made: number | null; changed: number | null }[];
      const [{ pieces, made, changed } = { pieces: 0, made: null, changed: null }] = rows;
      if (pieces === 0) throw new AppError('NOT_FOUND');
      const revision = made ?? changed;
      if (revision === null) throw new AppError('CONFLICT');
      return revision;
    },
    async ofPiece(pieceId) {
      const rows = await rosters.find({ where: { pieceId }, order: { groupId: 'ASC' }, take: 200 });
      return new Map(
        rows.flatMap(({ groupId, body }): [string, Roster][] => {
          const read = rosterSchema.safeParse(body);
          return read.success ? [[groupId, read.data]] : [];
        }),
      );
    },
    async copy({ owner }, fromPieceId, toPieceId) {
      await source.query(
        `INSERT INTO roster (piece_id, group_id, owner, revision, body)
         SELECT $2, group_id, owner, 1, body FROM roster WHERE piece_id = $1 AND owner = $3`,
        [fromPieceId, toPieceId, owner],
      );
    },
  };
}
