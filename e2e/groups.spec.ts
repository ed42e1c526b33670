import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { newPiece, storedPiece, timeline, workFile } from './support/app';

interface Placed {
  id: string;
  name: string;
  kind: string;
  parentId: string | null;
  tracks: Record<string, { value: unknown; keyframes: unknown[] }>;
  gestures: { gesture: string }[];
}
const layersOf = async (page: Page, id: string): Promise<Placed[]> =>
  (await storedPiece(page, id)).layers as unknown as Placed[];
const row = (page: Page, name: string) => timeline(page).getByRole('group', { name, exact: true });
const called = async (page: Page, id: string, name: string): Promise<Placed> =>
  (await layersOf(page, id)).find((layer) => layer.name === name)!;

/** Where a point of the frame, measured from its centre in pixels of a 1920 px wide format, is on the page. */
async function at(page: Page, x: number, y: number): Promise<{ x: number; y: number }> {
  const box = (await page.getByTestId('canvas').boundingBox())!;
  return { x: box.x + (box.width * (960 + x)) / 1920, y: box.y + (box.height * (540 + y)) / 1080 };
}
async function dragOn(page: Page, from: { x: number; y: number }, to: { x: number; y: number }): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2);
  await page.mouse.move(to.x, to.y);
  await page.mouse.up();
}
const position = (layer: Placed) => layer.tracks.position!.value as [number, number];

test('layers are grouped, moved as one, opened on the canvas, moved in and out, and taken apart where they are', async ({
  page,
}) => {
  const id = await newPiece(page, 'Groups');
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Rectangle' }).click();
  await page.getByRole('button', { name: 'Ellipse' }).click();
  await dragOn(page, await at(page, 0, 0), await at(page, 500, 0));
  await page.getByRole('button', { name: 'Diamond' }).click();
  await dragOn(page, await at(page, 0, 0), await at(page, -600, 200));

  // Two of them, by the keyboard; the group stands in their place and can be named.
  await row(page, 'Rectangle').getByRole('button', { name: 'Rectangle', exact: true }).click();
  await row(page, 'Ellipse')
    .getByRole('button', { name: 'Ellipse', exact: true })
    .click({ modifiers: ['Shift'] });
  await page.keyboard.press('Control+g');
  await row(page, 'Group 1').getByRole('button', { name: 'Group 1', exact: true }).dblclick();
  await page.getByLabel('Layer name').fill('Lantern');
  await page.keyboard.press('Enter');
  const lantern = await called(page, id, 'Lantern');
  expect((await layersOf(page, id)).map((l) => [l.name, l.parentId === lantern.id])).toEqual([
    ['Rectangle', true],
    ['Ellipse', true],
    ['Lantern', false],
    ['Diamond', false],
  ]);

  // A click means the group; it moves with all that is in it, as one step.
  const before = position(await called(page, id, 'Ellipse'));
  await dragOn(page, await at(page, 500, 0), await at(page, 560, 120));
  const [gx, gy] = position(await called(page, id, 'Lantern'));
  const standing = position(lantern);
  expect(Math.abs(gx - standing[0] - 60)).toBeLessThan(8);
  expect(Math.abs(gy - standing[1] - 120)).toBeLessThan(8);
  expect(position(await called(page, id, 'Ellipse'))).toEqual(before);

  // Opened, a click means what is in it; Escape leads out again.
  const inside = await at(page, 560, 120);
  await page.mouse.dblclick(inside.x, inside.y);
  await expect(page.getByRole('heading', { name: 'Ellipse' })).toBeVisible();
  await dragOn(page, inside, await at(page, 560, -80));
  const moved = position(await called(page, id, 'Ellipse'));
  expect(Math.abs(moved[1] - before[1] + 200)).toBeLessThan(12);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('heading', { name: 'Lantern' })).toBeVisible();

  // Keyframes and gestures of the group itself.
  await page.getByRole('button', { name: 'Add Opacity keyframe' }).click();
  await page.getByRole('button', { name: 'Motion', exact: true }).click();
  await page.getByLabel('Search gestures').fill('nova');
  await page.getByRole('option', { name: /^Nova/ }).click();
  const dressed = await called(page, id, 'Lantern');
  expect(dressed.tracks.opacity!.keyframes).toHaveLength(1);
  expect(dressed.gestures).toHaveLength(1);

  // In by dropping its name on the group, out again by a key; nothing changes its place on the canvas.
  const home = position(await called(page, id, 'Diamond'));
  const name = (await row(page, 'Diamond').getByRole('button', { name: 'Diamond', exact: true }).boundingBox())!;
  const target = (await row(page, 'Lantern').getByRole('button', { name: 'Lantern', exact: true }).boundingBox())!;
  await dragOn(page, { x: name.x + 20, y: name.y + 8 }, { x: target.x + 20, y: target.y + target.height / 2 });
  const dropped = await called(page, id, 'Diamond');
  expect(dropped.parentId).toBe(lantern.id);
  expect(Math.abs(position(dropped)[0] + 60 - home[0])).toBeLessThan(8);
  await page.keyboard.press('Control+Shift+ArrowUp');
  const out = await called(page, id, 'Diamond');
  expect(out.parentId).toBeNull();
  expect(Math.hypot(position(out)[0] - home[0], position(out)[1] - home[1])).toBeLessThan(1);

  // In again by the keyboard alone, and back.
  await page.keyboard.press('Control+Shift+ArrowDown');
  expect((await called(page, id, 'Diamond')).parentId).toBe(lantern.id);
  await page.keyboard.press('Control+z');
  expect((await called(page, id, 'Diamond')).parentId).toBeNull();

  // Folded, only the group has a row; taken apart, its layers stay where they were seen.
  await row(page, 'Lantern').getByRole('button', { name: 'Collapse Lantern' }).click();
  await expect(row(page, 'Ellipse')).toHaveCount(0);
  await row(page, 'Lantern').getByRole('button', { name: 'Lantern', exact: true }).click();
  await page.keyboard.press('Control+Shift+g');
  const free = await called(page, id, 'Ellipse');
  expect(free.parentId).toBeNull();
  expect(Math.abs(position(free)[0] - (moved[0] + 60))).toBeLessThan(8);
  expect(Math.abs(position(free)[1] - (moved[1] + 120))).toBeLessThan(8);
  await page.keyboard.press('Control+z');
  expect((await called(page, id, 'Ellipse')).parentId).toBe(lantern.id);
});

