import { randomUUID } from 'node:crypto';
import type { DataSource } from 'typeorm';
import { JobEntity } from '../../db/entities';
import type { JobRow, JobState, Lane } from '../../db/entities';
import type { Notify } from '../../db/notify';
import type { Piece } from '@core/piece';
import { AppError } from '../../platform/errors';
import { isUuid } from '../../platform/uuid';
import { FURTHER, MAX_LOSSES } from './job-life';
import type { RunningJob } from './job-life';
import type { BatchJob, Lateness, ListedJob, NewJob, Outcome, QueuedRender, SendJob } from './job-records';
import { ALL_RENDERS, IS_DUE, IS_OUTDATED, LISTED, MOVE_BEFORE } from './job-sql';

/**
 * Jobs. A worker that takes one gets the number of its attempt, and whatever it writes counts only while that is still
 * the number of the present attempt: a worker that slept through the loss of its job changes nothing. Only a person
 * cancels.
 */
export interface JobRepository {
  create(job: NewJob): Promise<JobRow>;
  /**
   * Creates renders of a batch and keeps the documents they are made from, by hash. What is waiting, running or there
   * already by its fingerprint is left as it is. @returns those that are new.
   */
  createBatch(jobs: readonly NewJob[], sources: ReadonlyMap<string, Piece>): Promise<Pick<JobRow, 'id' | 'lane'>[]>;
  /** The newest render of each fingerprint of a batch. */
  ofBatch(batch: string, owner: string): Promise<Map<string, BatchJob>>;
  /** Cancels what waits and runs of a batch. @returns how many. */
  cancelBatch(batch: string, owner: string): Promise<number>;
  /** A document that renders are made from; null if it is not there. */
  source(hash: string): Promise<unknown>;
  /** Forgets documents that no render waits for any more, after some seconds. */
  forgetSources(seconds: number): Promise<void>;
  /** @param owner - whose job it must be; null for the server's own use. */
  get(id: string, owner: string | null): Promise<JobRow>;
  /**
   * The newest renders of a piece. Their documents stay where they are: a list is asked for with every step of
   * progress.
   */
  listForPiece(pieceId: string, owner: string): Promise<ListedJob[]>;
  activeForMedia(hash: string): Promise<JobRow | null>;
  /** The job that listens to a file, or did so last. */
  newestForMedia(hash: string): Promise<JobRow | null>;
  setQueueId(id: string, queueId: string): Promise<void>;
  /** The job of a lane that is next to be taken up; null if none waits. */
  nextOf(lane: Lane): Promise<string | null>;
  /** Whether a job of the same lane, of another piece, could be taken up now. */
  othersWait(id: string): Promise<boolean>;
  /** Takes the job: the number of the attempt, or null if it is not there to be taken. */
  start(id: string): Promise<number | null>;
  /** Sign of life with progress; tells whether the job is still this attempt's. */
  beat(id: string, attempt: number, progress: number): Promise<'ours' | 'canceled' | 'paused' | 'lost'>;
  finish(id: string, attempt: number, outcome: Outcome): Promise<boolean>;
  /**
   * Puts a running job off: it is queued again and taken up after some seconds. What is put into its payload is there
   * then. @returns the job if it was still this attempt's.
   */
  postpone(id: string, attempt: number, seconds: number, why: Lateness): Promise<JobRow | null>;
  /** Puts something into the payload of a running job: what was done is not done again by the next attempt. */
  remember(id: string, attempt: number, patch: Record<string, unknown>): Promise<void>;
  /** Jobs that waited for one that is over. */
  waitingFor(id: string): Promise<JobRow[]>;
  /** What was sent, or is to be, of a piece; the newest first. */
  listSends(pieceId: string, owner: string): Promise<SendJob[]>;
  /** Gives the file of a finished job a link, or takes it away. @throws AppError NOT_FOUND. */
  setLink(id: string, owner: string, link: string | null): Promise<JobRow>;
  /** The finished job that is known by a link; null if there is none. */
  byLink(link: string): Promise<JobRow | null>;
  cancel(id: string, owner: string): Promise<void>;
  /** Lets a render wait, running or not, until it is resumed. */
  pause(id: string, owner: string): Promise<void>;
  /** @returns the job if it was paused. @param anyway - without looking at the room on the disk. */
  resume(id: string, owner: string, anyway: boolean): Promise<JobRow | null>;
  /** Puts a waiting render right before another one, or behind all of them. */
  moveBefore(id: string, owner: string, beforeId: string | null): Promise<void>;
  /** Renders of all pieces: those that are to be made in their order, then the newest of those that are over. */
  listAll(owner: string): Promise<QueuedRender[]>;
  running(): Promise<RunningJob[]>;
  /**
   * Takes a job from a lost worker: back to queued, or to failed after too many losses in which it got no further than
   * before. Null if it has shown a sign of life since.
   */
  takeBack(job: RunningJob): Promise<JobRow | null>;
  /** Queued jobs that nobody has been told of for some seconds: the queue's own row was lost. */
  forgotten(seconds: number): Promise<JobRow[]>;
  /** Jobs of a lane that are queued or running. */
  waiting(lane: Lane): Promise<number>;
  /** Forgets a job that is over. */
  remove(id: string): Promise<void>;
  /** Jobs that are over and whose piece is gone, or that are older than some seconds and left no file. */
  outdated(seconds: number): Promise<JobRow[]>;
  /** Which of these ids are jobs. */
  known(ids: readonly string[]): Promise<Set<string>>;
}

