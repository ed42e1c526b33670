import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { addShape, appUrl, newPiece, storedPiece, timeline, waitSaved } from './support/app';

const layersOnServer = async (page: Page, id: string) =>
  (
    (await (await page.request.get(`${appUrl()}/api/pieces/${id}`)).json()) as { piece: { layers: { name: string }[] } }
  ).piece.layers.map((l) => l.name);

test('the last edit before leaving by a link is sent, and so is one before the tab is closed', async ({ context }) => {
  const page = await context.newPage();
  const id = await newPiece(page, 'Leaving');
  await addShape(page, 'Rectangle');
  await page.getByRole('link', { name: 'All pieces' }).click();
  await expect(page.getByRole('heading', { name: 'Pieces' })).toBeVisible();
  await expect.poll(() => layersOnServer(page, id)).toEqual(['Rectangle']);
  await page.goto(`${appUrl()}/piece/${id}`);
  await addShape(page, 'Ellipse');
  await page.close({ runBeforeUnload: true });
  const home = await context.newPage();
  await home.goto(appUrl());
  await expect.poll(() => layersOnServer(home, id)).toEqual(['Rectangle', 'Ellipse']);
});

test('two tabs of one browser with the server away: each keeps its own edits, and none is lost when it is back', async ({
  context,
}) => {
  const one = await context.newPage();
  const id = await newPiece(one, 'Side by side');
  await waitSaved(one);
  const two = await context.newPage();
  await two.goto(`${appUrl()}/piece/${id}`);
  await expect(timeline(two)).toBeVisible();
  await expect(two.getByText('also open in another tab')).toBeVisible();
  await context.route('**/api/**', (route) => route.abort());
  await addShape(one, 'Rectangle');
  await addShape(two, 'Ellipse');
  await expect(one.getByRole('status', { name: 'Saving' })).toHaveText('Offline, changes saved here');
  await expect(two.getByRole('status', { name: 'Saving' })).toHaveText('Offline, changes saved here');
  await context.unroute('**/api/**');
  // Whoever is first is saved; the other is asked, with everything still there.
  await expect.poll(async () => (await layersOnServer(one, id)).length).toBe(1);
  const [first] = await layersOnServer(one, id);
  const second = first === 'Rectangle' ? two : one;
  const held = first === 'Rectangle' ? 'Ellipse' : 'Rectangle';
  await expect(second.getByText('Conflict: two versions of this piece')).toBeVisible();
  await second.reload();
  await expect(second.getByText('Conflict: two versions of this piece')).toBeVisible();
  await second.getByRole('button', { name: 'Save both: mine as a new piece' }).click();
  await expect(second).not.toHaveURL(new RegExp(`${id}$`));
  await expect(second.getByRole('group', { name: held })).toBeVisible();
  expect(await layersOnServer(one, id)).toEqual([first]);
});

test('a version held in a conflict survives the tab, and is offered when the piece is opened again', async ({
  context,
}) => {
  const one = await context.newPage();
  const id = await newPiece(one, 'Held');
  await waitSaved(one);
  const two = await context.newPage();
  await two.goto(`${appUrl()}/piece/${id}`);
  // It has the piece as it was before the other one's edit.
  await expect(timeline(two)).toBeVisible();
  await addShape(one, 'Rectangle');
  await waitSaved(one);
  await addShape(two, 'Ellipse');
  await expect(two.getByText('Conflict: two versions of this piece')).toBeVisible();
  await two.close();
  await one.reload();
  await expect(one.getByText('Unsaved edits from a closed tab')).toBeVisible();
  await one.getByRole('button', { name: 'Save as new piece' }).click();
  await expect(one).not.toHaveURL(new RegExp(`${id}$`));
  await expect(one.getByRole('group', { name: 'Ellipse' })).toBeVisible();
  expect(await layersOnServer(one, id)).toEqual(['Rectangle']);
});

test('a save answered with half a body does not end saving', async ({ page }) => {
  const id = await newPiece(page, 'Half');
  let broken = 0;
  await page.route(`**/api/pieces/${id}`, async (route) => {
    if (route.request().method() !== 'PUT' || broken++ > 0) return route.continue();
    await route.fetch();
    await route.fulfill({ status: 200, contentType: 'application/json', body: '{"revision": 2, "upd' });
  });
  await addShape(page, 'Rectangle');
  await expect(page.getByRole('status', { name: 'Saving' })).toHaveText('Offline, changes saved here');
  await waitSaved(page);
  await addShape(page, 'Ellipse');
  expect((await storedPiece(page, id)).layers.map((l) => l.name)).toEqual(['Rectangle', 'Ellipse']);
});

