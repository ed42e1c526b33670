import type { MigrationInterface, QueryRunner } from 'typeorm';

export class FirstTables1700000000001 implements MigrationInterface {
  readonly name = 'FirstTables1700000000001';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE piece (
        id text PRIMARY KEY,
        name text NOT NULL,
        document jsonb NOT NULL,
        revision int NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now(),
        updated_at timestamptz NOT NULL DEFAULT now(),
        deleted_at timestamptz
      )`);
    await runner.query(`
      CREATE TABLE piece_revision (
        piece_id text NOT NULL REFERENCES piece(id) ON DELETE CASCADE,
        revision int NOT NULL,
        document jsonb NOT NULL,
        label text NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now(),
        PRIMARY KEY (piece_id, revision)
      )`);
    await runner.query(`
      CREATE TABLE media (
        hash text PRIMARY KEY,
        kind text NOT NULL CHECK (kind IN ('audio', 'picture')),
        name text NOT NULL,
        bytes bigint NOT NULL,
        state text NOT NULL CHECK (state IN ('preparing', 'ready', 'failed')),
        duration double precision,
        width int,
        height int,
        warning text,
        analysis jsonb,
        created_at timestamptz NOT NULL DEFAULT now()
      )`);
    await runner.query(`
      CREATE TABLE job (
        id uuid PRIMARY KEY,
        kind text NOT NULL CHECK (kind IN ('prepare', 'export')),
        state text NOT NULL CHECK (state IN ('queued', 'running', 'succeeded', 'failed', 'canceled')),
        progress double precision NOT NULL DEFAULT 0,
        payload jsonb NOT NULL,
        result jsonb,
        error_code text,
        error_detail text,
        attempts int NOT NULL DEFAULT 0,
        queue_id uuid,
        started_at timestamptz,
        heartbeat_at timestamptz,
        created_at timestamptz NOT NULL DEFAULT now()
      )`);
    await runner.query(`CREATE INDEX job_by_state ON job (state, heartbeat_at)`);
    await runner.query(`CREATE INDEX job_by_piece ON job ((payload->>'pieceId'), created_at)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['job', 'media', 'piece_revision', 'piece']) await runner.query(`DROP TABLE ${table}`);
  }
}
