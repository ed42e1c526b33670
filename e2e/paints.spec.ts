import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { newPiece, storedPiece } from './support/app';

interface Stop {
  at: number;
  colour: string;
}
interface Gradient {
  shape: string;
  matrix: number[];
  stops: Stop[];
  spread: string;
}
const contentOf = async (page: Page, id: string) =>
  (await storedPiece(page, id)).layers[0]!.content as unknown as {
    fillGradient: Gradient | null;
    strokeStyle: { cap: string; dash: number[]; position: string };
    paints: { use: string; isOn: boolean; width: number; gradient: Gradient | null }[];
    corners: number[];
  };
async function dragHandle(page: Page, name: string, dx: number, dy: number): Promise<void> {
  const box = (await page.locator(`[data-handle=${name}]`).boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + dx / 2, y + dy / 2, { steps: 3 });
  await page.mouse.move(x + dx, y + dy, { steps: 3 });
  await page.mouse.up();
}

test('a shape is filled with a gradient held on the canvas, stroked with dashes, and painted more than once', async ({
  page,
}) => {
  const id = await newPiece(page, 'Paints');
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Rectangle', exact: true }).click();
  await page.getByRole('tab', { name: 'Fill and stroke' }).click();
  await page.getByLabel('Fill paint type').selectOption('linear');
  const zoom = (await page.getByTestId('canvas').boundingBox())!.width / 1920;
  // The end of the line goes from the right side's middle down to the right bottom corner.
  await dragHandle(page, 'gradient-to', 0, 120 * zoom);
  let { fillGradient } = await contentOf(page, id);
  const [a, b, , , e, f] = fillGradient!.matrix as [number, number, number, number, number, number];
  expect([e, f]).toEqual([0, 0.5]);
  expect(Math.abs(a - 1)).toBeLessThan(0.02);
  expect(Math.abs(b - 0.5)).toBeLessThan(0.02);

  // A double click adds a stop and moves no other; arrows move the one that has the focus.
  const strip = (await page.getByTestId('stop-strip').boundingBox())!;
  await page.mouse.dblclick(strip.x + strip.width / 4, strip.y + strip.height / 2);
  await expect.poll(async () => (await contentOf(page, id)).fillGradient!.stops.length).toBe(3);
  ({ fillGradient } = await contentOf(page, id));
  expect(fillGradient!.stops.map((stop) => Math.round(stop.at * 20) / 20)).toEqual([0, 0.25, 1]);
  await page.getByRole('slider', { name: 'Fill stop 2' }).focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect
    .poll(async () => (await contentOf(page, id)).fillGradient!.stops[1]!.at)
    .toBeGreaterThan(fillGradient!.stops[1]!.at);
  await page.getByLabel('Fill stop 2 position').fill('40');
  await page.getByLabel('Fill stop 2 position').press('Enter');
  await page.getByRole('button', { name: 'Reverse', exact: true }).click();
  await page.getByLabel('Fill spread').selectOption('reflect');
  await expect.poll(async () => (await contentOf(page, id)).fillGradient!.spread).toBe('reflect');
  ({ fillGradient } = await contentOf(page, id));
  expect(fillGradient!.stops.map((stop) => stop.at)).toEqual([0, 0.6, 1]);

  // Another shape of gradient keeps the stops, and its middle moves it as a whole.
  await page.getByLabel('Fill paint type').selectOption('radial');
  await dragHandle(page, 'gradient-from', -100 * zoom, 0);
  ({ fillGradient } = await contentOf(page, id));
  expect(fillGradient!.stops).toHaveLength(3);
  expect(Math.abs(fillGradient!.matrix[4]! - 0.25)).toBeLessThan(0.02);
  expect(fillGradient!.matrix[0]).toBeCloseTo(0.5, 6);

  await page.getByRole('button', { name: 'Add stroke', exact: true }).click();
  await page.getByLabel('Stroke 2 width').fill('14');
  await page.getByLabel('Stroke 2 width').press('Enter');
  await page.getByRole('button', { name: 'Add fill', exact: true }).click();
  await page.getByRole('checkbox', { name: 'Fill 2 on' }).uncheck();
  expect((await contentOf(page, id)).paints.map(({ use, isOn, width }) => [use, isOn, width])).toEqual([
    ['stroke', true, 14],
    ['fill', false, 0],
  ]);
  // The topmost goes below by keyboard.
  await page.getByRole('button', { name: 'Reorder Fill 2', exact: true }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByText('Now at position 1 of 2')).toBeAttached();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByText('Now at position 2 of 2')).toBeAttached();
  await page.keyboard.press('Space');
  await expect
    .poll(async () => (await contentOf(page, id)).paints.map((paint) => paint.use))
    .toEqual(['fill', 'stroke']);

  await page.getByRole('button', { name: 'Show Stroke settings', exact: true }).click();
  await page.getByLabel('Stroke dash pattern', { exact: true }).fill('24, 12');
  await page.getByLabel('Stroke dash pattern', { exact: true }).press('Enter');
  await page.getByLabel('Stroke position', { exact: true }).selectOption('outside');
  await page.getByLabel('Top left corner').fill('0');
  await page.getByLabel('Top left corner').press('Enter');
  const content = await contentOf(page, id);
  expect(content.strokeStyle).toMatchObject({ dash: [24, 12], position: 'outside' });
  expect(content.corners).toEqual([0, 1, 1, 1]);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await contentOf(page, id)).corners).toEqual([1, 1, 1, 1]);
});
