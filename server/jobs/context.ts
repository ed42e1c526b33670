import { join } from 'node:path';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import type { SongAnalysis } from '@core/audio';
import { timedBy } from '@core/piece';
import type { Piece } from '@core/piece';
import { openDatabase } from '../db/data-source';
import { createNotify } from '../db/notify';
import { createDestinationRepository } from '../features/destinations/repository';
import type { DestinationRepository } from '../features/destinations/repository';
import { createJobRepository } from '../features/jobs/repository';
import type { JobRepository } from '../features/jobs/repository';
import { createKeptRepository } from '../features/kept/repository';
import type { KeptRepository } from '../features/kept/repository';
import { createMediaRepository } from '../features/media/repository';
import type { MediaRepository } from '../features/media/repository';
import { createPieceRepository } from '../features/pieces/repository';
import type { PieceRepository } from '../features/pieces/repository';
import { createRosterRepository } from '../features/rosters/repository';
import type { RosterRepository } from '../features/rosters/repository';
import type { Config } from '../platform/config';
import { createMediaStore } from '../platform/media-store';
import type { MediaStore } from '../platform/media-store';
import { localHeartbeat, threadHeartbeat } from './heartbeat';
import type { Heartbeat } from './heartbeat';
import { openQueue } from './queue';
import type { JobQueue } from './queue';

/** What the parts of the server are given; only the mains put it together. */
export interface ServerContext {
  readonly config: Config;
  readonly log: Logger;
  readonly source: DataSource;
  readonly pieces: PieceRepository;
  readonly media: MediaRepository;
  readonly jobs: JobRepository;
  readonly kept: KeptRepository;
  readonly rosters: RosterRepository;
  readonly destinations: DestinationRepository;
  readonly store: MediaStore;
  readonly queue: JobQueue;
  readonly heartbeat: Heartbeat;
}

/** Analyses kept in memory: a piece that is worked on is saved every second, and its song stays the same. */
const KNOWN_ANALYSES = 24;

function rememberedAnalyses(media: MediaRepository): (piece: Piece) => Promise<SongAnalysis | null> {
  const known = new Map<string, SongAnalysis>();
  return async (piece) => {
    const timed = timedBy(piece);
    if (!timed) return null;
    const key = `${timed.hash}@${timed.version ?? ''}`;
    const remembered = known.get(key);
    if (remembered) return remembered;
    const analysis = await media.analysisOf(piece).catch(() => null);
    // What stands in for another method's is not kept: that may still come.
    if (analysis && (timed.version ?? analysis.version) === analysis.version) {
      if (known.size >= KNOWN_ANALYSES) known.clear();
      known.set(key, analysis);
    }
    return analysis;
  };
}

/** @param isWorker - it runs jobs for a living: their signs of life come from a thread. */
export async function openContext(config: Config, log: Logger, isWorker = false): Promise<ServerContext> {
  const source = await openDatabase(config.databaseUrl);
  const notify = createNotify(source);
  const jobs = createJobRepository(source, notify);
  const media = createMediaRepository(source, notify);
  const queue = await openQueue(config.databaseUrl, jobs, (error) =>
    log.warn({ err: error }, 'the queue lost the database'),
  );
  const store = await createMediaStore(join(config.dataDir, 'media'), join(config.dataDir, 'exports'));
  return {
    config,
    log,
    source,
    pieces: createPieceRepository(source, rememberedAnalyses(media), notify),
    media,
    jobs,
    kept: createKeptRepository(source),
    rosters: createRosterRepository(source),
    destinations: createDestinationRepository(source),
    store,
    queue,
    heartbeat: isWorker ? threadHeartbeat(config.assets.serverDir, config.databaseUrl, log) : localHeartbeat(jobs, log),
  };
}

export async function closeContext(context: ServerContext): Promise<void> {
  await context.heartbeat.close().catch(() => {});
  await context.queue.stop().catch(() => {});
  await context.source.destroy().catch(() => {});
}
