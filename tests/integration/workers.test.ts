import { execFileSync, fork, spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { createLayer, ownTrack } from '@core/piece';
import type { Piece } from '@core/piece';
import { freeMoment } from '@core/time';
import { MAX_LOSSES } from '../../server/features/jobs/job-life';
import { startChild } from '../../server/platform/child';
import { LOCAL } from '../../server/features/pieces/repository';
import { JOB_KINDS } from '../../server/jobs/job-kinds';
import { createReaper, runJob } from '../../server/jobs/runner';
import { countingIds, newPiece } from '../helpers/documents';
import { openTestServer } from '../helpers/server';
import type { TestServer } from '../helpers/server';
import { startWorkerOf, until } from '../helpers/worker-process';

/** Real worker processes on one database: frozen, woken, killed, fighting over one job. */
let server: TestServer;
const workers: ChildProcess[] = [];
beforeAll(async () => {
  server = await openTestServer();
});
afterAll(async () => {
  for (const worker of workers) worker.kill('SIGKILL');
  await server?.close();
});

function startWorker(): ChildProcess {
  const worker = startWorkerOf(server);
  workers.push(worker);
  return worker;
}

/** A piece whose every frame must be painted. */
function busyPiece(name: string, seconds: number, side: number): Piece {
  const ids = countingIds(`${name}-`);
  const piece = newPiece(name);
  const layers = Array.from({ length: 6 }, (_, i) => {
    const layer = createLayer(
      'ellipse',
      { name: `E${i}`, start: freeMoment(0), end: freeMoment(seconds), values: { dimensions: [side, side / 2] } },
      ids,
    );
    ownTrack(layer, 'rotation').keyframes = [
      { id: `a${i}`, at: freeMoment(0), value: 0, easing: { type: 'linear' } },
      { id: `b${i}`, at: freeMoment(seconds), value: 360 * (i + 1), easing: { type: 'linear' } },
    ];
    return layer;
  });
  return {
    ...piece,
    formats: [{ id: 'wide', name: 'Wide', width: side, height: side / 2 }],
    layers,
    end: freeMoment(seconds),
  };
}

async function enqueue(piece: Piece) {
  await server.context.pieces.create(LOCAL, piece, '');
  const job = await server.context.jobs.create({
    kind: 'export',
    lane: 'export',
    owner: 'local',
    pieceId: piece.id,
    payload: { pieceId: piece.id, formatId: 'wide', document: piece },
  });
  await server.context.queue.enqueue(job);
  return job.id;
}
const stateOf = async (id: string) => server.context.jobs.get(id, null);
const exportsLeft = () => {
  try {
    // Without the pictures that renders show of themselves.
    return readdirSync(join(server.dir, 'exports')).filter((name) => !name.endsWith('.frame.jpg'));
  } catch {
    return [];
  }
};
const framesOf = (file: string) =>
  Number(
    execFileSync('ffprobe', [
      '-v',
      'error',
      '-count_packets',
      '-select_streams',
      'v:0',
      '-show_entries',
      'stream=nb_read_packets',
      '-of',
      'csv=p=0',
      join(server.dir, 'exports', file),
    ])
      .toString()
      .trim(),
  );

describe('workers', () => {
  it('one frozen in mid-render and woken while another renders spoils nothing: one whole film, no parts', async () => {
    const first = startWorker();
    const id = await enqueue(busyPiece('Frozen', 24, 960));
    await until('the first worker renders', async () => {
      const job = await stateOf(id);
      return job.state === 'running' && job.progress > 0.03;
    });
    first.kill('SIGSTOP');
    startWorker();
    await until(
      'the second worker has it',
      async () => (await stateOf(id)).attempts === 2 && (await stateOf(id)).progress > 0.05,
      90_000,
    );
    first.kill('SIGCONT');
    await until('it is over', async () => (await stateOf(id)).state !== 'running', 180_000);
    const job = await stateOf(id);
    expect(job).toMatchObject({ state: 'succeeded', attempts: 2, result: { frames: 720, file: `${id}.2.mp4` } });
    await until('the woken worker has let go', async () => exportsLeft().length === 1, 30_000);
    expect(exportsLeft()).toEqual([`${id}.2.mp4`]);
    expect(framesOf(`${id}.2.mp4`)).toBe(720);
    for (const worker of workers.splice(0)) worker.kill('SIGKILL');
  }, 300_000);

  it('one killed takes its encoder along, and its job is done by the next', async () => {
    const worker = startWorker();
    const id = await enqueue(busyPiece('Killed', 20, 960));
    await until('it renders', async () => (await stateOf(id)).progress > 0.02);
    const encoders = () =>
      execFileSync('sh', ['-c', 'pgrep -a ffmpeg || true'])
        .toString()
        .split('\n')
        .filter((line) => line.includes(server.dir));
    expect(encoders().length).toBeGreaterThan(0);
    worker.kill('SIGKILL');
    await until('the encoder is gone too', async () => encoders().length === 0, 10_000);
    await server.context.jobs.cancel(id, 'local');
    expect((await stateOf(id)).state).toBe('canceled');
  }, 120_000);

  it('end when the server that started them is gone before they are ready', async () => {
    for (const wait of [0, 300, 1200]) {
      const child = fork(join('dist', 'server', 'worker-main.js'), [], {
        env: {
          ...process.env,
          DATABASE_URL: server.config.databaseUrl,
          ESTRELLA_DATA: server.dir,
          ESTRELLA_LOG: 'fatal',
        },
      });
      workers.push(child);
      const gone = new Promise((resolve) => child.on('exit', resolve));
      await new Promise((resolve) => setTimeout(resolve, wait));
      // On a crowded database it may have ended by itself before.
      if (child.connected) child.disconnect();
      await gone;
    }
  }, 60_000);

  it('a job that fell out of the queue is put back, and one that is waiting there is not put twice', async () => {
    const { context } = server;
    const piece = newPiece('Forgotten');
    await context.pieces.create(LOCAL, piece, '');
    const job = await context.jobs.create({
      kind: 'export',
      lane: 'export',
      owner: 'local',
      pieceId: piece.id,
      payload: { pieceId: piece.id, formatId: 'wide', document: piece },
    });
    await context.source.query(`UPDATE job SET created_at = now() - interval '1 hour' WHERE id = $1`, [job.id]);
    const queued = async () =>
      Number(
        (
          (await context.source.query(`SELECT count(*) FROM queue.job WHERE data->>'jobId' = $1`, [job.id])) as {
            count: string;
          }[]
        )[0]!.count,
      );
    const reap = createReaper(context);
    expect(await queued()).toBe(0);
    await reap();
    await reap();
    expect(await queued()).toBe(1);
    await context.jobs.cancel(job.id, 'local');
  });

  it('a song whose preparation is given up is said to have failed, not to be prepared for ever', async () => {
    const { context } = server;
    const hash = 'e'.repeat(64);
    await context.media.put(
      {
        hash,
        kind: 'audio',
        name: 'lost.wav',
        bytes: '1',
        owner: 'local',
        state: 'preparing',
        duration: 5,
        width: null,
        height: null,
        warning: null,
        font: null,
        footage: null,
      },
      async () => {},
    );
    const job = await context.jobs.create({
      kind: 'prepare',
      lane: 'prepare',
      owner: 'local',
      pieceId: null,
      payload: { hash, name: 'lost.wav', declared: 5 },
    });
    const reap = createReaper(context, 0);
    for (let attempt = 0; attempt < MAX_LOSSES; attempt++) {
      await context.jobs.start(job.id);
      await reap();
      await reap();
    }
    expect((await stateOf(job.id)).state).toBe('failed');
    expect((await context.media.find(hash))?.state).toBe('failed');
  });

  it('work that stands still is stopped and said to have taken too long', async () => {
    const { context } = server;
    const original = JOB_KINDS.export.run;
    const stalled = {
      ...JOB_KINDS.export,
      run: (_c: unknown, _p: unknown, { signal }: { signal: AbortSignal }) =>
        new Promise<never>((_, reject) => signal.addEventListener('abort', () => reject(signal.reason))),
    };
    (JOB_KINDS as Record<string, unknown>).export = stalled;
    try {
      const piece = newPiece('Stalled');
      await context.pieces.create(LOCAL, piece, '');
      const job = await context.jobs.create({
        kind: 'export',
        lane: 'export',
        owner: 'local',
        pieceId: piece.id,
        payload: { pieceId: piece.id, formatId: 'wide', document: piece },
      });
      await runJob(context, job.id, 300);
      expect(await stateOf(job.id)).toMatchObject({ state: 'failed', errorCode: 'TOOK_TOO_LONG' });
    } finally {
      (JOB_KINDS as Record<string, unknown>).export = { ...stalled, run: original };
    }
  });
});

describe('child processes', () => {
  it('have a time limit, are called off, and die with their parent even when that is killed outright', async () => {
    const slow = startChild('sleep', ['60'], { limitMs: 100, stdio: 'ignore' });
    await new Promise((resolve) => slow.process.once('close', resolve));
    expect(slow.stopped()?.name).toBe('TookTooLong');
    const abort = new AbortController();
    const called = startChild('sleep', ['60'], { limitMs: 60_000, signal: abort.signal, stdio: 'ignore' });
    abort.abort();
    await new Promise((resolve) => called.process.once('close', resolve));
    expect(called.stopped()?.name).toBe('Cancelled');
    const parent = spawn(
      process.execPath,
      [
        '-e',
        `const c = require('child_process').spawn('setpriv', ['--pdeathsig', 'KILL', '--', 'sleep', '77'], { stdio: 'ignore' }); console.log(c.pid); setInterval(() => {}, 1000)`,
      ],
      { stdio: ['ignore', 'pipe', 'ignore'] },
    );
    const pid = Number(
      await new Promise<string>((resolve) => parent.stdout.once('data', (data: Buffer) => resolve(data.toString()))),
    );
    parent.kill('SIGKILL');
    await until(
      'the child is gone',
      async () => {
        try {
          return !readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('sleep');
        } catch {
          return true;
        }
      },
      10_000,
    );
  });
});
