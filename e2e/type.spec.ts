import { createHash } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { makeFont, toWoff } from '../tests/helpers/make-font';
import { appUrl, newPiece, showPanel, storedPiece, waitSaved, workFile } from './support/app';

const type = async (page: Page, words: string): Promise<void> => {
  await page.keyboard.press('Escape');
  await page.keyboard.press('t');
  const field = page.getByLabel('Text on canvas');
  await expect(field).toBeFocused();
  await field.fill(words);
  await page.keyboard.press('Escape');
  await expect(page.locator('[data-handle]').first()).toBeVisible();
};
const face = (page: Page) => page.getByRole('button', { name: /^Font:/ });
const faces = (page: Page) => page.getByRole('list', { name: 'Fonts' }).getByRole('listitem');
const faceCalled = (page: Page, name: string) =>
  page.getByRole('list', { name: 'Fonts' }).getByRole('button', { name, exact: true });
const contentOf = async (page: Page, id: string, words: string) =>
  (await storedPiece(page, id)).layers.find((l) => l.content.text === words)!.content;
const trackOf = async (page: Page, id: string, words: string, property: string) =>
  (await storedPiece(page, id)).layers.find((l) => l.content.text === words)!.tracks[property]!;

/** The painted canvas as it is seen, without what lies over it: two of them differ if the picture does. */
async function seen(page: Page, id: string): Promise<string> {
  await waitSaved(page);
  const frame = await page.context().newPage();
  await frame.goto(`${appUrl()}/frame/${id}?at=0.5`);
  await expect(frame.locator('canvas')).toHaveAttribute('data-state', 'painted');
  const data = await frame.locator('canvas').evaluate((c: HTMLCanvasElement) => c.toDataURL());
  await frame.close();
  return createHash('sha256').update(data).digest('hex');
}

test('fonts of one’s own come in, their styles together; a face is starred and found by feel', async ({ page }) => {
  const files = {
    regular: workFile('lumo-regular.ttf'),
    bold: workFile('lumo-bold.woff'),
    broken: workFile('lumo-broken.otf'),
  };
  writeFileSync(files.regular, makeFont({ family: 'Lumo Block', style: 'Regular', weight: 400 }));
  writeFileSync(files.bold, toWoff(makeFont({ family: 'Lumo Block', style: 'Bold', weight: 700 })));
  writeFileSync(files.broken, makeFont({ family: 'Lumo Block', style: 'Broken', weight: 400 }).slice(0, 600));
  const id = await newPiece(page, 'Own fonts', { custom: [640, 360] });
  await type(page, 'Kite Week');
  const before = await seen(page, id);

  await face(page).click();
  await page.getByLabel('Import font files').setInputFiles([files.regular, files.bold]);
  const family = faceCalled(page, 'Lumo Block');
  await expect(family).toHaveCount(1);
  await expect(family).toContainText('Regular, Bold');
  await family.click();
  await expect(face(page)).toHaveText('Lumo Block');
  expect(await contentOf(page, id, 'Kite Week')).toMatchObject({ family: 'own:Lumo Block' });
  const bold = await seen(page, id);
  expect(bold).not.toBe(before);
  // The weights are files of their own, chosen as CSS does: 600 takes the bold one, 300 the regular.
  await page.getByLabel('Weight', { exact: true }).fill('300');
  await page.keyboard.press('Enter');
  expect(await seen(page, id)).not.toBe(bold);

  // A damaged file says so and changes nothing.
  await face(page).click();
  await page.getByLabel('Import font files').setInputFiles(files.broken);
  await expect(page.getByText(/lumo-broken\.otf.*can’t be read/)).toBeVisible();

  await page.getByLabel('Search fonts').fill('hand');
  await page.getByRole('button', { name: 'All', exact: true }).click();
  await expect(faces(page)).toHaveCount(2);
  await page.getByRole('button', { name: 'Star Caveat' }).click();
  await page.getByLabel('Search fonts').fill('');
  await expect(faces(page).first()).toContainText('Caveat');
  await page.keyboard.press('Escape');
  await waitSaved(page);
  await page.reload();
  await showPanel(page, 'Words');
  await page.getByRole('tab', { name: 'All' }).click();
  await page.getByLabel('Text of Kite Week').focus();
  await expect(face(page)).toHaveText('Lumo Block');
  await face(page).click();
  await page.getByRole('button', { name: 'Starred' }).click();
  await expect(faces(page)).toHaveCount(1);
  // In another piece the family is offered too, and its files come along.
  await page.keyboard.press('Escape');
  const other = await newPiece(page, 'Other piece', { custom: [640, 360] });
  await type(page, 'nine days');
  await face(page).click();
  await faceCalled(page, 'Lumo Block').click();
  await expect(face(page)).toHaveText('Lumo Block');
  expect(((await storedPiece(page, other)) as unknown as { media: unknown[] }).media).toHaveLength(2);
});