test('a browser without storage works, and says that it keeps no copy', async ({ browser }) => {
  const context = await browser.newContext();
  await context.addInitScript(() => {
    Object.defineProperty(window, 'indexedDB', {
      get: () => {
        throw new DOMException('closed', 'SecurityError');
      },
    });
    for (const name of ['localStorage', 'sessionStorage'])
      Object.defineProperty(window, name, {
        get: () => {
          throw new DOMException('closed', 'SecurityError');
        },
      });
  });
  const page = await context.newPage();
  const id = await newPiece(page, 'No storage');
  await addShape(page, 'Rectangle');
  expect((await storedPiece(page, id)).layers).toHaveLength(1);
  await expect(page.getByRole('status', { name: 'Saving' })).toHaveAttribute('title', /can’t store a copy/);
  await context.close();
});

test('a piece that cannot be shown offers ways out, and an unknown address leads home', async ({ page }) => {
  const id = await newPiece(page, 'Broken');
  await addShape(page, 'Rectangle');
  await waitSaved(page);
  await page.getByRole('link', { name: 'All pieces' }).click();
  await page.route(`**/api/pieces/${id}`, async (route) => {
    if (route.request().method() !== 'GET') return route.continue();
    const answer = await route.fetch();
    const body = (await answer.json()) as { piece: { layers: { name: unknown }[] } };
    const [first] = body.piece.layers;
    if (first) first.name = { not: 'a name' };
    await route.fulfill({ response: answer, json: body });
  });
  await page.goto(`${appUrl()}/piece/${id}`);
  await expect(page.getByRole('heading', { name: /^This piece can’t be shown \(layers\.0\.name/ })).toBeVisible();
  await page.getByRole('button', { name: 'Earlier revisions' }).click();
  await page.getByRole('button', { name: /^Revision 1: / }).click();
  await expect(timeline(page)).toBeVisible();
  await page.goto(`${appUrl()}/piece/nobody-has-this`);
  await expect(page.getByText('no longer exists')).toBeVisible();
  await page.goto(`${appUrl()}/nowhere`);
  await expect(page.getByRole('heading', { name: 'Page not found' })).toBeVisible();
  await page.getByRole('link', { name: 'Go to all pieces' }).click();
  await expect(page.getByRole('heading', { name: 'Pieces' })).toBeVisible();
});

test('a large song comes in resumably: chunks that get lost are sent again', async ({ page }) => {
  await newPiece(page, 'Large');
  let lost = 0;
  await page.route('**/api/uploads/**', (route) =>
    route.request().method() === 'PATCH' && lost++ === 1 ? route.abort() : route.continue(),
  );
  // Three and a half minutes of stereo: more than is sent in one go.
  const seconds = 210;
  const bytes = Buffer.alloc(44 + seconds * 44100 * 2);
  bytes.write('RIFF', 0);
  bytes.writeUInt32LE(bytes.length - 8, 4);
  bytes.write('WAVEfmt ', 8);
  bytes.writeUInt32LE(16, 16);
  bytes.writeUInt16LE(1, 20);
  bytes.writeUInt16LE(1, 22);
  bytes.writeUInt32LE(44100, 24);
  bytes.writeUInt32LE(88200, 28);
  bytes.writeUInt16LE(2, 32);
  bytes.writeUInt16LE(16, 34);
  bytes.write('data', 36);
  bytes.writeUInt32LE(bytes.length - 44, 40);
  for (let beat = 0; beat < seconds * 2; beat++)
    for (let i = 0; i < 400; i++)
      bytes.writeInt16LE(Math.round(20000 * Math.sin(i / 4) * Math.exp(-i / 120)), 44 + (beat * 22050 + i) * 2);
  await page.getByLabel('Import song').setInputFiles({ name: 'long.wav', mimeType: 'audio/wav', buffer: bytes });
  await expect(page.getByText('Imported long.wav')).toBeVisible({ timeout: 120_000 });
  expect(lost).toBeGreaterThan(2);
});
