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

/** Colour of the preview at a place, by the pixels of a picture of it. */
async function colourAt(page: Page, x: number, y: number): Promise<number[]> {
  const shot = await page.getByTestId('canvas').screenshot();
  return page.evaluate(
    async ([data, sx, sy]) => {
      const image = await createImageBitmap(await (await fetch(`data:image/png;base64,${String(data)}`)).blob());
      const canvas = new OffscreenCanvas(image.width, image.height);
      const context = canvas.getContext('2d')!;
      context.drawImage(image, 0, 0);
      return [...context.getImageData(image.width * Number(sx), image.height * Number(sy), 1, 1).data.slice(0, 3)];
    },
    [shot.toString('base64'), x, y] as const,
  );
}

test('a look does over what is below it and nothing above; its keyframes move on the timeline', async ({ page }) => {
  const id = await newPiece(page, 'Looks');
  await openPicture(page);
  await page.getByRole('button', { name: 'Ellipse', exact: true }).click();
  await page.getByRole('button', { name: 'Look', exact: true }).click();
  await page.getByRole('tab', { name: 'Effects' }).click();
  await page.getByLabel('Add an effect').selectOption('grey');
  const [r, g, b] = await (async () => {
    await expect
      .poll(async () => {
        const [red, , blue] = await colourAt(page, 0.5, 0.5);
        return Math.abs(red! - blue!);
      })
      .toBeLessThan(4);
    return colourAt(page, 0.5, 0.5);
  })();
  expect(Math.abs(r! - g!)).toBeLessThan(4);
  expect(b).toBeGreaterThan(60);

  // What is put over it keeps its colour, and what lies below can still be picked.
  await page.getByRole('tab', { name: 'Put up' }).click();
  await page.getByRole('button', { name: 'Rectangle', exact: true }).click();
  await expect
    .poll(async () => {
      const [red, , blue] = await colourAt(page, 0.5, 0.5);
      return red! - blue!;
    })
    .toBeGreaterThan(100);

  // A parameter of the effect is keyframed, and its star is dragged on the timeline.
  await page
    .locator('[data-layer]')
    .filter({ hasText: 'Look' })
    .first()
    .getByRole('button', { name: 'Look' })
    .first()
    .click();
  await page.getByRole('tab', { name: 'Effects' }).click();
  await page.getByRole('button', { name: 'Open Black and white' }).click();
  await goTo(page, 1);
  await page.getByRole('button', { name: 'Keyframe Amount of Black and white here' }).click();
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
  const id = await newPiece(page, 'Forms');
  await openPicture(page);
  await page.getByRole('button', { name: 'Diamond', exact: true }).click();
  await page.getByRole('button', { name: 'Add a form' }).click();
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
  await page.getByLabel('Add an effect').selectOption('glow');
  await page.getByRole('button', { name: 'Motion', exact: true }).click();
  await page.getByRole('tab', { name: 'Listen' }).click();
  await page.getByLabel('Let a value listen to the music').selectOption({ label: 'Glow: Radius' });
  await expect
    .poll(async () => (await named(page, id, 'Diamond')).listens.map((listen) => listen.property))
    .toEqual([expect.stringMatching(/^effect\/.+\/radius$/)]);

  await page.keyboard.press('Control+g');
  await page.getByLabel('Speed inside').fill('50');
  await page.getByLabel('Speed inside').press('Enter');
  await page.getByRole('checkbox', { name: 'Play again and again' }).check();
  await page.getByRole('checkbox', { name: 'There and back' }).check();
  await expect
    .poll(async () => (await layersOf(page, id)).find((layer) => layer.kind === 'group')!.content.time)
    .toEqual({ speed: 0.5, repeat: { unit: 'beats', value: 4 }, turns: true, freeze: null });
  await page.getByRole('checkbox', { name: 'Play again and again' }).uncheck();
  await page.getByLabel('Speed inside').fill('100');
  await page.getByLabel('Speed inside').press('Enter');
  await expect
    .poll(async () => (await layersOf(page, id)).find((layer) => layer.kind === 'group')!.content.time)
    .toBeNull();
});
