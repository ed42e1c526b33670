import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { appUrl, newPiece, storedPiece } from './support/app';

/** Screen point of the middle of the canvas plus pixels of the format. */
async function at(page: Page, dx: number, dy: number, width = 1920): Promise<{ x: number; y: number }> {
  const box = (await page.getByTestId('canvas').boundingBox())!;
  const zoom = box.width / width;
  return { x: box.x + box.width / 2 + dx * zoom, y: box.y + box.height / 2 + dy * zoom };
}
async function drag(page: Page, from: { x: number; y: number }, to: { x: number; y: number }): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 3 });
  await page.mouse.move(to.x, to.y, { steps: 3 });
}
async function put(page: Page, name: string, x: number, y: number): Promise<void> {
  await page.getByRole('button', { name, exact: true }).click();
  for (const [axis, value] of [
    ['x', x],
    ['y', y],
  ] as const) {
    const field = page.getByLabel(`Position ${axis}`, { exact: true });
    await field.fill(String(value));
    await field.press('Enter');
  }
}
const openPicture = (page: Page) => page.getByRole('button', { name: 'Picture', exact: true }).click();
const selectedName = (page: Page) =>
  page.getByRole('complementary', { name: 'Details' }).getByRole('heading').textContent();
const positions = async (page: Page, id: string) =>
  (await storedPiece(page, id)).layers.map((layer) => layer.tracks.position!.value as [number, number]);

test('sides stretch a shape and leave the other side where it is; numbers are told while dragging', async ({
  page,
}) => {
  const id = await newPiece(page, 'Sides');
  await openPicture(page);
  await put(page, 'Rectangle', 0, 0);
  await expect(page.locator('[data-handle=edge-0b]')).toBeVisible();
  const side = await at(page, 200, 0);
  await drag(page, side, await at(page, 300, 0));
  await expect(page.getByTestId('readout')).toHaveText(/^\d+ × 240$/);
  await page.mouse.up();
  const [layer] = (await storedPiece(page, id)).layers;
  const [w, h] = layer!.tracks.dimensions!.value as [number, number];
  const [x, y] = layer!.tracks.position!.value as [number, number];
  expect([Math.abs(w - 500) < 8, h, y]).toEqual([true, 240, 0]);
  // Its left side is where it was.
  expect(Math.abs(x - w / 2 + 200)).toBeLessThan(0.01);
  await page.keyboard.press('Control+z');
  expect((await storedPiece(page, id)).layers[0]!.tracks.dimensions!.value).toEqual([400, 240]);
});

test('layers stand in line and share the gaps; equal gaps are met by dragging', async ({ page }) => {
  const id = await newPiece(page, 'In line');
  await openPicture(page);
  await put(page, 'Rectangle', -700, -300);
  await put(page, 'Ellipse', -100, 0);
  await put(page, 'Diamond', 700, 200);
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Align top edges' }).click();
  const tops = async () =>
    (await storedPiece(page, id)).layers.map((layer) => {
      const [, y] = layer.tracks.position!.value as [number, number];
      return Math.round(y - (layer.tracks.dimensions!.value as [number, number])[1] / 2);
    });
  expect(await tops()).toEqual([-420, -420, -420]);
  await page.getByRole('button', { name: 'Distribute horizontally' }).click();
  const spans = (await storedPiece(page, id)).layers.map((layer) => {
    const [x] = layer.tracks.position!.value as [number, number];
    const [w] = layer.tracks.dimensions!.value as [number, number];
    return [x - w / 2, x + w / 2] as const;
  });
  expect(spans[1]![0] - spans[0]![1]).toBeCloseTo(spans[2]![0] - spans[1]![1], 3);

  // One alone is lined up with the frame.
  await page.keyboard.press('Escape');
  await page.mouse.click(...(Object.values(await at(page, spans[1]![0] + 150, -270)) as [number, number]));
  await page.keyboard.press('Control+Alt+ArrowDown');
  await expect.poll(async () => (await positions(page, id))[1]![1]).toBe(540 - 150);

  // Between the other two it snaps to where the gaps are equal.
  await page.keyboard.press('Control+z');
  const grip = await at(page, spans[1]![0] + 150, -270);
  await drag(page, grip, { x: grip.x + 5, y: grip.y });
  await expect(page.locator('[data-guide=gaps]')).toBeVisible();
  await page.mouse.up();
  const [xs] = [(await positions(page, id)).map(([x]) => x)];
  expect(xs[1]).toBeCloseTo((spans[1]![0] + spans[1]![1]) / 2, 1);
});