/** Rows of one INSERT. */
const BATCH_INSERT = 500;

export function createJobRepository(source: DataSource, notify: Notify): JobRepository {
  const jobs = source.getRepository(JobEntity);
  const told = (id: string, pieceId: string | null | undefined) =>
    notify({ topic: 'job', id, pieceId: pieceId ?? null });
  /** Jobs that listen to a file. */
  const listening = (hash: string) =>
    jobs.createQueryBuilder('j').where(`j.kind = 'prepare'`).andWhere(`j.payload->>'hash' = :hash`, { hash });
  /** Runs an update that returns the piece of each row it changed. */
  const changed = async (
    sql: string,
    parameters: unknown[],
  ): Promise<{ id: string; pieceId: string | null; state: JobState; attempts: number }[]> => {
    const [rows] = (await source.query(
      `${sql} RETURNING job.id, piece_id AS "pieceId", state, attempts`,
      parameters,
    )) as [{ id: string; pieceId: string | null; state: JobState; attempts: number }[], number];
    for (const row of rows) await told(row.id, row.pieceId);
    return rows;
  };
  return {
    async create(job) {
      const row = { id: randomUUID(), state: 'queued' as const, progress: 0, ...job };
      await jobs.insert(row as object);
      await told(row.id, row.pieceId);
      return jobs.findOneByOrFail({ id: row.id });
    },
    createBatch: (list, sources) =>
      source.transaction(async (manager) => {
        for (const [hash, document] of sources)
          await manager.query(
            `INSERT INTO render_source (hash, document) VALUES ($1, $2) ON CONFLICT (hash) DO UPDATE SET touched_at = now()`,
            [hash, JSON.stringify(document)],
          );
        const made: Pick<JobRow, 'id' | 'lane'>[] = [];
        for (let from = 0; from < list.length; from += BATCH_INSERT) {
          const rows = list.slice(from, from + BATCH_INSERT).map((job) => ({ id: randomUUID(), ...job }));
          made.push(
            ...((await manager.query(
              `INSERT INTO job (id, owner, kind, lane, piece_id, state, progress, payload, batch, fingerprint, due_at, waits_for)
               SELECT id, owner, kind, lane, "pieceId", 'queued', 0, payload, batch, fingerprint, "dueAt", "waitsFor"
               FROM jsonb_to_recordset($1::jsonb) AS r(
                 id uuid, owner text, kind text, lane text, "pieceId" text, payload jsonb,
                 batch text, fingerprint text, "dueAt" timestamptz, "waitsFor" uuid
               )
               ON CONFLICT DO NOTHING RETURNING id, lane`,
              [JSON.stringify(rows)],
            )) as { id: string; lane: Lane }[]),
          );
        }
        const [first] = list;
        if (first) await told(first.batch ?? '', first.pieceId);
        return made;
      }),
    async ofBatch(batch, owner) {
      const rows = (await source.query(
        `SELECT DISTINCT ON (fingerprint) fingerprint, id, state, progress, result,
           error_code AS "errorCode", error_detail AS "errorDetail", finished_at AS "finishedAt",
           payload->>'formatId' AS "formatId", payload->>'kind' AS "exportKind", payload->>'scope' AS scope
         FROM job WHERE batch = $1 AND owner = $2 ORDER BY fingerprint, created_at DESC`,
        [batch, owner],
      )) as (BatchJob & { fingerprint: string })[];
      return new Map(rows.map(({ fingerprint, ...job }) => [fingerprint, job]));
    },
    async cancelBatch(batch, owner) {
      const rows = await changed(
        `UPDATE job SET state = 'canceled', finished_at = now() WHERE batch = $1 AND owner = $2 AND state IN ('queued', 'running', 'paused')`,
        [batch, owner],
      );
      // Their places in the queue go too: a worker would look at each of them for nothing.
      await source.query(
        `DELETE FROM queue.job WHERE name = 'batch' AND state < 'active' AND data->>'jobId' = ANY($1)`,
        [rows.map((row) => row.id)],
      );
      return rows.length;
    },
    async source(hash) {
      const rows = (await source.query('SELECT document FROM render_source WHERE hash = $1', [hash])) as {
        document: unknown;
      }[];
      return rows[0]?.document ?? null;
    },
    async forgetSources(seconds) {
      await source.query(
        `DELETE FROM render_source s WHERE s.touched_at < now() - make_interval(secs => $1)
         AND NOT EXISTS (SELECT 1 FROM job j WHERE j.state IN ('queued', 'running', 'paused') AND j.payload->>'source' = s.hash)`,
        [seconds],
      );
    },
    async get(id, owner) {
      const row = isUuid(id) ? await jobs.findOneBy(owner === null ? { id } : { id, owner }) : null;
      if (!row) throw new AppError('NOT_FOUND');
      return row;
    },
    listForPiece: (pieceId, owner) =>
      source.query(
        `SELECT ${LISTED} FROM job WHERE piece_id = $1 AND owner = $2 AND kind = 'export' ORDER BY created_at DESC LIMIT 20`,
        [pieceId, owner],
      ) as Promise<ListedJob[]>,
    activeForMedia: (hash) => listening(hash).andWhere(`j.state IN ('queued', 'running')`).getOne(),
    newestForMedia: (hash) => listening(hash).orderBy('j.createdAt', 'DESC').getOne(),
    async setQueueId(id, queueId) {
      await jobs.update({ id }, { queueId });
    },
    async nextOf(lane) {
      const rows = (await source.query(
        `SELECT j.id FROM job j WHERE j.lane = $1 AND j.state = 'queued' AND ${IS_DUE} ORDER BY j.position LIMIT 1`,
        [lane],
      )) as { id: string }[];
      return rows[0]?.id ?? null;
    },
    async othersWait(id) {
      const rows = (await source.query(
        `SELECT 1 FROM job j JOIN job own ON own.id = $1
         WHERE j.lane = own.lane AND j.state = 'queued' AND j.piece_id IS DISTINCT FROM own.piece_id AND ${IS_DUE}
         LIMIT 1`,
        [id],
      )) as unknown[];
      return rows.length > 0;
    },
    async start(id) {
      const rows = await changed(
        `UPDATE job SET state = 'running', progress = 0, error_code = NULL, error_detail = NULL,
           attempts = attempts + 1, started_at = now(), heartbeat_at = clock_timestamp()
         WHERE id = $1 AND state = 'queued'`,
        [id],
      );
      return rows[0]?.attempts ?? null;
    },
    async beat(id, attempt, progress) {
      const rows = await changed(
        `UPDATE job SET heartbeat_at = clock_timestamp(), progress = GREATEST(progress, $3)
         WHERE id = $1 AND attempts = $2 AND state = 'running'`,
        [id, attempt, progress],
      );
      if (rows.length === 1) return 'ours';
      const row = await jobs.findOne({ select: { id: true, state: true, attempts: true }, where: { id } });
      if (row?.attempts !== attempt) return 'lost';
      return row.state === 'canceled' || row.state === 'paused' ? row.state : 'lost';
    },
    async finish(id, attempt, outcome) {
      const [result, code, detail] =
        outcome.state === 'succeeded'
          ? [outcome.result, null, null]
          : [null, outcome.code, outcome.detail.slice(0, 2000)];
      const rows = await changed(
        `UPDATE job SET state = $3, result = $4, error_code = $5, error_detail = $6,
           finished_at = CASE WHEN $3 = 'paused' THEN NULL ELSE now() END
         WHERE id = $1 AND attempts = $2 AND state = 'running'`,
        [id, attempt, outcome.state, result, code, detail],
      );
      return rows.length === 1;
    },
    async postpone(id, attempt, seconds, { code, detail, payload }) {
      const rows = await changed(
        `UPDATE job SET state = 'queued', due_at = now() + make_interval(secs => $3), error_code = $4, error_detail = $5,
           payload = payload || $6::jsonb, heartbeat_at = now()
         WHERE id = $1 AND attempts = $2 AND state = 'running'`,
        [id, attempt, seconds, code, detail.slice(0, 2000), JSON.stringify(payload)],
      );
      return rows.length === 1 ? jobs.findOneBy({ id }) : null;
    },
    async remember(id, attempt, patch) {
      await source.query(
        `UPDATE job SET payload = payload || $3::jsonb WHERE id = $1 AND attempts = $2 AND state = 'running'`,
        [id, attempt, JSON.stringify(patch)],
      );
    },
    waitingFor: (id) => jobs.findBy({ waitsFor: id, state: 'queued' }),
    listSends: (pieceId, owner) =>
      source.query(
        `SELECT ${LISTED}, due_at AS "dueAt" FROM job
         WHERE piece_id = $1 AND owner = $2 AND kind = 'send' ORDER BY created_at DESC LIMIT 60`,
        [pieceId, owner],
      ) as Promise<SendJob[]>,
    async setLink(id, owner, link) {
      const rows = isUuid(id)
        ? await changed(
            `UPDATE job SET result = CASE
               WHEN $3::text IS NULL THEN result - 'shared'
               ELSE jsonb_set(result, '{shared}', to_jsonb($3::text))
             END
             WHERE id = $1 AND owner = $2 AND state = 'succeeded'`,
            [id, owner, link],
          )
        : [];
      if (rows.length === 0) throw new AppError('NOT_FOUND');
      return jobs.findOneByOrFail({ id });
    },
    byLink: (link) =>
      jobs.createQueryBuilder('j').where(`j.result->>'shared' = :link AND j.state = 'succeeded'`, { link }).getOne(),
    async cancel(id, owner) {
      if (isUuid(id))
        await changed(
          `UPDATE job SET state = 'canceled', finished_at = now()
           WHERE id = $1 AND owner = $2 AND state IN ('queued', 'running', 'paused')`,
          [id, owner],
        );
    },
    async pause(id, owner) {
      if (isUuid(id))
        await changed(
          `UPDATE job SET state = 'paused', error_code = NULL, error_detail = NULL
           WHERE id = $1 AND owner = $2 AND kind = 'export' AND state IN ('queued', 'running')`,
          [id, owner],
        );
    },
    async resume(id, owner, anyway) {
      if (!isUuid(id)) return null;
      const rows = await changed(
        `UPDATE job SET state = 'queued', error_code = NULL, error_detail = NULL, heartbeat_at = now(),
           payload = payload || $3::jsonb
         WHERE id = $1 AND owner = $2 AND state = 'paused'`,
        [id, owner, anyway ? '{"isAnyway":true}' : '{}'],
      );
      return rows.length === 1 ? jobs.findOneBy({ id }) : null;
    },
    async moveBefore(id, owner, beforeId) {
      if (!isUuid(id) || (beforeId !== null && !isUuid(beforeId))) throw new AppError('NOT_FOUND');
      await changed(MOVE_BEFORE, [id, owner, beforeId]);
    },
    listAll: (owner) => source.query(ALL_RENDERS, [owner]) as Promise<QueuedRender[]>,
    running: () =>
      source.query(
        `SELECT id, attempts AS attempt, heartbeat_at::text AS heartbeat FROM job WHERE state = 'running'`,
      ) as Promise<RunningJob[]>,
    async takeBack({ id, attempt, heartbeat }) {
      const rows = await changed(
        `UPDATE job SET
           state = CASE WHEN l.losses >= $4 THEN 'failed' ELSE 'queued' END,
           error_code = CASE WHEN l.losses >= $4 THEN 'WORKER_DIED' END,
           finished_at = CASE WHEN l.losses >= $4 THEN now() END,
           losses = l.losses, progress = 0, heartbeat_at = now(),
           payload = job.payload || jsonb_build_object('reached', GREATEST(job.progress, l.reached))
         FROM (
           SELECT id, reached, CASE WHEN progress > reached + $5 THEN losses ELSE losses + 1 END AS losses
           FROM (
             SELECT id, progress, losses, COALESCE((payload->>'reached')::float8, 0) AS reached FROM job WHERE id = $1
           ) AS j
         ) AS l
         WHERE job.id = l.id AND attempts = $2 AND heartbeat_at::text = $3 AND state = 'running'`,
        [id, attempt, heartbeat, MAX_LOSSES, FURTHER],
      );
      return rows.length === 1 ? jobs.findOneBy({ id }) : null;
    },
    forgotten: (seconds) =>
      jobs
        .createQueryBuilder('j')
        .where(`j.state = 'queued' AND j.lane <> 'part' AND ${IS_DUE}`)
        .andWhere(`COALESCE(j.heartbeat_at, j.created_at) < now() - make_interval(secs => :seconds)`, { seconds })
        .andWhere(
          `NOT EXISTS (SELECT 1 FROM queue.job q WHERE q.data->>'jobId' = j.id::text AND q.state IN ('created', 'retry', 'active'))`,
        )
        .take(50)
        .getMany(),
    waiting: (lane) =>
      jobs.createQueryBuilder('j').where(`j.state IN ('queued', 'running') AND j.lane = :lane`, { lane }).getCount(),
    async remove(id) {
      const [rows] = (await source.query(
        `DELETE FROM job WHERE id = $1 AND state NOT IN ('queued', 'running', 'paused') RETURNING piece_id AS "pieceId"`,
        [id],
      )) as [{ pieceId: string | null }[], number];
      if (rows[0]) await told(id, rows[0].pieceId);
    },
    outdated: (seconds) =>
      jobs
        .createQueryBuilder('j')
        .where(`j.state NOT IN ('queued', 'running', 'paused')`)
        .andWhere(IS_OUTDATED, { seconds })
        .take(500)
        .getMany(),
    async known(ids) {
      const wanted = ids.filter((id) => isUuid(id));
      const rows =
        wanted.length === 0
          ? []
          : ((await source.query('SELECT id FROM job WHERE id = ANY($1::uuid[])', [wanted])) as { id: string }[]);
      return new Set(rows.map((row) => row.id));
    },
  };
}
