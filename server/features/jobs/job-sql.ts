/** Pieces of SQL that several questions about jobs share. */

/** States of jobs that are still to be done. */
const OPEN = `('queued', 'running', 'paused')`;

/**
 * Signs of life of several jobs at once: $1 is a list of id, attempt and progress. Gives a row for each that is there:
 * how it stands, and the attempt that it belongs to now.
 */
export const BEAT_ALL = `WITH asked AS (
    SELECT id, attempt, progress FROM jsonb_to_recordset($1::jsonb) AS r(id uuid, attempt int, progress float8)
  ), beaten AS (
    UPDATE job SET heartbeat_at = clock_timestamp(), progress = GREATEST(job.progress, asked.progress)
    FROM asked WHERE job.id = asked.id AND job.attempts = asked.attempt AND job.state = 'running'
    RETURNING job.id
  )
  SELECT asked.id, asked.attempt, job.state, job.attempts AS now_at, job.piece_id
  FROM asked LEFT JOIN job ON job.id = asked.id`;

/** Columns of a listed render. Documents stay where they are but for what names are made of. */
export const LISTED = `id, kind, state, progress, result,
  error_code AS "errorCode", error_detail AS "errorDetail",
  started_at AS "startedAt", created_at AS "createdAt", finished_at AS "finishedAt",
  piece_id AS "pieceId",
  (payload - 'document') || jsonb_build_object(
    'pieceName', payload->'document'->'name',
    'formats', payload->'document'->'formats'
  ) AS payload`;

/** Whether the time of a queued job `j` has come. */
export const IS_DUE = `(j.due_at IS NULL OR j.due_at <= now())
  AND NOT EXISTS (SELECT 1 FROM job w WHERE w.id = j.waits_for AND w.state IN ${OPEN})`;

/** Whether a job `j` that is done with is needed no more: parts go with their render, all but files with their piece, failures in time. */
export const IS_OUTDATED = `(
  (j.kind = 'part' AND NOT EXISTS (
    SELECT 1 FROM job r WHERE r.batch IS NULL AND r.id::text = j.payload->>'parent' AND r.state IN ${OPEN}
  ))
  OR (j.kind <> 'prepare' AND NOT EXISTS (SELECT 1 FROM piece p WHERE p.id = j.piece_id))
  OR (
    (j.kind = 'prepare' OR j.state <> 'succeeded')
    AND COALESCE(j.finished_at, j.created_at) < now() - make_interval(secs => :seconds)
  )
)`;

/** Puts job $1 of owner $2 before job $3 of the same owner, halfway to the one before that; last without one. */
export const MOVE_BEFORE = `UPDATE job SET position = COALESCE(
    (
      SELECT (b.position + COALESCE(
        (
          SELECT max(p.position) FROM job p
          WHERE p.lane = b.lane AND p.state IN ('queued', 'paused') AND p.position < b.position AND p.id <> $1
        ),
        b.position - 2
      )) / 2
      FROM job b WHERE b.id = $3::uuid AND b.owner = $2
    ),
    extract(epoch FROM clock_timestamp())
  )
  WHERE id = $1 AND owner = $2 AND kind = 'export' AND state IN ('queued', 'paused')`;

/** All renders of owner $1: those to be done first, then the last that are done with. */
export const ALL_RENDERS = `(
    SELECT ${LISTED} FROM job WHERE owner = $1 AND kind = 'export' AND state IN ${OPEN}
    ORDER BY (state = 'running') DESC, position LIMIT 200
  )
  UNION ALL
  (
    SELECT ${LISTED} FROM job WHERE owner = $1 AND kind = 'export' AND state NOT IN ${OPEN}
    ORDER BY finished_at DESC NULLS LAST LIMIT 60
  )`;
