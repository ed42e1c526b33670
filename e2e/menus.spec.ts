import { expect, test } from '@playwright/test';
import { appUrl, newPiece, storedPiece, timeline } from './support/app';

test('what can be done with a layer, a keyframe or a piece is in a menu where the pointer is', async ({ page }) => {
  const id = await newPiece(page, 'Menus');
  await page.keyboard.press('t');
  await page.getByLabel('Text on canvas').fill('Kite Week');
  await page.keyboard.press('Escape');
  const names = async () => (await storedPiece(page, id)).layers.map((layer) => layer.name);

  // By pointer, on the row of a layer.
  const row = timeline(page).locator('[data-layer]').first();
  await row.click({ button: 'right', position: { x: 60, y: 12 } });
  const menu = page.getByRole('menu', { name: 'Layer' });
  await expect(menu.getByRole('menuitem', { name: /^Duplicate/ })).toContainText('Ctrl');
  await menu.getByRole('menuitem', { name: /^Duplicate/ }).click();
  await expect(menu).toBeHidden();
  expect(await names()).toEqual(['Kite Week', 'Kite Week copy']);

  // By keyboard: the menu takes the keys, and the desk does not.
  await row.getByRole('button', { name: 'Kite Week copy', exact: true }).focus();
  await page.keyboard.press('Shift+F10');
  await expect(menu).toBeVisible();
  await page.keyboard.press('End');
  await expect(menu.getByRole('menuitem', { name: /^Delete/ })).toHaveAttribute('data-highlighted', '');
  await page.keyboard.press('Enter');
  await expect(menu).toBeHidden();
  expect(await names()).toEqual(['Kite Week']);

  // A keyframe is selected by being pointed at.
  await row.getByRole('button', { name: 'Kite Week', exact: true }).click();
  await page.getByRole('button', { name: 'Add Opacity keyframe' }).click();
  await page.locator('[data-key]').first().click({ button: 'right' });
  await page.getByRole('menu', { name: 'Keyframes' }).getByRole('menuitem', { name: 'Hold' }).click();
  await expect
    .poll(async () => (await storedPiece(page, id)).layers[0]!.tracks.opacity!.keyframes[0]!.easing.type)
    .toBe('hold');

  // On the home.
  await page.goto(appUrl());
  // Cards move as their pictures come: a click that began on one and ended beside it chose nothing, and is made again.
  const field = page.getByLabel('Piece name');
  await expect(async () => {
    // It may have come late: another click would take it away again.
    if (await field.isVisible()) return;
    await page
      .getByRole('article', { name: 'Menus' })
      .first()
      .click({ button: 'right', position: { x: 40, y: 60 }, timeout: 5000 });
    await page.getByRole('menu', { name: 'Menus' }).getByRole('menuitem', { name: 'Rename' }).click({ timeout: 5000 });
    await expect(field).toBeVisible({ timeout: 10_000 });
  }).toPass();
  await field.fill('By menu');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('article', { name: 'By menu' })).toBeVisible();
});
