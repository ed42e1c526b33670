import { execFileSync } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, it } from '@jest/globals';
import { createLayer, ownTrack } from '@core/piece';
import type { Piece } from '@core/piece';
import { freeMoment } from '@core/time';
import { LOCAL } from '../../server/features/pieces/repository';
import { batchOfParts } from '../../server/jobs/export-parts';
import { watchDisk } from '../../server/jobs/disk';
import { smallPicture } from '../../server/jobs/frame-picture';
import { collect } from '../../server/jobs/collect';
import { runJob, runNext } from '../../server/jobs/runner';
import { countingIds, newPiece } from '../helpers/documents';
import { openTestServer } from '../helpers/server';
import type { TestServer } from '../helpers/server';
import { startWorkerOf, until } from '../helpers/worker-process';

/** The queue of renders: its order, what lets it wait, and long renders that several make. */
let server: TestServer;
const workers: ChildProcess[] = [];
beforeAll(async () => {
  server = await openTestServer();
});
afterEach(() => {
  for (const worker of workers.splice(0)) worker.kill('SIGKILL');
});
afterAll(async () => server?.close());

/** A disc that turns: every frame is another one. */
function turning(name: string, seconds: number): Piece {
  const disc = createLayer(
    'ellipse',
    { name: 'E', start: freeMoment(0), end: freeMoment(seconds), values: { dimensions: [240, 90], fill: '#FFB74A' } },
    countingIds(`${name}-`),
  );
  ownTrack(disc, 'rotation').keyframes = [0, seconds].map((at, i) => ({
    ...{ id: `k${i}`, at: freeMoment(at), value: i * 720, easing: { type: 'linear' } },
  }));
  return {
    ...newPiece(name),
    formats: [{ id: 'wide', name: 'Wide', width: 320, height: 180 }],
    layers: [disc],
    end: freeMoment(seconds),
  };
}
async function ask(piece: Piece, more: Record<string, unknown> = {}): Promise<string> {
  await server.context.pieces.create(LOCAL, piece, '').catch(() => {}); // there already
  const json = { pieceId: piece.id, formatId: piece.leadFormatId, ...more };
  const { status, body } = await server.request('/api/jobs/exports', {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(json),
  });
  expect(status).toBe(201);
  return body.id as string;
}
const post = (path: string, json: Record<string, unknown> = {}) =>
  server.request(`/api/jobs/${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(json),
  });
const stateOf = (id: string) => server.context.jobs.get(id, null);
const partsOf = async (id: string) => [...(await server.context.jobs.ofBatch(batchOfParts(id), 'local')).values()];
const listed = async (): Promise<Record<string, unknown>[]> =>
  (await server.request('/api/jobs/renders')).body.jobs as Record<string, unknown>[];
const frameSums = (id: string, file: unknown): string =>
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-i', join(server.dir, 'exports', String(file)), '-map', '0:v', '-f', 'framemd5', '-'],
  ])
    .toString()
    .replaceAll(id, '');

it('a render waits for media that is still being prepared, and is made then', async () => {
  const { jobs } = server.context;
  const hash = 'b'.repeat(64);
  const preparing = await jobs.create({
    ...{ kind: 'prepare', lane: 'prepare-long', owner: 'local', pieceId: null },
    payload: { hash, name: 'song.wav' },
  });
  const piece = turning('Waiting', 0.2);
  const id = await ask({ ...piece, media: [{ id: 'song', hash, kind: 'audio', name: 'song.wav' }] });
  expect(await jobs.get(id, null)).toMatchObject({ state: 'queued', waitsFor: preparing.id });
  expect(await jobs.nextOf('export')).toBeNull();
  await jobs.cancel(preparing.id, 'local');
  expect(await jobs.nextOf('export')).toBe(id);
  await runNext(server.context, 'export');
  expect((await jobs.get(id, null)).state).toBe('succeeded');
});

describe('the queue of renders', () => {
  it('has what is made in a moment wait for no film', async () => {
    const piece = turning('Quick', 60);
    const film = await ask(piece);
    const still = await ask(piece, { kind: 'png' });
    expect(await runNext(server.context, 'quick')).toBe(true);
    expect([(await stateOf(film)).state, (await stateOf(still)).state]).toEqual(['queued', 'succeeded']);
    await post(`${film}/cancel`);
  });
  it('is taken up in the order that people give it, passes over what is paused, and tries again', async () => {
    const piece = { ...turning('Order', 0.2), leadFormatId: 'wide' };
    const [a, b, c] = [
      await ask(piece, { kind: 'png' }),
      await ask(piece, { kind: 'jpeg' }),
      await ask(piece, { kind: 'webp' }),
    ];
    await post(`${c}/move`, { before: a });
    await post(`${b}/pause`);
    const waiting = (await listed()).map((job) => job.id);
    expect(waiting.slice(0, 3)).toEqual([c, a, b]);
    expect(await runNext(server.context, 'quick')).toBe(true);
    expect([(await stateOf(c)).state, (await stateOf(a)).state]).toEqual(['succeeded', 'queued']);
    expect(await runNext(server.context, 'quick')).toBe(true);
    expect(await runNext(server.context, 'quick')).toBe(false);
    expect((await stateOf(b)).state).toBe('paused');
    await post(`${b}/resume`);
    expect(await runNext(server.context, 'quick')).toBe(true);
    expect((await stateOf(b)).state).toBe('succeeded');
    const d = await ask(piece, { kind: 'png' });
    await post(`${d}/cancel`);
    const again = await post(`${d}/again`);
    expect(again.status).toBe(201);
    expect((await server.request(`/api/jobs/${d}`)).status).toBe(404);
    await runNext(server.context, 'quick');
    expect((await stateOf(again.body.id as string)).state).toBe('succeeded');
    expect((await post(`${again.body.id as string}/again`)).status).toBe(400);
  });
  it('shows how a render was asked for, its size and a picture of it', async () => {
    const settings = { rate: { by: 'size', megabytes: 0.4 }, loudness: { target: -16, peak: -1 } };
    const id = await ask(turning('Facts', 2), {
      settings,
      fileName: 'Facts: one/two',
      excerpt: { from: 0.5, to: 1.5 },
    });
    await runJob(server.context, id);
    const job = (await listed()).find((one) => one.id === id)!;
    expect(job).toMatchObject({ state: 'succeeded', pieceName: 'Facts', formatName: 'Wide', fileName: 'Facts onetwo' });
    expect(job.made).toMatchObject({ frames: 30 });
    expect((job.made as { bytes: number }).bytes).toBeLessThanOrEqual(400_000);
    expect(job.what).toMatchObject({ settings, excerpt: { from: 0.5, to: 1.5 } });
    const picture = await server.app.fetch(new Request(`http://127.0.0.1/api/jobs/${id}/picture`));
    expect(picture.headers.get('content-type')).toBe('image/jpeg');
    expect((await picture.arrayBuffer()).byteLength).toBeGreaterThan(300);
    // What can be looked at stays as long as the file.
    await collect(server.context, { deletedPiece: 1e6, media: 1e6, file: 0, job: 1e6 });
    expect((await server.app.fetch(new Request(`http://127.0.0.1/api/jobs/${id}/picture`))).status).toBe(200);
  });
  it('refuses what is out of bounds', async () => {
    const piece = turning('Bounds', 1);
    await server.context.pieces.create(LOCAL, piece, '');
    for (const settings of [
      { rate: { by: 'bits', kilobits: 5, isTwoPass: false } },
      { rate: { by: 'size', megabytes: 1e9 } },
      { loudness: { target: 3, peak: -1 } },
      { moving: { longerSide: 9000, framesPerSecond: 10, dither: 'none', plays: 0, megabytes: null } },
      { unknown: 1 },
    ]) {
      const answer = await post('exports', { pieceId: piece.id, formatId: 'wide', settings });
      expect(answer.status).toBe(400);
    }
  });
  it('has colours right in the small picture', () => {
    // One luma and chroma for orange, BT.709 limited.
    const pixels = new Uint8Array(6).fill(150, 0, 4).fill(80, 4, 5).fill(170, 5, 6);
    const { rgba } = smallPicture({ pixels, kind: 'i420', width: 2, height: 2 });
    expect(rgba[0]! > rgba[1]! && rgba[1]! > rgba[2]!).toBe(true);
  });
});

