import { readFileSync, readdirSync } from 'node:fs';
import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { strToU8, zipSync } from 'fflate';
import { compress } from 'wawoff2';
import { ANALYSIS_VERSION } from '@core/audio';
import { createLayer, PIECE_VERSION } from '@core/piece';
import type { MediaRef, Piece } from '@core/piece';
import { freeMoment } from '@core/time';
import type { ServerContext } from '../../server/jobs/context';
import { renderInputFor } from '../../server/jobs/render-to-store';
import { createReaper, runJob } from '../../server/jobs/runner';
import { createFrameSource } from '../../server/render/frame-source';
import { createServerFonts } from '../../server/render/skia-host';
import { MAX_LOSSES, canBecome, isOver } from '../../server/features/jobs/job-life';
import { asAppError } from '../../server/platform/errors';
import { LOCAL } from '../../server/features/pieces/repository';
import { countingIds } from '../helpers/documents';
import { demoDir } from '../helpers/demo-files';
import { makeFont, toWoff } from '../helpers/make-font';
import { newPiece } from '../helpers/documents';
import { HOST, json, openTestServer } from '../helpers/server';
import type { TestServer } from '../helpers/server';

/** The server against a real PostgreSQL, through its own fetch; jobs are run by hand, so that each step is seen. */
let server: TestServer;
let context: ServerContext;
let app: TestServer['app'];
let dir: string;
const dist = join(process.cwd(), 'dist');
const request: TestServer['request'] = (path, init) => server.request(path, init);

beforeAll(async () => {
  server = await openTestServer();
  ({ context, app, dir } = server);
});
afterAll(() => server?.close());

const upload = (file: string, bytes: Uint8Array) =>
  request(`/api/media?name=${encodeURIComponent(file)}`, { method: 'POST', body: bytes as Uint8Array<ArrayBuffer> });

