import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { expect, test } from '@playwright/test';
import { appUrl, workFile } from './support/app';
import { SCENE_NAMES, parityPieceFile } from './support/parity-piece';

/** The same frame painted in Chromium and on the server: what you see is what is rendered. */
test('browser and server paint the same pixels in every scene', async ({ page }) => {
  const file = workFile('parity.estrella');
  writeFileSync(file, parityPieceFile());
  const made = await page.request.post(`${appUrl()}/api/pieces/import`, { data: readFileSync(file) });
  const { id } = (await made.json()) as { id: string };
  const report: string[] = [];
  for (const [scene, name] of SCENE_NAMES.entries()) {
    const at = scene + 0.5;
    await page.goto(`${appUrl()}/frame/${id}?at=${at}`);
    const canvas = page.locator('canvas');
    await expect(canvas).toHaveAttribute('data-state', 'painted');
    const base64 = await canvas.evaluate((element: HTMLCanvasElement) => {
      const { data } = element.getContext('2d')!.getImageData(0, 0, element.width, element.height);
      let text = '';
      for (let i = 0; i < data.length; i += 8192) text += String.fromCharCode(...data.subarray(i, i + 8192));
      return btoa(text);
    });
    const browser = Buffer.from(base64, 'base64');
    const png = workFile(`parity-${scene}.png`);
    execFileSync(process.execPath, ['dist/server/cli.js', 'frame', file, '--at', String(at), '--out', png]);
    const image = await loadImage(png);
    const target = createCanvas(image.width, image.height);
    target.getContext('2d').drawImage(image, 0, 0);
    const server = target.data();
    expect(browser.length).toBe(server.length);
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
    report.push(
      `${name}: mean ${(sum / pixels / 3).toFixed(4)}, ${((100 * off) / pixels).toFixed(4)} % over 8, worst ${worst}`,
    );
    expect(lit / pixels, `${name} shows something`).toBeGreaterThan(0.02);
    expect(sum / pixels / 3, name).toBeLessThan(1);
    expect(off / pixels, name).toBeLessThan(0.005);
  }
  console.log(report.join('\n'));
  expect(report.length).toBeGreaterThanOrEqual(12);
});
