import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Owners on rows; what the home shows of a piece, written at save; the save that made a revision; revisions as patches;
 * which media a piece uses in which revisions; lanes of jobs.
 */
export class SummariesAndLeases1700000000003 implements MigrationInterface {
  readonly name = 'SummariesAndLeases1700000000003';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE piece
        ADD COLUMN owner text NOT NULL DEFAULT 'local',
        ADD COLUMN save_id text,
        ADD COLUMN duration double precision NOT NULL DEFAULT 0,
        ADD COLUMN layer_count int NOT NULL DEFAULT 0,
        ADD COLUMN formats jsonb NOT NULL DEFAULT '[]',
        ADD COLUMN lead_format_id text NOT NULL DEFAULT '',
        ADD COLUMN frame_rate jsonb NOT NULL DEFAULT '{"num": 30, "den": 1}',
        ADD COLUMN beats jsonb NOT NULL DEFAULT '[]',
        ADD COLUMN search_text text NOT NULL DEFAULT '',
        ADD COLUMN poster double precision NOT NULL DEFAULT 0,
        ADD COLUMN is_summarised boolean NOT NULL DEFAULT false`);
    await runner.query(`CREATE INDEX piece_by_update ON piece (owner, updated_at DESC, id) WHERE deleted_at IS NULL`);
    await runner.query(`CREATE INDEX piece_by_name ON piece (owner, lower(name), id) WHERE deleted_at IS NULL`);
    await runner.query(`CREATE INDEX piece_by_duration ON piece (owner, duration DESC, id) WHERE deleted_at IS NULL`);
    await runner.query(`
      ALTER TABLE piece_revision
        ALTER COLUMN document DROP NOT NULL,
        ADD COLUMN patch jsonb,
        ADD CONSTRAINT piece_revision_is_full_or_patch CHECK ((document IS NULL) <> (patch IS NULL))`);
    await runner.query(`
      CREATE TABLE piece_media (
        piece_id text NOT NULL REFERENCES piece(id) ON DELETE CASCADE,
        hash text NOT NULL,
        first_revision int NOT NULL,
        last_revision int NOT NULL,
        PRIMARY KEY (piece_id, hash)
      )`);
    await runner.query(`CREATE INDEX piece_media_by_hash ON piece_media (hash)`);
    await runner.query(`
      INSERT INTO piece_media (piece_id, hash, first_revision, last_revision)
      SELECT r.piece_id, m->>'hash', min(r.revision), max(r.revision) FROM piece_revision r, jsonb_array_elements(r.document->'media') m GROUP BY 1, 2`);
    await runner.query(`
      ALTER TABLE media
        ADD COLUMN owner text NOT NULL DEFAULT 'local',
        ADD COLUMN touched_at timestamptz NOT NULL DEFAULT now()`);
    await runner.query(`
      ALTER TABLE job
        ADD COLUMN owner text NOT NULL DEFAULT 'local',
        ADD COLUMN lane text NOT NULL DEFAULT 'export',
        ADD COLUMN piece_id text,
        ADD COLUMN finished_at timestamptz`);
    await runner.query(`UPDATE job SET lane = kind, piece_id = payload->>'pieceId'`);
    await runner.query(`DROP INDEX job_by_piece`);
    await runner.query(`CREATE INDEX job_by_piece ON job (piece_id, created_at DESC)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DELETE FROM piece_revision WHERE document IS NULL`);
    await runner.query(`ALTER TABLE piece_revision DROP COLUMN patch, ALTER COLUMN document SET NOT NULL`);
    await runner.query(`DROP TABLE piece_media`);
    await runner.query(`DROP INDEX job_by_piece`);
    await runner.query(
      `ALTER TABLE job DROP COLUMN owner, DROP COLUMN lane, DROP COLUMN piece_id, DROP COLUMN finished_at`,
    );
    await runner.query(`CREATE INDEX job_by_piece ON job ((payload->>'pieceId'), created_at)`);
    await runner.query(`ALTER TABLE media DROP COLUMN owner, DROP COLUMN touched_at`);
    await runner.query(
      `ALTER TABLE piece DROP COLUMN owner, DROP COLUMN save_id, DROP COLUMN duration, DROP COLUMN layer_count, DROP COLUMN formats, DROP COLUMN lead_format_id, DROP COLUMN frame_rate, DROP COLUMN beats, DROP COLUMN search_text, DROP COLUMN poster, DROP COLUMN is_summarised`,
    );
  }
}
