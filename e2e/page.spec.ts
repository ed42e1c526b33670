import { readFileSync, writeFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { gunzipSync } from 'node:zlib';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { PAGE_DATA_ID } from '@core/formats';
import { appUrl, soundOf, testFile, workFile } from './support/app';
import type { StoredPiece } from './support/app';
import { pixelsOf } from './support/canvas-pixels';
import { lagOf } from './support/sound';

/** The largest difference of a channel, and how many channels differ. */
function difference(a: Buffer, b: Buffer): { worst: number; count: number } {
  let [worst, count] = [a.length === b.length ? 0 : 255, 0];
  for (let i = 0; i < a.length; i++) {
    const off = Math.abs(a[i]! - b[i]!);
    if (off > 0) count++;
    if (off > worst) worst = off;
  }
  return { worst, count };
}

/** The sound that a page holds, mono, as a browser decodes it. */
async function soundOfPage(page: Page, html: string): Promise<Float32Array> {
  const packed = new RegExp(`id="${PAGE_DATA_ID}">([^<]*)<`).exec(html)![1]!;
  const { sound } = JSON.parse(gunzipSync(Buffer.from(packed, 'base64')).toString()) as { sound: string };
  const samples = await page.evaluate(async (base64) => {
    const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
    const buffer = await new OfflineAudioContext(1, 1, 48000).decodeAudioData(bytes.buffer);
    const [left, right] = [buffer.getChannelData(0), buffer.getChannelData(1)];
    return Array.from(left, (value, i) => (value + right[i]!) / 2);
  }, sound);
  return Float32Array.from(samples);
}

test('a page plays a piece by itself, without any network, as the app paints it', async ({ page, browser }) => {
  const headers = { origin: appUrl() };
  const opened = await page.request.post(`${appUrl()}/api/pieces/import`, {
    headers,
    data: readFileSync(testFile('demo-kite-maker.estrella')),
  });
  expect(opened.status(), await opened.text()).toBe(201);
  const { id } = (await opened.json()) as { id: string };
  const stored = await page.request.get(`${appUrl()}/api/pieces/${id}`);
  const { piece } = (await stored.json()) as {
    piece: StoredPiece & { id: string; leadFormatId: string; media: { id: string; hash: string }[] };
  };
  const song = piece.media.find((one) => one.id === piece.music?.mediaId)?.hash ?? '';
  await expect
    .poll(async () => (await page.request.get(`${appUrl()}/api/media/${song}/analysis`)).status(), { timeout: 90_000 })
    .toBe(200);
  const exported = async (kind: string, name: string): Promise<string> => {
    const made = await page.request.post(`${appUrl()}/api/jobs/exports`, {
      headers,
      data: { pieceId: piece.id, formatId: piece.leadFormatId, kind, excerpt: { from: 1, to: 4 } },
    });
    expect(made.status(), await made.text()).toBe(201);
    const job = `${appUrl()}/api/jobs/${((await made.json()) as { id: string }).id}`;
    const stateOf = async (): Promise<unknown> =>
      ((await (await page.request.get(job)).json()) as { state: unknown }).state;
    await expect.poll(stateOf, { timeout: 60_000 }).toBe('succeeded');
    const file = workFile(name);
    writeFileSync(file, await (await page.request.get(`${job}/file`)).body());
    return file;
  };
  const file = await exported('html', 'alone.html');

  const context = await browser.newContext({ offline: true, viewport: { width: 960, height: 540 } });
  const alone = await context.newPage();
  const trouble: string[] = [];
  alone.on('request', (request) => {
    if (!/^(file|data|blob):/.test(request.url())) trouble.push(request.url());
  });
  alone.on('pageerror', (error) => trouble.push(String(error)));
  const state = alone.locator('body');
  await alone.goto(pathToFileURL(file).href);
  await expect(alone).toHaveTitle(piece.name);
  await expect(state).toHaveAttribute('data-state', 'shown');
  await alone.keyboard.press('ArrowRight');
  await expect(state).toHaveAttribute('data-frame', '1');
  await alone.keyboard.press('End');
  await expect(state).toHaveAttribute('data-frame', '89');
  await alone.keyboard.press('Shift+ArrowLeft');
  await expect(state).toHaveAttribute('data-frame', '59');

  // Its sound is decoded to the place where the sound of the piece is.
  const decoded = await soundOfPage(alone, readFileSync(file, 'utf8'));
  const sound = soundOf(await exported('wav', 'alone.wav'));
  expect(decoded.length).toBe(sound.length);
  const lag = lagOf(decoded, 0.5, sound, 0.5);
  console.log(`the page's sound lies ${(lag * 1000).toFixed(2)} ms behind the piece's`);
  expect(Math.abs(lag)).toBeLessThan(0.0002);

  for (const frame of [0, 31, 60, 89]) {
    await alone.goto(`${pathToFileURL(file).href}#frame=${frame}`);
    await expect(state).toHaveAttribute('data-frame', String(frame));
    await page.goto(`${appUrl()}/frame/${piece.id}?at=${1 + (frame + 0.5) / 30}`);
    await expect(page.locator('canvas')).toHaveAttribute('data-state', 'painted');
    const { worst, count } = difference(await pixelsOf(alone), await pixelsOf(page));
    console.log(`frame ${frame}: worst ${worst}, ${count} channels differ`);
    expect(worst, `frame ${frame}`).toBeLessThanOrEqual(1); // times differ in their last digit
  }

  await alone.keyboard.press('Home');
  await alone.getByRole('button', { name: 'Play' }).click();
  await expect(alone.getByRole('button', { name: 'Pause' })).toBeVisible();
  await expect.poll(async () => Number(await state.getAttribute('data-frame'))).toBeGreaterThan(20);
  await alone.keyboard.press(' ');
  await expect(state).toHaveAttribute('data-state', 'shown');
  // Where it stopped it goes on, and at its end it stops by itself.
  const stopped = Number(await state.getAttribute('data-frame'));
  await alone.keyboard.press(' ');
  await expect.poll(async () => Number(await state.getAttribute('data-frame'))).toBeGreaterThan(stopped);
  await expect(state).toHaveAttribute('data-frame', '89');
  await expect(alone.getByRole('button', { name: 'Play' })).toBeVisible();
  if (process.env.ESTRELLA_SHOTS) await alone.screenshot({ path: `${process.env.ESTRELLA_SHOTS}/page.png` });
  expect(trouble).toEqual([]);
  await context.close();
});
