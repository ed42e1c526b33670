import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { addShape, newPiece, storedPiece, waitSaved } from './support/app';

/** How long a piece is, and where the playhead stands, typed. */
const type = async (page: Page, name: 'Duration' | 'Time', text: string) => {
  await page.getByRole('button', { name, exact: true }).click();
  const field = page.getByRole('textbox', { name, exact: true });
  await field.fill(text);
  await field.press('Enter');
};
const shown = (page: Page, name: 'Duration' | 'Time') => page.getByRole('button', { name, exact: true });

test('the length of a piece is seen, typed in any unit, taken from what is there, and undone', async ({ page }) => {
  const id = await newPiece(page, 'Duration');
  await type(page, 'Duration', '12.5');
  await expect(shown(page, 'Duration')).toHaveText('/ 00:12.500');
  await type(page, 'Duration', '+0:02');
  await expect(shown(page, 'Duration')).toHaveText('/ 00:14.500');
  await type(page, 'Duration', '300f');
  await expect(shown(page, 'Duration')).toHaveText('/ 00:10.000');
  // What is no time stays in the field, marked, and changes nothing.
  await type(page, 'Duration', 'soon');
  const field = page.getByRole('textbox', { name: 'Duration', exact: true });
  await expect(field).toHaveAttribute('aria-invalid', 'true');
  await expect(page.getByRole('button', { name: 'End with music' })).toBeDisabled();
  await field.press('Escape');
  await expect(shown(page, 'Duration')).toHaveText('/ 00:10.000');
  await type(page, 'Duration', '7200');
  await expect(page.getByText('The duration is 0.1 s to 1 hour.')).toBeVisible();

  await addShape(page, 'Ellipse');
  await waitSaved(page);
  await shown(page, 'Duration').click();
  await page.getByRole('button', { name: 'End with last layer' }).click();
  await waitSaved(page);
  const { layers, end } = await storedPiece(page, id);
  expect(end).toEqual(layers[0]!.end);
  await page.keyboard.press('Control+z');
  await expect(shown(page, 'Duration')).toHaveText('/ 00:10.000');

  await type(page, 'Time', '00:00:04:15');
  await expect(shown(page, 'Time')).toHaveText('00:04.500');
  await type(page, 'Time', '-1');
  await expect(shown(page, 'Time')).toHaveText('00:03.500');
  await type(page, 'Time', '99');
  await expect(shown(page, 'Time')).toHaveText('00:10.000');
});
