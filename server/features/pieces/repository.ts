import type { DataSource, EntityManager } from 'typeorm';
import { holds, parsePiece } from '@core/piece';
import type { Piece } from '@core/piece';
import { PieceEntity, RevisionEntity } from '../../db/entities';
import type { PieceRow } from '../../db/entities';
import type { Notify } from '../../db/notify';
import { AppError } from '../../platform/errors';
import { readRevision, revisionContent, thinRevisions } from './revisions';
import { summarise } from './summary';
import type { Summary } from './summary';

/** Who asks. There is one local user until accounts come; every call says so already. */
export interface Principal {
  readonly owner: string;
}
export const LOCAL: Principal = { owner: 'local' };

export interface PieceRecord {
  readonly piece: Piece;
  readonly revision: number;
  readonly updatedAt: string;
  /** The save that made this revision; null if it had no id. */
  readonly saveId: string | null;
}

export interface PieceSummary extends Summary {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly updatedAt: string;
}

export const PIECE_ORDERS = {
  changed: 'updated_at DESC, id',
  name: 'lower(name), id',
  length: 'duration DESC, id',
} as const;
export type PieceOrder = keyof typeof PIECE_ORDERS;

export interface PieceQuery {
  readonly search: string;
  readonly order: PieceOrder;
  readonly offset: number;
  readonly limit: number;
}

export interface SaveOptions {
  readonly base: number;
  readonly label: string;
  readonly saveId?: string | null;
  /**
   * What the save's writer follows: if a save that this one holds made the present revision, it goes on top of it (see
   * core's save-ids.ts).
   */
  readonly follows?: readonly string[];
}

export interface PieceRepository {
  /** No document is read for a list. */
  list(who: Principal, query: PieceQuery): Promise<{ pieces: PieceSummary[]; total: number }>;
  summary(who: Principal, id: string): Promise<PieceSummary>;
  get(who: Principal, id: string): Promise<PieceRecord>;
  /**
   * A save that has arrived already is answered as it was then. @throws AppError CONFLICT if the stored revision is not
   * `base`, NOT_FOUND.
   */
  save(who: Principal, piece: Piece, options: SaveOptions): Promise<PieceRecord>;
  create(who: Principal, piece: Piece, label: string): Promise<PieceRecord>;
  setDeleted(who: Principal, id: string, deleted: boolean): Promise<void>;
  revisions(who: Principal, id: string): Promise<{ revision: number; label: string; createdAt: string }[]>;
  revision(who: Principal, id: string, revision: number): Promise<Piece>;
  /** Puts an earlier revision on top, also of a piece whose present document cannot be read. */
  restore(who: Principal, id: string, revision: number): Promise<PieceRecord>;
  /**
   * Writes summaries anew: of pieces stored before there were any, and of those that use a song which is known only
   * now.
   */
  resummarise(hash: string | null): Promise<number>;
  /** Pieces that were deleted long enough ago go for good. */
  purge(graceSeconds: number): Promise<string[]>;
}

/** Looks up what was found in a piece's song. */
export type AnalysisOf = (piece: Piece) => Promise<Parameters<typeof summarise>[1]>;

/**
 * A stored document, by this version or an earlier one. @throws AppError PIECE_INVALID: what cannot be read is said,
 * never handed on.
 */
function readDocument(stored: unknown): Piece {
  const parsed = parsePiece(stored);
  if (!parsed.ok) throw new AppError('STORED_UNREADABLE', parsed.problem.detail);
  return parsed.piece;
}

const toRecord = (row: Pick<PieceRow, 'document' | 'revision' | 'updatedAt' | 'saveId'>): PieceRecord => ({
  piece: readDocument(row.document),
  revision: row.revision,
  updatedAt: new Date(row.updatedAt).toISOString(),
  saveId: row.saveId,
});

type SummaryRow = Pick<PieceRow, 'id' | 'name' | 'revision' | 'updatedAt' | keyof Summary>;
const SUMMARY_COLUMNS =
  'id, name, revision, updated_at AS "updatedAt", duration, layer_count AS "layerCount", formats, lead_format_id AS "leadFormatId", frame_rate AS "frameRate", beats, poster';