test('a guide is dragged out of a ruler, holds what is dragged near it, and can be typed and taken away', async ({
  page,
}) => {
  const id = await newPiece(page, 'Guides');
  await openPicture(page);
  await put(page, 'Rectangle', 100, 90);
  await page.getByRole('button', { name: 'Rulers, grid and guides' }).click();
  await page.getByRole('checkbox', { name: 'Rulers' }).check();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  const ruler = (await page.getByRole('img', { name: 'Vertical ruler' }).boundingBox())!;
  const place = await at(page, -433, 0);
  await drag(page, { x: ruler.x + 8, y: place.y }, place);
  await page.mouse.up();
  const guides = async () =>
    ((await storedPiece(page, id)) as unknown as { guides: { axis: string; at: number }[] }).guides;
  await expect.poll(async () => (await guides()).length).toBe(1);
  const [guide] = await guides();
  expect(guide!.axis).toBe('x');
  expect(Math.abs(guide!.at * 1920 - (960 - 433))).toBeLessThan(4);

  await page.getByRole('button', { name: 'Rulers, grid and guides' }).click();
  await page.getByLabel('Vertical guide 1', { exact: true }).fill('500');
  await page.getByLabel('Vertical guide 1', { exact: true }).press('Enter');
  await page.keyboard.press('Escape');
  // It lies over the rectangle until it is gone.
  await expect(page.getByRole('dialog')).toHaveCount(0);
  // The rectangle's left side lies at -100 from the middle, the guide at 500 - 960 = -460.
  const grip = await at(page, 100, 90);
  const to = await at(page, 100 - 360 + 8, 90);
  await drag(page, grip, to);
  await expect(page.locator('[data-guide=line]').first()).toBeAttached();
  await page.mouse.up();
  await expect.poll(async () => (await positions(page, id))[0]![0]).toBeCloseTo(-260, 3);

  await page.getByRole('button', { name: 'Rulers, grid and guides' }).click();
  await page.getByRole('button', { name: 'Remove Vertical guide 1' }).click();
  await expect.poll(async () => (await guides()).length).toBe(0);
});

test('the canvas is magnified about the pointer and moved; handles stay on what they hold', async ({ page }) => {
  const id = await newPiece(page, 'Near');
  await openPicture(page);
  await put(page, 'Rectangle', 300, 100);
  const corner = await at(page, 500, 220);
  await page.mouse.move(corner.x, corner.y);
  await page.keyboard.down('Control');
  await page.mouse.wheel(0, -400);
  await page.keyboard.up('Control');
  await expect(page.getByTestId('canvas-zoom')).not.toHaveText(/^[1-4]\d %$/);
  const now = await at(page, 500, 220);
  expect(Math.hypot(now.x - corner.x, now.y - corner.y)).toBeLessThan(2);
  await page.mouse.wheel(0, 60);
  await expect.poll(async () => (await at(page, 500, 220)).y).toBeLessThan(now.y - 50);
  // Dragged while magnified, it goes where the pointer goes.
  const grip = await at(page, 400, 150);
  const to = await at(page, 434, 177);
  // With Alt it snaps to nothing.
  await page.keyboard.down('Alt');
  await drag(page, grip, to);
  await page.mouse.up();
  await page.keyboard.up('Alt');
  const [[x, y]] = (await positions(page, id)) as [[number, number]];
  expect(Math.abs(x - 334)).toBeLessThan(6);
  expect(Math.abs(y - 127)).toBeLessThan(6);
  await page.keyboard.press('f');
  expect(Math.abs((await at(page, 0, 0)).x - (await page.locator('.stage').boundingBox())!.x)).toBeGreaterThan(100);
  await expect(page.getByTestId('canvas-zoom')).toHaveText(/^[1-4]\d %$/);
});

