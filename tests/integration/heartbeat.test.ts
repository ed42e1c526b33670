import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { LOCAL } from '../../server/features/pieces/repository';
import { FURTHER, MAX_LOSSES } from '../../server/features/jobs/job-life';
import { threadHeartbeat } from '../../server/jobs/heartbeat';
import { JOB_KINDS } from '../../server/jobs/job-kinds';
import { runJob } from '../../server/jobs/runner';
import { AppError } from '../../server/platform/errors';
import { newPiece } from '../helpers/documents';
import { BUILT, openTestServer } from '../helpers/server';
import type { TestServer } from '../helpers/server';
import { until } from '../helpers/worker-process';

/** Signs of life from a thread of their own, and what is counted as the loss of a worker. */
let server: TestServer;
beforeAll(async () => {
  server = await openTestServer();
});
afterAll(() => server?.close());

async function queued(name: string) {
  const { context } = server;
  const piece = newPiece(name);
  await context.pieces.create(LOCAL, piece, '');
  return context.jobs.create({
    kind: 'export',
    lane: 'export',
    owner: 'local',
    pieceId: piece.id,
    payload: { pieceId: piece.id, formatId: 'wide', document: piece },
  });
}
const signOf = async (id: string) => (await server.context.jobs.running()).find((job) => job.id === id);

describe('signs of life', () => {
  it('go on while the process itself does nothing but compute, and carry its progress', async () => {
    const { jobs } = server.context;
    const { id } = await queued('Busy');
    const attempt = (await jobs.start(id))!;
    const heartbeat = threadHeartbeat(BUILT.serverDir, server.config.databaseUrl, server.context.log);
    const answers: string[] = [];
    const watched = heartbeat.watch(id, attempt, (answer) => answers.push(answer));
    watched.progress(0.25);
    await until('the thread reports', async () => (await jobs.get(id, null)).progress === 0.25);
    const before = (await signOf(id))!.heartbeat;
    // Nothing of this process has its turn meanwhile.
    const end = performance.now() + 1500;
    while (performance.now() < end);
    expect((await signOf(id))!.heartbeat).not.toBe(before);
    expect(answers).toEqual([]);
    await jobs.cancel(id, 'local');
    await until('it is told', () => Promise.resolve(answers.length > 0));
    expect(answers).toEqual(['canceled']);
    watched.stop();
    await heartbeat.close();
  }, 60_000);

  it('tell an attempt that is no longer the present one that it was lost', async () => {
    const { jobs } = server.context;
    const { id } = await queued('Two attempts');
    const first = (await jobs.start(id))!;
    await jobs.takeBack((await signOf(id))!);
    await jobs.start(id);
    const heartbeat = threadHeartbeat(BUILT.serverDir, server.config.databaseUrl, server.context.log);
    const answer = await new Promise((resolve) => heartbeat.watch(id, first, resolve));
    expect(answer).toBe('lost');
    await heartbeat.close();
  }, 60_000);
});

describe('lost workers', () => {
  it('count only where the job got no further than before', async () => {
    const { jobs } = server.context;
    const { id } = await queued('Lossy');
    const lose = async (progress: number) => {
      const attempt = (await jobs.start(id))!;
      await jobs.beat(id, attempt, progress);
      return (await jobs.takeBack((await signOf(id))!))!.state;
    };
    // Twenty losses on a machine that is far too busy, each a little further on.
    for (let i = 1; i <= 20; i++) expect(await lose(i * 2 * FURTHER)).toBe('queued');
    for (let i = 1; i < MAX_LOSSES; i++) expect(await lose(0.1)).toBe('queued');
    expect(await lose(0.1)).toBe('failed');
    expect(await jobs.get(id, null)).toMatchObject({ state: 'failed', errorCode: 'WORKER_DIED' });
  });
});

describe('a database that is away for an instant', () => {
  const run = JOB_KINDS.export.run;
  afterAll(() => {
    JOB_KINDS.export.run = run;
  });
  it('puts a job back, which is then done', async () => {
    const { jobs } = server.context;
    const { id } = await queued('Blink');
    let times = 0;
    const errors = [
      new AppError('DATABASE_AWAY'),
      Object.assign(new Error('terminating connection due to administrator command'), { code: '57P01' }),
      Object.assign(new Error('Query runner already released. Cannot run queries anymore.'), {
        name: 'QueryRunnerAlreadyReleasedError',
      }),
    ];
    JOB_KINDS.export.run = () => {
      const error = errors[times++];
      return error ? Promise.reject(error) : Promise.resolve({ file: 'x' });
    };
    for (const _ of errors) {
      await runJob(server.context, id);
      expect(await jobs.get(id, null)).toMatchObject({ state: 'queued', errorCode: null, losses: 0 });
      await server.context.source.query('UPDATE job SET due_at = now() WHERE id = $1', [id]);
    }
    await runJob(server.context, id);
    expect(await jobs.get(id, null)).toMatchObject({ state: 'succeeded' });
  });
  it('ends one for which it is away again and again', async () => {
    const { id } = await queued('Away for good');
    await server.context.source.query(`UPDATE job SET payload = payload || '{"away": 50}' WHERE id = $1`, [id]);
    JOB_KINDS.export.run = () => Promise.reject(new AppError('DATABASE_AWAY'));
    await runJob(server.context, id);
    expect(await server.context.jobs.get(id, null)).toMatchObject({ state: 'failed', errorCode: 'DATABASE_AWAY' });
  });
});