describe('pieces', () => {
  it('stored before the song could be cut are read as uncut and uncorrected', async () => {
    const piece = newPiece('Old');
    await request('/api/pieces', json('POST', { piece }));
    const old = {
      mediaId: 'song',
      start: 0,
      trimStart: 0,
      trimEnd: null,
      gain: 1,
      fadeIn: 0,
      fadeOut: 0,
      correction: { bpm: null, factor: 1, shift: 0.02, firstDownbeat: null, beatsPerBar: null },
    };
    for (const [table, column] of [
      ['piece', 'id'],
      ['piece_revision', 'piece_id'],
    ] as const)
      await context.source.query(`UPDATE ${table} SET document = document || $1::jsonb WHERE ${column} = $2`, [
        JSON.stringify({ version: 1, music: old }),
        piece.id,
      ]);
    const filled = {
      version: PIECE_VERSION,
      music: {
        volume: { value: 1, keyframes: [] },
        cuts: [],
        fadeOutCurve: 'even',
        correction: { shift: 0.02, tapped: null, moves: [], bars: [], spans: [], free: [] },
      },
    };
    expect((await request(`/api/pieces/${piece.id}`)).body.piece).toMatchObject(filled);
    expect((await request(`/api/pieces/${piece.id}/revisions/1`)).body.piece).toMatchObject(filled);
    await request(`/api/pieces/${piece.id}`, { method: 'DELETE' });
  });
  it('are made, listed, renamed, duplicated, deleted and brought back', async () => {
    const piece = newPiece('Kites');
    expect((await request('/api/pieces', json('POST', { piece }))).status).toBe(201);
    expect((await request(`/api/pieces/${piece.id}/rename`, json('POST', { name: 'Kites II' }))).status).toBe(200);
    const copy = (await request(`/api/pieces/${piece.id}/duplicate`, { method: 'POST' })).body;
    expect(copy.name).toBe('Kites II copy');
    await request(`/api/pieces/${piece.id}`, { method: 'DELETE' });
    expect((await request(`/api/pieces/${piece.id}`)).status).toBe(404);
    const ids = async () => ((await request('/api/pieces')).body.pieces as { id: string }[]).map((p) => p.id);
    expect(await ids()).not.toContain(piece.id);
    await request(`/api/pieces/${piece.id}/undelete`, { method: 'POST' });
    expect(await ids()).toContain(piece.id);
  });

  it('are never overwritten: a save on an old revision is a conflict and changes nothing', async () => {
    const piece = newPiece('Lock');
    await request('/api/pieces', json('POST', { piece }));
    const save = (title: string, baseRevision: number) =>
      request(
        `/api/pieces/${piece.id}`,
        json('PUT', { piece: { ...piece, name: title }, baseRevision, label: 'Rename piece' }),
      );
    expect((await save('first', 1)).body).toMatchObject({ revision: 2 });
    const second = await save('second', 1);
    expect(second).toMatchObject({ status: 409, body: { error: { code: 'CONFLICT' } } });
    expect((await request(`/api/pieces/${piece.id}`)).body).toMatchObject({ revision: 2, piece: { name: 'first' } });
  });

  it('let exactly one of many simultaneous saves through', async () => {
    const piece = newPiece('Race');
    await request('/api/pieces', json('POST', { piece }));
    const results = await Promise.all(
      Array.from({ length: 8 }, (_, i) =>
        request(
          `/api/pieces/${piece.id}`,
          json('PUT', { piece: { ...piece, name: `n${i}` }, baseRevision: 1, label: '' }),
        ),
      ),
    );
    expect(results.filter((r) => r.status === 200)).toHaveLength(1);
    expect(results.filter((r) => r.status === 409)).toHaveLength(7);
  });

  it('keep their revisions, and each can be read again', async () => {
    const piece = newPiece('Past');
    await request('/api/pieces', json('POST', { piece }));
    for (let i = 1; i <= 3; i++)
      await request(
        `/api/pieces/${piece.id}`,
        json('PUT', { piece: { ...piece, name: `v${i}` }, baseRevision: i, label: `to v${i}` }),
      );
    const list = (await request(`/api/pieces/${piece.id}/revisions`)).body.revisions as {
      revision: number;
      label: string;
    }[];
    expect(list.map((r) => r.label)).toEqual(['to v3', 'to v2', 'to v1', 'New piece']);
    expect((await request(`/api/pieces/${piece.id}/revisions/2`)).body).toMatchObject({ piece: { name: 'v1' } });
  });

  it('are refused if they are no pieces', async () => {
    expect(await request('/api/pieces', json('POST', { piece: { version: 1 } }))).toMatchObject({
      status: 400,
      body: { error: { code: 'BAD_REQUEST' } },
    });
  });

  it('show frames of themselves', async () => {
    const piece = newPiece('Frames');
    await request('/api/pieces', json('POST', { piece }));
    const answer = await request(`/api/pieces/${piece.id}/frame/3`);
    expect(answer.headers.get('content-type')).toBe('image/png');
    expect((await request(`/api/pieces/${piece.id}/frame/99`)).status).toBe(400);
    expect((await request(`/api/pieces/${piece.id}/frame/cover`)).status).toBe(400);
    const poster = await request(`/api/pieces/${piece.id}/frame/poster`);
    expect(poster.headers.get('content-type')).toBe('image/png');
  });
});

