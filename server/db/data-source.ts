import { DataSource } from 'typeorm';
import type { QueryRunner } from 'typeorm';
import { AppError, asAppError } from '../platform/errors';
import {
  DestinationEntity,
  JobEntity,
  KeptEntity,
  MediaEntity,
  PieceEntity,
  RevisionEntity,
  RosterEntity,
} from './entities';
import { FirstTables1700000000001 } from './migrations/0001-first-tables';
import { Fonts1700000000002 } from './migrations/0002-fonts';
import { SummariesAndLeases1700000000003 } from './migrations/0003-summaries-leases';
import { OpenKinds1700000000004 } from './migrations/0004-open-kinds';
import { Kept1700000000005 } from './migrations/0005-kept';
import { Rosters1700000000006 } from './migrations/0006-rosters';
import { Queue1700000000007 } from './migrations/0007-queue';
import { Sending1700000000008 } from './migrations/0008-sending';
import { Analyses1700000000009 } from './migrations/0009-analyses';
import { Footage1700000000010 } from './migrations/0010-footage';

/** Migrations only; the schema is never synchronised from the entities. */
export async function openDatabase(url: string): Promise<DataSource> {
  const source = new DataSource({
    type: 'postgres',
    url,
    entities: [PieceEntity, RevisionEntity, MediaEntity, JobEntity, KeptEntity, RosterEntity, DestinationEntity],
    migrations: [
      FirstTables1700000000001,
      Fonts1700000000002,
      SummariesAndLeases1700000000003,
      OpenKinds1700000000004,
      Kept1700000000005,
      Rosters1700000000006,
      Queue1700000000007,
      Sending1700000000008,
      Analyses1700000000009,
      Footage1700000000010,
    ],
    migrationsTransactionMode: 'each',
    synchronize: false,
    extra: {
      max: 8,
      // A busy machine takes its time.
      connectionTimeoutMillis: 15_000,
      statement_timeout: 60_000,
      idle_in_transaction_session_timeout: 60_000,
    },
    // A connection that the server drops while idle is replaced by the pool; without a listener it would end the
    // process.
    poolErrorHandler: () => {},
  });
  return source.initialize();
}

/** How long a starting process waits for its database: it may be starting itself, or coming back after a crash. */
const WAIT_MS = 90_000;

/** {@link openDatabase} as soon as the database answers. @throws what it last said, after a minute and a half. */
export async function awaitDatabase(url: string): Promise<DataSource> {
  const until = performance.now() + WAIT_MS;
  for (let pause = 100; ; pause = Math.min(2000, pause * 1.5)) {
    try {
      return await openDatabase(url);
    } catch (error) {
      if (asAppError(error).code !== 'DATABASE_AWAY' || performance.now() > until) throw error;
      await new Promise((resolve) => setTimeout(resolve, pause));
    }
  }
}

/** @throws AppError DATA_NEWER where a later version of the program has changed the tables: this one would not know how. */
async function refuseNewer(source: DataSource, runner: QueryRunner): Promise<void> {
  if (!(await runner.hasTable('migrations'))) return;
  const known = new Set(source.migrations.map((migration) => migration.name ?? migration.constructor.name));
  const done = (await runner.query('SELECT name FROM migrations')) as { name: string }[];
  const unknown = done.find(({ name }) => !known.has(name));
  if (unknown) throw new AppError('DATA_NEWER', unknown.name);
}

/** @throws AppError DATA_NEWER. */
export async function migrate(source: DataSource): Promise<void> {
  // Several processes may start at once: one migrates, the others wait.
  // The lock belongs to a connection, so one is held for it.
  const runner = source.createQueryRunner();
  try {
    await runner.query('SELECT pg_advisory_lock(418417)');
    await refuseNewer(source, runner);
    await source.runMigrations();
  } finally {
    await runner.query('SELECT pg_advisory_unlock(418417)').catch(() => {});
    await runner.release();
  }
}
