import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { newPiece, storedPiece } from './support/app';

const formatsOf = async (page: Page, id: string): Promise<string[]> =>
  ((await storedPiece(page, id)) as unknown as { formats: { name: string }[] }).formats.map((f) => f.name);

test('formats are sorted by pointer and by keyboard', async ({ page }) => {
  const id = await newPiece(page, 'Sorted');
  const formats = page.getByRole('navigation', { name: 'Formats' });
  await page.getByLabel('Add format').selectOption({ label: 'Tall phone' });
  await page.getByLabel('Add format').selectOption({ label: 'Square' });
  await expect.poll(() => formatsOf(page, id)).toEqual(['Wide', 'Tall', 'Square']);
  await formats.getByRole('button', { name: 'Square' }).focus();
  await page.keyboard.press('Alt+ArrowLeft');
  await expect.poll(() => formatsOf(page, id)).toEqual(['Wide', 'Square', 'Tall']);
  const from = (await formats.getByRole('button', { name: 'Tall' }).boundingBox())!;
  const to = (await formats.getByRole('button', { name: 'Wide' }).boundingBox())!;
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(from.x, from.y + from.height / 2, { steps: 4 });
  await page.mouse.move(to.x + 6, to.y + to.height / 2, { steps: 8 });
  await page.mouse.up();
  await expect.poll(() => formatsOf(page, id)).toEqual(['Tall', 'Wide', 'Square']);
  // The one that leads still does.
  await expect(formats.getByRole('button', { name: 'Wide' })).toHaveAttribute('title', /lead format/);
  await page.keyboard.press('Control+z');
  await expect.poll(() => formatsOf(page, id)).toEqual(['Wide', 'Square', 'Tall']);
});

test('phrases are put into another order by keyboard and take the times there are', async ({ page }) => {
  const id = await newPiece(page, 'Phrases');
  await page.getByRole('button', { name: 'Words', exact: true }).click();
  await page.getByLabel('Quote', { exact: true }).fill('We let the string out. The harbour fell away.');
  await page.getByRole('button', { name: 'Place on beats' }).click();
  const said = async (): Promise<string[]> =>
    (
      (await storedPiece(page, id)).layers as unknown as {
        content: { text: string };
        start: { seconds?: number; last?: number };
      }[]
    )
      .map((layer) => ({ text: layer.content.text, at: layer.start.seconds ?? layer.start.last ?? 0 }))
      .sort((a, b) => a.at - b.at)
      .map((phrase) => phrase.text);
  await expect.poll(said).toEqual(['We let the string out.', 'The harbour fell away.']);
  await page.getByRole('button', { name: 'Move phrase 1' }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByText('Now at position 1 of 2')).toBeAttached();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByText('Now at position 2 of 2')).toBeAttached();
  await page.keyboard.press('Space');
  await expect.poll(said).toEqual(['The harbour fell away.', 'We let the string out.']);
  // One that keeps its time neither moves nor is passed.
  await page.getByRole('button', { name: 'Lock timing' }).first().click();
  await page.getByRole('button', { name: 'Move phrase 2' }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByText('Now at position 2 of 2')).toBeAttached();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByText('Now at position 1 of 2')).toBeAttached();
  await page.keyboard.press('Space');
  await expect(page.getByText(/has locked timing/)).toBeVisible();
  expect(await said()).toEqual(['The harbour fell away.', 'We let the string out.']);
});