test('a font that has other axes shows them under its own names, and they can be keyframed', async ({ page }) => {
  const id = await newPiece(page, 'Axes', { custom: [640, 360] });
  await type(page, 'leaning wind');
  await expect(page.getByLabel('Letter width', { exact: true })).toBeVisible();
  await expect(page.getByLabel('Font slant', { exact: true })).toHaveCount(0);
  await face(page).click();
  await faceCalled(page, 'Recursive').click();
  await expect(page.getByLabel('Casual', { exact: true })).toBeVisible();
  await expect(page.getByLabel('Letter width', { exact: true })).toHaveCount(0);
  const upright = await seen(page, id);
  await page.getByRole('button', { name: 'Add Font slant keyframe' }).click();
  await page.getByLabel('Font slant', { exact: true }).fill('12');
  await page.keyboard.press('Enter');
  const { keyframes } = await trackOf(page, id, 'leaning wind', 'lean');
  expect(keyframes.map((k) => k.value)).toEqual([12]);
  expect(await seen(page, id)).not.toBe(upright);
});

test('words run along an arc, a circle, a shape and a path drawn by hand; each step is undone', async ({ page }) => {
  const id = await newPiece(page, 'Curves', { custom: [640, 360] });
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Ellipse' }).click();
  await type(page, 'nine days of wind');
  const along = page.getByLabel('Text path');
  const pictures = [await seen(page, id)];
  for (const shape of ['arc', 'circle'] as const) {
    await along.selectOption(shape);
    expect(await contentOf(page, id, 'nine days of wind')).toMatchObject({ along: { shape } });
    pictures.push(await seen(page, id));
  }
  await along.selectOption({ label: 'Ellipse' });
  const followed = (await contentOf(page, id, 'nine days of wind')).along as { shape: string; box: number[] };
  expect(followed).toMatchObject({ shape: 'path', box: [300, 300] });
  pictures.push(await seen(page, id));

  await along.selectOption('draw');
  const canvas = page.getByLabel('Draw a path');
  const box = (await canvas.boundingBox())!;
  const at = (x: number, y: number) => [box.x + x * box.width, box.y + y * box.height] as const;
  await page.mouse.move(...at(0.15, 0.6));
  await page.mouse.down();
  for (let i = 1; i <= 30; i++)
    await page.mouse.move(...at(0.15 + (0.7 * i) / 30, 0.6 - 0.25 * Math.sin((i / 30) * Math.PI)));
  await page.mouse.up();
  await expect(canvas).toHaveCount(0);
  const drawn = (await contentOf(page, id, 'nine days of wind')).along as { d: string; box: number[] };
  // A smooth arch: few curves, as wide as it was drawn.
  expect(drawn.d.match(/C/g)!.length).toBeLessThan(6);
  expect(drawn.box[0]! / 640).toBeCloseTo(0.7, 1);
  expect((await trackOf(page, id, 'nine days of wind', 'position')).value).toEqual([
    expect.closeTo(0, -1),
    expect.closeTo(360 * (0.475 - 0.5), -1),
  ]);
  pictures.push(await seen(page, id));
  expect(new Set(pictures).size).toBe(pictures.length);

  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await contentOf(page, id, 'nine days of wind')).along).toEqual(followed);
  await along.selectOption('');
  expect((await contentOf(page, id, 'nine days of wind')).along).toBeNull();
});

test('a drawn line is a stroke of its own, and Escape leaves the drawing', async ({ page }) => {
  const id = await newPiece(page, 'Lines', { custom: [640, 360] });
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Freehand line' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByLabel('Draw a path')).toHaveCount(0);
  await page.getByRole('button', { name: 'Freehand line' }).click();
  const box = (await page.getByLabel('Draw a path').boundingBox())!;
  await page.mouse.move(box.x + 60, box.y + 60);
  await page.mouse.down();
  for (let i = 1; i <= 12; i++) await page.mouse.move(box.x + 60 + i * 15, box.y + 60 + i * 6);
  await page.mouse.up();
  const [layer] = (await storedPiece(page, id)).layers;
  expect(layer).toMatchObject({ kind: 'path', name: 'Freehand line' });
  expect(layer!.tracks.strokeWidth!.value).toBe(8);
  await page.getByLabel('Trim end', { exact: true }).fill('40');
  await page.keyboard.press('Enter');
  expect((await storedPiece(page, id)).layers[0]!.tracks.drawEnd!.value).toBeCloseTo(0.4, 6);
});

