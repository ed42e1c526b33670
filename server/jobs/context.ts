import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { openDatabase } from '../db/data-source';
import { createJobRepository } from '../features/jobs/repository';
import type { JobRepository } from '../features/jobs/repository';
import { createMediaRepository } from '../features/media/repository';
import type { MediaRepository } from '../features/media/repository';
import { createPieceRepository } from '../features/pieces/repository';
import type { PieceRepository } from '../features/pieces/repository';
import type { Config } from '../platform/config';
import { createMediaStore } from '../platform/media-store';
import type { MediaStore } from '../platform/media-store';
import { openQueue } from './queue';
import type { JobQueue } from './queue';
import { join } from 'node:path';

/** What the parts of the server are given; only the mains put it together. */
export interface ServerContext {
  readonly config: Config;
  readonly log: Logger;
  readonly source: DataSource;
  readonly pieces: PieceRepository;
  readonly media: MediaRepository;
  readonly jobs: JobRepository;
  readonly store: MediaStore;
  readonly queue: JobQueue;
  readonly exportsDir: string;
}

export async function openContext(config: Config, log: Logger): Promise<ServerContext> {
  const source = await openDatabase(config.databaseUrl);
  const jobs = createJobRepository(source);
  const queue = await openQueue(config.databaseUrl, jobs, (error) => log.warn({ err: error.message }, 'the queue lost the database'));
  return { config, log, source, pieces: createPieceRepository(source), media: createMediaRepository(source), jobs, store: await createMediaStore(join(config.dataDir, 'media')), queue, exportsDir: join(config.dataDir, 'exports') };
}

export async function closeContext(context: ServerContext): Promise<void> {
  await context.queue.stop().catch(() => {});
  await context.source.destroy().catch(() => {});
}
