import { expect, test } from '@playwright/test';
import type { Piece } from '@core/piece';
import { resolveTimes } from '@core/piece';
import { newPiece, storedPiece, waitSaved } from './support/app';

test('the run-through names what is left over, mends it with one click, and sees what flashes', async ({ page }) => {
  const id = await newPiece(page, 'Looked through');
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Rectangle', exact: true }).click();
  await page.getByRole('button', { name: 'Run-through', exact: true }).click();
  const panel = page.getByRole('region', { name: 'Run-through' });

  // The rectangle stands for two bars; after that nothing does.
  await expect(panel.getByText(/^The last \d+\.\d s show nothing\.$/)).toBeVisible();
  await panel.getByRole('button', { name: /^End the piece there/ }).click();
  await expect(panel.getByText(/show nothing/)).toHaveCount(0);
  await waitSaved(page);
  const piece = (await storedPiece(page, id)) as unknown as Piece;
  expect(resolveTimes(piece, null).end).toBeCloseTo(4, 3);
  await page.keyboard.press('ControlOrMeta+Z');
  await expect(panel.getByText(/show nothing/)).toBeVisible();
  await panel.getByRole('button', { name: /^End the piece there/ }).click();

  await panel.getByRole('button', { name: 'Look for flashes' }).click();
  await expect(panel.getByText(/Nothing flashes more than three times a second/)).toBeVisible();

  // Twice a beat at 120 BPM is four times a second.
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('tab', { name: 'Effects' }).click();
  await page.getByLabel('Add an effect').selectOption('strobe');
  await page.getByRole('button', { name: 'Run-through', exact: true }).click();
  await panel.getByRole('button', { name: 'Look for flashes' }).click();
  await expect(panel.getByText(/^4 flashes within a second from 0\.\d to 3\.\d s/)).toBeVisible();
});
