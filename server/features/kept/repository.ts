import { randomUUID } from 'node:crypto';
import type { DataSource } from 'typeorm';
import { MOST_KEPT } from '@core/piece';
import type { KeptKind } from '@core/piece';
import { KeptEntity } from '../../db/entities';
import type { KeptRow } from '../../db/entities';
import { AppError } from '../../platform/errors';

export type Kept = Pick<KeptRow, 'id' | 'name' | 'version' | 'body'>;

/** What people keep for all their pieces. */
export interface KeptRepository {
  /** The newest first. */
  list(owner: string, kind: KeptKind): Promise<Kept[]>;
  /** Keeps it by its name: what has that name becomes its next version. @throws AppError KEPT_FULL. */
  keep(owner: string, kind: KeptKind, name: string, body: Record<string, unknown>): Promise<Kept>;
  /** Nothing happens if it is not there. */
  forget(owner: string, kind: KeptKind, id: string): Promise<void>;
}

export function createKeptRepository(source: DataSource): KeptRepository {
  const kept = source.getRepository(KeptEntity);
  const shown = { id: true, name: true, version: true, body: true } as const;
  return {
    list: (owner, kind) =>
      kept.find({ select: shown, where: { owner, kind }, order: { updatedAt: 'DESC' }, take: MOST_KEPT }),
    async keep(owner, kind, name, body) {
      return source.transaction(async (manager) => {
        await manager.query('SELECT pg_advisory_xact_lock(hashtextextended($1, 1))', [`${owner}/${kind}`]);
        const rows = manager.getRepository(KeptEntity);
        const old = await rows.findOne({ where: { owner, kind, name } });
        if (!old && (await rows.countBy({ owner, kind })) >= MOST_KEPT)
          throw new AppError('KEPT_FULL', String(MOST_KEPT));
        const row = {
          id: old?.id ?? randomUUID(),
          owner,
          kind,
          name,
          version: (old?.version ?? 0) + 1,
          body,
          updatedAt: new Date(),
        };
        await rows.save(row);
        return { id: row.id, name, version: row.version, body };
      });
    },
    async forget(owner, kind, id) {
      await kept.delete({ owner, kind, id });
    },
  };
}
