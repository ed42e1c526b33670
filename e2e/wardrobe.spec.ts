import { readFileSync, writeFileSync } from 'node:fs';
import { createCanvas } from '@napi-rs/canvas';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import type { Piece } from '@core/piece';
import { newPiece, storedPiece, workFile } from './support/app';

const pieceOf = async (page: Page, id: string): Promise<Piece> => (await storedPiece(page, id)) as unknown as Piece;
const fillOf = async (page: Page, id: string): Promise<unknown> =>
  (await pieceOf(page, id)).layers[0]!.tracks.fill?.value;

/** A picture of three plain stripes. */
function stripes(file: string): void {
  const canvas = createCanvas(90, 30);
  const context = canvas.getContext('2d');
  ['#143749', '#ffb74a', '#54c6c0'].forEach((colour, i) => {
    context.fillStyle = colour;
    context.fillRect(i * 30, 0, 30, 30);
  });
  writeFileSync(file, canvas.toBuffer('image/png'));
}

test('a wardrobe is taken from a picture, worn, swapped, kept, and leaves and comes as a file', async ({ page }) => {
  const id = await newPiece(page, 'Wardrobe');
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Rectangle' }).click();
  await page.getByRole('button', { name: 'Colour', exact: true }).click();
  await page.getByRole('tab', { name: 'Wardrobe' }).click();
  await expect(page.getByText('No roles yet')).toBeVisible();

  const picture = workFile('stripes.png');
  stripes(picture);
  await page.getByLabel('Picture for palette').setInputFiles(picture);
  await page.getByRole('button', { name: 'Assign to roles' }).click();
  await expect
    .poll(async () => (await pieceOf(page, id)).wardrobe.colours)
    .toMatchObject({ ground: '#143749', text: '#ffb74a', accent: '#54c6c0' });

  // The rectangle is lamp-coloured: of the roles that is what text wears.
  await page.getByRole('button', { name: 'Apply to piece colours' }).click();
  await expect.poll(async () => fillOf(page, id)).toBe('@text');
  await page.getByLabel('First role').selectOption('text');
  await page.getByLabel('Second role').selectOption('accent');
  await page.getByRole('button', { name: 'Swap', exact: true }).click();
  await expect.poll(async () => (await pieceOf(page, id)).wardrobe.colours.text).toBe('#54c6c0');
  expect(await fillOf(page, id)).toBe('@text');

  // Any field of a colour takes a role by its name.
  const fill = page.getByRole('textbox', { name: 'Fill', exact: true });
  await fill.fill('@accent');
  await fill.press('Enter');
  await expect.poll(async () => fillOf(page, id)).toBe('@accent');

  await page.getByRole('button', { name: 'Save wardrobe' }).click();
  await page.getByLabel('Wardrobe name').fill('Harbour');
  await page.getByLabel('Wardrobe name').press('Enter');
  await expect(page.getByText('Saved Harbour for all your pieces')).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as file' }).click();
  const tokens = workFile('wardrobe.tokens.json');
  await (await download).saveAs(tokens);
  expect(JSON.parse(readFileSync(tokens, 'utf8'))).toMatchObject({
    colour: { ground: { $value: { hex: '#143749' } } },
  });

  const other = await newPiece(page, 'Other');
  await page.getByRole('button', { name: 'Colour', exact: true }).click();
  await page.getByRole('tab', { name: 'Wardrobe' }).click();
  await page.getByRole('button', { name: 'Preview Harbour' }).click();
  await expect(page.getByText('Previewing Harbour')).toBeVisible();
  await page.getByRole('button', { name: 'Cancel preview' }).click();
  await expect.poll(async () => (await pieceOf(page, other)).wardrobe.colours).toEqual({});
  await page.getByLabel('Design tokens file').setInputFiles(tokens);
  await expect
    .poll(async () => Object.keys((await pieceOf(page, other)).wardrobe.colours).sort())
    .toEqual(['accent', 'ground', 'text']);
});

test('pictures show a logo and words a font by its role; both are kept with the wardrobe', async ({ page }) => {
  const first = await newPiece(page, 'Logos');
  const file = workFile('mark.png');
  stripes(file);
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByLabel('Import picture, clip or logo').setInputFiles(file);
  await expect.poll(async () => (await pieceOf(page, first)).layers.length).toBe(1);
  await page.getByRole('button', { name: 'Colour', exact: true }).click();
  await page.getByRole('tab', { name: 'Wardrobe' }).click();
  await page.getByLabel('Add logo').selectOption('mark');
  await page.getByRole('combobox', { name: 'Wardrobe logo' }).selectOption('mark');
  await expect.poll(async () => (await pieceOf(page, first)).layers[0]!.content).toMatchObject({ mediaId: '@mark' });
  const { wardrobe, media } = await pieceOf(page, first);
  expect(media.find(({ id }) => id === wardrobe.logos.mark)?.name).toBe('mark.png');

  await page.getByLabel('Add font role').selectOption('display');
  await page.getByLabel('display font').selectOption('fraunces');
  await page.getByRole('button', { name: 'Save wardrobe' }).click();
  await page.getByLabel('Wardrobe name').fill('Marks');
  await page.getByLabel('Wardrobe name').press('Enter');
  await expect(page.getByText('Saved Marks for all your pieces')).toBeVisible();

  // In another piece the logo comes along with its file, and words wear the font from the chooser.
  const second = await newPiece(page, 'Wears them');
  await page.getByRole('button', { name: 'Colour', exact: true }).click();
  await page.getByRole('tab', { name: 'Wardrobe' }).click();
  await page.getByRole('button', { name: 'Preview Marks' }).click();
  await page.getByRole('button', { name: 'Apply' }).click();
  await page.keyboard.press('t');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Font/ }).click();
  await page.getByRole('group', { name: 'Wardrobe fonts' }).getByRole('button').click();
  await expect.poll(async () => (await pieceOf(page, second)).layers[0]!.content).toMatchObject({ family: '@display' });
  const worn = await pieceOf(page, second);
  expect(worn.media.some(({ id, hash }) => id === worn.wardrobe.logos.mark && hash === media[0]!.hash)).toBe(true);
});
