import type { DataSource } from 'typeorm';
import { songAnalysisSchema } from '@core/audio';
import type { SongAnalysis } from '@core/audio';
import { MEDIA_KINDS, MEDIA_KIND_IDS } from '@core/piece';
import { MediaEntity } from '../../db/entities';
import type { MediaRow, MediaState } from '../../db/entities';
import type { Notify } from '../../db/notify';
import { AppError } from '../../platform/errors';

export type MediaRecord = Omit<MediaRow, 'analysis' | 'createdAt' | 'touchedAt'>;

export interface MediaRepository {
  find(hash: string): Promise<MediaRecord | null>;
  /** Finds a file and marks it as wanted now, so that cleaning up leaves it alone for a while. */
  touch(hash: string): Promise<MediaRecord | null>;
  /** Writes a row; `place` puts its files where they belong and runs under the same lock that cleaning up takes. */
  put(media: MediaRecord, place: () => Promise<void>): Promise<void>;
  setState(hash: string, state: MediaState, facts?: Partial<Pick<MediaRow, 'duration' | 'warning'>>): Promise<void>;
  /** Every font that was brought in, the newest first. */
  fonts(owner: string): Promise<MediaRecord[]>;
  analysis(hash: string): Promise<SongAnalysis | null>;
  setAnalysis(hash: string, analysis: SongAnalysis): Promise<void>;
  /**
   * Hashes of files that no piece and no waiting job can reach, and nobody wanted for a while. What every
   * piece offers stays.
   */
  unreachable(graceSeconds: number): Promise<string[]>;
  /** Removes such a file, if it still is one. */
  remove(hash: string, graceSeconds: number, removeFiles: () => Promise<void>): Promise<boolean>;
  /** Which of these hashes have no row. */
  unknown(hashes: readonly string[]): Promise<string[]>;
}

const FACTS = {
  hash: true,
  kind: true,
  name: true,
  bytes: true,
  owner: true,
  state: true,
  duration: true,
  width: true,
  height: true,
  warning: true,
  font: true,
} as const;

/** Kinds that every piece offers stay. */
const OFFERED = MEDIA_KIND_IDS.filter((id) => MEDIA_KINDS[id].isOffered);

const UNREACHABLE = `m.kind NOT IN (${OFFERED.map((id) => `'${id}'`).join()}) AND m.touched_at < now() - make_interval(secs => $1)
  AND NOT EXISTS (SELECT 1 FROM piece_media p WHERE p.hash = m.hash)
  AND NOT EXISTS (SELECT 1 FROM kept k WHERE k.body->'media' @> jsonb_build_array(jsonb_build_object('hash', m.hash)))
  AND NOT EXISTS (SELECT 1 FROM render_source r WHERE r.document->'media' @> jsonb_build_array(jsonb_build_object('hash', m.hash)))
  AND NOT EXISTS (SELECT 1 FROM job j WHERE j.state IN ('queued', 'running') AND (j.payload->>'hash' = m.hash OR j.payload->'document'->'media' @> jsonb_build_array(jsonb_build_object('hash', m.hash))))`;

export function createMediaRepository(source: DataSource, notify: Notify): MediaRepository {
  const media = source.getRepository(MediaEntity);
  const find = (hash: string) => media.findOne({ select: FACTS, where: { hash } });
  return {
    find,
    async touch(hash) {
      await source.query('UPDATE media SET touched_at = now() WHERE hash = $1', [hash]);
      return find(hash);
    },
    async put(row, place) {
      await source.transaction(async (manager) => {
        await manager.query('SELECT pg_advisory_xact_lock(hashtextextended($1, 0))', [row.hash]);
        await manager.upsert(MediaEntity, { ...row, touchedAt: new Date() }, ['hash']);
        await place();
      });
    },
    async setState(hash, state, facts = {}) {
      await media.update({ hash }, { state, ...facts });
      await notify({ topic: 'media', id: hash });
    },
    fonts: (owner) =>
      media.find({
        select: FACTS,
        where: { kind: 'font', state: 'ready', owner },
        order: { createdAt: 'DESC' },
        take: 500,
      }),
    async analysis(hash) {
      const row = await media.findOne({ select: { hash: true, analysis: true }, where: { hash } });
      if (!row) throw new AppError('NOT_FOUND');
      // Results of an earlier method lack what was added since; the schema fills it in.
      return row.analysis === null ? null : songAnalysisSchema.parse(row.analysis);
    },
    async setAnalysis(hash, analysis) {
      await media.update({ hash }, { analysis: analysis, state: 'ready', duration: analysis.duration });
      await notify({ topic: 'media', id: hash });
    },
    async unreachable(graceSeconds) {
      const rows = (await source.query(`SELECT m.hash FROM media m WHERE ${UNREACHABLE} LIMIT 1000`, [
        graceSeconds,
      ])) as { hash: string }[];
      return rows.map((row) => row.hash);
    },
    async remove(hash, graceSeconds, removeFiles) {
      return source.transaction(async (manager) => {
        await manager.query('SELECT pg_advisory_xact_lock(hashtextextended($1, 0))', [hash]);
        const [rows] = (await manager.query(
          `DELETE FROM media m WHERE m.hash = $2 AND ${UNREACHABLE} RETURNING m.hash`,
          [graceSeconds, hash],
        )) as [unknown[], number];
        if (rows.length === 0) return false;
        await removeFiles();
        return true;
      });
    },
    async unknown(hashes) {
      if (hashes.length === 0) return [];
      const rows = (await source.query(
        'SELECT h FROM unnest($1::text[]) AS h WHERE NOT EXISTS (SELECT 1 FROM media m WHERE m.hash = h)',
        [hashes],
      )) as { h: string }[];
      return rows.map((row) => row.h);
    },
  };
}
