import { expect, test } from '@playwright/test';
import { addShape, newPiece, storedPiece, waitSaved } from './support/app';

test('several layers show what differs and are set together, in one step', async ({ page }) => {
  const id = await newPiece(page, 'Together');
  await addShape(page, 'Rectangle');
  await addShape(page, 'Ellipse');
  const details = page.getByRole('complementary', { name: 'Details' });
  const opacity = details.getByLabel('Opacity', { exact: true });
  await opacity.fill('40');
  await opacity.press('Enter');
  await page.keyboard.press('Escape');
  await page.getByRole('region', { name: 'Timeline' }).focus();
  await page.keyboard.press('Control+a');
  await expect(details.getByRole('heading', { name: '2 layers' })).toBeVisible();
  await expect(opacity).toHaveValue('mixed');
  await opacity.fill('70');
  await opacity.press('Enter');
  await waitSaved(page);
  const opacities = async () =>
    (await storedPiece(page, id)).layers.map((layer) => (layer.tracks.opacity as { value: number } | undefined)?.value);
  expect(await opacities()).toEqual([0.7, 0.7]);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await waitSaved(page);
  expect((await opacities()).filter((value) => value === 0.4)).toHaveLength(1);
});

test('scale is linked until it is freed; sections fold, and rows are searched', async ({ page }) => {
  await newPiece(page, 'Linked');
  await addShape(page, 'Ellipse');
  const details = page.getByRole('complementary', { name: 'Details' });
  const x = details.getByLabel('Scale x', { exact: true });
  const y = details.getByLabel('Scale y', { exact: true });
  await x.fill('150');
  await x.press('Enter');
  await expect(y).toHaveValue('150%');
  await details.getByRole('button', { name: 'Link scale x and y' }).click();
  await x.fill('50');
  await x.press('Enter');
  await expect(x).toHaveValue('50%');
  await expect(y).toHaveValue('150%');

  await details.getByRole('button', { name: 'Transform' }).click();
  await expect(x).toHaveCount(0);
  await details.getByLabel('Search details').fill('scale');
  await expect(x).toBeVisible();
  await expect(details.getByLabel('Opacity', { exact: true })).toBeHidden();
  await details.getByLabel('Search details').fill('');
  await expect(x).toHaveCount(0);
  await details.getByRole('button', { name: 'Transform' }).click();
  await expect(x).toBeVisible();

  // Where a piece was left it is found again.
  await details.getByRole('button', { name: 'Edit effects' }).click();
  await expect(page.getByRole('tab', { name: 'Effects', selected: true })).toBeVisible();
  await waitSaved(page);
  await page.reload();
  await expect(page.getByRole('tab', { name: 'Effects', selected: true })).toBeVisible();
  await expect(details.getByRole('heading', { name: 'Ellipse' })).toBeVisible();
});
