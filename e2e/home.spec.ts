import { writeFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { expect, test } from '@playwright/test';
import { appUrl, newPiece, storedPiece, workFile } from './support/app';

test('the demo is there, pieces are found, sorted, duplicated, renamed, deleted and brought back', async ({ page }) => {
  await page.goto(appUrl());
  await expect(page.getByRole('article', { name: 'Nine days of wind' })).toBeVisible();
  await expect(page.getByRole('article', { name: 'A question for the wind' })).toBeVisible();
  await expect(page.getByRole('article', { name: 'Nine days of wind' }).locator('img')).toHaveJSProperty(
    'complete',
    true,
  );
  await page.getByLabel('Search pieces').fill('question');
  await expect(page.getByRole('article')).toHaveCount(1);
  await page.getByRole('button', { name: 'Duplicate A question for the wind' }).click();
  await expect(page.getByRole('article', { name: 'A question for the wind copy' })).toBeVisible();
  await page.getByRole('button', { name: 'Rename A question for the wind copy' }).click();
  await page.getByLabel('Piece name').fill('Another question');
  await page.getByLabel('Piece name').press('Enter');
  await expect(page.getByRole('article', { name: 'Another question' })).toBeVisible();
  await page.getByLabel('Sort by').selectOption('name');
  await expect(page.getByRole('article').first()).toHaveAccessibleName('A question for the wind');
  await page.getByRole('button', { name: 'Delete Another question' }).click();
  await expect(page.getByRole('article', { name: 'Another question' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('article', { name: 'Another question' })).toBeVisible();
  await page.getByRole('button', { name: 'Delete Another question' }).click();
});

test('a piece is kept as a file and opened again; a broken file says what is wrong', async ({ page }) => {
  const id = await newPiece(page, 'Keepsake', { rate: '25' });
  await page.keyboard.press('t');
  await page.getByLabel('Text on canvas').fill('Oona Castell');
  await page.keyboard.press('Escape');
  const original = await storedPiece(page, id);
  await page.getByRole('navigation', { name: 'Panels' }).getByRole('button', { name: 'Export' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save project file' }).click();
  const file = workFile('keepsake.estrella');
  await (await download).saveAs(file);
  await page.goto(appUrl());
  await page.getByLabel('Project file').setInputFiles(file);
  await expect(page.getByRole('group', { name: 'Oona Castell' })).toBeVisible();
  const opened = await storedPiece(page, new URL(page.url()).pathname.split('/').pop() ?? '');
  expect({ ...opened, id: '' }).toEqual({ ...original, id: '' });
  await page.goto(appUrl());
  writeFileSync(workFile('broken.estrella'), 'not a zip');
  await page.getByLabel('Project file').setInputFiles(workFile('broken.estrella'));
  await expect(page.getByText(/isn’t an Estrella project/)).toBeVisible();
});

test('a custom frame outside the limits is refused before anything is made', async ({ page }) => {
  await page.goto(appUrl());
  await page.getByRole('button', { name: 'New piece' }).click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Custom/ })
    .click();
  await page.getByLabel('Width in pixels').fill('5000');
  await page.getByRole('button', { name: 'Create' }).click();
  await expect(page.getByRole('alert')).toHaveText(/from 16 to 4096/);
});

test('the home loads under 200 kB of script, gzipped', async ({ page }) => {
  const sizes: Promise<number>[] = [];
  page.on('response', (response) => {
    if (/\.js(\?|$)/.test(response.url())) sizes.push(response.body().then((body) => gzipSync(body).length));
  });
  await page.goto(appUrl(), { waitUntil: 'networkidle' });
  await expect(page.getByRole('article', { name: 'Nine days of wind' })).toBeVisible();
  const total = (await Promise.all(sizes)).reduce((sum, size) => sum + size, 0);
  console.log(`the home: ${(total / 1000).toFixed(0)} kB of script, gzipped`);
  expect(total).toBeLessThan(200_000);
  expect(total).toBeGreaterThan(50_000);
});
