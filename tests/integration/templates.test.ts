import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Piece } from '@core/piece';
import { SHIPPED_TEMPLATES } from '@core/templates';
import { json, openTestServer } from '../helpers/server';
import type { TestServer } from '../helpers/server';

let server: TestServer;
beforeAll(async () => {
  server = await openTestServer();
});
afterAll(() => server?.close());

const keep = (piece: unknown) => server.request('/api/kept/templates', json('POST', { piece }));
const list = async () => ((await server.request('/api/kept/templates')).body as { templates: Piece[] }).templates;
const post = (bytes: ArrayBuffer | string) =>
  server.request('/api/kept/templates/import', { method: 'POST', body: bytes });
const [quayside] = SHIPPED_TEMPLATES;

describe('templates kept for all pieces', () => {
  it('are documents with the id and the version under which they are kept', async () => {
    expect((await keep(quayside)).body).toMatchObject({ version: 1 });
    const again = (await keep(quayside)).body as { id: string; version: number };
    expect(again.version).toBe(2);
    const [kept, ...more] = await list();
    expect(more).toEqual([]);
    expect(kept).toMatchObject({ id: again.id, name: quayside!.name, template: { version: 2 } });
    expect(kept!.layers).toEqual(quayside!.layers);
  });
  it('go out as a file and come in again as the next version', async () => {
    const [kept] = await list();
    const file = await server.app.fetch(new Request(`http://127.0.0.1/api/kept/templates/${kept!.id}/file`));
    expect(file.headers.get('content-disposition')).toContain('.estrella');
    const bytes = await file.arrayBuffer();
    expect((await post(bytes)).body).toMatchObject({ id: kept!.id, version: 3 });
    expect((await server.request('/api/kept/templates/none/file')).status).toBe(404);
  });
  it('are nothing but templates', async () => {
    const plain = await keep({ ...quayside, template: null });
    expect(plain.status).toBe(422);
    expect((await keep({ version: 1 })).status).toBe(400);
    expect((await post('no')).status).toBeGreaterThan(399);
  });
  it('can be forgotten', async () => {
    const [kept] = await list();
    await server.request(`/api/kept/templates/${kept!.id}`, json('DELETE', {}));
    expect(await list()).toEqual([]);
  });
});