describe('room on the disk', () => {
  it('is asked for before, and watched while something is made', async () => {
    await expect(watchDisk('/', 5e9, async () => 4e9)).rejects.toMatchObject({ code: 'DISK_LOW' });
    const watch = await watchDisk('/', 1000, async () => 4e9);
    expect(watch.signal.aborted).toBe(false);
    watch.stop();
    const unknown = await watchDisk('/', 1e15, async () => null);
    unknown.stop();
  });
  it('that is not there lets a render wait until a person says so', async () => {
    const id = await ask(turning('Room', 1), { kind: 'png' });
    const { attempts } = await stateOf(id);
    const attempt = await server.context.jobs.start(id);
    expect(attempt).toBe(attempts + 1);
    await server.context.jobs.finish(id, attempt!, { state: 'paused', code: 'DISK_LOW', detail: '1 MB are free' });
    const { body } = await server.request(`/api/jobs/${id}`);
    expect(body).toMatchObject({ state: 'paused', canRenderAnyway: true });
    expect(body.message).toContain('1 MB are free');
    await post(`${id}/resume`, { isAnyway: true });
    expect((await stateOf(id)).payload.isAnyway).toBe(true);
    await runNext(server.context, 'quick');
    expect((await stateOf(id)).state).toBe('succeeded');
  });
});

