import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Which kinds of media and jobs there are is told by the tables of kinds, which every writer goes by. */
export class OpenKinds1700000000004 implements MigrationInterface {
  readonly name = 'OpenKinds1700000000004';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE media DROP CONSTRAINT media_kind_check');
    await runner.query('ALTER TABLE job DROP CONSTRAINT job_kind_check');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DELETE FROM job WHERE kind NOT IN ('prepare', 'export')`);
    await runner.query(`ALTER TABLE job ADD CONSTRAINT job_kind_check CHECK (kind IN ('prepare', 'export'))`);
    await runner.query(`DELETE FROM media WHERE kind NOT IN ('audio', 'picture', 'font')`);
    await runner.query(
      `ALTER TABLE media ADD CONSTRAINT media_kind_check CHECK (kind IN ('audio', 'picture', 'font'))`,
    );
  }
}
