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
  await page.getByRole('button', { name: 'Send', exact: true }).first().click();
  const panel = page.getByRole('region', { name: 'Send' });
  const render = page.getByRole('button', { name: 'Render', exact: true }).first();

  // A place brings its settings, and says what is against it.
  await page.getByLabel('Goes to').selectOption({ label: 'Tall feed' });
  await expect(panel.getByText('It is made for tall frames').first()).toBeVisible();
  await page.getByRole('button', { name: 'Settings and name' }).click();
  await expect(page.getByLabel('Bit rate of the picture')).toHaveValue('12 Mbit/s');
  await expect(page.getByLabel('Loudness', { exact: true })).toHaveValue('-14');
  await render.click();
  await expect(render).toBeDisabled();

  // What is chosen otherwise is for no place in particular.
  await page.getByLabel('Kind of file').selectOption({ label: 'GIF' });
  await expect(page.getByLabel('Goes to')).toHaveValue('');
  await page.getByRole('group', { name: 'Settings' }).getByRole('checkbox', { name: 'at most' }).check();
  await page.getByLabel('Largest size of the file').fill('0.06');
  await page.getByLabel('Largest size of the file').press('Enter');
  await page.getByLabel('Names of the files').fill('{piece} for {format} {kind}');
  await render.click();

  await page.getByRole('link', { name: 'Renders of all pieces' }).click();
  const rows = page.getByRole('listitem').filter({ hasText: 'Ferry' });
  await expect(rows).toHaveCount(2);
  const [film, gif] = [rows.filter({ hasText: 'MP4 video' }), rows.filter({ hasText: 'GIF' })];
  await expect(film).toContainText('12 Mbit/s, -14 LUFS');
  if ((await gif.getAttribute('data-state')) === 'queued') {
    await gif.getByRole('button', { name: 'Pause the render' }).click();
    await expect(gif).toHaveAttribute('data-state', /paused|succeeded/);
  }
  const cancel = film.getByRole('button', { name: 'Cancel the render' });
  if (await cancel.isVisible()) await cancel.click().catch(() => {}); // done meanwhile
  await expect(film).toHaveAttribute('data-state', /canceled|succeeded/);
  const resume = gif.getByRole('button', { name: 'Resume the render' });
  if (await resume.isVisible()) await resume.click();
  await expect(gif).toHaveAttribute('data-state', 'succeeded', { timeout: 60_000 });
  await expect(gif).toContainText('kB');
  const download = page.waitForEvent('download');
  await gif.getByRole('link', { name: 'Download the GIF' }).click();
  const file = await download;
  expect(file.suggestedFilename()).toBe('Ferry for Wide GIF.gif');
  await file.saveAs(workFile('ferry.gif'));
  expect(statSync(workFile('ferry.gif')).size).toBeLessThanOrEqual(60_000);
  const away = rows.getByRole('button', { name: /^(Take off the list|Delete the file)$/ });
  for (let left = await away.count(); left > 0; left--) {
    await away.first().click();
    await expect(away).toHaveCount(left - 1);
  }
  await expect(rows).toHaveCount(0);
});
