import { expect, test } from '@playwright/test';
import { newPiece, storedPiece, waitSaved } from './support/app';

/** One piece in several frame sizes. */

type Differing = { overrides: Record<string, { move: number[]; scale: number }> };

test('a layout is adapted to another frame in one step, and taken back in one', async ({ page }) => {
  const id = await newPiece(page, 'Two frames');
  await page.keyboard.press('t');
  await page.keyboard.type('Nine days of wind');
  await page.keyboard.press('Escape');
  const adapt = page.getByRole('button', { name: 'Adapt the layout to this frame' });
  await expect(adapt).toHaveCount(0);
  await page.getByLabel('Add a format').selectOption('tall');
  await adapt.click();
  await expect(page.getByText('The layout is adapted to Tall')).toBeVisible();
  await waitSaved(page);
  const [words] = (await storedPiece(page, id)).layers as unknown as Differing[];
  expect(words!.overrides.tall!.scale).toBeGreaterThan(1.2);

  await adapt.click();
  await expect(page.getByText('Nothing in Tall needs another place')).toBeVisible();
  await page.keyboard.press('Control+Z');
  await waitSaved(page);
  expect(((await storedPiece(page, id)).layers as unknown as Differing[])[0]!.overrides).toEqual({});
});

test('all frames stand side by side, play together, and each can be edited', async ({ page }) => {
  await newPiece(page, 'Side by side');
  await page.getByLabel('Add a format').selectOption('tall');
  await page.getByLabel('Add a format').selectOption('square');
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
