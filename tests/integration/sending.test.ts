import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { serve } from '@hono/node-server';
import type { ServerType } from '@hono/node-server';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { destinationSchema, waitBefore } from '@core/formats';
import { createLayer } from '@core/piece';
import { freeMoment } from '@core/time';
import { LOCAL } from '../../server/features/pieces/repository';
import { runJob, runNext } from '../../server/jobs/runner';
import { createOutside } from '../../server/outside/outside';
import { uploadFile } from '../../server/sending/upload-file';
import type { FaultKind } from '../../server/outside/faults';
import { countingIds, newPiece } from '../helpers/documents';
import { OPEN, json, openTestServer } from '../helpers/server';
import type { TestServer } from '../helpers/server';
import { startWorkerOf, until } from '../helpers/worker-process';

/** Sending to places that are slow, lose things and lie: every sending ends in one post, or in a clear state. */
let server: TestServer;
let outside: ServerType;
let address = '';
let token = '';
const outsideDir = mkdtempSync(join(tmpdir(), 'estrella-outside-'));

beforeAll(async () => {
  server = await openTestServer();
  await new Promise<void>((resolve) => {
    outside = serve({ fetch: createOutside(outsideDir).fetch, port: 0, hostname: '127.0.0.1' }, (info: AddressInfo) => {
      address = `http://127.0.0.1:${info.port}`;
      resolve();
    });
  });
  token = ((await tell('POST', '/accounts', { name: 'Puerto Lumo' })) as { token: string }).token;
});
beforeEach(() => tell('DELETE', '/faults'));
afterAll(async () => {
  outside.close();
  (outside as Server).closeAllConnections(); // those that are kept alive
  await server.close();
  rmSync(outsideDir, { recursive: true, force: true });
});

