import { readFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import { appUrl, newPiece, storedPiece, waitSaved } from './support/app';

/** A table whose rows each make one lower third. */

const NAMES = [
  'Inés Vardal',
  'Teo Marsh',
  'Oona Castell',
  'Žofie Ångström',
  'نور الهاشمي',
  'תמר לוי',
  ...Array.from({ length: 18 }, (_, i) => `Flyer Number ${i + 1}`),
];
const LINES = NAMES.map((_, i) => (i % 2 ? 'Wind reader, night shift' : 'Says "up" and lets go'));
const quoted = (text: string): string => `"${text.replace(/"/g, '""')}"`;
const CSV = [
  'Line below;Name;Mark or logo',
  ...NAMES.map((name, i) => [quoted(LINES[i]!), quoted(name), i % 3 ? 'Sail' : 'Buoy'].join(';')),
  `${quoted('No name at all')};"";Kite`,
].join('\r\n');

async function openRoster(page: Page, name: string): Promise<string> {
  const id = await newPiece(page, name);
  await page.keyboard.press('Shift+T');
  await page.getByRole('option', { name: 'Choose Quayside' }).click();
  await page.getByRole('button', { name: 'Insert' }).click();
  await page.getByRole('region', { name: 'Slots' }).getByRole('button', { name: 'Roster …' }).click();
  await expect(page.getByRole('dialog', { name: 'Roster' })).toBeVisible();
  return id;
}

test('25 rows from a file: 24 stand on the timeline and become pieces, one is named with its problem', async ({
  page,
}) => {
  const id = await openRoster(page, 'People');
  const dialog = page.getByRole('dialog', { name: 'Roster' });
  await dialog
    .getByLabel('Import table')
    .setInputFiles({ name: 'people.csv', mimeType: 'text/csv', buffer: Buffer.from(`\ufeff${CSV}`) });
  await expect(dialog.getByText('25 rows')).toBeVisible();
  await expect(dialog.getByRole('combobox', { name: 'Name column' })).toHaveValue('1');
  await expect(dialog.getByText('1 row has a problem')).toBeVisible();
  await dialog.getByRole('table', { name: 'Roster rows' }).evaluate((table) => table.scrollTo(0, 1e6));
  await expect(dialog.getByRole('row', { name: 'Row 25', exact: true })).toContainText('Name is empty');

  await dialog.getByRole('textbox', { name: 'Piece names' }).fill('{Name} in {piece}');
  await dialog.getByRole('button', { name: 'Create pieces' }).click();
  await expect(dialog.getByText('Created 24 pieces')).toBeVisible({ timeout: 60_000 });
  const listed = await page.request.get(`${appUrl()}/api/pieces?search=in%20People&limit=100`);
  const { pieces } = (await listed.json()) as { pieces: { id: string; name: string }[] };
  expect(pieces.map((piece) => piece.name).sort()).toEqual(NAMES.map((name) => `${name} in People`).sort());
  const turned = pieces.find((piece) => piece.name.startsWith('תמר'))!;
  const stored = await (await page.request.get(`${appUrl()}/api/pieces/${turned.id}`)).text();
  expect(stored).toContain('"isMirrored":true');

  await dialog.getByRole('button', { name: 'Add to timeline' }).click();
  await expect(page.getByText('Added 24 to the timeline')).toBeVisible();
  await waitSaved(page);
  const made = (await storedPiece(page, id)).layers.filter(
    (layer) => (layer as { madeFrom?: unknown }).madeFrom,
  ) as unknown as { madeFrom: { values: Record<string, string> } }[];
  expect(made.map(({ madeFrom }) => madeFrom.values.name)).toEqual(NAMES);
  expect(made.map(({ madeFrom }) => madeFrom.values.line)).toEqual(LINES);
  await page.keyboard.press('Control+Z');
  await waitSaved(page);
  const undone = (await storedPiece(page, id)).layers.filter((layer) => (layer as { madeFrom?: unknown }).madeFrom);
  expect(undone).toHaveLength(1);
});

test('a roster is typed and pasted, says what is wrong with a row, and is there again', async ({ page }) => {
  await openRoster(page, 'Typed');
  const dialog = page.getByRole('dialog', { name: 'Roster' });
  await dialog
    .getByRole('textbox', { name: 'Paste a table here' })
    .fill('Oona Castell\tNight pilot\nOona Castell\tNight pilot');
  await dialog.getByRole('button', { name: 'Replace rows' }).click();
  await expect(dialog.getByRole('textbox', { name: 'Name, row 1' })).toHaveValue('Oona Castell');
  await expect(dialog.getByRole('row', { name: 'Row 2', exact: true })).toContainText('The same as row 1');
  await dialog.getByRole('textbox', { name: 'Name, row 2' }).fill('Teo Marsh 𐎀');
  await expect(dialog.getByRole('row', { name: 'Row 2', exact: true })).toContainText('no font has “𐎀”');
  await dialog.getByRole('textbox', { name: 'Name, row 2' }).fill('Teo Marsh');
  await expect(dialog.getByText('No problems found')).toBeVisible();
  await dialog.getByRole('button', { name: 'Close' }).click();
  await page.reload();
  await page
    .getByRole('group', { name: 'Quayside', exact: true })
    .getByRole('button', { name: 'Quayside', exact: true })
    .click();
  await page.getByRole('region', { name: 'Slots' }).getByRole('button', { name: 'Roster …' }).click();
  await expect(dialog.getByRole('textbox', { name: 'Name, row 2' })).toHaveValue('Teo Marsh');
  await dialog.getByRole('textbox', { name: 'Name, row 2' }).fill('Teo');
  await dialog.getByRole('button', { name: 'Undo' }).click();
  await expect(dialog.getByRole('textbox', { name: 'Name, row 2' })).toHaveValue('Teo Marsh');
  await dialog.getByRole('button', { name: 'Redo' }).click();
  await expect(dialog.getByRole('textbox', { name: 'Name, row 2' })).toHaveValue('Teo');
  await dialog.getByRole('textbox', { name: 'Paste a table here' }).fill('  ');
  await expect(dialog.getByRole('button', { name: 'Replace rows' })).toBeDisabled();
});

test('25 rows become 24 files; a changed row and one changed by hand are rendered alone', async ({ page }) => {
  test.setTimeout(240_000);
  await openRoster(page, 'Files');
  const dialog = page.getByRole('dialog', { name: 'Roster' });
  await dialog
    .getByLabel('Import table')
    .setInputFiles({ name: 'people.csv', mimeType: 'text/csv', buffer: Buffer.from(CSV) });
  await expect(dialog.getByText('1 row has a problem')).toBeVisible();
  await dialog.getByRole('combobox', { name: 'File type' }).selectOption('png');
  await dialog.getByRole('textbox', { name: 'File names' }).fill('{row} {Name}');
  await dialog.getByRole('button', { name: 'Export 24 files' }).click();
  await expect(dialog.getByText('24 of 24 ready')).toBeVisible({ timeout: 120_000 });
  const download = page.waitForEvent('download');
  await dialog.getByRole('link', { name: 'Download all as ZIP' }).click();
  const archive = unzipSync(new Uint8Array(await readFile(await (await download).path())));
  expect(Object.keys(archive)).toEqual(NAMES.map((name, i) => `${i + 1} ${name}.png`));
  for (const bytes of Object.values(archive)) expect(Buffer.from(bytes.subarray(1, 4)).toString()).toBe('PNG');
  expect(new Set(Object.values(archive).map((bytes) => Buffer.from(bytes).toString('base64'))).size).toBe(24);

  await dialog.getByRole('textbox', { name: 'Name, row 2' }).fill('Teo Marsch');
  await dialog.getByRole('button', { name: 'Export 1 new file' }).click();
  await expect(dialog.getByText('24 of 24 ready')).toBeVisible({ timeout: 60_000 });

  await dialog.getByRole('textbox', { name: 'Name, row 3' }).click();
  await dialog.getByRole('button', { name: 'Edit row 3 as piece' }).click();
  await expect(dialog.getByRole('row', { name: 'Row 3', exact: true })).toContainText('Edited');
  const own = await dialog.getByRole('link', { name: 'Open piece of row 3' }).getAttribute('href');
  expect(own).toMatch(/^\/piece\//);
  await dialog.getByRole('button', { name: 'Export 1 new file' }).click();
  await expect(dialog.getByText('24 of 24 ready')).toBeVisible({ timeout: 60_000 });
});
