import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Where finished files are sent; jobs that are taken up not before a time, or not before another job is over. */
export class Sending1700000000008 implements MigrationInterface {
  readonly name = 'Sending1700000000008';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE destination (
        id uuid PRIMARY KEY,
        owner text NOT NULL,
        body jsonb NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now()
      )`);
    await runner.query(`ALTER TABLE job ADD COLUMN due_at timestamptz, ADD COLUMN waits_for uuid`);
    await runner.query(`CREATE INDEX job_waiting ON job (waits_for) WHERE waits_for IS NOT NULL`);
    // A link by which a file can be had without asking anybody.
    await runner.query(`CREATE UNIQUE INDEX job_by_link ON job ((result->>'shared')) WHERE result ? 'shared'`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DELETE FROM job WHERE kind = 'send'`);
    await runner.query(`DROP INDEX job_by_link`);
    await runner.query(`DROP INDEX job_waiting`);
    await runner.query(`ALTER TABLE job DROP COLUMN due_at, DROP COLUMN waits_for`);
    await runner.query(`DROP TABLE destination`);
  }
}
