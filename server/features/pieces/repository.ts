import type { DataSource } from 'typeorm';
import { completePiece } from '@core/piece';
import type { Piece } from '@core/piece';
import { PieceEntity, RevisionEntity } from '../../db/entities';
import type { PieceRow } from '../../db/entities';
import { AppError } from '../../platform/errors';

/** Revisions kept per piece; older ones go, except that the first of each hour stays. */
const KEEP_LATEST = 100;

export interface PieceRecord {
  readonly piece: Piece;
  readonly revision: number;
  readonly updatedAt: string;
}

export interface PieceRepository {
  list(): Promise<PieceRecord[]>;
  get(id: string): Promise<PieceRecord>;
  /** @throws AppError CONFLICT if the stored revision is not `base`. */
  save(piece: Piece, base: number, label: string): Promise<PieceRecord>;
  create(piece: Piece, label: string): Promise<PieceRecord>;
  setDeleted(id: string, deleted: boolean): Promise<void>;
  revisions(id: string): Promise<{ revision: number; label: string; createdAt: string }[]>;
  revision(id: string, revision: number): Promise<Piece>;
}

const toRecord = (row: Pick<PieceRow, 'document' | 'revision' | 'updatedAt'>): PieceRecord => ({ piece: completePiece(row.document), revision: row.revision, updatedAt: new Date(row.updatedAt).toISOString() });

export function createPieceRepository(source: DataSource): PieceRepository {
  const pieces = source.getRepository(PieceEntity);
  const revisions = source.getRepository(RevisionEntity);

  const get = async (id: string): Promise<PieceRecord> => {
    const row = await pieces.findOneBy({ id });
    if (!row || row.deletedAt) throw new AppError('NOT_FOUND');
    return toRecord(row);
  };

  const thin = async (id: string, latest: number) => {
    if (latest % 20 !== 0) return;
    await source.query(
      `DELETE FROM piece_revision r WHERE piece_id = $1 AND revision <= $2 AND EXISTS (
         SELECT 1 FROM piece_revision e WHERE e.piece_id = r.piece_id AND e.revision < r.revision AND date_trunc('hour', e.created_at) = date_trunc('hour', r.created_at))`,
      [id, latest - KEEP_LATEST],
    );
  };

  return {
    async list() {
      const rows = await pieces.createQueryBuilder('p').where('p.deletedAt IS NULL').orderBy('p.updatedAt', 'DESC').getMany();
      return rows.map(toRecord);
    },
    get,
    async create(piece, label) {
      const now = new Date();
      await source.transaction(async (manager) => {
        await manager.insert(PieceEntity, { id: piece.id, name: piece.name, document: piece as object, revision: 1, updatedAt: now, deletedAt: null });
        await manager.insert(RevisionEntity, { pieceId: piece.id, revision: 1, document: piece as object, label });
      });
      return { piece, revision: 1, updatedAt: now.toISOString() };
    },
    async save(piece, base, label) {
      const now = new Date();
      const saved = await source.transaction(async (manager) => {
        const result = await manager
          .createQueryBuilder()
          .update(PieceEntity)
          .set({ name: piece.name, document: piece as object, revision: base + 1, updatedAt: now })
          .where('id = :id AND revision = :base AND deleted_at IS NULL', { id: piece.id, base })
          .execute();
        if (result.affected !== 1) return false;
        await manager.insert(RevisionEntity, { pieceId: piece.id, revision: base + 1, document: piece as object, label });
        return true;
      });
      if (!saved) {
        await get(piece.id); // NOT_FOUND if it is gone
        throw new AppError('CONFLICT');
      }
      await thin(piece.id, base + 1);
      return { piece, revision: base + 1, updatedAt: now.toISOString() };
    },
    async setDeleted(id, deleted) {
      const result = await pieces.update({ id }, { deletedAt: deleted ? new Date() : null });
      if (result.affected !== 1) throw new AppError('NOT_FOUND');
    },
    async revisions(id) {
      const rows = await revisions.find({ select: { revision: true, label: true, createdAt: true }, where: { pieceId: id }, order: { revision: 'DESC' }, take: 200 });
      return rows.map((row) => ({ revision: row.revision, label: row.label, createdAt: row.createdAt.toISOString() }));
    },
    async revision(id, revision) {
      const row = await revisions.findOneBy({ pieceId: id, revision });
      if (!row) throw new AppError('NOT_FOUND');
      return completePiece(row.document);
    },
  };
}
