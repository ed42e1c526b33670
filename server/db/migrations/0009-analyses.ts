import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A song may be heard by several methods: pieces keep to the one that they are timed by. */
export class Analyses1700000000009 implements MigrationInterface {
  readonly name = 'Analyses1700000000009';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE song_analysis (
        hash text NOT NULL REFERENCES media (hash) ON DELETE CASCADE,
        version int NOT NULL,
        is_first boolean NOT NULL,
        body jsonb NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now(),
        PRIMARY KEY (hash, version)
      )`);
    await runner.query(`
      INSERT INTO song_analysis (hash, version, is_first, body)
      SELECT hash, COALESCE((analysis->>'version')::int, 1), true, analysis FROM media WHERE jsonb_typeof(analysis) = 'object'`);
    await runner.query(`ALTER TABLE media DROP COLUMN analysis`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE media ADD COLUMN analysis jsonb`);
    await runner.query(
      `UPDATE media m SET analysis = a.body FROM song_analysis a WHERE a.hash = m.hash AND a.is_first`,
    );
    await runner.query(`DROP TABLE song_analysis`);
  }
}
