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
  await expect(panel.getByText(/^The last \d+\.\d s are empty\.$/)).toBeVisible();
  await panel.getByRole('button', { name: /^End piece there/ }).click();
  await expect(panel.getByText(/are empty/)).toHaveCount(0);
  await waitSaved(page);
  const piece = (await storedPiece(page, id)) as unknown as Piece;
  expect(resolveTimes(piece, null).end).toBeCloseTo(4, 3);
  await page.keyboard.press('ControlOrMeta+Z');
  await expect(panel.getByText(/are empty/)).toBeVisible();
  await panel.getByRole('button', { name: /^End piece there/ }).click();

  await panel.getByRole('button', { name: 'Check flashes' }).click();
  await expect(panel.getByText(/No more than three flashes a second/)).toBeVisible();

  // Twice a beat at 120 BPM is four times a second.
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('tab', { name: 'Effects' }).click();
  await page.getByLabel('Add effect').selectOption('strobe');
  await page.getByRole('button', { name: 'Run-through', exact: true }).click();
  await panel.getByRole('button', { name: 'Check flashes' }).click();
  await expect(panel.getByText(/^4 flashes within a second from 0\.\d to 3\.\d s/)).toBeVisible();
});

test('a misspelled word is named, written right by one click, and a word of one’s own is learnt', async ({ page }) => {
  const id = await newPiece(page, 'Spelled');
  const write = async (text: string): Promise<void> => {
    await page.keyboard.press('t');
    await page.keyboard.type(text);
    await page.keyboard.press('Escape');
  };
  await write('We recieve the wind');
  await page.getByRole('button', { name: 'Run-through', exact: true }).click();
  const panel = page.getByRole('region', { name: 'Run-through' });
  await expect(panel.getByText('“recieve” isn’t in the dictionary. Is “receive” meant?')).toBeVisible();
  await panel.getByRole('button', { name: /^Write “receive”/ }).click();
  await expect(panel.getByText(/isn’t in the dictionary/)).toHaveCount(0);
  await waitSaved(page);
  const texts = async () =>
    (await storedPiece(page, id)).layers.map((layer) => (layer.content as { text?: string }).text);
  expect(await texts()).toEqual(['We receive the wind']);
  await page.keyboard.press('ControlOrMeta+Z');
  await expect(panel.getByText(/isn’t in the dictionary/)).toBeVisible();
  await panel.getByRole('button', { name: /^Add to dictionary/ }).click();
  await expect(panel.getByText(/isn’t in the dictionary/)).toHaveCount(0);
  await waitSaved(page);
  expect((await storedPiece(page, id)) as unknown as Piece).toMatchObject({ ownWords: ['recieve'] });
});
