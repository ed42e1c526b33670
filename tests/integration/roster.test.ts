import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { unzipSync } from 'fflate';
import { LOCAL } from '../../server/features/pieces/repository';
import { collect } from '../../server/jobs/collect';
import { runJob } from '../../server/jobs/runner';
import { createRandom } from '../helpers/random';
import { rosterOf, rosterPiece } from '../helpers/roster-piece';
import { json, openTestServer } from '../helpers/server';
import type { TestServer } from '../helpers/server';
import { rosterUnderKills } from '../siege/roster-run';

/** Rosters on the server: kept, rendered, stopped, resumed. Renders are run by hand, or by workers that are killed. */
let server: TestServer;
const { piece, group, slot } = rosterPiece('People');
const NAMES = ['Inés Vardal', 'Teo Marsh', 'Oona Castell'];
const base = `/api/rosters/${piece.id}/${group.id}`;
const QUERY = 'formatIds=wide&kind=png&scope=whole&pattern=%7Brow%7D%20%7BName%7D';
const REQUEST = { formatIds: ['wide'], kind: 'png', scope: 'whole', pattern: '{row} {Name}' };
let revision = 0;

beforeAll(async () => {
  server = await openTestServer();
  await server.context.pieces.create(LOCAL, piece, '');
});
afterAll(() => server?.close());

interface File {
  row: number;
  state: string;
  jobId: string | null;
  fileName: string;
  message: string | null;
}
const files = async (): Promise<File[]> =>
  ((await server.request(`${base}/files?${QUERY}`)).body as unknown as { files: File[] }).files;
const states = async () => (await files()).map(({ state }) => state);
const keep = async (roster: unknown) => {
  const answer = await server.request(base, json('PUT', { roster, base: revision }));
  if (answer.status === 200) revision = (answer.body as unknown as { revision: number }).revision;
  return answer;
};
const render = (more: object = {}) =>
  server.request(`${base}/render`, json('POST', { ...REQUEST, rows: [0, 1, 2], revision, isAnyway: false, ...more }));
/** Runs what waits, one after another. */
async function runAll(most = Infinity): Promise<number> {
  const waiting = (await files()).filter(({ state }) => state === 'queued').slice(0, most);
  for (const { jobId } of waiting) await runJob(server.context, jobId!);
  return waiting.length;
}

