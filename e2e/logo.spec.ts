import { readFileSync, writeFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { LOGO_SVG } from '../demo/logo';
import type { Page } from '@playwright/test';
import type { Layer } from '@core/piece';
import { newPiece, storedPiece, workFile } from './support/app';

const layersOf = async (page: Page, id: string): Promise<Layer[]> =>
  (await storedPiece(page, id)).layers as unknown as Layer[];
const openPicture = (page: Page): Promise<void> => page.getByRole('button', { name: 'Picture', exact: true }).click();

/** A logo comes in as layers, draws itself on to the beat, and is replaced by another that keeps all that. */
test('a logo comes in, is drawn on by beats and replaced', async ({ page }) => {
  const first = workFile('kite-week.svg');
  writeFileSync(first, LOGO_SVG);
  const second = workFile('harbour-mark.svg');
  writeFileSync(
    second,
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100"><circle id="moon" cx="50" cy="50" r="40" fill="#ffb74a"/><image href="https://example.org/a.png" width="9" height="9"/></svg>',
  );
  const id = await newPiece(page, 'Logo');
  await openPicture(page);
  await page.getByLabel('Import picture, clip or logo').setInputFiles(first);
  await expect(page.getByText('Imported kite-week: 14 layers in a group')).toBeVisible();
  const before = await layersOf(page, id);
  const group = before.find((layer) => layer.name === 'kite-week')!;
  expect(before.filter((layer) => layer.parentId === group.id).map((layer) => layer.name)).toEqual([
    'harbour',
    'kite',
    'string',
    'bows',
  ]);

  await page.getByLabel('Interval between parts').selectOption('0.25');
  await page.getByRole('button', { name: 'Animate outlines' }).click();
  await expect(page.getByText('Animated 11 outlines')).toBeVisible();
  const drawn = (await layersOf(page, id)).filter((layer) => layer.kind === 'path');
  const beats = drawn.map((layer) => {
    const [use] = layer.gestures;
    expect(use).toMatchObject({ gesture: 'filament', role: 'entrance', unit: 'whole', landing: 'peak' });
    return use!.at?.kind === 'pinned' && use!.at.to.type === 'beat' ? use!.at.to.beat : NaN;
  });
  expect(beats.map((beat, i) => (i === 0 ? 0.25 : beat - beats[i - 1]!))).toEqual(beats.map(() => 0.25));

  // It leaves as a file, too.
  await page.getByRole('region', { name: 'Timeline' }).getByText('kite-week').first().click({ button: 'right' });
  const download = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Save as SVG' }).click();
  const saved = workFile('saved.svg');
  await (await download).saveAs(saved);
  expect(readFileSync(saved, 'utf8')).toMatch(/^<svg xmlns="http:\/\/www\.w3\.org\/2000\/svg"/);

  await page.getByLabel('SVG file to replace kite-week').setInputFiles(second);
  await expect(page.getByText('Replaced by harbour-mark')).toBeVisible();
  const after = await layersOf(page, id);
  expect(after.map((layer) => layer.name)).toEqual(['moon', 'harbour-mark']);
  expect(after.find((layer) => layer.id === group.id)).toMatchObject({ name: 'harbour-mark', tracks: group.tracks });
  await expect(page.getByText('These parts of the file can’t become layers: embedded pictures.')).toBeVisible();

  await page.getByRole('button', { name: 'Import as one picture' }).click();
  await expect.poll(async () => (await layersOf(page, id)).map((layer) => layer.kind)).toEqual(['picture']);
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  await expect.poll(async () => (await layersOf(page, id)).map((layer) => layer.name).at(-1)).toBe('kite-week');
});

test('a file that is no logo changes nothing and says why', async ({ page }) => {
  const broken = workFile('broken.svg');
  writeFileSync(broken, '<svg xmlns="http://www.w3.org/2000/svg"><rect');
  const id = await newPiece(page, 'Broken logo');
  await openPicture(page);
  await page.getByLabel('Import picture, clip or logo').setInputFiles(broken);
  await expect(page.getByText('“broken.svg” can’t be imported: The file is no valid XML.')).toBeVisible();
  expect(await layersOf(page, id)).toEqual([]);
});

test('a file that takes for ever, or has too many parts, leaves the desk usable and comes in as one picture', async ({
  page,
}) => {
  const many = workFile('many.svg');
  const dots = Array.from({ length: 3200 }, (_, i) => `<circle cx="${i % 80}" cy="${Math.floor(i / 80)}" r="0.4"/>`);
  writeFileSync(many, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 80 40">${dots.join('')}</svg>`);
  const id = await newPiece(page, 'Many dots');
  await openPicture(page);
  await page.getByLabel('Import picture, clip or logo').setInputFiles(many);
  await expect(page.getByText('Imported many as one picture')).toBeVisible({ timeout: 60_000 });
  await expect.poll(async () => (await layersOf(page, id)).map((layer) => layer.kind)).toEqual(['picture']);
});
