import { createCanvas, loadImage } from '@napi-rs/canvas';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { goTo, newPiece, storedPiece, timeline, timelineX, waitSaved } from './support/app';

type Whole = Awaited<ReturnType<typeof storedPiece>>['layers'][number] & {
  effects: { id: string; kind: string; parameters: Record<string, { keyframes: { id: string; at: unknown }[] }> }[];
  listens: { property: string; amount: number }[];
};
const layersOf = async (page: Page, id: string) => (await storedPiece(page, id)).layers as Whole[];
const named = async (page: Page, id: string, name: string) =>
  (await layersOf(page, id)).find((layer) => layer.name === name)!;
const openPicture = (page: Page) => page.getByRole('button', { name: 'Picture', exact: true }).click();

/** How far red, green and blue lie apart in the preview, beside the handles about its middle. */
async function colourfulness(page: Page): Promise<number> {
  const image = await loadImage(await page.getByTestId('canvas').screenshot());
  const context = createCanvas(image.width, image.height).getContext('2d');
  context.drawImage(image, 0, 0);
  const channels = context.getImageData(image.width * 0.47, image.height * 0.47, 1, 1).data.slice(0, 3);
  return Math.max(...channels) - Math.min(...channels);
}

test('a look does over what is below it and nothing above; its keyframes move on the timeline', async ({ page }) => {
  const id = await newPiece(page, 'Looks');
  await openPicture(page);
  await page.getByRole('button', { name: 'Ellipse', exact: true }).click();
  await page.getByRole('button', { name: 'Look', exact: true }).click();
  await page.getByRole('tab', { name: 'Effects' }).click();
  await page.getByLabel('Add effect').selectOption('grey');
  await expect.poll(() => colourfulness(page)).toBeLessThan(5);

  // What is put over it keeps its colour, and what lies below can still be picked.
  await page.getByRole('tab', { name: 'Add' }).click();
  await page.getByRole('button', { name: 'Rectangle', exact: true }).click();
  await expect.poll(() => colourfulness(page)).toBeGreaterThan(100);

  // A parameter of the effect is keyframed, and its star is dragged on the timeline.
  await timeline(page).getByRole('button', { name: 'Look', exact: true }).click();
  await page.getByRole('tab', { name: 'Effects' }).click();
  await page.getByRole('button', { name: 'Show the values of Black and white' }).click();
  await goTo(page, 1);
  await page.getByRole('button', { name: 'Add Amount of Black and white keyframe' }).click();
  await waitSaved(page);
  const look = await named(page, id, 'Look');
  const key = look.effects.find((effect) => effect.kind === 'grey')!.parameters.amount!.keyframes[0]!;
  const star = page.locator(`[data-key="${key.id}"]`).first();
  await expect(star).toHaveAccessibleName(/Black and white: Amount/);
  const box = (await star.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(await timelineX(page, 2), box.y + box.height / 2, { steps: 5 });
  await page.mouse.up();
  await expect
    .poll(
      async () =>
        (await named(page, id, 'Look')).effects.find((e) => e.kind === 'grey')!.parameters.amount!.keyframes[0]!.at,
    )
    .toMatchObject({ to: { beat: 4 } });
  await expect(
    page.getByRole('complementary', { name: 'Details' }).getByLabel('Easing', { exact: true }),
  ).toBeVisible();
  await expect(timeline(page)).toBeVisible();
});

test('a shape has forms, a group a time of its own, and a parameter of an effect listens', async ({ page }) => {
  const id = await newPiece(page, 'Shapes to morph');
  await openPicture(page);
  await page.getByRole('button', { name: 'Diamond', exact: true }).click();
  await page.getByRole('button', { name: 'Add morph shape' }).click();
  await expect(page.locator('[data-handle=point-0-1]')).toBeVisible();
  const box = (await page.locator('[data-handle=point-0-1]').boundingBox())!;
  await page.mouse.move(box.x + 4, box.y + 4);
  await page.mouse.down();
  await page.mouse.move(box.x + 44, box.y + 4, { steps: 4 });
  await page.mouse.up();
  const shape = await named(page, id, 'Diamond');
  const [form] = shape.content.forms as { d: string }[];
  expect(form!.d).not.toBe(shape.content.d);
  expect(shape.tracks.form!.value).toBe(1);
  await page.keyboard.press('Escape');

  await page.getByRole('tab', { name: 'Effects' }).click();
  await page.getByLabel('Add effect').selectOption('glow');
  await page.getByRole('button', { name: 'Motion', exact: true }).click();
  await page.getByRole('tab', { name: 'Audio-driven' }).click();
  await page.getByLabel('Drive a property by the music').selectOption({ label: 'Glow: Radius' });
  await expect
    .poll(async () => (await named(page, id, 'Diamond')).listens.map((listen) => listen.property))
    .toEqual([expect.stringMatching(/^effect\/.+\/radius$/)]);

  await page.keyboard.press('Control+g');
  await page.getByLabel('Speed').fill('50');
  await page.getByLabel('Speed').press('Enter');
  await page.getByRole('checkbox', { name: 'Loop' }).check();
  await page.getByRole('checkbox', { name: 'Ping-pong' }).check();
  await expect
    .poll(async () => (await layersOf(page, id)).find((layer) => layer.kind === 'group')!.content.time)
    .toEqual({ speed: 0.5, repeat: { unit: 'beats', value: 4 }, turns: true, freeze: null });
  await page.getByRole('checkbox', { name: 'Loop' }).uncheck();
  await page.getByLabel('Speed').fill('100');
  await page.getByLabel('Speed').press('Enter');
  await expect
    .poll(async () => (await layersOf(page, id)).find((layer) => layer.kind === 'group')!.content.time)
    .toBeNull();
});
