import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * The order in which renders are taken up, which people can change; and how often the worker of a job was lost, which is
 * not how often it was begun: a paused job is begun again without any loss.
 */
export class Queue1700000000007 implements MigrationInterface {
  readonly name = 'Queue1700000000007';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE job
        ADD COLUMN position double precision NOT NULL DEFAULT extract(epoch FROM clock_timestamp()),
        ADD COLUMN losses int NOT NULL DEFAULT 0`);
    await runner.query(`
      ALTER TABLE job DROP CONSTRAINT job_state_check, ADD CONSTRAINT job_state_check
        CHECK (state IN ('queued', 'running', 'succeeded', 'failed', 'canceled', 'paused'))`);
    await runner.query(`UPDATE job SET position = extract(epoch FROM created_at)`);
    await runner.query(`CREATE INDEX job_by_position ON job (lane, position) WHERE state = 'queued'`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DELETE FROM job WHERE state = 'paused' OR kind = 'part'`);
    await runner.query(`
      ALTER TABLE job DROP CONSTRAINT job_state_check, ADD CONSTRAINT job_state_check
        CHECK (state IN ('queued', 'running', 'succeeded', 'failed', 'canceled'))`);
    await runner.query(`DROP INDEX job_by_position`);
    await runner.query(`ALTER TABLE job DROP COLUMN position, DROP COLUMN losses`);
  }
}
