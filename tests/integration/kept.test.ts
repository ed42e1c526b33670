import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { MOST_KEPT, createPiece, writeWithin } from '@core/piece';
import type { KeptWardrobe } from '@core/piece';
import { FRAME_RATES } from '@core/time';
import { collect } from '../../server/jobs/collect';
import { countingIds } from '../helpers/documents';
import { json, openTestServer } from '../helpers/server';
import type { TestServer } from '../helpers/server';

let server: TestServer;
beforeAll(async () => {
  server = await openTestServer();
});
afterAll(() => server?.close());

const wardrobe = (ground: string) => ({ colours: { ground }, fonts: { display: 'fraunces' }, logos: {} });
const keep = (name: string, body: object) => server.request('/api/kept/wardrobes', json('POST', { name, body }));
const list = async () =>
  ((await server.request('/api/kept/wardrobes')).body as { wardrobes: KeptWardrobe[] }).wardrobes;

describe('what is kept for all pieces', () => {
  it('has a version by its name, is listed newest first, and can be forgotten', async () => {
    await keep('Harbour', { wardrobe: wardrobe('#11151b') });
    await keep('Night', { wardrobe: wardrobe('#000000') });
    const again = await keep('Harbour', { wardrobe: wardrobe('#143749') });
    expect(again.body).toMatchObject({ version: 2 });
    const kept = await list();
    expect(kept.map(({ name, version }) => [name, version])).toEqual([
      ['Harbour', 2],
      ['Night', 1],
    ]);
    expect(kept[0]!.body.wardrobe.colours.ground).toBe('#143749');
    await server.request(`/api/kept/wardrobes/${kept[1]!.id}`, json('DELETE', {}));
    expect((await list()).map(({ name }) => name)).toEqual(['Harbour']);
  });
  it('takes nothing that is no wardrobe', async () => {
    for (const body of [
      {},
      { wardrobe: { colours: { ground: 'url(x)' } } },
      { wardrobe: wardrobe('#000000'), more: 1 },
    ])
      expect((await keep('Bad', body)).status).toBe(400);
    expect((await keep('', { wardrobe: wardrobe('#000000') })).status).toBe(400);
  });
  it('has a bound, which is told', async () => {
    const there = (await list()).length;
    const { kept } = server.context;
    for (let i = there; i < MOST_KEPT; i++)
      await kept.keep('local', 'wardrobe', `W${i}`, { wardrobe: wardrobe('#000000') });
    expect((await keep('One more', { wardrobe: wardrobe('#000000') })).body).toMatchObject({
      error: { code: 'KEPT_FULL' },
    });
    // A next version of one that is there fits.
    expect((await keep('Harbour', { wardrobe: wardrobe('#000000') })).status).toBe(201);
  });
  it('holds the files of its logos', async () => {
    const piece = createPiece(
      { name: 'Mark', formats: [{ id: 'f', name: 'F', width: 64, height: 64 }], frameRate: FRAME_RATES['30'] },
      countingIds(),
    );
    const file = (name: string) =>
      server.request('/api/media?name=x.json', {
        method: 'POST',
        body: writeWithin({ piece: { ...piece, name }, analysis: null }),
      });
    const [held, free] = [await file('held'), await file('free')].map(
      ({ body }) => (body as { media: { hash: string; kind: string; id: string; name: string } }).media,
    );
    expect(held).toMatchObject({ kind: 'piece', width: 64, height: 64 });
    const { id, hash, kind, name } = held!;
    await keep('Harbour', {
      wardrobe: { ...wardrobe('#000000'), logos: { mark: id } },
      media: [{ id, hash, kind, name }],
    });
    await collect(server.context, { deletedPiece: 0, media: -1, file: 0, job: 0 });
    expect(await server.context.media.find(hash)).not.toBeNull();
    expect(await server.context.media.find(free!.hash)).toBeNull();
  });
  it('a damaged piece within is refused, and nothing of it is kept', async () => {
    const sent = await server.request('/api/media?name=x.json', {
      method: 'POST',
      body: '{"estrella":"piece-within","piece":{"version":6}}',
    });
    expect(sent.status).toBe(422);
    expect(sent.body).toMatchObject({ error: { code: 'PIECE_INVALID' } });
  });
});
