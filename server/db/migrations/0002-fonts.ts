import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Fonts are media, with what they say of themselves. */
export class Fonts1700000000002 implements MigrationInterface {
  readonly name = 'Fonts1700000000002';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `ALTER TABLE media DROP CONSTRAINT media_kind_check, ADD CONSTRAINT media_kind_check CHECK (kind IN ('audio', 'picture', 'font')), ADD COLUMN font jsonb`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DELETE FROM media WHERE kind = 'font'`);
    await runner.query(
      `ALTER TABLE media DROP COLUMN font, DROP CONSTRAINT media_kind_check, ADD CONSTRAINT media_kind_check CHECK (kind IN ('audio', 'picture'))`,
    );
  }
}