describe('bad files', () => {
  const count = async () =>
    Number(((await context.source.query('SELECT count(*) FROM media')) as { count: string }[])[0]!.count);
  const made = (args: string[]) => execFileSync('ffmpeg', ['-v', 'error', ...args], { maxBuffer: 1 << 28 });

  it.each([
    ['an empty file', 'nothing.wav', () => new Uint8Array(), 422, 'FILE_EMPTY'],
    ['a text called .mp3', 'words.mp3', () => strToU8('these are words, not music. '.repeat(50)), 415, 'FILE_UNKNOWN'],
    [
      'random bytes called .png',
      'noise.png',
      () => Uint8Array.from({ length: 5000 }, (_, i) => (i * 7919) % 251),
      415,
      'FILE_UNKNOWN',
    ],
    [
      'a damaged picture',
      'half.png',
      () => {
        const png = made([
          '-f',
          'lavfi',
          '-i',
          'testsrc=s=64x64:d=0.04',
          '-frames:v',
          '1',
          '-f',
          'image2pipe',
          '-c:v',
          'png',
          '-',
        ]);
        return new Uint8Array(png.subarray(0, 60));
      },
      422,
      'PICTURE_UNREADABLE',
    ],
    [
      'a font cut off',
      'half.ttf',
      () => makeFont({ family: 'Lumo Block', style: 'Half', weight: 400 }).slice(0, 700),
      422,
      'FONT_UNREADABLE',
    ],
    [
      'a WOFF that would explode',
      'bomb.woff',
      () => {
        const woff = toWoff(makeFont({ family: 'Lumo Block', style: 'Bomb', weight: 400 }));
        new DataView(woff.buffer, woff.byteOffset).setUint32(44 + 12, 0xf0000000);
        return woff;
      },
      422,
      'FONT_UNREADABLE',
    ],
    [
      'a WOFF2 of noise',
      'noise.woff2',
      () => Uint8Array.from({ length: 900 }, (_, i) => [0x77, 0x4f, 0x46, 0x32][i] ?? (i < 48 ? 0 : (i * 7919) % 251)),
      422,
      'FONT_UNREADABLE',
    ],
    ['a font collection', 'many.ttc', () => strToU8('ttcf' + 'x'.repeat(200)), 422, 'FONT_UNREADABLE'],
    [
      'a three-hour MP3',
      'long.mp3',
      () =>
        new Uint8Array(
          made(['-f', 'lavfi', '-i', 'anullsrc=r=8000:cl=mono', '-t', '10800', '-b:a', '8k', '-f', 'mp3', '-']),
        ),
      422,
      'AUDIO_TOO_LONG',
    ],
  ])('%s gets a clear message and leaves nothing behind', async (_title, file, bytes, status, code) => {
    const before = await count();
    const answer = await upload(file, bytes());
    expect(answer).toMatchObject({ status, body: { error: { code } } });
    expect(answer.body.error!.message).toContain(file);
    expect(await count()).toBe(before);
    expect(readdirSync(join(dir, 'media', 'tmp'))).toEqual([]);
  });

  it('a 40-megapixel picture is taken in, scaled to the largest frame, and says so', async () => {
    const answer = await upload(
      'huge.png',
      new Uint8Array(
        made([
          '-f',
          'lavfi',
          '-i',
          'color=c=orange:s=8000x5000:d=0.04',
          '-frames:v',
          '1',
          '-f',
          'image2pipe',
          '-c:v',
          'png',
          '-',
        ]),
      ),
    );
    expect(answer).toMatchObject({ status: 201, body: { media: { kind: 'picture', width: 4096, height: 2560 } } });
    expect(answer.body.warning).toContain('8000×5000');
  });

  it('a truncated WAV is read as far as it goes, with a warning', async () => {
    const wav = readFileSync(join(demoDir(), 'paper-waltz.wav'));
    const answer = await upload('cut.wav', new Uint8Array(wav.subarray(0, Math.floor(wav.length / 3))));
    expect(answer.status).toBe(201);
    const { hash } = answer.body.media as { hash: string };
    const job = (await context.jobs.activeForMedia(hash))!;
    await runJob(context, job.id);
    const state = (await request(`/api/media/${hash}`)).body;
    expect(state.state).toBe('ready');
    // ffprobe reports what the file holds or what it claims, depending on the container; either way the length kept is
    // what can be heard.
    expect((state.media as { duration: number }).duration).toBeCloseTo(wav.length / 3 / 4 / 44100, 0);
  });

  it.each([
    ['no zip', strToU8('hello'), 'NOT_A_PIECE_FILE'],
    ['an unknown version', zipSync({ 'piece.json': strToU8('{"version": 12}') }), 'PIECE_VERSION_UNKNOWN'],
    [
      'missing media',
      zipSync({
        'piece.json': strToU8(
          JSON.stringify({
            ...newPiece('x'),
            media: [{ id: 'm', hash: 'c'.repeat(64), kind: 'audio', name: 'lost.wav' }],
          }),
        ),
      }),
      'PIECE_MEDIA_MISSING',
    ],
    [
      'media that does not match',
      zipSync({
        'piece.json': strToU8(
          JSON.stringify({
            ...newPiece('x'),
            media: [{ id: 'm', hash: 'c'.repeat(64), kind: 'audio', name: 'swapped.wav' }],
          }),
        ),
        [`media/${'c'.repeat(64)}`]: strToU8('other'),
      }),
      'PIECE_INVALID',
    ],
  ])('a piece file that is %s is refused and no piece is made', async (_title, bytes, code) => {
    const before = (await context.pieces.list(LOCAL, { search: '', order: 'name', offset: 0, limit: 200 })).total;
    expect((await request('/api/pieces/import', { method: 'POST', body: bytes })).body.error).toMatchObject({ code });
    expect((await context.pieces.list(LOCAL, { search: '', order: 'name', offset: 0, limit: 200 })).total).toBe(before);
  });
});

