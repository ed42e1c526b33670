import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { appUrl, workFile } from './support/app';
import { SCENE_NAMES, parityPieceFile } from './support/parity-piece';

/** What a frame differs by, of 0 to 255 a channel. */
interface Difference {
  mean: number;
  worst: number;
  /** The share of pixels that differ by more than 8. */
  off: number;
  /** The share of pixels that are not the empty background. */
  lit: number;
}

function difference(browser: Buffer, server: Buffer): Difference {
  let sum = 0;
  let off = 0;
  let worst = 0;
  let lit = 0;
  for (let i = 0; i < server.length; i += 4) {
    let pixel = 0;
    for (let k = 0; k < 3; k++) {
      const d = Math.abs(server[i + k]! - browser[i + k]!);
      sum += d;
      pixel = Math.max(pixel, d);
    }
    if (pixel > 8) off++;
    worst = Math.max(worst, pixel);
    if (server[i] !== 0x11 || server[i + 1] !== 0x15) lit++;
  }
  const pixels = server.length / 4;
  return { mean: sum / pixels / 3, worst, off: off / pixels, lit: lit / pixels };
}

/** Shows another moment on the page that is open: fonts and pictures stay loaded. */
async function paintedInBrowser(page: Page, at: number): Promise<Buffer> {
  await page.evaluate((seconds) => {
    history.pushState(null, '', `?at=${seconds}`);
    dispatchEvent(new PopStateEvent('popstate'));
  }, at);
  const canvas = page.locator(`canvas[data-state="painted"][data-at="${at}"]`);
  const base64 = await canvas.evaluate((element: HTMLCanvasElement) => {
    const { data } = element.getContext('2d')!.getImageData(0, 0, element.width, element.height);
    let text = '';
    for (let i = 0; i < data.length; i += 8192) text += String.fromCharCode(...data.subarray(i, i + 8192));
    return btoa(text);
  });
  return Buffer.from(base64, 'base64');
}

async function readPixels(png: string): Promise<Buffer> {
  const image = await loadImage(png);
  const target = createCanvas(image.width, image.height);
  target.getContext('2d').drawImage(image, 0, 0);
  return target.data();
}

/** Scenes that are compared in one test. */
const AT_ONCE = 7;

/** The same frames painted in Chromium and on the server: what you see is what is rendered. */
for (let first = 0; first < SCENE_NAMES.length; first += AT_ONCE) {
  const names = SCENE_NAMES.slice(first, first + AT_ONCE);
  test(`browser and server paint the same pixels, scenes ${first + 1} to ${first + names.length}`, async ({ page }) => {
    const file = workFile('parity.estrella');
    writeFileSync(file, parityPieceFile());
    const made = await page.request.post(`${appUrl()}/api/pieces/import`, { data: readFileSync(file) });
    const { id } = (await made.json()) as { id: string };
    const times = names.map((_, index) => first + index + 0.5);
    const png = (index: number) => workFile(`parity-${first}-${index + 1}.png`);
    execFileSync(process.execPath, [
      ...['dist/server/cli.js', 'frame', file, '--at', times.join(',')],
      ...['--out', workFile(`parity-${first}.png`)],
    ]);
    await page.goto(`${appUrl()}/frame/${id}?at=${times[0]}`);
    await expect(page.locator('canvas')).toHaveAttribute('data-state', 'painted');
    for (const [index, name] of names.entries()) {
      const browser = await paintedInBrowser(page, times[index]!);
      const server = await readPixels(png(index));
      expect(browser.length).toBe(server.length);
      const { mean, worst, off, lit } = difference(browser, server);
      console.log(`${name}: mean ${mean.toFixed(4)}, ${(100 * off).toFixed(4)} % over 8, worst ${worst}`);
      expect(lit, `${name} shows something`).toBeGreaterThan(0.02);
      expect(mean, name).toBeLessThan(1);
      expect(off, name).toBeLessThan(0.005);
    }
  });
}
