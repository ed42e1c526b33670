import { statSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { MAX_JSON_BYTES } from '../../server/platform/limits';
import { createGuesses, isForeign, isOurHost } from '../../server/http/guard';
import { strToU8, zipSync } from 'fflate';
import { newPiece } from '../helpers/documents';
import { HOST, json, openTestServer } from '../helpers/server';
import type { TestServer } from '../helpers/server';

/** Who may talk to the server, and what it says to those who ask for nonsense. */
let server: TestServer;
beforeAll(async () => {
  server = await openTestServer();
});
afterAll(() => server?.close());

const ask = async (path: string, init: RequestInit = {}, base = HOST) =>
  server.app.fetch(new Request(`${base}${path}`, init));

describe('strangers', () => {
  it('a host name that is not ours is refused whatever it asks for: a page that had its name point here reads nothing', async () => {
    for (const [method, path] of [
      ['GET', '/api/pieces'],
      ['DELETE', '/api/pieces/x'],
      ['GET', '/'],
      ['POST', '/api/pieces/import'],
    ] as const) {
      const answer = await ask(path, { method, headers: { host: 'rebound.example' } }, 'http://rebound.example');
      expect(answer.status).toBe(403);
    }
    expect(isOurHost('127.0.0.1:4170', [])).toBe(true);
    expect(isOurHost('LOCALHOST:9', [])).toBe(true);
    expect(isOurHost('[::1]:4170', [])).toBe(true);
    expect(isOurHost('127.0.0.1.evil.example', [])).toBe(false);
    expect(isOurHost('studio.local', ['studio.local'])).toBe(true);
    expect(isOurHost(undefined, [])).toBe(false);
  });
  it('a foreign page cannot plant, duplicate, bring back or send anything, with or without asking first', async () => {
    const piece = newPiece('Mine');
    await server.request('/api/pieces', json('POST', { piece }));
    const foreign: Record<string, string>[] = [
      { origin: 'https://elsewhere.example' },
      { origin: 'null' },
      { origin: `${HOST}:9999` },
      { 'sec-fetch-site': 'cross-site' },
      { 'sec-fetch-site': 'same-site' },
    ];
    for (const headers of foreign) {
      for (const [path, body] of [
        [`/api/pieces/${piece.id}/duplicate`, ''],
        [`/api/pieces/${piece.id}/undelete`, ''],
        ['/api/pieces/import', 'x'],
        ['/api/media?name=x.wav', 'x'],
        ['/api/uploads', ''],
      ] as const) {
        expect(
          (await ask(path, { method: 'POST', body, headers: { ...headers, 'content-type': 'text/plain' } })).status,
        ).toBe(403);
      }
      expect((await ask('/api/pieces', { headers })).status).toBe(403);
    }
    expect((await server.request('/api/pieces')).body.total).toBe(1);
    expect(
      isForeign(new Headers({ 'sec-fetch-site': 'same-origin', origin: 'http://127.0.0.1:4170' }), '127.0.0.1:4170'),
    ).toBe(false);
    expect(isForeign(new Headers({ 'sec-fetch-site': 'none' }), '127.0.0.1')).toBe(false);
  });
  it('every answer keeps others out: policy, no sniffing, no frames, no reading across sites', async () => {
    for (const path of ['/', '/api/pieces', '/api/nothing', '/fonts/manifest.json']) {
      const { headers } = await ask(path);
      const policy = headers.get('content-security-policy') ?? '';
      expect(policy).toContain("default-src 'self'");
      expect(policy).toContain("frame-ancestors 'none'");
      expect(/script-src ([^;]*)/.exec(policy)?.[1]).toBe("'self' 'wasm-unsafe-eval'");
      expect(headers.get('x-content-type-options')).toBe('nosniff');
      expect(headers.get('cross-origin-resource-policy')).toBe('same-origin');
      expect(headers.get('cross-origin-opener-policy')).toBe('same-origin');
      expect(headers.get('cross-origin-embedder-policy')).toBe('require-corp');
      expect(headers.get('referrer-policy')).toBe('no-referrer');
      expect(headers.get('x-request-id')).toBeTruthy();
    }
  });
  it('listening wider asks for the password, and takes only that', async () => {
    const wide = await openTestServer({
      listen: '0.0.0.0',
      hosts: ['studio.local'],
      password: 'kites over the harbour',
    });
    try {
      const as = (authorization?: string) =>
        wide.app.fetch(
          new Request('http://studio.local/api/pieces', authorization ? { headers: { authorization } } : {}),
        );
      const basic = (password: string) => `Basic ${Buffer.from(`anybody:${password}`).toString('base64')}`;
      expect((await as()).status).toBe(401);
      expect((await as()).headers.get('www-authenticate')).toContain('Basic');
      for (const wrong of [basic('kites'), basic(''), 'Bearer x', 'Basic !!!', basic('kites over the harbour ')])
        expect((await as(wrong)).status).toBe(401);
      expect((await as(basic('kites over the harbour'))).status).toBe(200);
    } finally {
      await wide.close();
    }
  });
  it('wrong passwords are answered more and more slowly, by address, and at last not at all', async () => {
    const pauses: number[] = [];
    const guesses = createGuesses((ms) => {
      pauses.push(ms);
      return Promise.resolve();
    });
    for (let i = 0; i < 30; i++) await guesses.wait('192.0.2.1');
    expect(pauses.slice(0, 4)).toEqual([100, 200, 400, 800]);
    expect(pauses.at(-1)).toBe(5000);
    await expect(guesses.wait('192.0.2.1')).rejects.toMatchObject({ code: 'TOO_MANY_REQUESTS' });
    await guesses.wait('192.0.2.2');
  });
  it('an address has so many streams of news at once, and others as soon as it closes them', async () => {
    const open = async () => {
      const abort = new AbortController();
      return { abort, answer: await ask('/api/events', { signal: abort.signal }) };
    };
    const streams = await Promise.all(Array.from({ length: 64 }, open));
    expect(streams.every(({ answer }) => answer.status === 200)).toBe(true);
    expect((await open()).answer.status).toBe(429);
    for (const { answer } of streams) await answer.body?.cancel();
    let again = 429;
    while (again === 429) {
      const { answer } = await open();
      again = answer.status;
      await answer.body?.cancel();
    }
    expect(again).toBe(200);
  });
  it('what is shared by a link runs nothing', async () => {
    const { headers } = await ask(`/shared/${'a'.repeat(24)}`);
    expect(headers.get('content-security-policy')).toBe('sandbox');
  });
  it('the folders of media and films are their owner’s alone', () => {
    for (const name of ['media', 'exports']) expect(statSync(join(server.dir, name)).mode & 0o077).toBe(0);
  });
  it('too many requests at once are told to wait', async () => {
    const answers = await Promise.all(Array.from({ length: 3200 }, () => ask('/api/nothing')));
    const told = answers.filter((a) => a.status === 429);
    expect(told.length).toBeGreaterThan(100);
    expect(told[0]!.headers.get('retry-after')).toBe('10');
    await server.close();
    server = await openTestServer();
  });
});

describe('nonsense', () => {
  it('is answered with what it is, in JSON, and never as a fault of ours', async () => {
    const piece = newPiece('Probe');
    await server.request('/api/pieces', json('POST', { piece }));
    const ids = [
      'x',
      '%00',
      '%0a',
      '..',
      '%2e%2e%2f',
      'x'.repeat(5000),
      "' OR 1=1 --",
      '__proto__',
      'constructor',
      '%ff',
      '🪁',
      piece.id,
    ];
    const revisions = ['0', '-1', '1.5', '2147483648', '99999999999999999999', 'NaN', '1e3', '%00', 'x', ' 1'];
    const bodies = [
      '',
      '{',
      'null',
      '[]',
      '"x"',
      '{"piece":null}',
      '{"piece":{"version":1}}',
      `{"piece":${JSON.stringify({ ...piece, id: '\0' })}}`,
      JSON.stringify({ piece: { ...piece, leadFormatId: 'none' } }),
      JSON.stringify({ piece }),
      '{"name":""}',
      '{"name":"a\\u0000b"}',
      `{"name":"${'x'.repeat(300)}"}`,
      '{"__proto__":{"x":1}}',
      '\u0000',
    ];
    const probes: [string, string, (string | undefined)?][] = [];
    for (const id of ids) {
      for (const path of [
        `/api/pieces/${id}`,
        `/api/pieces/${id}/revisions`,
        `/api/pieces/${id}/file`,
        `/api/jobs/${id}`,
        `/api/jobs/${id}/file`,
        `/api/jobs/exports/of/${id}`,
        `/api/media/${id}`,
        `/api/media/${id}/analysis`,
        `/api/media/${id}/sound`,
        `/fonts/${id}`,
        `/api/uploads/${id}`,
      ])
        probes.push(['GET', path]);
      for (const index of ['-1', '12', 'x', '1.5', '%00']) probes.push(['GET', `/api/pieces/${id}/frame/${index}`]);
      if (id !== piece.id)
        probes.push(
          ['DELETE', `/api/pieces/${id}`],
          ['DELETE', `/api/jobs/${id}`],
          ['POST', `/api/jobs/${id}/cancel`, ''],
          ['POST', `/api/pieces/${id}/undelete`, ''],
          ['POST', `/api/pieces/${id}/duplicate`, ''],
        );
    }
    for (const revision of revisions) probes.push(['GET', `/api/pieces/${piece.id}/revisions/${revision}`]);
    for (const body of bodies) {
      for (const [method, path] of [
        ['POST', '/api/pieces'],
        ['PUT', `/api/pieces/${piece.id}`],
        ['POST', `/api/pieces/${piece.id}/rename`],
        ['POST', '/api/jobs/exports'],
        ['POST', '/api/media/uploaded'],
      ] as const)
        probes.push([method, path, body]);
    }
    for (const query of [
      '?limit=0',
      '?limit=1e9',
      '?offset=-1',
      '?offset=99999999999',
      '?order=drop',
      '?search=%00',
      `?search=${'%25'.repeat(60)}`,
      '?limit=x',
    ])
      probes.push(['GET', `/api/pieces${query}`]);
    for (const [method, path] of [
      ['GET', '/api/nothing'],
      ['POST', '/api/pieces/import'],
      ['PATCH', '/api/pieces'],
      ['PUT', '/api/jobs'],
      ['POST', '/api/health'],
    ] as const)
      probes.push([method, path, method === 'GET' ? undefined : '']);
    expect(probes.length).toBeGreaterThan(200);
    for (const [method, path, body] of probes) {
      const answer = await server.app.fetch(
        new Request(`${HOST}${path}`, {
          method,
          headers: { origin: HOST, 'content-type': 'application/json' },
          ...(body === undefined ? {} : { body }),
        }),
      );
      const text = await answer.text();
      const isFault = answer.status >= 500;
      expect(`${method} ${path.slice(0, 80)} ${String(body).slice(0, 40)} ${isFault ? answer.status : 'fine'}`).toBe(
        `${method} ${path.slice(0, 80)} ${String(body).slice(0, 40)} fine`,
      );
      // What is refused says so in the one shape; the resumable protocol has words of its own.
      if (answer.status >= 400 && path.startsWith('/api/') && !path.startsWith('/api/uploads'))
        expect(JSON.parse(text)).toMatchObject({ error: { code: expect.any(String), message: expect.any(String) } });
    }
    expect((await ask('/api/nothing')).status).toBe(404);
    expect((await server.request(`/api/pieces/${piece.id}`)).status).toBe(200);
  });
  it('JSON that would freeze a parser is refused before it is parsed, in bodies and in piece files', async () => {
    const bodies = [
      `{"piece":${'['.repeat(4e6)}${']'.repeat(4e6)}}`,
      `{"piece":[${'[],'.repeat(5e6)}[]]}`,
      `{"piece":{${Array.from({ length: 160_000 }, (_, i) => `"k${i}":1`).join()}}}`,
    ];
    for (const body of bodies) {
      const before = process.cpuUsage();
      const answer = await server.request('/api/pieces', { ...json('POST', {}), body });
      const { user, system } = process.cpuUsage(before);
      expect(answer).toMatchObject({ status: 400, body: { error: { code: 'BAD_REQUEST' } } });
      expect((user + system) / 1e6).toBeLessThan(2);
    }
    const piece = newPiece('Bomb');
    for (const [name, content] of [
      ['rosters.json', '['.repeat(16e6)],
      ['rosters.json', `{"a":[${'[],'.repeat(5e6)}[]]}`],
      [
        'piece.json',
        JSON.stringify({ ...piece, ...Object.fromEntries(Array.from({ length: 4000 }, (_, i) => [`k${i}`, 1])) }),
      ],
    ] as const) {
      const file = zipSync({ 'piece.json': strToU8(JSON.stringify(piece)), [name]: strToU8(content) }, { level: 9 });
      const answer = await server.request('/api/pieces/import', {
        method: 'POST',
        body: file as Uint8Array<ArrayBuffer>,
      });
      expect(answer).toMatchObject({ status: 422, body: { error: { code: 'PIECE_INVALID' } } });
    }
  });
  it('a document of any version whose layers are no list, or with fields that no version had, is refused', async () => {
    for (const version of [1, 3, 8])
      for (const wrong of [{ layers: {} }, { layers: 'x' }, { layers: null }, { media: {} }, { layers: undefined }]) {
        const piece = { ...newPiece('Odd'), ...wrong, version };
        expect((await server.request('/api/pieces', json('POST', { piece }))).status).toBe(400);
      }
  });
  it('a body without end is not read to its end', async () => {
    let sent = 0;
    const endless = () =>
      new ReadableStream<Uint8Array>({
        pull(controller) {
          sent += 1_000_000;
          controller.enqueue(new Uint8Array(1_000_000).fill(32));
          if (sent > 200_000_000) controller.close();
        },
      });
    const answer = await server.app.fetch(
      new Request(`${HOST}/api/pieces`, {
        method: 'POST',
        body: endless(),
        headers: { origin: HOST, 'content-type': 'application/json' },
        duplex: 'half',
      } as RequestInit),
    );
    expect(answer.status).toBe(413);
    expect(sent).toBeLessThan(MAX_JSON_BYTES + 8_000_000);
  });
  it('PUT and POST take no more than an import does', async () => {
    const piece = newPiece('Door');
    const wrong = { ...piece, leadFormatId: 'not-there' };
    expect((await server.request('/api/pieces', json('POST', { piece: wrong }))).status).toBe(400);
    await server.request('/api/pieces', json('POST', { piece }));
    expect(
      (await server.request(`/api/pieces/${piece.id}`, json('PUT', { piece: wrong, baseRevision: 1, label: '' })))
        .status,
    ).toBe(400);
    expect((await server.request('/api/pieces', json('POST', { piece }))).body.error?.code).toBe('ALREADY_THERE');
  });
});
