import { expect, test } from '@playwright/test';
import { appUrl, newPiece, storedPiece } from './support/app';

test('everything is found by name and by keyboard alone: commands, layers, panels, other pieces', async ({ page }) => {
  await newPiece(page, 'The other one');
  await page.goto(appUrl());
  const id = await newPiece(page, 'Results');
  const search = page.getByRole('combobox', { name: 'Find anything' });
  const ask = async (words: string) => {
    await page.keyboard.press('Control+k');
    await expect(search).toBeFocused();
    await search.fill(words);
  };
  const choose = async () => {
    await page.keyboard.press('Enter');
    await expect(search).toBeHidden();
  };
  await ask('add ellipse');
  await choose();
  expect((await storedPiece(page, id)).layers.map((layer) => layer.kind)).toEqual(['ellipse']);

  // The key of a command stands beside it, and the command does what the key does.
  await ask('undo');
  await expect(page.getByRole('option', { name: /^Undo/ })).toContainText('Ctrl');
  await choose();
  expect((await storedPiece(page, id)).layers).toEqual([]);

  await ask('run through');
  await choose();
  await expect(page.getByRole('region', { name: 'Run-through' })).toBeVisible();

  await ask('nothing is called so');
  await expect(page.getByText('Nothing found.')).toBeVisible();
  await search.fill('the other one');
  await expect(page.getByRole('option', { name: /The other one/ })).toHaveAttribute('aria-selected', 'true');
  await choose();
  await expect(page.getByLabel('Piece name')).toHaveValue('The other one');
});

test('pictures without words tell their name and key, and the sheet of keys lists them all', async ({ page }) => {
  await newPiece(page, 'Keys');
  await page.keyboard.press('t');
  await page.getByLabel('Text on canvas').fill('Kite Week');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo', exact: true }).hover();
  await expect(page.getByRole('tooltip')).toContainText('Ctrl');
  await page.getByRole('button', { name: 'Keyboard shortcuts', exact: true }).click();
  const sheet = page.getByRole('dialog', { name: 'Keyboard shortcuts' });
  await expect(sheet.getByText('Play or stop')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(sheet).toBeHidden();
});

test('dividers are moved by keyboard and stay where they were put', async ({ page }) => {
  await newPiece(page, 'Room');
  const divider = page.getByRole('separator', { name: 'Divide: timeline' });
  const timeline = page.getByRole('region', { name: 'Timeline' });
  const before = (await timeline.boundingBox())!.height;
  await divider.focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowUp');
  const after = (await timeline.boundingBox())!.height;
  expect(after).toBeGreaterThan(before + 20);
  await page.reload();
  await expect(timeline).toBeVisible();
  await expect.poll(async () => Math.abs((await timeline.boundingBox())!.height - after)).toBeLessThan(3);
});

test('what is asked for in the trade’s words is found, and its field has the focus', async ({ page }) => {
  await newPiece(page, 'Asked');
  const ask = async (words: string) => {
    await page.keyboard.press('Control+k');
    await page.getByRole('combobox', { name: 'Find anything' }).fill(words);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('dialog')).toHaveCount(0);
  };
  await ask('export gif');
  await expect(page.getByLabel('File type', { exact: true })).toBeFocused();
  await expect(page.getByLabel('File type', { exact: true })).toHaveValue('gif');
  await ask('subtitles');
  await expect(page.getByRole('tab', { name: 'Captions', selected: true })).toBeVisible();
  await ask('set bpm');
  await expect(page.getByLabel('Tempo', { exact: true })).toBeFocused();
  // A field of a layer asks for one first; with one it has the focus.
  await ask('opacity');
  await expect(page.getByText('Select a layer to use Opacity.')).toBeVisible();
  await ask('circle');
  await ask('opacity');
  await expect(page.getByLabel('Opacity', { exact: true })).toBeFocused();
  await page.keyboard.press('Escape');
  await ask('glitch');
  await expect(page.getByRole('listitem').filter({ hasText: 'Chromatic offset' })).toBeVisible();
});

test('shortcuts are searched, and help opens at the place it speaks of', async ({ page }) => {
  await newPiece(page, 'Help');
  await page.getByRole('button', { name: 'Keyboard shortcuts', exact: true }).click();
  const sheet = page.getByRole('dialog', { name: 'Keyboard shortcuts' });
  await expect(sheet.getByRole('region', { name: 'Playback' })).toBeVisible();
  await sheet.getByLabel('Search shortcuts').fill('marker');
  await expect(sheet.getByText('Next marker')).toBeVisible();
  await expect(sheet.getByText('Play or stop')).toHaveCount(0);
  await page.keyboard.press('Escape');
  await expect(sheet).toHaveCount(0);

  await page.getByRole('navigation', { name: 'Panels' }).getByRole('button', { name: 'Picture' }).click();
  await page.getByRole('tab', { name: 'Masks' }).click();
  await page.getByRole('button', { name: 'Help', exact: true }).click();
  const help = page.getByRole('dialog', { name: 'Help' });
  await expect(help.getByRole('heading', { name: 'Effects, masks and looks' })).toBeVisible();
  await help.getByRole('button', { name: 'Export and publish' }).click();
  await expect(help.getByRole('heading', { name: 'Export and publish' })).toBeVisible();
});
