import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What people keep for all their pieces: wardrobes, by their names; the same name again is its next version. */
export class Kept1700000000005 implements MigrationInterface {
  readonly name = 'Kept1700000000005';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE kept (
        id text PRIMARY KEY,
        owner text NOT NULL,
        kind text NOT NULL,
        name text NOT NULL,
        version int NOT NULL CHECK (version >= 1),
        body jsonb NOT NULL,
        updated_at timestamptz NOT NULL DEFAULT now(),
        UNIQUE (owner, kind, name)
      )`);
    // The collection of unused media asks whether something kept needs a file.
    await runner.query(`CREATE INDEX kept_media ON kept USING gin ((body->'media') jsonb_path_ops)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE kept');
  }
}
