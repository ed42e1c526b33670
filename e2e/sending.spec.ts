import { fork } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { newPiece, waitSaved, workFile } from './support/app';

let outside: ChildProcess;
let address = '';
test.beforeAll(async () => {
  mkdirSync(workFile('outside'), { recursive: true });
  outside = fork('dist/server/outside-main.js', [], {
    env: { ...process.env, ESTRELLA_OUTSIDE_PORT: '0', ESTRELLA_OUTSIDE_DATA: workFile('outside') },
  });
  const port = await new Promise<number>((resolve) =>
    outside.on('message', (message: { listening: number }) => resolve(message.listening)),
  );
  address = `http://127.0.0.1:${port}`;
});
test.afterAll(() => void outside.kill('SIGTERM'));

test('a file is sent to a channel and a folder at once, with receipts, and has a link of its own', async ({ page }) => {
  const made = await fetch(`${address}/accounts`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name: 'Puerto Lumo' }),
  });
  const { token } = (await made.json()) as { token: string };
  await newPiece(page, 'Harbour bell');
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Rectangle' }).click();
  await waitSaved(page);
  await page.getByRole('button', { name: 'Export', exact: true }).first().click();
  const panel = page.getByRole('region', { name: 'Export' });
  await page.getByLabel('File type').selectOption({ label: 'JPEG still' });
  await panel
    .getByRole('button', { name: /^Export (?!all)/ })
    .first()
    .click();
  await expect(panel.locator('[data-state="succeeded"]')).toBeVisible({ timeout: 60_000 });

  await panel.getByRole('button', { name: 'Publish …' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill('Board');
  await dialog.getByLabel('Address').fill(address);
  await dialog.getByLabel('Account key').fill(token);
  await dialog.getByRole('button', { name: 'Browse' }).click();
  await dialog.getByLabel('Location', { exact: true }).selectOption({ label: 'Ferry Board' });
  await expect(dialog.getByText(/10 posts a day/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Add destination' }).click();
  await dialog.getByLabel('Title for Board').fill('The bell rings');
  await dialog.getByRole('button', { name: 'Another destination' }).click();
  await dialog.getByLabel('Kind', { exact: true }).selectOption({ label: 'Folder' });
  await dialog.getByLabel('Name').fill('Stage');
  await dialog.getByRole('textbox', { name: 'Folder' }).fill('kite week');
  await dialog.getByRole('button', { name: 'Add destination' }).click();
  await expect(dialog.getByRole('checkbox', { name: /Stage/ })).toBeChecked();
  if (process.env.ESTRELLA_SHOTS) await page.screenshot({ path: `${process.env.ESTRELLA_SHOTS}/send-dialog.png` });
  await dialog.getByRole('button', { name: 'Publish to 2 destinations' }).click();
  await expect(dialog).toHaveCount(0);

  const sends = panel.getByRole('list', { name: /^Publishing of / });
  await expect(sends.locator('[data-state="succeeded"]')).toHaveCount(2, { timeout: 30_000 });
  await expect(sends.getByText(/saved at .*kite week/)).toBeVisible();
  const link = sends.getByRole('link', { name: /^published / });
  const shown = await page.request.get((await link.getAttribute('href')) ?? '');
  expect(await shown.text()).toContain('The bell rings');

  await panel.getByRole('button', { name: 'Create link' }).click();
  const own = panel.getByRole('link', { name: 'Open link' });
  const file = await page.request.get(new URL((await own.getAttribute('href')) ?? '', page.url()).href);
  expect(file.headers()['content-type']).toBe('image/jpeg');
  await panel.getByRole('button', { name: 'Remove link' }).click();
  await expect(own).toHaveCount(0);

  // What is for later can be called off.
  await panel
    .getByRole('button', { name: /^Export (?!all)/ })
    .first()
    .click();
  await expect(panel.locator('[data-job][data-state="succeeded"]')).toHaveCount(2, { timeout: 60_000 });
  await panel.getByRole('button', { name: 'Publish …' }).first().click();
  await dialog.getByRole('checkbox', { name: /Stage/ }).check();
  await dialog.getByLabel('Schedule').fill(`${new Date(Date.now() + 86_400_000).toISOString().slice(0, 10)}T20:00`);
  await dialog.getByRole('button', { name: 'Publish' }).click();
  // The same was sent there before: it goes again only if that is meant.
  await expect(dialog.getByRole('alert')).toContainText('was published there before');
  await dialog.getByRole('button', { name: 'Publish again anyway' }).click();
  await expect(panel.getByText(/scheduled for/)).toBeVisible();
  if (process.env.ESTRELLA_SHOTS) await page.screenshot({ path: `${process.env.ESTRELLA_SHOTS}/send-panel.png` });
  await panel.getByRole('button', { name: 'Cancel publishing to Stage' }).click();
  await expect(panel.getByText('cancelled', { exact: true })).toBeVisible();
});