test('a box about layers selects them; Alt picks what lies below', async ({ page }) => {
  await newPiece(page, 'Picking');
  await openPicture(page);
  await put(page, 'Rectangle', -300, 0);
  await put(page, 'Ellipse', -300, 0);
  await put(page, 'Diamond', 500, 300);
  await page.keyboard.press('Escape');
  await drag(page, await at(page, -800, -300), await at(page, 0, 250));
  await page.mouse.up();
  expect(await selectedName(page)).toBe('2 layers');
  await page.keyboard.press('Escape');
  const both = await at(page, -300, 0);
  await page.mouse.click(both.x, both.y);
  expect(await selectedName(page)).toBe('Ellipse');
  await page.keyboard.down('Alt');
  await page.mouse.click(both.x, both.y);
  expect(await selectedName(page)).toBe('Rectangle');
  await page.mouse.click(both.x, both.y);
  expect(await selectedName(page)).toBe('Ellipse');
  await page.keyboard.up('Alt');
  await page.mouse.click(both.x, both.y, { button: 'right' });
  await page.getByRole('menuitem', { name: 'Select Rectangle' }).click();
  await expect.poll(() => selectedName(page)).toBe('Rectangle');
});

test('layers go into another piece by the clipboard, looks onto other layers, and SVG and words come from outside', async ({
  page,
}) => {
  await newPiece(page, 'From here');
  await openPicture(page);
  await put(page, 'Rectangle', 120, 80);
  await page.keyboard.press('Control+c');
  const id = await newPiece(page, 'To there');
  await page.keyboard.press('Control+v');
  expect((await storedPiece(page, id)).layers.map((layer) => [layer.name, layer.tracks.position!.value])).toEqual([
    ['Rectangle copy', [120, 80]],
  ]);

  await openPicture(page);
  await put(page, 'Ellipse', -300, 0);
  await page.keyboard.press('Control+Alt+v');
  await expect
    .poll(async () => (await storedPiece(page, id)).layers[1]!.tracks.fill!.value)
    .toBe((await storedPiece(page, id)).layers[0]!.tracks.fill!.value);

  // By the menu as well, and then by the key.
  await page.locator('[data-layer]').filter({ hasText: 'Ellipse' }).first().click({ button: 'right' });
  await page.getByRole('menuitem', { name: /^Copy/ }).click();
  await expect(page.getByText('Copied Ellipse', { exact: true })).toBeVisible();
  await page.keyboard.press('Control+v');
  await expect.poll(async () => (await storedPiece(page, id)).layers.at(-1)!.name).toBe('Ellipse copy');

  const paste = (type: string, text: string) =>
    page.evaluate(
      ([kind, data]) => {
        const transfer = new DataTransfer();
        transfer.setData(kind!, data!);
        document.body.dispatchEvent(
          new ClipboardEvent('paste', { clipboardData: transfer, bubbles: true, cancelable: true }),
        );
      },
      [type, text],
    );
  await paste('text/plain', 'Nine days of wind');
  await expect.poll(async () => (await storedPiece(page, id)).layers.at(-1)!.content.text).toBe('Nine days of wind');
  await paste(
    'text/plain',
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 20 20"><circle cx="10" cy="10" r="9" fill="#FF6F59"/></svg>',
  );
  await expect.poll(async () => (await storedPiece(page, id)).layers.at(-1)!.kind).toBe('group');
  expect(page.url()).toContain(appUrl());
});