const toSummary = (row: SummaryRow): PieceSummary => ({ ...row, updatedAt: new Date(row.updatedAt).toISOString() });

/** Characters that mean something in LIKE are searched for as they are. */
const likePattern = (word: string): string => `%${word.replace(/[\\%_]/g, (c) => `\\${c}`)}%`;

async function noteMedia(manager: EntityManager, piece: Piece, revision: number): Promise<void> {
  const hashes = [...new Set(piece.media.map((m) => m.hash))];
  if (hashes.length === 0) return;
  await manager.query(
    `INSERT INTO piece_media (piece_id, hash, first_revision, last_revision) SELECT $1, h, $3, $3 FROM unnest($2::text[]) AS h
     ON CONFLICT (piece_id, hash) DO UPDATE SET last_revision = EXCLUDED.last_revision`,
    [piece.id, hashes, revision],
  );
  await manager.query('UPDATE media SET touched_at = now() WHERE hash = ANY($1::text[])', [hashes]);
}

export function createPieceRepository(source: DataSource, analysisOf: AnalysisOf, notify: Notify): PieceRepository {
  const summaryOf = async (piece: Piece): Promise<Summary & Pick<PieceRow, 'searchText' | 'isSummarised'>> => ({
    ...summarise(piece, await analysisOf(piece).catch(() => null)),
    searchText: `${piece.name} ${piece.formats.map((f) => f.name).join(' ')}`.toLowerCase(),
    isSummarised: true,
  });
  const live = async ({ owner }: Principal, id: string): Promise<PieceRow> => {
    const row = await source.getRepository(PieceEntity).findOneBy({ id, owner });
    if (!row || row.deletedAt) throw new AppError('NOT_FOUND');
    return row;
  };
  const told = (id: string) => notify({ topic: 'piece', id });
  const revisionOf: PieceRepository['revision'] = async ({ owner }, id, revision) => {
    // Also of a piece whose present document cannot be read: this is the way back.
    const [row] = (await source.query('SELECT 1 FROM piece WHERE id = $1 AND owner = $2 AND deleted_at IS NULL', [
      id,
      owner,
    ])) as unknown[];
    if (!row) throw new AppError('NOT_FOUND');
    return readDocument(await readRevision(source.manager, id, revision));
  };

  const repository: PieceRepository = {
    async list({ owner }, { search, order, offset, limit }) {
      const words = search.toLowerCase().split(/\s+/).filter(Boolean).slice(0, 8).map(likePattern);
      const where = `owner = $1 AND deleted_at IS NULL${words.map((_, i) => ` AND search_text LIKE $${i + 2}`).join('')}`;
      const [rows, [count]] = await Promise.all([
        source.query(
          `SELECT ${SUMMARY_COLUMNS} FROM piece WHERE ${where} ORDER BY ${PIECE_ORDERS[order]} OFFSET ${offset} LIMIT ${limit}`,
          [owner, ...words],
        ) as Promise<SummaryRow[]>,
        source.query(`SELECT count(*)::int AS total FROM piece WHERE ${where}`, [owner, ...words]) as Promise<
          [{ total: number }]
        >,
      ]);
      return { pieces: rows.map(toSummary), total: count.total };
    },
    async summary({ owner }, id) {
      const [row] = (await source.query(
        `SELECT ${SUMMARY_COLUMNS} FROM piece WHERE id = $1 AND owner = $2 AND deleted_at IS NULL`,
        [id, owner],
      )) as SummaryRow[];
      if (!row) throw new AppError('NOT_FOUND');
      return toSummary(row);
    },
    get: async (who, id) => toRecord(await live(who, id)),
    async create({ owner }, piece, label) {
      const now = new Date();
      const summary = await summaryOf(piece);
      await source.transaction(async (manager) => {
        await manager.insert(PieceEntity, {
          id: piece.id,
          name: piece.name,
          document: piece as object,
          revision: 1,
          updatedAt: now,
          deletedAt: null,
          owner,
          saveId: null,
          ...summary,
        });
        await manager.insert(RevisionEntity, {
          pieceId: piece.id,
          revision: 1,
          document: piece as object,
          patch: null,
          label,
        });
        await noteMedia(manager, piece, 1);
      });
      await told(piece.id);
      return { piece, revision: 1, updatedAt: now.toISOString(), saveId: null };
    },
    async save({ owner }, piece, { base, label, saveId = null, follows = [] }) {
      const now = new Date();
      const summary = await summaryOf(piece);
      const saved = await source.transaction(async (manager): Promise<number> => {
        const [row] = (await manager.query(
          'SELECT document, revision, save_id AS "saveId", deleted_at AS "deletedAt" FROM piece WHERE id = $1 AND owner = $2 FOR UPDATE',
          [piece.id, owner],
        )) as Pick<PieceRow, 'document' | 'revision' | 'saveId' | 'deletedAt'>[];
        if (!row || row.deletedAt) throw new AppError('NOT_FOUND');
        // This very save, or a later one of the same writer, which holds it: there is nothing left to do.
        if (saveId !== null && row.saveId !== null && (row.saveId === saveId || holds(row.saveId, [], saveId)))
          return row.revision;
        if (row.revision !== base && !(saveId !== null && row.saveId !== null && holds(saveId, follows, row.saveId)))
          throw new AppError('CONFLICT');
        const revision = row.revision + 1;
        await manager.update(
          PieceEntity,
          { id: piece.id },
          { name: piece.name, document: piece, revision, updatedAt: now, saveId, ...summary },
        );
        const content = revisionContent(row.document, piece, revision);
        await manager.insert(RevisionEntity, { pieceId: piece.id, revision, label, ...content });
        await noteMedia(manager, piece, revision);
        if (revision % THIN_EVERY === 0) await thinRevisions(manager, piece.id, now.getTime());
        return revision;
      });
      await told(piece.id);
      return { piece, revision: saved, updatedAt: now.toISOString(), saveId };
    },
    async setDeleted({ owner }, id, deleted) {
      const result = await source
        .getRepository(PieceEntity)
        .update({ id, owner }, { deletedAt: deleted ? new Date() : null });
      if (result.affected !== 1) throw new AppError('NOT_FOUND');
      await told(id);
    },
    async revisions(who, id) {
      await live(who, id);
      const rows = await source
        .getRepository(RevisionEntity)
        .find({
          select: { pieceId: true, revision: true, label: true, createdAt: true },
          where: { pieceId: id },
          order: { revision: 'DESC' },
          take: 200,
        });
      return rows.map((row) => ({ revision: row.revision, label: row.label, createdAt: row.createdAt.toISOString() }));
    },
    revision: revisionOf,
    async restore(who, id, revision) {
      const piece = await revisionOf(who, id, revision);
      const { revision: base } = await repository.summary(who, id);
      return repository.save(who, piece, { base, label: `Bring back revision ${revision}` });
    },
    async resummarise(hash) {
      const rows = (await source.query(
        hash === null
          ? 'SELECT id, document FROM piece WHERE NOT is_summarised AND deleted_at IS NULL LIMIT 50'
          : 'SELECT p.id, p.document FROM piece p JOIN piece_media m ON m.piece_id = p.id AND m.last_revision = p.revision WHERE m.hash = $1 AND p.deleted_at IS NULL LIMIT 200',
        hash === null ? [] : [hash],
      )) as { id: string; document: unknown }[];
      for (const { id, document } of rows) {
        const parsed = parsePiece(document);
        const summary = parsed.ok ? await summaryOf(parsed.piece) : { isSummarised: true };
        await source.getRepository(PieceEntity).update({ id }, summary);
      }
      return rows.length;
    },
    async purge(graceSeconds) {
      const [rows] = (await source.query(
        'DELETE FROM piece WHERE deleted_at < now() - make_interval(secs => $1) RETURNING id',
        [graceSeconds],
      )) as [{ id: string }[], number];
      return rows.map((row) => row.id);
    },
  };
  return repository;
}

/** Revisions are thinned whenever so many have come. */
const THIN_EVERY = 20;
