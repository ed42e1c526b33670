import { execFileSync } from 'node:child_process';
import { readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { appUrl, newPiece, storedPiece, timeline, waitSaved, workFile } from './support/app';

test('with the server away edits are kept, said to be kept, survive a reload, and are sent when it is back', async ({
  page,
}) => {
  const id = await newPiece(page, 'Offline');
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Rectangle' }).click();
  await waitSaved(page);
  await page.route('**/api/**', (route) => route.abort());
  await page.getByRole('button', { name: 'Ellipse' }).click();
  await expect(page.getByRole('status', { name: 'Saving' })).toHaveText('Offline, changes saved here');
  await page.reload();
  await expect(timeline(page)).toBeVisible();
  await expect(page.getByRole('group', { name: 'Ellipse' })).toBeVisible();
  await page.unroute('**/api/**');
  await waitSaved(page);
  expect((await storedPiece(page, id)).layers.map((l) => l.name)).toEqual(['Rectangle', 'Ellipse']);
});

test('an edit made just before the tab closes is there when it opens again', async ({ context }) => {
  const page = await context.newPage();
  const id = await newPiece(page, 'Closed');
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Diamond' }).click();
  await expect(page.getByRole('group', { name: 'Diamond' })).toBeVisible();
  await page.close();
  const again = await context.newPage();
  await again.goto(`${appUrl()}/piece/${id}`);
  await expect(again.getByRole('group', { name: 'Diamond' })).toBeVisible();
  expect((await storedPiece(again, id)).layers).toHaveLength(1);
});

test('two tabs: the later save is never silent, and both versions can be kept', async ({ context }) => {
  const one = await context.newPage();
  const id = await newPiece(one, 'Twice');
  const two = await (await context.browser()!.newContext()).newPage();
  await two.goto(`${appUrl()}/piece/${id}`);
  await expect(timeline(two)).toBeVisible();
  await one.getByRole('button', { name: 'Picture', exact: true }).click();
  await one.getByRole('button', { name: 'Rectangle' }).click();
  await waitSaved(one);
  await two.getByRole('button', { name: 'Picture', exact: true }).click();
  await two.getByRole('button', { name: 'Ellipse' }).click();
  await expect(two.getByText('Conflict: two versions of this piece')).toBeVisible();
  expect((await storedPiece(one, id)).layers.map((l) => l.name)).toEqual(['Rectangle']);
  await two.getByRole('button', { name: 'Save both: mine as a new piece' }).click();
  await expect(two).not.toHaveURL(new RegExp(`${id}$`));
  await expect(two.getByRole('group', { name: 'Ellipse' })).toBeVisible();
  expect((await storedPiece(one, id)).layers.map((l) => l.name)).toEqual(['Rectangle']);
});

test('an earlier revision comes back, and undo leads forward again', async ({ page }) => {
  const id = await newPiece(page, 'Before');
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Rectangle' }).click();
  await waitSaved(page);
  await page.getByRole('button', { name: 'Ellipse' }).click();
  await waitSaved(page);
  await page.getByRole('navigation', { name: 'Panels' }).getByRole('button', { name: 'Export' }).click();
  await page.getByRole('button', { name: 'Earlier revisions' }).click();
  await page.getByRole('button', { name: 'Restore revision 2' }).click();
  await expect(page.getByRole('group', { name: 'Ellipse' })).toHaveCount(0);
  expect((await storedPiece(page, id)).layers.map((l) => l.name)).toEqual(['Rectangle']);
  await page.getByRole('button', { name: 'Undo' }).click();
  expect((await storedPiece(page, id)).layers.map((l) => l.name)).toEqual(['Rectangle', 'Ellipse']);
});

test('a worker killed in mid-render is replaced and the render finishes; a cancelled one leaves no files', async ({
  page,
}) => {
  const exportsDir = workFile('app-data/exports');
  await page.goto(`${appUrl()}/piece/demo-nine-days`);
  await page.getByRole('navigation', { name: 'Panels' }).getByRole('button', { name: 'Export' }).click();
  const panel = page.getByRole('region', { name: 'Export' });
  const rendering = () =>
    expect.poll(() => readdirSync(exportsDir).filter((f) => f.endsWith('.part')).length, { timeout: 60_000 }).toBe(1);

  await panel
    .getByRole('button', { name: /^Export (?!all)/ })
    .nth(2)
    .click();
  await expect(panel.getByRole('progressbar')).toBeVisible();
  await rendering();
  await panel.getByRole('button', { name: 'Cancel export' }).click();
  await expect(panel.locator('[data-state=canceled]')).toHaveCount(1);
  await expect.poll(() => readdirSync(exportsDir).filter((f) => f.endsWith('.part'))).toEqual([]);

  await panel
    .getByRole('button', { name: /^Export (?!all)/ })
    .nth(2)
    .click();
  await rendering();
  await expect
    .poll(async () => Number(await panel.getByRole('progressbar').getAttribute('aria-valuenow')), { timeout: 60_000 })
    .toBeGreaterThan(3);
  // The worker of this very application: a child process with our data folder in its environment.
  const pids = execFileSync('pgrep', ['-f', 'worker-main.js']).toString().trim().split('\n');
  const ours = pids.filter((pid) => {
    try {
      return readFileSync(`/proc/${pid}/environ`, 'utf8').includes(workFile('app-data'));
    } catch {
      return false;
    }
  });
  expect(ours).toHaveLength(1);
  process.kill(Number(ours[0]), 'SIGKILL');
  await expect(panel.locator('[data-state=succeeded]')).toHaveCount(1, { timeout: 180_000 });
  await expect.poll(() => readdirSync(exportsDir).filter((f) => f.endsWith('.part'))).toEqual([]);
});

test('a file that is no song is refused in words, and the piece is as it was', async ({ page }) => {
  const id = await newPiece(page, 'Bad file');
  writeFileSync(workFile('words.mp3'), 'these are words, not music. '.repeat(40));
  writeFileSync(workFile('empty.wav'), '');
  await page.getByLabel('Import song').setInputFiles(workFile('words.mp3'));
  await expect(page.getByText(/isn’t a type that can be imported/)).toBeVisible();
  await page.getByLabel('Import song').setInputFiles(workFile('empty.wav'));
  await expect(page.getByText(/is empty/)).toBeVisible();
  const piece = await storedPiece(page, id);
  expect([piece.music, piece.layers]).toEqual([null, []]);
});
