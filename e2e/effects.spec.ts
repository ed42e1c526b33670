import { createCanvas, loadImage } from '@napi-rs/canvas';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { newPiece, storedPiece, timeline } from './support/app';

interface Stored {
  id: string;
  name: string;
  effects: { kind: string; isOn: boolean; parameters: Record<string, { value: unknown; keyframes: unknown[] }> }[];
  masks: { mode: string; inverted: boolean; tracks: Record<string, { value: unknown }> }[];
  matte: { layerId: string; channel: string; inverted: boolean } | null;
}
const layerOf = async (page: Page, id: string, name: string): Promise<Stored> =>
  ((await storedPiece(page, id)).layers as unknown as Stored[]).find((layer) => layer.name === name)!;

/** The colour in the middle of the canvas as it is on the page. */
async function middle(page: Page): Promise<number[]> {
  const shot = await page.getByTestId('canvas').screenshot();
  const image = await loadImage(shot);
  const canvas = createCanvas(image.width, image.height);
  const context = canvas.getContext('2d');
  context.drawImage(image, 0, 0);
  return [...context.getImageData(image.width / 2 + 20, image.height / 2 + 20, 1, 1).data.slice(0, 3)];
}

test('effects are put on, set, keyframed, sorted and taken away, and are seen on the canvas', async ({ page }) => {
  const id = await newPiece(page, 'Effects');
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Rectangle' }).click();
  const fill = page.getByRole('textbox', { name: 'Fill', exact: true });
  await fill.fill('#804020');
  await fill.press('Enter');
  await page.getByRole('tab', { name: 'Effects' }).click();
  await page.getByLabel('Add effect').selectOption({ label: 'Invert' });
  await expect(page.getByRole('listitem').filter({ hasText: 'Invert' })).toBeVisible();
  await expect.poll(async () => (await middle(page)).map((c) => Math.round(c / 16))).toEqual([8, 12, 14]);

  // A value by its field, in the document and on the canvas; then a keyframe where the playhead is.
  const amount = page.getByLabel('Amount of Invert', { exact: true });
  await amount.fill('0');
  await amount.press('Enter');
  await expect.poll(async () => (await middle(page)).map((c) => Math.round(c / 16))).toEqual([8, 4, 2]);
  await page.getByRole('button', { name: 'Add Amount of Invert keyframe' }).click();
  await expect
    .poll(async () => (await layerOf(page, id, 'Rectangle')).effects[0]!.parameters.amount)
    .toMatchObject({ value: 0, keyframes: [{ value: 0 }] });

  // A second one below; the keyboard takes it to the top.
  await page.getByLabel('Add effect').selectOption({ label: 'Glow' });
  const kinds = async () => (await layerOf(page, id, 'Rectangle')).effects.map((e) => e.kind);
  await expect.poll(kinds).toEqual(['invert', 'glow']);
  await page.getByRole('button', { name: 'Reorder Glow' }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByText('Now at position 2 of 2')).toBeAttached();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByText('Now at position 1 of 2')).toBeAttached();
  await page.keyboard.press('Space');
  await expect.poll(kinds).toEqual(['glow', 'invert']);
  await page.getByLabel('Glow on').uncheck();
  await expect.poll(async () => (await layerOf(page, id, 'Rectangle')).effects[0]!.isOn).toBe(false);
  await page.getByRole('button', { name: 'Remove Glow' }).click();
  await expect.poll(kinds).toEqual(['invert']);
  await page.keyboard.press('Control+z');
  await expect.poll(kinds).toEqual(['glow', 'invert']);
});

test('masks cut a layer, and another layer is the matte it is seen through', async ({ page }) => {
  const id = await newPiece(page, 'Mattes');
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Ellipse' }).click();
  await page.getByRole('button', { name: 'Rectangle' }).click();
  await page.getByRole('tab', { name: 'Masks' }).click();
  const empty = [17, 21, 27];
  await expect.poll(() => middle(page)).not.toEqual(empty);
  await page.getByRole('group', { name: 'Add mask' }).getByRole('button', { name: 'Ellipse' }).click();
  await page.getByLabel('Mask 1 mode').selectOption({ label: 'Subtract' });
  const mask = async () => (await layerOf(page, id, 'Rectangle')).masks[0];
  await expect.poll(mask).toMatchObject({ mode: 'subtract' });
  const feather = page.getByLabel('Feather of Mask 1', { exact: true });
  await feather.fill('12');
  await feather.press('Enter');
  await expect.poll(async () => (await mask())!.tracks.feather).toMatchObject({ value: 12 });

  await page.getByRole('button', { name: 'Remove Mask 1' }).click();
  await page.getByLabel('Matte layer', { exact: true }).selectOption({ label: 'Ellipse' });
  const ellipse = await layerOf(page, id, 'Ellipse');
  await expect
    .poll(async () => (await layerOf(page, id, 'Rectangle')).matte)
    .toEqual({ layerId: ellipse.id, channel: 'alpha', inverted: false });
  await page.getByLabel('Invert').check();
  await expect.poll(async () => (await layerOf(page, id, 'Rectangle')).matte?.inverted).toBe(true);
  await expect.poll(() => middle(page)).toEqual(empty);
  // The matte is not seen itself; without it both are back.
  await page.keyboard.press('Control+z');
  await expect.poll(() => middle(page)).not.toEqual(empty);
  await timeline(page).getByRole('button', { name: 'Ellipse', exact: true }).click();
  await page.keyboard.press('Delete');
  await expect.poll(async () => (await layerOf(page, id, 'Rectangle')).matte).toBeNull();
});
