import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { readPoints } from '@core/geometry';
import { newPiece, storedPiece } from './support/app';

async function at(page: Page, dx: number, dy: number): Promise<{ x: number; y: number }> {
  const box = (await page.getByTestId('canvas').boundingBox())!;
  const zoom = box.width / 1920;
  return { x: box.x + box.width / 2 + dx * zoom, y: box.y + box.height / 2 + dy * zoom };
}
async function drag(page: Page, from: { x: number; y: number }, to: { x: number; y: number }): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 3 });
  await page.mouse.move(to.x, to.y, { steps: 3 });
  await page.mouse.up();
}
async function middleOf(page: Page, handle: string): Promise<{ x: number; y: number }> {
  const box = (await page.locator(`[data-handle=${handle}]`).boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
}
const layerOf = async (page: Page, id: string) => (await storedPiece(page, id)).layers[0]!;
const pointsOf = async (page: Page, id: string) =>
  readPoints((await layerOf(page, id)).content.d as string).flatMap((contour) => contour.points);

test('the pen draws corners and curves, and its points are edited on the canvas', async ({ page }) => {
  const id = await newPiece(page, 'Points');
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Pen', exact: true }).click();
  const click = async (x: number, y: number) => {
    const p = await at(page, x, y);
    await page.mouse.click(p.x, p.y);
  };
  await click(-300, 200);
  await click(0, -300);
  await drag(page, await at(page, 300, 200), await at(page, 300, 320));
  await click(-300, 200);
  await expect(page.locator('[data-handle=point-0-2]')).toBeVisible();
  let layer = await layerOf(page, id);
  expect(layer.kind).toBe('path');
  let points = await pointsOf(page, id);
  expect(points).toHaveLength(3);
  expect(points[2]!.after).not.toBeNull();
  expect(points[1]!.after).toBeNull();

  // A corner is dragged: the box follows, and all else stays where it was.
  const still = await middleOf(page, 'point-0-0');
  const corner = await middleOf(page, 'point-0-1');
  await drag(page, corner, { x: corner.x + 60, y: corner.y - 30 });
  const moved = await middleOf(page, 'point-0-1');
  expect(Math.hypot(moved.x - corner.x - 60, moved.y - corner.y + 30)).toBeLessThan(2);
  const stood = await middleOf(page, 'point-0-0');
  expect(Math.hypot(stood.x - still.x, stood.y - still.y)).toBeLessThan(1);

  // A double click makes it smooth, another one on the path adds a point, Delete takes it away again.
  await page.mouse.dblclick(moved.x, moved.y);
  await expect.poll(async () => (await pointsOf(page, id))[1]!.after).not.toBeNull();
  await expect(page.locator('[data-handle=path-after]')).toBeVisible();
  const between = await page.getByTestId('shaped-path').evaluate((path: SVGPathElement) => {
    const p = path.getPointAtLength(path.getTotalLength() * 0.12).matrixTransform(path.getScreenCTM()!);
    return { x: p.x, y: p.y };
  });
  await page.mouse.dblclick(between.x, between.y);
  await expect.poll(async () => (await pointsOf(page, id)).length).toBe(4);
  await page.keyboard.press('Delete');
  await expect.poll(async () => (await pointsOf(page, id)).length).toBe(3);

  // Arrows move the chosen point; undo goes back step by step.
  points = await pointsOf(page, id);
  const last = await middleOf(page, 'point-0-2');
  await page.mouse.click(last.x, last.y);
  await page.keyboard.press('Shift+ArrowDown');
  await expect.poll(async () => (await pointsOf(page, id))[2]!.at[1]).toBeGreaterThan(points[2]!.at[1] + 5);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await pointsOf(page, id))[2]!.at[1]).toBeCloseTo(points[2]!.at[1], 1);
  await page.keyboard.press('Escape');
  await expect(page.locator('[data-handle=corner-0]')).toBeVisible();
  layer = await layerOf(page, id);
  expect(layer.tracks.dimensions!.value).not.toEqual([0, 0]);
});

test('a figure turns into points, and a mask is drawn and bent on the canvas', async ({ page }) => {
  const id = await newPiece(page, 'Masks');
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Star', exact: true }).click();
  await page.getByRole('button', { name: 'Convert to points' }).click();
  await expect(page.locator('[data-handle=point-0-9]')).toBeVisible();
  expect((await layerOf(page, id)).kind).toBe('path');
  await page.keyboard.press('Escape');

  await page.getByRole('tab', { name: 'Masks' }).click();
  await page.getByRole('button', { name: 'Draw', exact: true }).click();
  for (const [x, y] of [
    [-120, -120],
    [120, -120],
    [0, 130],
    [-120, -120],
  ] as const) {
    const p = await at(page, x, y);
    await page.mouse.click(p.x, p.y);
  }
  await expect(page.locator('[data-handle=point-0-2]')).toBeVisible();
  const maskPoints = async () => {
    const [mask] = ((await layerOf(page, id)) as unknown as { masks: { d: string; box: [number, number] }[] }).masks;
    return readPoints(mask!.d)[0]!.points.map((p) => [p.at[0] - mask!.box[0] / 2, p.at[1] - mask!.box[1] / 2]);
  };
  const drawn = await maskPoints();
  expect(drawn).toHaveLength(3);
  // In the layer's own pixels, about its middle.
  for (const [i, [x, y]] of [
    [-120, -120],
    [120, -120],
    [0, 130],
  ].entries())
    expect(Math.hypot(drawn[i]![0]! - x!, drawn[i]![1]! - y!)).toBeLessThan(8);
  const tip = await middleOf(page, 'point-0-2');
  await drag(page, tip, { x: tip.x, y: tip.y + 20 });
  await expect.poll(async () => (await maskPoints())[2]![1]).toBeGreaterThan(drawn[2]![1]! + 30);

  // A second form of it is bent by itself, and the mask is seen as that form.
  const [before] = ((await layerOf(page, id)) as unknown as { masks: { d: string }[] }).masks;
  await page.getByRole('tabpanel').getByRole('button', { name: 'Add morph shape' }).click();
  const corner = await middleOf(page, 'point-0-0');
  await drag(page, corner, { x: corner.x - 15, y: corner.y - 15 });
  await expect
    .poll(async () => {
      const [mask] = (
        (await layerOf(page, id)) as unknown as {
          masks: { d: string; forms: { d: string }[]; tracks: { form?: { value: number } } }[];
        }
      ).masks;
      return [mask!.d === before!.d, mask!.forms.length, mask!.forms[0]?.d !== mask!.d, mask!.tracks.form?.value];
    })
    .toEqual([true, 1, true, 1]);
});