describe('a long render', () => {
  const piece = turning('Long', 32);
  let alone = '';
  it('made by one is put together of its parts, which then go', async () => {
    const id = await ask(piece);
    await runJob(server.context, id);
    const job = await stateOf(id);
    expect(job).toMatchObject({ state: 'succeeded', result: { frames: 960 } });
    alone = frameSums(id, job.result!.file);
    expect(await partsOf(id)).toEqual([]);
  }, 120_000);
  it('made by two is the same to the bit, and each has made some of it', async () => {
    for (let i = 0; i < 2; i++) workers.push(startWorkerOf(server));
    const id = await ask(piece);
    let most = 0;
    await until('it is over', async () => {
      const running = (await partsOf(id)).filter(({ state }) => state === 'running').length;
      most = Math.max(most, running);
      return (await stateOf(id)).state === 'succeeded';
    });
    expect(most).toBe(2);
    expect(frameSums(id, (await stateOf(id)).result!.file)).toBe(alone);
  }, 120_000);
  it('goes on from its last whole part when its worker is killed, and when it was paused', async () => {
    const worker = startWorkerOf(server);
    const id = await ask(piece);
    const made = async () => (await partsOf(id)).filter(({ state }) => state === 'succeeded').map((part) => part.id);
    await until('a part is made', async () => (await made()).length >= 1);
    worker.kill('SIGKILL');
    const kept = await made();
    workers.push(startWorkerOf(server));
    await until(
      'another goes on',
      async () => (await made()).length > kept.length || (await stateOf(id)).state === 'succeeded',
    );
    await post(`${id}/pause`);
    const isPaused = (await stateOf(id)).state === 'paused';
    if (isPaused) {
      for (const part of kept) expect((await stateOf(part)).attempts).toBe(1);
      await until('its parts stand still', async () =>
        (await partsOf(id)).every(({ state }) => state !== 'running' && state !== 'queued'),
      );
      await post(`${id}/resume`);
    }
    await until('it is over', async () => (await stateOf(id)).state === 'succeeded');
    expect(frameSums(id, (await stateOf(id)).result!.file)).toBe(alone);
  }, 180_000);
});

it('a film that grows slowly lets others go first, and goes on with the parts that it has', async () => {
  const config = server.context.config as { -readonly [K in keyof typeof server.context.config]: number | unknown };
  const usual = config.turnMs;
  config.turnMs = 0;
  try {
    const long = await ask(turning('Long and slow', 25));
    const short = await ask(turning('Short', 0.5));
    expect(await runNext(server.context, 'export')).toBe(true);
    expect(await stateOf(long)).toMatchObject({ state: 'queued' });
    const [made] = (await partsOf(long)).filter(({ state }) => state === 'succeeded');
    expect(made).toBeDefined();
    expect(await runNext(server.context, 'export')).toBe(true);
    expect(await stateOf(short)).toMatchObject({ state: 'succeeded' });
    expect(await stateOf(long)).toMatchObject({ state: 'queued' });
    // Nobody waits any more: it is made to its end, and what was made is not made again.
    expect(await runNext(server.context, 'export')).toBe(true);
    expect(await stateOf(long)).toMatchObject({ state: 'succeeded', attempts: 2, result: { frames: 750 } });
  } finally {
    config.turnMs = usual;
  }
});