test('while playing and dragging nothing is drawn anew that does not show the change', async ({ page }) => {
  // What React reports to its developer tools: one call a commit.
  await page.addInitScript(() => {
    const counter = { commits: 0 };
    Object.assign(window, {
      counter,
      __REACT_DEVTOOLS_GLOBAL_HOOK__: {
        supportsFiber: true,
        inject: () => 1,
        onCommitFiberRoot: () => void counter.commits++,
        onCommitFiberUnmount() {},
      },
    });
  });
  const commits = () => page.evaluate(() => (window as unknown as { counter: { commits: number } }).counter.commits);
  await newPiece(page, 'Quiet');
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Rectangle' }).click();
  for (let i = 0; i < 5; i++) await page.keyboard.press('Control+d');
  await expect(page.locator('[data-layer]')).toHaveCount(6);
  const rows = () =>
    page.evaluate(() => {
      const seen = window as unknown as { changedRows?: Set<string> };
      seen.changedRows = new Set();
      const observer = new MutationObserver((changes) => {
        for (const { target } of changes) {
          const element = target instanceof Element ? target : target.parentElement;
          const layer = element?.closest('[data-layer]')?.getAttribute('data-layer');
          if (layer) seen.changedRows!.add(`${layer} ${element!.tagName} ${element!.className}`);
        }
      });
      observer.observe(document.querySelector('.rows')!, {
        subtree: true,
        childList: true,
        attributes: true,
        characterData: true,
      });
    });
  const changedRows = () => page.evaluate(() => [...(window as unknown as { changedRows: Set<string> }).changedRows]);

  // A focused button would take the key for itself.
  await timeline(page).focus();
  await rows();
  const still = await commits();
  await page.keyboard.press('Space');
  await expect.poll(async () => Number((await commits()) - still)).toBeGreaterThan(0);
  await page.waitForFunction(() => document.querySelector('.playhead') !== null);
  const from = await commits();
  await page.evaluate(
    () =>
      new Promise((resolve) => {
        // Two seconds of the playhead's own clock: frames are what is counted, not waited for.
        const start = performance.now();
        const tick = () => (performance.now() - start > 2000 ? resolve(null) : requestAnimationFrame(tick));
        requestAnimationFrame(tick);
      }),
  );
  const playing = (await commits()) - from;
  await page.keyboard.press('Space');
  // Numbers in the details are read, not watched: some ten a second, not sixty.
  expect(playing).toBeLessThan(45);
  expect(await changedRows()).toEqual([]);

  await rows();
  const start = await at(page, 0, 0);
  await page.mouse.move(start.x, start.y);
  await page.mouse.down();
  for (let i = 1; i <= 30; i++) await page.mouse.move(start.x + i * 2, start.y + i);
  await page.mouse.up();
  // The dragged layer's own row may change (its picture); no other does.
  const changed = new Set((await changedRows()).map((change) => change.split(' ')[0]));
  expect(changed.size).toBeLessThanOrEqual(1);
});

test('a still and the sound are rendered from the same table as the video', async ({ page }) => {
  await newPiece(page, 'Kinds');
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Rectangle' }).click();
  await page.getByRole('button', { name: 'Export', exact: true }).first().click();
  for (const [kind, first] of [
    ['PNG still', [0x89, 0x50, 0x4e, 0x47]],
    ['WAV sound', [0x52, 0x49, 0x46, 0x46]],
    ['GIF', [0x47, 0x49, 0x46, 0x38]],
  ] as const) {
    await page.getByLabel('File type').selectOption({ label: kind });
    await page
      .getByRole('button', { name: /^Export (?!all)/ })
      .first()
      .click();
    const link = page.getByRole('link', { name: `Download ${kind}` });
    await expect(link).toBeVisible({ timeout: 60_000 });
    const [download] = await Promise.all([page.waitForEvent('download'), link.click()]);
    const file = workFile(`kinds-${kind.slice(0, 3)}`);
    await download.saveAs(file);
    const bytes = readFileSync(file);
    expect([...bytes.subarray(0, 4)]).toEqual(first);
    // Ten seconds of silence at 48 kHz, two channels of three bytes.
    if (kind === 'WAV sound') expect(bytes.length - bytes.indexOf('data') - 8).toBe(480_000 * 6);
    expect(download.suggestedFilename()).toMatch(
      { 'PNG still': /^Kinds Wide\.png$/, 'WAV sound': /^Kinds\.wav$/, GIF: /^Kinds Wide\.gif$/ }[kind],
    );
  }
});
