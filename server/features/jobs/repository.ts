import { randomUUID } from 'node:crypto';
import { In } from 'typeorm';
import type { DataSource } from 'typeorm';
import { JobEntity } from '../../db/entities';
import type { JobKind, JobRow, JobState } from '../../db/entities';
import { AppError } from '../../platform/errors';
import { DEAD_AFTER_MS, MAX_ATTEMPTS, statesBefore } from './job-life';

export interface JobRepository {
  create(kind: JobKind, payload: Record<string, unknown>): Promise<JobRow>;
  get(id: string): Promise<JobRow>;
  listForPiece(pieceId: string): Promise<JobRow[]>;
  activeFor(kind: JobKind, field: 'hash' | 'pieceId', value: string): Promise<JobRow | null>;
  setQueueId(id: string, queueId: string): Promise<void>;
  /** Takes the job: true if it is ours to run. */
  start(id: string): Promise<boolean>;
  /** Sign of life with progress; false if the job is no longer to be run (cancelled). */
  beat(id: string, progress: number): Promise<boolean>;
  finish(id: string, state: Extract<JobState, 'succeeded' | 'failed' | 'canceled'>, outcome: { result?: Record<string, unknown>; code?: string; detail?: string }): Promise<boolean>;
  /** Running jobs whose worker died: they go back to queued (or to failed after too many attempts) and are returned. */
  reapDead(): Promise<JobRow[]>;
  running(): Promise<string[]>;
}

export function createJobRepository(source: DataSource): JobRepository {
  const jobs = source.getRepository(JobEntity);
  const move = async (id: string, to: JobState, change: Partial<JobRow> = {}) => {
    const result = await jobs.update({ id, state: In(statesBefore(to)) }, { ...change, state: to } as object);
    return result.affected === 1;
  };
  return {
    async create(kind, payload) {
      const row = { id: randomUUID(), kind, state: 'queued' as const, progress: 0, payload };
      await jobs.insert(row as object);
      return jobs.findOneByOrFail({ id: row.id });
    },
    async get(id) {
      const row = /^[0-9a-f-]{36}$/.test(id) ? await jobs.findOneBy({ id }) : null;
      if (!row) throw new AppError('NOT_FOUND');
      return row;
    },
    listForPiece: (pieceId) => jobs.createQueryBuilder('j').where(`j.payload->>'pieceId' = :pieceId`, { pieceId }).orderBy('j.createdAt', 'DESC').take(20).getMany(),
    activeFor: (kind, field, value) => jobs.createQueryBuilder('j').where('j.kind = :kind', { kind }).andWhere(`j.payload->>:field = :value`, { field, value }).andWhere(`j.state IN ('queued', 'running')`).getOne(),
    async setQueueId(id, queueId) {
      await jobs.update({ id }, { queueId });
    },
    async start(id) {
      const [rows] = (await source.query(`UPDATE job SET state = 'running', progress = 0, attempts = attempts + 1, started_at = now(), heartbeat_at = now() WHERE id = $1 AND state = 'queued' RETURNING id`, [id])) as [unknown[], number];
      return rows.length === 1;
    },
    async beat(id, progress) {
      const [rows] = (await source.query(`UPDATE job SET heartbeat_at = now(), progress = GREATEST(progress, $2) WHERE id = $1 AND state = 'running' RETURNING id`, [id, progress])) as [unknown[], number];
      return rows.length === 1;
    },
    finish: (id, state, { result, code, detail }) => move(id, state, { result: result ?? null, errorCode: code ?? null, errorDetail: detail ?? null }),
    async reapDead() {
      const [rows] = (await source.query(
        `UPDATE job SET state = CASE WHEN attempts >= $2 THEN 'failed' ELSE 'queued' END, error_code = CASE WHEN attempts >= $2 THEN 'WORKER_DIED' END
         WHERE state = 'running' AND heartbeat_at < now() - make_interval(secs => $1) RETURNING id`,
        [DEAD_AFTER_MS / 1000, MAX_ATTEMPTS],
      )) as [{ id: string }[], number];
      return rows.length === 0 ? [] : jobs.findBy({ id: In(rows.map((r) => r.id)) });
    },
    running: async () => (await jobs.find({ select: { id: true }, where: { state: 'running' } })).map((row) => row.id),
  };
}
