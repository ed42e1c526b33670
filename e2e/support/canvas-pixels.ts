import type { Page } from '@playwright/test';

/** All pixels of the canvas on a page, RGBA. */
export async function pixelsOf(page: Page): Promise<Buffer> {
  const base64 = await page.locator('canvas').evaluate((element) => {
    const canvas = element as HTMLCanvasElement;
    const copy = new OffscreenCanvas(canvas.width, canvas.height).getContext('2d', { willReadFrequently: true });
    if (!copy) throw new Error('no canvas');
    copy.drawImage(canvas, 0, 0);
    const { data } = copy.getImageData(0, 0, canvas.width, canvas.height);
    let text = '';
    for (let i = 0; i < data.length; i += 8192) text += String.fromCharCode(...data.subarray(i, i + 8192));
    return btoa(text);
  });
  return Buffer.from(base64, 'base64');
}
