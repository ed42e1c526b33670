import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Films are media too. */
export class Footage1700000000010 implements MigrationInterface {
  readonly name = 'Footage1700000000010';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE media ADD COLUMN footage jsonb`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DELETE FROM media WHERE kind = 'footage'`);
    await runner.query(`ALTER TABLE media DROP COLUMN footage`);
  }
}