async function tell(method: string, path: string, body?: unknown): Promise<unknown> {
  const headers = { 'content-type': 'application/json', authorization: `Bearer ${token}` };
  const response = await fetch(`${address}${path}`, {
    ...{ method, headers },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  if (!response.ok) throw new Error(`${path}: ${await response.text()}`);
  return response.json();
}
const fault = (kind: FaultKind, more: { times?: number; bytes?: number } = {}) =>
  tell('POST', '/faults', { kind, ...more });
const postsOf = async (place: string): Promise<{ link: string; key: string; sha256: string; title: string }[]> =>
  (
    (await tell('GET', `/places/${place}/posts`)) as {
      posts: { link: string; key: string; sha256: string; title: string }[];
    }
  ).posts;

/** What was posted for a sending. */
async function madeOf(place: string, id: string) {
  const { payload } = await server.context.jobs.get(id, null);
  return (await postsOf(place)).filter((post) => post.key === payload.key);
}

/** A render that is waiting. */
async function asked(name: string, kind = 'gif', size: readonly [number, number] = [160, 90]): Promise<string> {
  const disc = createLayer(
    'ellipse',
    { name: 'disc', start: freeMoment(0), end: freeMoment(1), values: { dimensions: [40, 40], fill: '#FFB74A' } },
    countingIds(`${name}-`),
  );
  const piece = {
    ...newPiece(name),
    formats: [{ id: 'wide', name: 'Wide', width: size[0], height: size[1] }],
    leadFormatId: 'wide',
    layers: [disc],
    end: freeMoment(0.2),
  };
  await server.context.pieces.create(LOCAL, piece, '');
  const made = await server.request('/api/jobs/exports', json('POST', { pieceId: piece.id, formatId: 'wide', kind }));
  expect(made.status).toBe(201);
  return made.body.id as string;
}
async function rendered(...how: Parameters<typeof asked>): Promise<string> {
  const id = await asked(...how);
  await runJob(server.context, id);
  expect((await server.context.jobs.get(id, null)).state).toBe('succeeded');
  return id;
}
async function destination(body: Record<string, unknown>): Promise<string> {
  const made = await server.request('/api/destinations', json('POST', body));
  expect(made).toMatchObject({ status: 201 });
  return made.body.id as string;
}
const channel = (place: string, known = token): Promise<string> =>
  destination({ kind: 'channel', name: `Channel ${place}`, address, token: known, place });
/** Asks for it to be sent. @returns The job. */
async function send(renderId: string, destinationId: string, more: Record<string, unknown> = {}): Promise<string> {
  const made = await server.request(
    '/api/sends',
    json('POST', { renderId, to: [{ destinationId, title: 'Kites up' }], ...more }),
  );
  expect(made).toMatchObject({ status: 201 });
  const { pieceId } = await server.context.jobs.get(renderId, null);
  return (await sendsOf(pieceId ?? ''))[0]!.id;
}
interface Send {
  id: string;
  state: string;
  dueAt: string | null;
  receipt: { link: string; sha256: string } | null;
  message: string | null;
}
const sendsOf = async (pieceId: string): Promise<Send[]> =>
  (await server.request(`/api/sends/of/${pieceId}`)).body.sends as Send[];
async function sent(id: string): Promise<Send> {
  const { pieceId } = await server.context.jobs.get(id, null);
  return (await sendsOf(pieceId ?? '')).find((one) => one.id === id)!;
}
/** Runs it again and again, without its waits. @returns How often. */
async function runOut(id: string): Promise<number> {
  for (let n = 1; ; n++) {
    if (n > 20) throw new Error(`does not end: ${JSON.stringify(await sent(id))}`);
    await runJob(server.context, id);
    if ((await server.context.jobs.get(id, null)).state !== 'queued') return n;
  }
}
async function fileOf(renderId: string): Promise<Buffer> {
  const job = await server.context.jobs.get(renderId, null);
  return readFileSync(join(server.dir, 'exports', String(job.result?.file)));
}
const sha256 = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');

describe('sending to a channel', () => {
  it('posts the file once, with a receipt that leads to it', async () => {
    const render = await rendered('Receipt');
    const where = await channel('ferry-board');
    const id = await send(render, where);
    await runOut(id);
    const { state, receipt } = await sent(id);
    expect(state).toBe('succeeded');
    const bytes = await fileOf(render);
    expect(receipt?.sha256).toBe(sha256(bytes));
    const there = Buffer.from(await (await fetch(`${receipt?.link}/file`)).arrayBuffer());
    expect(there.equals(bytes)).toBe(true);
    expect(await (await fetch(receipt?.link ?? '')).text()).toContain('Kites up');
    // What was sent is not sent again, and the account's token is never told.
    const again = await server.request(
      '/api/sends',
      json('POST', { renderId: render, to: [{ destinationId: where }] }),
    );
    expect(again.body).toMatchObject({ made: 0, wereThere: 1 });
    expect(JSON.stringify((await server.request('/api/destinations')).body)).not.toContain(token);
  });

  const FAULTS: [FaultKind, { times?: number; bytes?: number }, number][] = [
    ['drop', { times: 2, bytes: 700 }, 3],
    ['busy', { times: 3 }, 4],
    ['forget', {}, 2],
    ['damage', {}, 2],
    ['post-and-fail', {}, 1],
    ['post-and-hang-up', {}, 1],
    ['post-nothing', { times: 2 }, 3],
    ['garbled', {}, 2],
    ['slow', { bytes: 20_000 }, 1],
  ];
  it.each(FAULTS)('gets through a place that does “%s”', async (kind, more, tries) => {
    const render = await rendered(`Through ${kind}`);
    const id = await send(render, await channel('ferry-board'));
    await fault(kind, more);
    expect(await runOut(id)).toBe(tries);
    const { state, receipt } = await sent(id);
    expect(state).toBe('succeeded');
    const bytes = sha256(await fileOf(render));
    expect(receipt?.sha256).toBe(bytes);
    expect(await madeOf('ferry-board', id)).toHaveLength(1);
  });

  it('goes on with an upload that broke off where it stopped', async () => {
    const render = await rendered('Go on', 'mp4');
    const id = await send(render, await channel('mole-wall'));
    await fault('drop', { bytes: 900 });
    await runJob(server.context, id);
    const { payload, state, dueAt } = await server.context.jobs.get(id, null);
    expect(state).toBe('queued');
    expect(dueAt!.getTime()).toBeGreaterThan(Date.now() + 500);
    const head = await fetch(String(payload.begun), {
      method: 'HEAD',
      headers: { authorization: `Bearer ${token}`, 'tus-resumable': '1.0.0' },
    });
    expect(Number(head.headers.get('upload-offset'))).toBe(900);
    expect((await sent(id)).message).toMatch(/Retrying automatically/);
    expect(await runNext(server.context, 'send')).toBe(false); // not yet
    await runOut(id);
    expect((await server.context.jobs.get(id, null)).payload.begun).toBe(payload.begun);
  });

  it('keeps to what an account may post a day', async () => {
    const where = await channel('ferry-board');
    let told: Send | null = null;
    for (let n = 0; n < 12 && told?.state !== 'failed'; n++) {
      const id = await send(await rendered(`Day ${n}`), where);
      await runOut(id);
      told = await sent(id);
    }
    expect(told?.message).toMatch(/10 posts were made today/);
    expect(await postsOf('ferry-board')).toHaveLength(10);
  });

  it('says what the rules of a place are against, before anything is sent', async () => {
    const id = await send(await rendered('Refused', 'png', [320, 180]), await channel('kite-wire'));
    await runOut(id);
    expect(await sent(id)).toMatchObject({ state: 'failed', receipt: null });
    expect((await sent(id)).message).toMatch(/Kite Wire takes no image\/png; its shape does not fit/);
    expect(readdirSync(join(outsideDir, 'uploads')).length).toBeLessThan(80);
  });

  it('ends after so many tries where nothing helps, and can be sent again by hand', async () => {
    const render = await rendered('Never', 'mp4');
    const id = await send(render, await channel('mole-wall'));
    await fault('busy', { times: 1000 });
    expect(await runOut(id)).toBe(8);
    expect(await sent(id)).toMatchObject({ state: 'failed' });
    await tell('DELETE', '/faults');
    const again = await server.request(`/api/sends/${id}/again`, json('POST', {}));
    expect(again.status).toBe(201);
    await runOut(again.body.id as string);
    expect(await sent(again.body.id as string)).toMatchObject({ state: 'succeeded' });
  });

  it('tells an account that is shut, and an address where nobody is', async () => {
    const render = await rendered('Shut');
    const shut = await send(render, await channel('ferry-board', 'nobody'));
    await runOut(shut);
    expect((await sent(shut)).message).toMatch(/account is not known/);
    const away = await send(
      render,
      await destination({ kind: 'channel', name: 'Away', address: 'http://127.0.0.1:9', token: 'x', place: 'x' }),
    );
    await runJob(server.context, away);
    expect((await sent(away)).message).toMatch(/does not answer/);
    expect(
      (await server.request('/api/destinations/look', json('POST', { address: 'http://127.0.0.1:9' }))).status,
    ).toBe(502);
    expect((await server.request('/api/destinations/look', json('POST', { address }))).body.places).toHaveLength(3);
  });

  it('never posts twice, whatever goes wrong in whatever order', async () => {
    const where = await channel('mole-wall');
    let n = 0;
    const kinds = ['drop', 'busy', 'forget', 'damage', 'post-and-fail', 'post-and-hang-up', 'post-nothing'] as const;
    await fc.assert(
      fc.asyncProperty(fc.array(fc.constantFrom(...kinds), { minLength: 2, maxLength: 4 }), async (list) => {
        const render = await rendered(`Siege ${n++}`, 'mp4');
        const id = await send(render, where);
        for (const kind of list) await fault(kind, { bytes: 500 });
        await runOut(id);
        const bytes = sha256(await fileOf(render));
        const posts = (await madeOf('mole-wall', id)).filter((post) => post.sha256 === bytes);
        const { state, message } = await sent(id);
        expect([state, message, posts.length]).toEqual(['succeeded', null, 1]);
        await tell('DELETE', '/faults');
        await server.context.jobs.remove(render);
      }),
      { numRuns: 6, seed: 14 },
    );
  });
});

describe('when and where', () => {
  it('waits for its time, and for its render; a render that fails is told', async () => {
    await server.context.source.query(`UPDATE job SET state = 'canceled' WHERE lane = 'send' AND state = 'queued'`);
    const where = await channel('mole-wall');
    const render = await asked('Tonight', 'mp4');
    const at = new Date(Date.now() + 3600_000).toISOString();
    const id = await send(render, where, { at });
    expect((await sent(id)).dueAt).toBe(at);
    expect(await server.context.jobs.nextOf('send')).toBeNull();
    await server.context.source.query(`UPDATE job SET due_at = now() WHERE id = $1`, [id]);
    expect(await server.context.jobs.nextOf('send')).toBeNull(); // its render is not there yet
    await runJob(server.context, render);
    expect(await server.context.jobs.nextOf('send')).toBe(id);
    expect(await runNext(server.context, 'send')).toBe(true);
    expect((await sent(id)).state).toBe('succeeded');

    const other = await asked('Cancelled', 'mp4');
    const waiting = await send(other, where);
    await server.request(`/api/jobs/${other}/cancel`, json('POST', {}));
    await runOut(waiting);
    expect((await sent(waiting)).message).toMatch(/its export failed/);
    const far = json('POST', { renderId: render, to: [{ destinationId: where }], at: '2999-01-01T00:00:00Z' });
    expect((await server.request('/api/sends', far)).status).toBe(400);
  });

  it('asks before the same goes to the same place again: rendered anew, or by another name of it', async () => {
    const folder = (name: string) => destination({ kind: 'folder', name: 'Stage', folder: name });
    const first = await rendered('Twice');
    const where = await folder('twice');
    await runOut(await send(first, where));
    const ask = (renderId: string, to: string[], more: Record<string, unknown> = {}) =>
      server.request(
        '/api/sends',
        json('POST', { renderId, to: to.map((destinationId) => ({ destinationId })), ...more }),
      );
    const same = await folder('twice');
    expect(await ask(first, [same])).toMatchObject({ status: 409, body: { error: { code: 'SENT_BEFORE' } } });
    const { pieceId } = await server.context.jobs.get(first, null);
    const once = json('POST', { pieceId, formatId: 'wide', kind: 'gif' });
    const second = (await server.request('/api/jobs/exports', once)).body.id as string;
    await runJob(server.context, second);
    expect(await ask(second, [where])).toMatchObject({ status: 409, body: { error: { code: 'SENT_BEFORE' } } });
    const other = await folder('elsewhere');
    expect(await ask(second, [other, await folder('elsewhere')])).toMatchObject({ status: 409 });
    expect(await ask(second, [other])).toMatchObject({ status: 201, body: { made: 1 } });
    expect(await ask(second, [where], { isRepeat: true })).toMatchObject({ status: 201, body: { made: 1 } });
    for (const one of await sendsOf(pieceId ?? '')) if (one.state === 'queued') await runOut(one.id);
  });

  it('puts files into a folder, whole, and writes over none', async () => {
    const where = await destination({ kind: 'folder', name: 'Stage', folder: 'kite week/stage' });
    const [one, two] = [await rendered('Folder'), await rendered('Folder')];
    for (const render of [one, two, one]) {
      const id = await send(render, where);
      if ((await sent(id)).state === 'queued') await runOut(id);
      expect((await sent(id)).state).toBe('succeeded');
    }
    const files = readdirSync(join(server.config.sentDir, 'kite week/stage')).sort();
    expect(files).toEqual(['Folder Wide.gif']); // both show the same
    const other = await rendered('Folder', 'gif', [120, 60]);
    await runOut(await send(other, where));
    expect(readdirSync(join(server.config.sentDir, 'kite week/stage')).sort()).toEqual([
      'Folder Wide 2.gif',
      'Folder Wide.gif',
    ]);
  });

  it.each(['../out', '/etc', 'a/../b', '.hidden', 'a//b', 'a/.b', ''])('refuses the folder “%s”', (folder) => {
    expect(destinationSchema.safeParse({ kind: 'folder', name: 'x', folder }).success).toBe(false);
  });

  it('calls only addresses that the owner of an open server allows', async () => {
    const open = await openTestServer({ ...OPEN, password: 'harbour-lights' });
    const ask = (path: string, body: unknown) =>
      open.request(path, {
        ...json('POST', body),
        headers: { 'content-type': 'application/json', authorization: `Basic ${btoa('x:harbour-lights')}` },
      });
    const channel = { kind: 'channel', name: 'X', address: 'http://127.0.0.1:9', token: 'abc', place: 'wide' };
    for (const [path, body] of [
      ['/api/destinations', channel],
      ['/api/destinations/look', { address: channel.address }],
    ] as const)
      expect((await ask(path, body)).body.error).toMatchObject({ code: 'SEND_REFUSED' });
    (open.config as { channels: readonly string[] }).channels = [channel.address];
    expect((await ask('/api/destinations', channel)).status).toBe(201);
    // What would break the request's own lines is refused where it is typed.
    expect((await ask('/api/destinations', { ...channel, token: 'ab\r\nx: y' })).status).toBe(400);
    await open.close();
  });
  it('sends the account along to the channel alone, not to wherever that says the upload is', async () => {
    const asked: string[] = [];
    const elsewhere = createServer((request, response) => {
      asked.push(request.headers.authorization ?? 'none');
      response.end();
    });
    await new Promise<void>((done) => elsewhere.listen(0, '127.0.0.1', done));
    const stranger = `http://127.0.0.1:${(elsewhere.address() as AddressInfo).port}`;
    const channel = createServer((request, response) => {
      request.resume();
      response.writeHead(201, { location: `${stranger}/uploads/1`, 'tus-resumable': '1.0.0' }).end();
    });
    await new Promise<void>((done) => channel.listen(0, '127.0.0.1', done));
    const address = `http://127.0.0.1:${(channel.address() as AddressInfo).port}`;
    const file = join(server.dir, 'small.bin');
    writeFileSync(file, 'kite');
    const what = { file, bytes: 4, onBegun: () => {}, onProgress: () => {}, signal: new AbortController().signal };
    const own = { address, token: 'secret', place: 'wide' };
    for (const begun of [null, `${stranger}/uploads/2`])
      await expect(uploadFile(own, { ...what, begun })).rejects.toMatchObject({ code: 'SEND_REFUSED' });
    expect(asked).toEqual([]);
    elsewhere.close();
    channel.close();
  });
  it('gives a file a link without the password, and takes it back', async () => {
    const render = await rendered('Link');
    const link = (await server.request(`/api/jobs/${render}/link`, json('POST', { isShared: true }))).body
      .link as string;
    const got = await server.request(link);
    expect([got.status, got.headers.get('content-type')]).toEqual([200, 'image/gif']);
    expect((await server.request(`${link.slice(0, -1)}_`)).status).toBe(404);
    await server.request(`/api/jobs/${render}/link`, json('POST', { isShared: false }));
    expect((await server.request(link)).status).toBe(404);
  });

  it('goes on in another worker when the first is killed in mid-upload, and is posted once', async () => {
    const render = await rendered('Killed', 'mp4');
    const id = await send(render, await channel('mole-wall'));
    await fault('slow', { bytes: 1500 });
    const first = startWorkerOf(server);
    try {
      await until(
        'an upload has begun',
        async () => typeof (await server.context.jobs.get(id, null)).payload.begun === 'string',
      );
    } finally {
      first.kill('SIGKILL');
    }
    await tell('DELETE', '/faults');
    const second = startWorkerOf(server);
    try {
      await until('it is sent', async () => (await server.context.jobs.get(id, null)).state === 'succeeded', 50_000);
    } finally {
      second.kill('SIGKILL');
    }
    expect((await madeOf('mole-wall', id)).map((post) => post.sha256)).toEqual([sha256(await fileOf(render))]);
  });

  it('waits longer and longer, but not for ever', () => {
    const waits = Array.from({ length: 12 }, (_, i) => waitBefore(i + 1));
    expect(waits.every((wait, i) => i === 0 || wait >= waits[i - 1]!)).toBe(true);
    expect([waits[0], waits.at(-1)]).toEqual([2, 300]);
  });
});
