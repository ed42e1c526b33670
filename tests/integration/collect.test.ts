import { readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { MediaRef, Piece } from '@core/piece';
import { LOCAL } from '../../server/features/pieces/repository';
import { collect } from '../../server/jobs/collect';
import type { Grace } from '../../server/jobs/collect';
import { newPiece } from '../helpers/documents';
import { json, openTestServer } from '../helpers/server';
import type { TestServer } from '../helpers/server';

/** Disk comes back, and nothing in use ever goes. */
let server: TestServer;
beforeAll(async () => {
  server = await openTestServer();
});
afterAll(() => server?.close());

const NOW: Grace = { deletedPiece: 0, media: 0, file: -1, job: 0 };
const KEEP_DELETED: Grace = { ...NOW, deletedPiece: 1000 };
let files = 0;

/** Brings a made file in without looking at it: what it holds plays no part here. */
async function putMedia(): Promise<MediaRef> {
  const { context } = server;
  const received = await context.store.receive(new Blob([`file ${++files} of ${process.pid}`]).stream(), 'x.png', 1000);
  await context.media.put(
    {
      hash: received.hash,
      kind: 'picture',
      name: 'x.png',
      bytes: '1',
      owner: 'local',
      state: 'ready',
      duration: null,
      width: 1,
      height: 1,
      warning: null,
      font: null,
      footage: null,
    },
    () => context.store.adopt(received),
  );
  return { id: `m${files}`, hash: received.hash, kind: 'picture', name: 'x.png', width: 1, height: 1 };
}
const isThere = async (hash: string) => [
  (await server.context.media.find(hash)) !== null,
  await server.context.store.has(hash, 'original'),
];

describe('cleaning up', () => {
  it('over random histories of pieces, media and renders removes just what nobody can reach', async () => {
    type Op = {
      kind: 'save' | 'delete' | 'undelete' | 'export' | 'cancel' | 'collect' | 'collect-deleted';
      piece: number;
      media: readonly number[];
    };
    const op: fc.Arbitrary<Op> = fc.record({
      kind: fc.constantFrom(
        'save' as const,
        'save' as const,
        'save' as const,
        'delete' as const,
        'undelete' as const,
        'export' as const,
        'cancel' as const,
        'collect' as const,
        'collect-deleted' as const,
      ),
      piece: fc.integer({ min: 0, max: 2 }),
      media: fc.subarray([0, 1, 2, 3, 4]),
    });
    await fc.assert(
      fc.asyncProperty(fc.array(op, { minLength: 4, maxLength: 16 }), async (ops) => {
        const { context } = server;
        const media = await Promise.all(Array.from({ length: 5 }, putMedia));
        const pieces: {
          piece: Piece;
          revision: number;
          isDeleted: boolean;
          isGone: boolean;
          used: Set<number>;
          jobs: { id: string; used: readonly number[] }[];
        }[] = [];
        for (let i = 0; i < 3; i++) {
          const piece = newPiece(`History ${i}`);
          await context.pieces.create(LOCAL, piece, '');
          pieces.push({ piece, revision: 1, isDeleted: false, isGone: false, used: new Set(), jobs: [] });
        }
        const gone = new Set<number>();
        const check = async () => {
          const reachable = new Set(
            pieces.flatMap((p) => [...(p.isGone ? [] : p.used), ...p.jobs.flatMap((j) => j.used)]),
          );
          for (const [i, m] of media.entries()) {
            if (!reachable.has(i)) gone.add(i);
            expect(await isThere(m.hash)).toEqual(gone.has(i) ? [false, false] : [true, true]);
          }
        };
        for (const { kind, piece: which, media: chosen } of ops) {
          const p = pieces[which]!;
          // What was collected cannot come back into a document: a person would have to bring it in again.
          const wanted = chosen.filter((i) => !gone.has(i));
          if (kind === 'collect' || kind === 'collect-deleted') {
            await collect(context, kind === 'collect' ? KEEP_DELETED : NOW);
            if (kind === 'collect-deleted') for (const other of pieces) if (other.isDeleted) other.isGone = true;
            await check();
          } else if (kind === 'save' && !p.isDeleted) {
            p.piece = { ...p.piece, media: wanted.map((i) => media[i]!) };
            p.revision = (await context.pieces.save(LOCAL, p.piece, { base: p.revision, label: '' })).revision;
            for (const i of wanted) p.used.add(i); // earlier revisions can be brought back
          } else if (kind === 'delete' && !p.isDeleted) {
            await context.pieces.setDeleted(LOCAL, p.piece.id, true);
            p.isDeleted = true;
          } else if (kind === 'undelete' && p.isDeleted && !p.isGone) {
            await context.pieces.setDeleted(LOCAL, p.piece.id, false);
            p.isDeleted = false;
          } else if (kind === 'export' && !p.isDeleted) {
            const job = await context.jobs.create({
              kind: 'export',
              lane: 'export',
              owner: 'local',
              pieceId: p.piece.id,
              payload: { pieceId: p.piece.id, formatId: 'wide', document: p.piece },
            });
            p.jobs.push({
              id: job.id,
              used: p.piece.media.map((m) => media.findIndex((other) => other.hash === m.hash)),
            });
          } else if (kind === 'cancel') {
            for (const job of p.jobs) await context.jobs.cancel(job.id, 'local');
            p.jobs = [];
          }
        }
        for (const p of pieces) for (const job of p.jobs) await context.jobs.cancel(job.id, 'local');
        for (const p of pieces) p.jobs = [];
        await collect(context, KEEP_DELETED);
        await check();
      }),
      { numRuns: 25 },
    );
  }, 120_000);

  it('leaves everything alone within its time of grace', async () => {
    const media = await putMedia();
    await collect(server.context);
    expect(await isThere(media.hash)).toEqual([true, true]);
    await collect(server.context, NOW);
    expect(await isThere(media.hash)).toEqual([false, false]);
  });

  it('takes refused uploads, parts of uploads after a kill, exports of nobody, and parts of renders', async () => {
    const { context, dir } = server;
    const left = () => [...readdirSync(join(dir, 'media', 'tmp')), ...readdirSync(join(dir, 'exports'))];
    writeFileSync(join(dir, 'media', 'tmp', 'half-an-upload'), 'x');
    const target = await context.store.exports.prepare(`${crypto.randomUUID()}.1.mp4`);
    writeFileSync(target.temporary, 'x');
    await target.commit();
    const part = await context.store.exports.prepare(`${crypto.randomUUID()}.2.mp4`);
    writeFileSync(part.temporary, 'x');
    const stray = await context.store.receive(new Blob(['a file without a row']).stream(), 'x', 100);
    await context.store.adopt(stray);
    expect(left().length).toBeGreaterThanOrEqual(3);
    await collect(context, NOW);
    expect(left()).toEqual([]);
    expect(await context.store.has(stray.hash, 'original')).toBe(false);
  });

  it('a film is there until its piece is gone for good, or a person deletes it', async () => {
    const { context, request } = server;
    const piece = newPiece('Film');
    await request('/api/pieces', json('POST', { piece }));
    const make = async () => {
      const job = await context.jobs.create({
        kind: 'export',
        lane: 'export',
        owner: 'local',
        pieceId: piece.id,
        payload: { pieceId: piece.id, formatId: 'wide', document: piece },
      });
      const attempt = (await context.jobs.start(job.id))!;
      const file = `${job.id}.${attempt}.mp4`;
      const target = await context.store.exports.prepare(file);
      writeFileSync(target.temporary, 'film');
      await target.commit();
      await context.jobs.finish(job.id, attempt, { state: 'succeeded', result: { file } });
      return { id: job.id, file };
    };
    const exportsLeft = () => readdirSync(join(server.dir, 'exports'));
    const [one, two] = [await make(), await make()];
    await collect(context, NOW);
    expect(exportsLeft().sort()).toEqual([one.file, two.file].sort());
    expect((await request(`/api/jobs/${one.id}`, { method: 'DELETE' })).status).toBe(200);
    expect(exportsLeft()).toEqual([two.file]);
    expect((await request(`/api/jobs/exports/of/${piece.id}`)).body.jobs).toHaveLength(1);
    await request(`/api/pieces/${piece.id}`, { method: 'DELETE' });
    await collect(context, KEEP_DELETED);
    expect(exportsLeft()).toEqual([two.file]);
    await collect(context, NOW);
    expect(exportsLeft()).toEqual([]);
  });
});

describe('a list of ten thousand pieces', () => {
  it('is answered from summaries alone: pages, search and order, without a document being read', async () => {
    const { context, request } = server;
    const piece = newPiece('Harbour');
    await request('/api/pieces', json('POST', { piece }));
    await context.source.query(
      `INSERT INTO piece (id, name, document, revision, updated_at, owner, duration, layer_count, formats, lead_format_id, frame_rate, beats, poster, is_summarised, search_text)
       SELECT 'many-' || i, CASE WHEN i % 100 = 0 THEN 'Kite 100% ' || i ELSE 'Harbour ' || i END, '"not a document"'::jsonb, 1, now() - make_interval(secs => i), owner, i % 600, layer_count, formats, lead_format_id, frame_rate, beats, poster, true, lower(CASE WHEN i % 100 = 0 THEN 'Kite 100% ' || i ELSE 'Harbour ' || i END)
       FROM piece, generate_series(1, 10000) i WHERE id = $1`,
      [piece.id],
    );
    const page = (await request('/api/pieces?limit=48')).body as unknown as {
      pieces: { name: string }[];
      total: number;
    };
    expect(page.pieces).toHaveLength(48);
    expect(page.total).toBeGreaterThanOrEqual(10_000);
    const found = (await request('/api/pieces?search=100%25%20kite&order=name&offset=90')).body as unknown as {
      pieces: { name: string }[];
      total: number;
    };
    expect([found.total, found.pieces.length]).toEqual([100, 10]);
    const longest = (await request('/api/pieces?order=length&limit=3')).body.pieces as { duration: number }[];
    expect(longest.map((p) => p.duration)).toEqual([599, 599, 599]);
    await context.source.query(`DELETE FROM piece WHERE id LIKE 'many-%'`);
  });
});