describe('fonts', () => {
  const regular = makeFont({ family: 'Lumo Block', style: 'Regular', weight: 400 });
  it.each([
    ['TTF', 'lumo.ttf', async () => regular],
    ['WOFF', 'lumo.woff', async () => toWoff(makeFont({ family: 'Lumo Block', style: 'Bold', weight: 700 }))],
    [
      'WOFF2',
      'lumo.woff2',
      async () =>
        new Uint8Array(
          await compress(makeFont({ family: 'Lumo Block', style: 'Black Italic', weight: 900, italic: true })),
        ),
    ],
  ])('come in as %s, say what they are, and are served as what both hosts shape', async (_kind, file, bytes) => {
    const answer = await upload(file, await bytes());
    expect(answer).toMatchObject({
      status: 201,
      body: {
        state: 'ready',
        media: { kind: 'font', name: file, font: { family: 'Lumo Block', ranges: [32, 32, 48, 57, 65, 90, 97, 122] } },
      },
    });
    const { hash } = answer.body.media as { hash: string };
    const served = await app.fetch(new Request(`${HOST}/api/media/${hash}/font`));
    expect([...new Uint8Array(await served.arrayBuffer()).subarray(0, 4)]).toEqual([0, 1, 0, 0]);
  });
  it('are all listed, to be chosen in any piece', async () => {
    const styles = ((await request('/api/media/fonts')).body as unknown as MediaRef[]).map((m) => m.font?.style);
    expect(styles).toEqual(expect.arrayContaining(['Regular', 'Bold', 'Black Italic']));
  });
  it('of a piece are painted with on the server, and missed by name', async () => {
    const { media } = (await upload('lumo.ttf', regular)).body as unknown as { media: MediaRef };
    const words = createLayer(
      'text',
      {
        name: 'w',
        start: freeMoment(0),
        end: freeMoment(2),
        values: { size: 20 },
        content: { text: 'WWW', family: 'own:Lumo Block' },
      },
      countingIds('w'),
    );
    const piece: Piece = { ...newPiece('Own font'), media: [media], layers: [words], end: freeMoment(2) };
    const pixels = async (p: Piece) => {
      const { input } = await renderInputFor(context, p, 'wide');
      const source = await createFrameSource(input, createServerFonts(join(dist, 'fonts')));
      return Buffer.from((await source.paint(1)).canvas.data());
    };
    const [own, shipped] = [
      await pixels(piece),
      await pixels({ ...piece, layers: [{ ...words, content: { ...words.content, family: 'syne' } } as typeof words] }),
    ];
    expect(own.equals(shipped)).toBe(false);
    await expect(pixels({ ...piece, media: [{ ...media, hash: 'd'.repeat(64) }] })).rejects.toMatchObject({
      code: 'MEDIA_MISSING',
      detail: 'lumo.ttf',
    });
  });
});

describe('songs and piece files', () => {
  it('a song is prepared, analysed and served; its piece goes out as a file and comes back whole', async () => {
    const file = readFileSync(join(demoDir(), 'demo-kite-maker.estrella'));
    const opened = await request('/api/pieces/import', { method: 'POST', body: new Uint8Array(file) });
    expect(opened.status).toBe(201);
    const { piece } = (await request(`/api/pieces/${opened.body.id as string}`)).body as unknown as { piece: Piece };
    const hash = piece.media[0]!.hash;
    const job = (await context.jobs.activeForMedia(hash))!;
    await runJob(context, job.id);
    expect((await request(`/api/media/${hash}/analysis`)).body.beatsPerBar).toBe(4);
    const part = await app.fetch(new Request(`${HOST}/api/media/${hash}/sound`, { headers: { range: 'bytes=0-3' } }));
    expect(part.status).toBe(206);
    expect(await part.text()).toBe('fLaC');
    const out = await app.fetch(new Request(`${HOST}/api/pieces/${piece.id}/file`));
    const again = await request('/api/pieces/import', {
      method: 'POST',
      body: new Uint8Array(await out.arrayBuffer()),
    });
    const { piece: back } = (await request(`/api/pieces/${again.body.id as string}`)).body as unknown as {
      piece: Piece;
    };
    // From now on it says by which method its song was heard.
    const music = { ...piece.music, analysisVersion: ANALYSIS_VERSION };
    expect({ ...back, id: '' }).toEqual({ ...piece, id: '', music });
  });
});

