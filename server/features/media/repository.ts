import type { DataSource } from 'typeorm';
import { songAnalysisSchema } from '@core/audio';
import type { SongAnalysis } from '@core/audio';
import { MediaEntity } from '../../db/entities';
import type { MediaRow, MediaState } from '../../db/entities';
import { AppError } from '../../platform/errors';

export type MediaRecord = Omit<MediaRow, 'analysis' | 'createdAt'>;

export interface MediaRepository {
  find(hash: string): Promise<MediaRecord | null>;
  put(media: MediaRecord): Promise<void>;
  setState(hash: string, state: MediaState, facts?: Partial<Pick<MediaRow, 'duration' | 'warning'>>): Promise<void>;
  /** Every font that was brought in, the newest first. */
  fonts(): Promise<MediaRecord[]>;
  analysis(hash: string): Promise<SongAnalysis | null>;
  setAnalysis(hash: string, analysis: SongAnalysis): Promise<void>;
}

const FACTS = { hash: true, kind: true, name: true, bytes: true, state: true, duration: true, width: true, height: true, warning: true, font: true } as const;

export function createMediaRepository(source: DataSource): MediaRepository {
  const media = source.getRepository(MediaEntity);
  return {
    find: (hash) => media.findOne({ select: FACTS, where: { hash } }),
    async put(row) {
      await media.upsert(row, ['hash']);
    },
    async setState(hash, state, facts = {}) {
      await media.update({ hash }, { state, ...facts });
    },
    fonts: () => media.find({ select: FACTS, where: { kind: 'font', state: 'ready' }, order: { createdAt: 'DESC' }, take: 500 }),
    async analysis(hash) {
      const row = await media.findOne({ select: { hash: true, analysis: true }, where: { hash } });
      if (!row) throw new AppError('NOT_FOUND');
      // Results of an earlier method lack what was added since; the schema fills it in.
      return row.analysis === null ? null : songAnalysisSchema.parse(row.analysis);
    },
    async setAnalysis(hash, analysis) {
      await media.update({ hash }, { analysis: analysis as object, state: 'ready', duration: analysis.duration });
    },
  };
}
