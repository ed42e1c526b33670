import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { appUrl, newPiece, testFile } from './support/app';

/** What a machine can find of WCAG 2.2 A and AA: names, roles, contrast, order. */
async function faults(page: Page, where: string, part?: string): Promise<string[]> {
  // What is still fading in has no contrast of its own yet.
  await page.evaluate(() =>
    Promise.all(
      document
        .getAnimations()
        .filter((a) => Number.isFinite(a.effect?.getComputedTiming().endTime))
        .map((a) => a.finished.catch(() => null)),
    ),
  );
  const builder = new AxeBuilder({ page });
  const { violations } = await (part ? builder.include(part) : builder)
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
    .analyze();
  return violations.flatMap((v) =>
    v.nodes.slice(0, 4).map(
      (node) =>
        `${where}: ${v.id}: ${node.target.join(' ')} ${node.html.slice(0, 160)} ${node.any
          .map((a) => a.message)
          .join('; ')
          .slice(0, 160)}`,
    ),
  );
}

const RUNGS = ['Music', 'Words', 'Picture', 'Motion', 'Sound', 'Colour', 'Run-through', 'Export'];

test('every view can be used without seeing it: names, roles and contrast, dark and light', async ({ page }) => {
  test.setTimeout(150_000);
  // Cards fade in as they arrive, also in the middle of a check, which then reads a contrast that nobody sees for long.
  await page.emulateMedia({ reducedMotion: 'reduce' });
  await page.goto(appUrl());
  await expect(page.getByRole('button', { name: 'New piece' })).toBeVisible();
  const found = await faults(page, 'home');
  await newPiece(page, 'Access', { custom: [640, 360] });
  await page.getByLabel('Import song').setInputFiles(testFile('harbour-lamps.wav'));
  await expect(page.getByRole('heading', { name: 'harbour-lamps' })).toBeVisible({ timeout: 60_000 });
  await page.keyboard.press('t');
  await page.getByLabel('Text on canvas').fill('Kite Week');
  await page.keyboard.press('Escape');
  await expect(page.locator('[data-handle]').first()).toBeVisible();
  for (const rung of RUNGS) {
    await page.getByRole('navigation').getByRole('button', { name: rung, exact: true }).click();
    found.push(...(await faults(page, rung, rung === 'Music' ? undefined : '.panel')));
  }
  await page.getByRole('navigation').getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('tab', { name: 'Effects' }).click();
  await page.getByLabel('Add effect').selectOption({ label: 'Drop shadow' });
  found.push(...(await faults(page, 'effects', '.panel')));
  await page.getByRole('tab', { name: 'Masks' }).click();
  await page.getByRole('group', { name: 'Add mask' }).getByRole('button', { name: 'Ellipse' }).click();
  found.push(...(await faults(page, 'masks', '.panel')));
  await page.getByRole('button', { name: /^Font:/ }).click();
  await expect(page.getByLabel('Search fonts')).toBeVisible();
  found.push(...(await faults(page, 'faces', '[role=dialog]')));
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /light/i }).first().click();
  await page.getByRole('navigation').getByRole('button', { name: 'Words', exact: true }).click();
  found.push(...(await faults(page, 'light')));
  expect(found).toEqual([]);
});

test('every dialog and menu can be used without seeing it, dark and light', async ({ page }) => {
  test.setTimeout(150_000);
  await page.emulateMedia({ reducedMotion: 'reduce' });
  await page.goto(appUrl());
  const found: string[] = [];
  const look = async (variant: string) => {
    const inside = async (where: string, part: string) => {
      await expect(page.locator(part).first()).toBeVisible();
      found.push(...(await faults(page, `${variant}, ${where}`, part)));
      await page.keyboard.press('Escape');
      await expect(page.locator(part)).toHaveCount(0);
    };
    await page.goto(appUrl());
    await page.getByRole('button', { name: 'New piece' }).click();
    await page
      .getByRole('dialog')
      .getByRole('button', { name: /^Custom/ })
      .click();
    await inside('new piece', '[role=dialog]');
    await page.getByRole('article', { name: 'Nine days of wind' }).first().click({ button: 'right' });
    await inside('menu of a piece', '[role=menu]');
    await newPiece(page, `Dialogs, ${variant}`);
    await page.keyboard.press('Control+k');
    await inside('find anything', '[role=dialog]');
    await page.getByRole('button', { name: 'Keyboard shortcuts', exact: true }).click();
    await inside('keys', '[role=dialog]');
    await page.keyboard.press('t');
    await page.getByLabel('Text on canvas').fill('Kite Week');
    await page.keyboard.press('Escape');
    await page
      .locator('[data-layer]')
      .first()
      .click({ button: 'right', position: { x: 60, y: 12 } });
    await inside('menu of a layer', '[role=menu]');
    await page.getByRole('button', { name: 'Fill picker' }).click();
    await inside('colour', '[data-scope=color-picker][data-part=content]');
    await page
      .locator('[data-layer]')
      .first()
      .click({ position: { x: 60, y: 12 } });
    await page.keyboard.press('Delete');
    const notice = page.locator('[data-scope=toast][data-part=root]');
    await expect(notice).toContainText('Deleted Kite Week');
    found.push(...(await faults(page, `${variant}, notice`, '[data-scope=toast][data-part=root]')));
    await notice.getByRole('button', { name: 'Undo' }).click();
    await expect(page.locator('[data-layer]')).toHaveCount(1);
  };
  await look('dark');
  await page.goto(appUrl());
  await page.getByRole('button', { name: 'Use light theme' }).click();
  await look('light');
  expect(found).toEqual([]);
});