describe('jobs', () => {
  it('end once and for all', () => {
    expect(canBecome('running', 'queued')).toBe(true);
    for (const end of ['succeeded', 'failed', 'canceled'] as const) {
      expect(isOver(end)).toBe(true);
      expect(canBecome(end, 'running')).toBe(false);
    }
  });

  const startExport = async (seconds: number) => {
    const piece = { ...newPiece('Out'), end: { kind: 'free' as const, seconds } };
    await context.pieces.create(LOCAL, piece, '');
    const answer = await request('/api/jobs/exports', json('POST', { pieceId: piece.id, formatId: 'wide' }));
    return { id: answer.body.id as string, piece };
  };
  const exportsLeft = () => {
    try {
      return readdirSync(join(dir, 'exports'));
    } catch {
      return [];
    }
  };

  it('render a video that can be downloaded', async () => {
    const { id } = await startExport(1);
    await runJob(context, id);
    expect((await request(`/api/jobs/${id}`)).body).toMatchObject({
      state: 'succeeded',
      result: { frames: 30, painted: 1 },
    });
    const file = await app.fetch(new Request(`${HOST}/api/jobs/${id}/file`));
    expect(file.headers.get('content-type')).toBe('video/mp4');
    expect((await file.arrayBuffer()).byteLength).toBeGreaterThan(1000);
    await request(`/api/jobs/${id}`, { method: 'DELETE' });
  });

  it('that are cancelled before or while they run leave no files', async () => {
    const first = await startExport(1);
    await request(`/api/jobs/${first.id}/cancel`, { method: 'POST' });
    await runJob(context, first.id);
    expect((await request(`/api/jobs/${first.id}`)).body.state).toBe('canceled');
    const second = await startExport(500);
    const running = runJob(context, second.id);
    while ((await context.jobs.get(second.id, null)).state !== 'running')
      await new Promise((resolve) => setImmediate(resolve));
    await request(`/api/jobs/${second.id}/cancel`, { method: 'POST' });
    await running;
    expect((await request(`/api/jobs/${second.id}`)).body.state).toBe('canceled');
    expect(exportsLeft().filter((f) => f.startsWith(second.id) || f.startsWith(first.id))).toEqual([]);
  });

  it('that fail say why and leave no files', async () => {
    const { id } = await startExport(0);
    await runJob(context, id);
    const { body } = await request(`/api/jobs/${id}`);
    expect(body).toMatchObject({ state: 'failed' });
    expect(body.message).toContain('no duration');
    expect(exportsLeft().filter((f) => f.startsWith(id))).toEqual([]);
  });

  it('whose worker died are taken up again, and given up after too many deaths', async () => {
    const { id } = await startExport(1);
    const reap = createReaper(context, 0);
    for (let attempt = 1; attempt <= MAX_LOSSES; attempt++) {
      expect(await context.jobs.start(id)).toBe(attempt);
      expect(await context.jobs.start(id)).toBeNull();
      // Seen once, and once more without a new sign of life.
      await reap();
      expect((await context.jobs.get(id, null)).state).toBe('running');
      await reap();
      expect((await context.jobs.get(id, null)).state).toBe(attempt < MAX_LOSSES ? 'queued' : 'failed');
    }
    expect((await request(`/api/jobs/${id}`)).body.message).toContain('interrupted');
  });

  it('do not exist under made-up names', async () => {
    expect((await request('/api/jobs/nonsense')).status).toBe(404);
    expect((await request(`/api/media/${'d'.repeat(64)}`)).status).toBe(404);
    expect((await request('/api/media/..%2f..%2fetc')).status).toBe(404);
  });
});

it('system errors become codes people can act on', () => {
  expect(asAppError(Object.assign(new Error('x'), { code: 'ENOSPC' })).code).toBe('DISK_FULL');
  expect(asAppError(Object.assign(new Error('x'), { code: 'ECONNREFUSED' })).code).toBe('DATABASE_AWAY');
  expect(asAppError(new Error('x'))).toMatchObject({ code: 'INTERNAL' });
});
