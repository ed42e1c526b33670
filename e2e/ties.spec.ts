import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import type { Layer } from '@core/piece';
import { goTo, newPiece, storedPiece } from './support/app';

const layerNamed = async (page: Page, id: string, name: string): Promise<Layer> =>
  ((await storedPiece(page, id)).layers as unknown as Layer[]).find((layer) => layer.name === name)!;
const rung = (page: Page, name: string): Promise<void> => page.getByRole('button', { name, exact: true }).click();
async function setNumber(page: Page, label: string, value: string): Promise<void> {
  const field = page.getByLabel(label, { exact: true });
  await field.fill(value);
  await field.press('Enter');
}

test('a figure is repeated, listens, follows and becomes a guide, and each can be undone', async ({ page }) => {
  const id = await newPiece(page, 'Ties');
  await rung(page, 'Picture');
  await page.getByRole('button', { name: 'Ellipse' }).click();
  await page.getByRole('button', { name: 'Star', exact: true }).click();
  await setNumber(page, 'Points', '7');

  await page.getByRole('tab', { name: 'Copies' }).click();
  await page.getByLabel('Copies', { exact: true }).last().selectOption('circle');
  await setNumber(page, 'Count', '8');
  await setNumber(page, 'Delay per copy', '0.5');
  await page.getByLabel('Fit around', { exact: true }).selectOption({ label: 'Ellipse' });
  await setNumber(page, 'Padding X', '50');
  expect(await layerNamed(page, id, 'Star')).toMatchObject({
    content: { figure: 'star' },
    repeat: { way: 'circle', count: 8, delay: { unit: 'beats', value: 0.5 } },
    hug: { padX: 50, padY: 20 },
  });

  await rung(page, 'Motion');
  await page.getByRole('tab', { name: 'Audio-driven' }).click();
  await page.getByLabel('Drive a property by the music').selectOption({ label: 'Rotation' });
  await page.getByLabel('Rotation source', { exact: true }).selectOption('beats');
  await setNumber(page, 'Rotation amount', '30');
  await expect(page.getByRole('img', { name: 'Rotation level over time' })).toBeVisible();
  const heard = await layerNamed(page, id, 'Star');
  expect(heard.listens).toMatchObject([{ property: 'rotation', source: 'beats', amount: 30 }]);
  await page.getByRole('button', { name: 'Convert to keyframes' }).click();
  await expect(page.getByText(/Converted to/)).toBeVisible();
  const keyed = await layerNamed(page, id, 'Star');
  expect(keyed.listens).toEqual([]);
  const values = keyed.tracks.rotation!.keyframes.map((key) => key.value as number);
  // It peaks on the beats and falls between them.
  expect(Math.max(...values)).toBeGreaterThan(28);
  expect(Math.min(...values)).toBeLessThan(5);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await layerNamed(page, id, 'Star')).listens.length).toBe(1);

  await page.getByRole('tab', { name: 'Parenting' }).click();
  await page.getByLabel('Parent', { exact: true }).selectOption({ label: 'Ellipse' });
  await page.getByRole('checkbox', { name: 'Scale' }).check();
  await setNumber(page, 'Damping', '40');
  await page.getByRole('checkbox', { name: /^Guide layer/ }).check();
  expect(await layerNamed(page, id, 'Star')).toMatchObject({
    follow: { properties: ['position', 'scale'], damping: 0.4, keepsOwn: true },
    isGuide: true,
  });
  await goTo(page, 1);
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  await expect.poll(async () => (await layerNamed(page, id, 'Star')).follow?.damping).toBe(0);
});