test('a look is saved as a style, worn by another text, and changed for both', async ({ page }) => {
  const id = await newPiece(page, 'Styles', { custom: [640, 360] });
  await type(page, 'Inés Vardal');
  const style = page.getByLabel('Style', { exact: true });
  await style.selectOption({ label: 'Signboard' });
  expect(await contentOf(page, id, 'Inés Vardal')).toMatchObject({
    family: 'big-shoulders-display',
    letterCase: 'upper',
    style: null,
  });
  await page.getByRole('button', { name: 'Save as style' }).click();
  await page.getByLabel('Style name').fill('Name plate');
  await page.keyboard.press('Enter');
  await expect(style.locator('option:checked')).toHaveText('Name plate');
  await type(page, 'Teo Marsh');
  await style.selectOption({ label: 'Name plate' });
  expect(await contentOf(page, id, 'Teo Marsh')).toMatchObject({
    family: 'big-shoulders-display',
    dress: { solid: { depth: 0.16 } },
  });
  await page.getByLabel('Weight', { exact: true }).fill('300');
  await page.keyboard.press('Enter');
  expect((await trackOf(page, id, 'Inés Vardal', 'weight')).value).toBe(900);
  await page.getByRole('button', { name: 'Update style' }).click();
  await expect(page.getByText('in 2 texts')).toBeVisible();
  expect((await trackOf(page, id, 'Inés Vardal', 'weight')).value).toBe(300);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await trackOf(page, id, 'Inés Vardal', 'weight')).value).toBe(900);
  await page.getByRole('button', { name: 'Reset to style' }).click();
  expect((await trackOf(page, id, 'Teo Marsh', 'weight')).value).toBe(900);
});

test('gestures that miss the beat are listed and landed', async ({ page }) => {
  const id = await newPiece(page, 'Landing', { custom: [640, 360] });
  await type(page, 'Kite Week');
  await page.getByRole('button', { name: 'Motion', exact: true }).click();
  await page.getByRole('option', { name: /^Nova:/ }).click();
  await page.getByRole('button', { name: 'Run-through', exact: true }).click();
  const check = page.getByRole('region', { name: 'Beat sync' });
  await expect(check.getByText(/Kite Week lands \(Nova\)/)).toBeVisible();
  await expect(check.getByText(/0 of 1 animations/)).toBeVisible();
  const before = (await storedPiece(page, id)).layers[0]!.start;
  await check.getByRole('button', { name: 'Snap all 1 to beats' }).click();
  await expect(check.getByText(/1 of 1 animations/)).toBeVisible();
  expect((await storedPiece(page, id)).layers[0]!.start).not.toEqual(before);
});

test('a font that is gone from the server is missed by name, and the words still show', async ({ page }) => {
  const id = await newPiece(page, 'Lost font', { custom: [640, 360] });
  await type(page, 'nine days');
  await page.getByRole('button', { name: 'Words', exact: true }).click();
  const made = makeFont({ family: 'Lumo Lost', style: 'Regular', weight: 400 });
  const file = workFile('lumo-lost.ttf');
  writeFileSync(file, made);
  await face(page).click();
  await page.getByLabel('Import font files').setInputFiles(file);
  await faceCalled(page, 'Lumo Lost').click();
  await waitSaved(page);
  await page.route('**/api/media/*/font', (route) =>
    route.fulfill({ status: 404, json: { error: { code: 'NOT_FOUND', message: 'gone' } } }),
  );
  await page.goto(`${appUrl()}/piece/${id}`);
  await expect(page.getByText(/The font “lumo-lost\.ttf” is missing on the server/)).toBeVisible();
  await expect(page.getByLabel('Text of nine days')).toHaveCount(0);
  await showPanel(page, 'Words');
  await page.getByRole('tab', { name: 'All' }).click();
  await page.getByLabel('Text of nine days').focus();
  // Other letters stand in: there is something to take hold of.
  await expect(page.locator('[data-handle]').first()).toBeVisible();
});
