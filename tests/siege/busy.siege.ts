import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { afterAll, beforeAll, expect, it } from '@jest/globals';
import { createLayer, ownTrack } from '@core/piece';
import type { Piece } from '@core/piece';
import { freeMoment } from '@core/time';
import { LOCAL } from '../../server/features/pieces/repository';
import { createReaper } from '../../server/jobs/runner';
import { countingIds, newPiece } from '../helpers/documents';
import { openTestServer } from '../helpers/server';
import type { TestServer } from '../helpers/server';
import { startWorkerOf, until } from '../helpers/worker-process';

/** Films on a machine that has far too much to do, and whose workers are stopped for half a minute. */
let server: TestServer;
const others: ChildProcess[] = [];
beforeAll(async () => {
  server = await openTestServer();
});
afterAll(async () => {
  for (const one of others) one.kill('SIGKILL');
  await server?.close();
});

const BUSY = 4;
const STOPPED_MS = 30_000;

function film(seconds: number): Piece {
  const ids = countingIds('busy');
  const piece = newPiece('Busy');
  const layers = Array.from({ length: 8 }, (_, i) => {
    const layer = createLayer(
      'ellipse',
      { name: `E${i}`, start: freeMoment(0), end: freeMoment(seconds), values: { dimensions: [900, 400], blur: 4 } },
      ids,
    );
    ownTrack(layer, 'rotation').keyframes = [0, 1].map((k) => ({
      id: `${k}-${i}`,
      at: freeMoment(k * seconds),
      value: 360 * k * (i + 1),
      easing: { type: 'linear' },
    }));
    return layer;
  });
  return {
    ...piece,
    formats: [{ id: 'wide', name: 'Wide', width: 1280, height: 720 }],
    layers,
    end: freeMoment(seconds),
  };
}

it('a film is made beside four busy processes, though its worker is stopped for half a minute', async () => {
  for (let i = 0; i < BUSY; i++) others.push(spawn(process.execPath, ['-e', 'for (;;);'], { stdio: 'ignore' }));
  const { context } = server;
  const piece = film(30);
  await context.pieces.create(LOCAL, piece, '');
  const job = await context.jobs.create({
    ...{ kind: 'export', lane: 'export', owner: 'local', pieceId: piece.id },
    payload: { pieceId: piece.id, formatId: 'wide', document: piece },
  });
  await context.queue.enqueue(job);
  const reap = createReaper(context);
  const reaping = setInterval(() => void reap().catch(() => {}), 1500);
  const worker = startWorkerOf(server);
  others.push(worker);
  const now = () => context.jobs.get(job.id, null);
  // The first of its parts is there.
  await until('a part is made', async () => (await now()).progress > 0.36, 600_000);
  worker.kill('SIGSTOP');
  await new Promise((resolve) => setTimeout(resolve, STOPPED_MS));
  worker.kill('SIGCONT');
  await until('it is over', async () => !['queued', 'running'].includes((await now()).state), 900_000);
  clearInterval(reaping);
  const { state, attempts, losses, result } = await now();
  console.log({ state, attempts, losses, result });
  expect(state).toBe('succeeded');
  // Once is lost for certain, and what was done by then is not counted against it.
  expect(attempts).toBeLessThanOrEqual(3);
  expect(losses).toBeLessThanOrEqual(1);
}, 1_800_000);
