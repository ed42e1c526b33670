import { statSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { newPiece, waitSaved, workFile } from './support/app';

test('a file is asked for by place and size, waits, is put off, and comes out as it was asked for', async ({
  page,
}) => {
  await newPiece(page, 'Ferry');
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Rectangle' }).click();
  await waitSaved(page);
  await page.getByRole('button', { name: 'Export', exact: true }).first().click();
  const panel = page.getByRole('region', { name: 'Export' });
  const render = panel.getByRole('button', { name: /^Export (?!all)/ }).first();

  // A place brings its settings, and says what is against it.
  await page.getByLabel('Destination').selectOption({ label: 'Tall feed' });
  await expect(panel.getByText('It is made for tall frames').first()).toBeVisible();
  await page.getByRole('button', { name: 'Settings' }).click();
  await expect(page.getByLabel('Video bit rate')).toHaveValue('12 Mbit/s');
  await expect(page.getByLabel('Loudness', { exact: true })).toHaveValue('-14');
  await render.click();
  await expect(render).toBeDisabled();

  // What is chosen otherwise is for no place in particular.
  await page.getByLabel('File type').selectOption({ label: 'GIF' });
  await expect(page.getByLabel('Destination')).toHaveValue('');
  await page.getByRole('group', { name: 'Settings' }).getByRole('checkbox', { name: 'Maximum' }).check();
  await page.getByLabel('Maximum file size').fill('0.06');
  await page.getByLabel('Maximum file size').press('Enter');
  await page.getByLabel('File names').fill('{piece} for {format} {kind}');
  await render.click();

  await page.getByRole('link', { name: 'Export queue' }).click();
  const rows = page.getByRole('listitem').filter({ hasText: 'Ferry' });
  await expect(rows).toHaveCount(2);
  const [film, gif] = [rows.filter({ hasText: 'MP4 video' }), rows.filter({ hasText: 'GIF' })];
  await expect(film).toContainText('12 Mbit/s, -14 LUFS');
  if ((await gif.getAttribute('data-state')) === 'queued') {
    await gif.getByRole('button', { name: 'Pause export' }).click();
    await expect(gif).toHaveAttribute('data-state', /paused|succeeded/);
  }
  const cancel = film.getByRole('button', { name: 'Cancel export' });
  if (await cancel.isVisible()) await cancel.click().catch(() => {}); // done meanwhile
  await expect(film).toHaveAttribute('data-state', /canceled|succeeded/);
  const resume = gif.getByRole('button', { name: 'Resume export' });
  if (await resume.isVisible()) await resume.click();
  await expect(gif).toHaveAttribute('data-state', 'succeeded', { timeout: 60_000 });
  await expect(gif).toContainText('kB');
  const download = page.waitForEvent('download');
  await gif.getByRole('link', { name: 'Download GIF' }).click();
  const file = await download;
  expect(file.suggestedFilename()).toBe('Ferry for Wide GIF.gif');
  await file.saveAs(workFile('ferry.gif'));
  expect(statSync(workFile('ferry.gif')).size).toBeLessThanOrEqual(60_000);
  const away = rows.getByRole('button', { name: /^(Remove|Delete file)$/ });
  for (let left = await away.count(); left > 0; left--) {
    await away.first().click();
    await expect(away).toHaveCount(left - 1);
  }
  await expect(rows).toHaveCount(0);
});
