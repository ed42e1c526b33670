import type { DataSource } from 'typeorm';
import { songAnalysisSchema } from '@core/audio';
import type { SongAnalysis } from '@core/audio';
import { MEDIA_KINDS, MEDIA_KIND_IDS, timedBy } from '@core/piece';
import type { Piece } from '@core/piece';
import { MediaEntity } from '../../db/entities';
import type { MediaRow, MediaState } from '../../db/entities';
import type { Notify } from '../../db/notify';

export type MediaRecord = Omit<MediaRow, 'createdAt' | 'touchedAt'>;

export interface MediaRepository {
  find(hash: string): Promise<MediaRecord | null>;
  /** Finds a file and marks it as wanted now, so that cleaning up leaves it alone for a while. */
  touch(hash: string): Promise<MediaRecord | null>;
  /**
   * Writes a row; `place` puts its files where they belong and runs under the same lock that cleaning up takes.
   * @param staysReady - a row that became ready meanwhile stays so. @returns the row as it is then.
   */
  put(media: MediaRecord, place: () => Promise<void>, staysReady?: boolean): Promise<MediaRecord>;
  setState(
    hash: string,
    state: MediaState,
    facts?: Partial<Pick<MediaRow, 'duration' | 'warning' | 'width' | 'height' | 'footage'>>,
  ): Promise<void>;
  /** Every font that was brought in, the newest first. */
  fonts(owner: string): Promise<MediaRecord[]>;
  /**
   * What a method of analysis found in a song; null while there is none.
   * @param version - of the method; null for the first that the song was heard by, which also stands in where that of
   * the version is not there.
   */
  analysis(hash: string, version: number | null): Promise<SongAnalysis | null>;
  /** What a piece is timed by; null without music, and while its song is being listened to. */
  analysisOf(piece: Pick<Piece, 'media' | 'music'>): Promise<SongAnalysis | null>;
  hasAnalysis(hash: string, version: number): Promise<boolean>;
  /** Keeps what was found when the song was made ready, which it then is. */
  setAnalysis(hash: string, analysis: SongAnalysis): Promise<void>;
  /** Keeps what another method found beside it. What is there of that method stays. */
  addAnalysis(hash: string, analysis: SongAnalysis): Promise<void>;
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
  footage: true,
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
  const analysis = async (hash: string, version: number | null): Promise<SongAnalysis | null> => {
    const [row] = (await source.query(
      'SELECT body FROM song_analysis WHERE hash = $1 ORDER BY (version IS NOT DISTINCT FROM $2::int) DESC, is_first DESC, created_at LIMIT 1',
      [hash, version],
    )) as { body: unknown }[];
    // Results of an earlier method lack what was added since; the schema fills it in.
    return row ? songAnalysisSchema.parse(row.body) : null;
  };
  const find = (hash: string) => media.findOne({ select: FACTS, where: { hash } });
  return {
    find,
    async touch(hash) {
      await source.query('UPDATE media SET touched_at = now() WHERE hash = $1', [hash]);
      return find(hash);
    },
    async put(row, place, staysReady = true) {
      return source.transaction(async (manager) => {
        await manager.query('SELECT pg_advisory_xact_lock(hashtextextended($1, 0))', [row.hash]);
        const [there] = (await manager.query('SELECT state FROM media WHERE hash = $1 FOR UPDATE', [row.hash])) as {
          state: MediaState;
        }[];
        const now: MediaRecord = staysReady && there?.state === 'ready' ? { ...row, state: 'ready' } : row;
        await manager.upsert(MediaEntity, { ...now, touchedAt: new Date() }, ['hash']);
        await place();
        return now;
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
    analysis,
    async analysisOf(piece) {
      const timed = timedBy(piece);
      return timed && analysis(timed.hash, timed.version);
    },
    async hasAnalysis(hash, version) {
      const rows = (await source.query('SELECT 1 FROM song_analysis WHERE hash = $1 AND version = $2', [
        hash,
        version,
      ])) as unknown[];
      return rows.length > 0;
    },
    async setAnalysis(hash, found) {
      await source.query(
        `INSERT INTO song_analysis (hash, version, is_first, body)
         VALUES ($1, $2, NOT EXISTS (SELECT 1 FROM song_analysis WHERE hash = $1 AND is_first), $3)
         ON CONFLICT (hash, version) DO UPDATE SET body = $3, is_first = song_analysis.is_first OR EXCLUDED.is_first`,
        [hash, found.version, JSON.stringify(found)],
      );
      await media.update({ hash }, { state: 'ready', duration: found.duration });
      await notify({ topic: 'media', id: hash });
    },
    async addAnalysis(hash, found) {
      await source.query(
        'INSERT INTO song_analysis (hash, version, is_first, body) VALUES ($1, $2, false, $3) ON CONFLICT DO NOTHING',
        [hash, found.version, JSON.stringify(found)],
      );
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
