import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Rosters, and the renders of their rows: jobs of one batch, each known by the fingerprint of what it shows. The same
 * fingerprint is never there twice among jobs that wait, run, or have a file. What many jobs are made from is kept once.
 */
export class Rosters1700000000006 implements MigrationInterface {
  readonly name = 'Rosters1700000000006';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE roster (
        piece_id text NOT NULL REFERENCES piece(id) ON DELETE CASCADE,
        group_id text NOT NULL,
        owner text NOT NULL,
        revision int NOT NULL CHECK (revision >= 1),
        body jsonb NOT NULL,
        updated_at timestamptz NOT NULL DEFAULT now(),
        PRIMARY KEY (piece_id, group_id)
      )`);
    await runner.query(`
      CREATE TABLE render_source (
        hash text PRIMARY KEY,
        document jsonb NOT NULL,
        touched_at timestamptz NOT NULL DEFAULT now()
      )`);
    await runner.query(`ALTER TABLE job ADD COLUMN batch text, ADD COLUMN fingerprint text`);
    await runner.query(`
      CREATE UNIQUE INDEX job_once ON job (batch, fingerprint)
      WHERE batch IS NOT NULL AND state IN ('queued', 'running', 'succeeded')`);
    await runner.query(`CREATE INDEX job_by_batch ON job (batch, created_at DESC) WHERE batch IS NOT NULL`);
    await runner.query(`CREATE INDEX job_by_source ON job ((payload->>'source')) WHERE state IN ('queued', 'running')`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DELETE FROM job WHERE batch IS NOT NULL`);
    await runner.query(`DROP INDEX job_once`);
    await runner.query(`DROP INDEX job_by_batch`);
    await runner.query(`DROP INDEX job_by_source`);
    await runner.query(`ALTER TABLE job DROP COLUMN batch, DROP COLUMN fingerprint`);
    await runner.query(`DROP TABLE render_source`);
    await runner.query(`DROP TABLE roster`);
  }
}