describe('a roster', () => {
  it('is kept with its group, and two tabs do not write over one another', async () => {
    expect((await server.request(base)).body).toEqual({ roster: null, revision: 0 });
    expect((await keep(rosterOf(NAMES, slot))).body).toEqual({ revision: 1 });
    expect((await server.request(base)).body).toMatchObject({ revision: 1, roster: rosterOf(NAMES, slot) });
    const late = await server.request(base, json('PUT', { roster: rosterOf(['X'], slot), base: 0 }));
    expect([late.status, late.body.error?.code]).toEqual([409, 'CONFLICT']);
    const nowhere = json('PUT', { roster: rosterOf(['X'], slot), base: 0 });
    expect((await server.request('/api/rosters/none/none', nowhere)).status).toBe(404);
    expect((await keep({ ...rosterOf(NAMES, slot), beginsColumn: -1 })).status).toBe(400);
  });
  it('goes along when its piece is duplicated', async () => {
    const copy = (await server.request(`/api/pieces/${piece.id}/duplicate`, json('POST', {}))).body as { id: string };
    expect((await server.request(`/api/rosters/${copy.id}/${group.id}`)).body).toMatchObject({
      revision: 1,
      roster: rosterOf(NAMES, slot),
    });
  });

  it('becomes a file a row, by names from a pattern, in one archive', async () => {
    expect(await states()).toEqual(['missing', 'missing', 'missing']);
    expect((await render()).body).toEqual({ queued: 3 });
    expect((await render()).body).toEqual({ queued: 0 });
    await runAll();
    expect(await files()).toMatchObject(
      NAMES.map((name, i) => ({ state: 'succeeded', fileName: `${i + 1} ${name}`, message: null })),
    );
    const archive = await server.app.fetch(new Request(`http://127.0.0.1${base}/files.zip?${QUERY}`));
    const unpacked = unzipSync(new Uint8Array(await archive.arrayBuffer()));
    expect(Object.keys(unpacked)).toEqual(NAMES.map((name, i) => `${i + 1} ${name}.png`));
    const pictures = Object.values(unpacked).map((bytes) => Buffer.from(bytes).toString('base64'));
    expect(new Set(pictures).size).toBe(3);
    const [first] = await files();
    const single = await server.app.fetch(new Request(`http://127.0.0.1/api/jobs/${first!.jobId}/file`));
    expect(single.headers.get('content-disposition')).toContain(encodeURIComponent('1 Inés Vardal'));
    await single.arrayBuffer();
  });
  it('renders changed rows alone, and none for what is changed back', async () => {
    await keep(rosterOf([NAMES[0]!, 'Teo Marsch', NAMES[2]!], slot));
    expect(await states()).toEqual(['succeeded', 'missing', 'succeeded']);
    expect((await render()).body).toEqual({ queued: 1 });
    await runAll();
    await keep(rosterOf(NAMES, slot));
    expect((await render()).body).toEqual({ queued: 0 });
    // The order of the rows changes names, not files.
    await keep(rosterOf([...NAMES].reverse(), slot));
    expect((await files()).map(({ state, fileName }) => [state, fileName])).toEqual(
      [...NAMES].reverse().map((name, i) => ['succeeded', `${i + 1} ${name}`]),
    );
  });
  it('is stopped and goes on where it was', async () => {
    await keep(rosterOf(['A Ames', 'B Berg', 'C Cole'], slot));
    await render();
    await runAll(1);
    expect((await server.request(`${base}/stop`, json('POST', {}))).body).toEqual({ stopped: 2 });
    expect(await states()).toEqual(['succeeded', 'canceled', 'canceled']);
    expect(await runAll()).toBe(0);
    expect((await render()).body).toEqual({ queued: 2 });
    await runAll();
    expect(await states()).toEqual(['succeeded', 'succeeded', 'succeeded']);
  });
  it('names a row in which the run-through finds a mistake, and renders it all the same when asked', async () => {
    await keep(rosterOf(['A Ames', 'Žofie 𐎀', 'C Cole'], slot));
    expect((await render()).body).toEqual({ queued: 1 });
    await runAll();
    const [, bad] = await files();
    expect(bad).toMatchObject({ state: 'failed' });
    expect(bad!.message).toContain('𐎀');
    expect((await render({ isAnyway: true })).body).toEqual({ queued: 1 });
    await runAll();
    expect(await states()).toEqual(['succeeded', 'succeeded', 'succeeded']);
  });
  it('renders a row that was changed by hand from its own piece', async () => {
    const own = { ...piece, id: 'own-piece', name: 'By hand', background: { value: '#FF0000', keyframes: [] } };
    await server.context.pieces.create(LOCAL, own, '');
    const roster = rosterOf(NAMES, slot);
    await keep({ ...roster, rows: roster.rows.map((row, i) => (i === 1 ? { ...row, ownPieceId: own.id } : row)) });
    expect((await render()).body).toEqual({ queued: 1 });
    await runAll();
    await server.context.pieces.setDeleted(LOCAL, own.id, true);
    const [, gone] = await files();
    expect([gone?.state, gone?.message?.includes('is gone')]).toEqual(['failed', true]);
  });
  it('goes into the file of its piece and comes out of it, without the pieces beside it', async () => {
    const file = await server.app.fetch(new Request(`http://127.0.0.1/api/pieces/${piece.id}/file`));
    const body = await file.arrayBuffer();
    const opened = (await server.request('/api/pieces/import', { method: 'POST', body })).body as { id: string };
    expect((await server.request(`/api/rosters/${opened.id}/${group.id}`)).body).toEqual({
      revision: 1,
      roster: rosterOf(NAMES, slot),
    });
  });
  it('refuses what it cannot make, and rows of a roster that has changed since', async () => {
    expect((await render({ revision: revision - 1 })).status).toBe(409);
    expect((await render({ formatIds: ['none'] })).status).toBe(400);
    expect((await render({ kind: 'none' })).status).toBe(400);
    expect((await server.request(`/api/rosters/${piece.id}/none/files?${QUERY}`)).status).toBe(404);
  });
  it('leaves nothing behind that nobody waits for', async () => {
    const count = async () =>
      ((await server.context.source.query('SELECT count(*)::int AS n FROM render_source')) as { n: number }[])[0]!.n;
    expect(await count()).toBeGreaterThan(0);
    await collect(server.context, { deletedPiece: 0, media: 0, file: 0, job: 0 });
    expect(await count()).toBe(0);
    expect((await states()).filter((state) => state === 'succeeded')).toHaveLength(2);
  });
});

it('a run whose worker is killed on the way has every file once, and whole', async () => {
  const run = await rosterUnderKills(server, 12, 2, createRandom(12));
  expect(run).toMatchObject({ queued: 12, states: { succeeded: 12 }, different: 12, broken: [] });
  expect(run.files).toBe(12);
}, 300_000);
