import { createCanvas, loadImage } from '@napi-rs/canvas';
import { expect, test } from '@playwright/test';
import { newPiece, storedPiece, waitSaved } from './support/app';

/** One piece in several frame sizes. */

type Differing = { overrides: Record<string, { move: number[]; scale: number }> };

test('a layout is adapted to another frame in one step, and taken back in one', async ({ page }) => {
  const id = await newPiece(page, 'Two frames');
  await page.keyboard.press('t');
  await page.keyboard.type('Nine days of wind');
  await page.keyboard.press('Escape');
  const adapt = page.getByRole('button', { name: 'Adapt layout to this frame' });
  await expect(adapt).toHaveCount(0);
  await page.getByLabel('Add format').selectOption('tall');
  await adapt.click();
  await expect(page.getByText('Adapted the layout to Tall')).toBeVisible();
  await waitSaved(page);
  const [words] = (await storedPiece(page, id)).layers as unknown as Differing[];
  expect(words!.overrides.tall!.scale).toBeGreaterThan(1.2);

  await adapt.click();
  await expect(page.getByText('The layout already fits Tall')).toBeVisible();
  await page.keyboard.press('Control+Z');
  await waitSaved(page);
  expect(((await storedPiece(page, id)).layers as unknown as Differing[])[0]!.overrides).toEqual({});
});

test('all frames stand side by side, play together, and each can be edited', async ({ page }) => {
  await newPiece(page, 'Side by side');
  await page.getByLabel('Add format').selectOption('tall');
  await page.getByLabel('Add format').selectOption('square');
  await page.getByRole('button', { name: 'Wide', exact: true }).click();
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Rectangle', exact: true }).click();
  await page.getByRole('button', { name: 'All frames side by side' }).click();
  const others = page.getByRole('group', { name: 'Other frames' });
  await expect(others.getByRole('button')).toHaveCount(2);
  /** The colour in the middle of a picture. */
  const middle = (name: string): Promise<number[]> =>
    others
      .getByRole('button', { name })
      .locator('canvas')
      .evaluate((canvas: HTMLCanvasElement) => [
        ...canvas.getContext('2d')!.getImageData(canvas.width / 2, canvas.height / 2, 1, 1).data,
      ]);
  await expect.poll(() => middle('Show Tall')).toEqual([255, 183, 74, 255]);
  await expect.poll(() => middle('Show Square')).toEqual([255, 183, 74, 255]);
  // Beyond the end of the rectangle there is nothing in any of them.
  await page.keyboard.press('End');
  await page.keyboard.press('ArrowLeft');
  await expect.poll(() => middle('Show Tall')).toEqual([17, 21, 27, 255]);
  await others.getByRole('button', { name: 'Show Tall' }).click();
  await expect(page.getByRole('button', { name: 'Tall', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await expect(others.getByRole('button', { name: 'Show Wide' })).toBeVisible();
});

/** A picture of dusk with one bright thing far on the right. */
function harbourPicture(): Buffer {
  const canvas = createCanvas(1600, 900);
  const g = canvas.getContext('2d');
  const dusk = g.createLinearGradient(0, 0, 0, 900);
  dusk.addColorStop(0, '#2A3550');
  dusk.addColorStop(1, '#182030');
  g.fillStyle = dusk;
  g.fillRect(0, 0, 1600, 900);
  g.fillStyle = '#FF7A2A';
  g.beginPath();
  g.arc(1360, 450, 90, 0, 2 * Math.PI);
  g.fill();
  return canvas.toBuffer('image/png');
}

test('a picture that fills the frame is framed anew by its subject in a tall frame, in one step', async ({ page }) => {
  const id = await newPiece(page, 'Harbour');
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page
    .getByLabel('Import picture, clip or logo')
    .setInputFiles({ name: 'harbour.png', mimeType: 'image/png', buffer: harbourPicture() });
  const framing = page.getByRole('region', { name: 'Framing' });
  await framing.getByRole('button', { name: 'Fill frame' }).click();
  await page.getByLabel('Add format').selectOption('tall');
  type Framed = {
    content: { fit: string };
    overrides: Record<string, { tracks?: { focus?: { value: [number, number] } } }>;
  };
  const picture = async (): Promise<Framed> => {
    await waitSaved(page);
    return (await storedPiece(page, id)).layers[0] as unknown as Framed;
  };
  await framing.getByRole('button', { name: 'Find subject' }).click();
  await expect.poll(async () => (await picture()).overrides.tall?.tracks?.focus?.value[0] ?? 0).toBeGreaterThan(0.75);
  // What is painted shows it.
  const orange = async (): Promise<number> => {
    const image = await loadImage(await page.getByTestId('canvas').screenshot());
    const context = createCanvas(image.width, image.height).getContext('2d');
    context.drawImage(image, 0, 0);
    const { data } = context.getImageData(0, 0, image.width, image.height);
    let count = 0;
    for (let i = 0; i < data.length; i += 4)
      if (data[i]! > 230 && data[i + 1]! > 90 && data[i + 1]! < 150 && data[i + 2]! < 70) count++;
    return count;
  };
  await expect.poll(orange).toBeGreaterThan(50);
  await page.keyboard.press('Control+Z');
  expect((await picture()).overrides.tall?.tracks?.focus).toBeUndefined();
  await expect.poll(orange).toBe(0);
});
