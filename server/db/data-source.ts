import { DataSource } from 'typeorm';
import { JobEntity, MediaEntity, PieceEntity, RevisionEntity } from './entities';
import { FirstTables1700000000001 } from './migrations/0001-first-tables';
import { Fonts1700000000002 } from './migrations/0002-fonts';

/** Migrations only; the schema is never synchronised from the entities. */
export async function openDatabase(url: string): Promise<DataSource> {
  const source = new DataSource({
    type: 'postgres',
    url,
    entities: [PieceEntity, RevisionEntity, MediaEntity, JobEntity],
    migrations: [FirstTables1700000000001, Fonts1700000000002],
    migrationsTransactionMode: 'each',
    synchronize: false,
    extra: { max: 8, connectionTimeoutMillis: 4000 },
    // A connection that the server drops while idle is replaced by the pool; without a listener it would end the process.
    poolErrorHandler: () => {},
  });
  return source.initialize();
}

export async function migrate(source: DataSource): Promise<void> {
  // Several processes may start at once: one migrates, the others wait.
  await source.query('SELECT pg_advisory_lock(418417)');
  try {
    await source.runMigrations();
  } finally {
    await source.query('SELECT pg_advisory_unlock(418417)');
  }
}
