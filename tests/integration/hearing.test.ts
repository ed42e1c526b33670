import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { ANALYSIS_VERSION } from '@core/audio';
import { pieceFileEntry } from '@core/formats';
import { songOf } from '@core/piece';
import type { Piece } from '@core/piece';
import { importMedia } from '../../server/features/media/import-media';
import type { ServerContext } from '../../server/jobs/context';
import { runJob } from '../../server/jobs/runner';
import { demoDir } from '../helpers/demo-files';
import { steadyAnalysis } from '../helpers/documents';
import { openTestServer } from '../helpers/server';
import type { TestServer } from '../helpers/server';

/** Songs that were heard by another method than this version's. */
let server: TestServer;
beforeAll(async () => {
  server = await openTestServer();
});
afterAll(() => server?.close());

const EARLIER = ANALYSIS_VERSION - 1;
const demo = unzipSync(new Uint8Array(readFileSync(join(demoDir(), 'demo-kite-maker.estrella'))));
const song = songOf(JSON.parse(strFromU8(demo['piece.json']!)) as Piece)!;
const entry = pieceFileEntry('analysis', song.hash);
/** The demo piece as a file whose song was heard at another tempo, by another method. */
function fileHeardBy(version: number, bpm: number): Uint8Array<ArrayBuffer> {
  const analysis = { ...steadyAnalysis(bpm, 0.5, 60), version };
  return new Uint8Array(zipSync({ ...demo, [entry]: strToU8(JSON.stringify(analysis)) }));
}
async function opened(file: Uint8Array<ArrayBuffer>): Promise<{ piece: Piece; hash: string }> {
  const { status, body } = await server.request('/api/pieces/import', { method: 'POST', body: file });
  expect(status).toBe(201);
  const { piece } = (await server.request(`/api/pieces/${body.id as string}`)).body as unknown as { piece: Piece };
  return { piece, hash: songOf(piece)!.hash };
}
const bpmOf = async (hash: string, query = '') =>
  (await server.request(`/api/media/${hash}/analysis${query}`)).body.bpm as number;
const runListening = async (hash: string) => {
  const job = await server.context.jobs.activeForMedia(hash);
  await runJob(server.context, job!.id);
};

describe('the analysis that a piece is timed by', () => {
  let hash = '';
  it('comes with its file, before the song is listened to here, and stays when it was', async () => {
    const { piece, hash: found } = await opened(fileHeardBy(EARLIER, 61));
    hash = found;
    expect(piece.music!.analysisVersion).toBe(EARLIER);
    expect(await bpmOf(hash, `?version=${EARLIER}`)).toBe(61);
    await runListening(hash);
    expect(await bpmOf(hash, `?version=${EARLIER}`)).toBe(61);
    expect(await bpmOf(hash)).toBeGreaterThan(80);
    expect((await server.context.media.analysisOf(piece))!.bpm).toBe(61);
  });
  it('goes out with the file of the piece again', async () => {
    const { piece } = await opened(fileHeardBy(EARLIER, 61));
    const out = await server.app.fetch(new Request(`http://127.0.0.1/api/pieces/${piece.id}/file`));
    const entries = unzipSync(new Uint8Array(await out.arrayBuffer()));
    expect(JSON.parse(strFromU8(entries[entry]!))).toMatchObject({ version: EARLIER, bpm: 61 });
  });
  it('is not made anew by whoever sends other beats for a song that is known', async () => {
    await opened(fileHeardBy(EARLIER, 99));
    expect(await bpmOf(hash, `?version=${EARLIER}`)).toBe(61);
  });
});

describe('a song that is sent twice', () => {
  it('stays ready when the first copy becomes so while the second is looked at', async () => {
    const { context } = server;
    const bytes = readFileSync(join(demoDir(), 'paper-waltz.wav'));
    const send = (to: ServerContext) => importMedia(to, 'local', Readable.from([bytes]), 'paper-waltz.wav');
    const first = await send(context);
    expect(first.state).toBe('preparing');
    const touch = async (hash: string) => {
      const known = await context.media.touch(hash);
      // The job says so just before it ends.
      await context.media.setAnalysis(hash, steadyAnalysis(96, 0.5, 40, 3));
      return known;
    };
    const second = await send({ ...context, media: { ...context.media, touch } });
    expect([second.hash, second.state]).toEqual([first.hash, 'ready']);
    expect((await context.media.find(first.hash))!.state).toBe('ready');
  });
});

describe('a song that was first heard by an earlier method', () => {
  it('is heard anew beside it when somebody asks, and stays as it was for all others', async () => {
    const { hash } = await opened(fileHeardBy(ANALYSIS_VERSION, 61));
    const { context, request } = server;
    await context.source.query('DELETE FROM song_analysis WHERE hash = $1 AND NOT is_first', [hash]);
    await context.source.query(
      `UPDATE song_analysis SET version = $2, body = body || jsonb_build_object('version', $2::int, 'bpm', 63) WHERE hash = $1`,
      [hash, EARLIER],
    );
    const hearing = `/api/media/${hash}/hearing`;
    expect((await request(hearing)).body).toMatchObject({ isDone: false, jobId: null });
    const { status, body } = await request(hearing, { method: 'POST' });
    expect([status, body.isDone]).toEqual([202, false]);
    // Asked twice, it is listened to once.
    expect((await request(hearing, { method: 'POST' })).body.jobId).toBe(body.jobId);
    await runListening(hash);
    expect((await request(hearing)).body).toMatchObject({ isDone: true });
    expect(await bpmOf(hash)).toBe(63);
    expect(await bpmOf(hash, `?version=${ANALYSIS_VERSION}`)).toBeGreaterThan(80);
    expect((await request(`/api/media/${hash}`)).body.state).toBe('ready');
  });
  it('stays ready when listening anew is called off', async () => {
    const { hash } = await opened(fileHeardBy(EARLIER, 61));
    const { context, request } = server;
    await context.source.query('DELETE FROM song_analysis WHERE hash = $1 AND version = $2', [hash, ANALYSIS_VERSION]);
    const { body } = await request(`/api/media/${hash}/hearing`, { method: 'POST' });
    await request(`/api/jobs/${body.jobId as string}/cancel`, { method: 'POST' });
    expect((await request(`/api/media/${hash}/hearing`)).body).toMatchObject({
      isDone: false,
      jobId: null,
      error: null,
    });
    expect((await request(`/api/media/${hash}`)).body.state).toBe('ready');
  });
  it('needs a song', async () => {
    const { request } = server;
    expect((await request(`/api/media/${'e'.repeat(64)}/hearing`, { method: 'POST' })).status).toBe(404);
    const { hash } = await opened(fileHeardBy(EARLIER, 61));
    expect((await request(`/api/media/${hash}/analysis?version=many`)).status).toBe(400);
  });
});
