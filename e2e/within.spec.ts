import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import type { Piece } from '@core/piece';
import { appUrl, newPiece, showPanel, storedPiece, timeline, waitSaved } from './support/app';

/** Groups that are one shape, pieces within pieces, what a wardrobe keeps for all of them. */

type Whole = Awaited<ReturnType<typeof storedPiece>>['layers'][number] & { content: Record<string, unknown> };
const layersOf = async (page: Page, id: string) => (await storedPiece(page, id)).layers as Whole[];
const openPicture = (page: Page) => showPanel(page, 'Picture');
const notice = (page: Page, text: RegExp) => expect(page.getByText(text).first()).toBeVisible();

async function put(page: Page, ...names: string[]): Promise<void> {
  for (const name of names) await page.getByRole('button', { name, exact: true }).click();
}

test('shapes become one shape that stays alive, and shapes again', async ({ page }) => {
  const id = await newPiece(page, 'One shape');
  await openPicture(page);
  await put(page, 'Rectangle', 'Ellipse');
  await timeline(page)
    .getByRole('button', { name: 'Rectangle', exact: true })
    .click({ modifiers: ['Shift'] });
  await page.getByLabel('Merge shapes').selectOption('subtract');
  await waitSaved(page);
  const group = (await layersOf(page, id)).find((layer) => layer.kind === 'group');
  expect(group).toMatchObject({ name: 'Subtract', content: { combine: 'subtract' } });

  await page.getByRole('combobox', { name: 'Combine shapes' }).selectOption('exclude');
  await waitSaved(page);
  expect((await layersOf(page, id)).find((layer) => layer.kind === 'group')?.content.combine).toBe('exclude');
  await page.getByRole('combobox', { name: 'Combine shapes' }).selectOption('');
  await waitSaved(page);
  expect((await layersOf(page, id)).find((layer) => layer.kind === 'group')?.content.combine).toBeNull();
});

test('a piece stands in another, changes with it, and never in itself', async ({ page, context }) => {
  const inner = await newPiece(page, 'Inner flag');
  await openPicture(page);
  await put(page, 'Rectangle');
  await waitSaved(page);
  const outer = await newPiece(page, 'Outer');
  await openPicture(page);
  await page.getByRole('button', { name: 'Piece …' }).click();
  await page.getByRole('button', { name: 'Add Inner flag' }).click();
  await expect(page.getByRole('region', { name: 'Nested piece' })).toBeVisible();
  await waitSaved(page);
  const before = (await layersOf(page, outer)).find((layer) => layer.kind === 'piece')!;
  expect(before.content).toMatchObject({ pieceId: inner, showsGround: false });
  await page.getByRole('checkbox', { name: 'Include background' }).check();
  await waitSaved(page);

  // What is changed in the one is seen in the other, which stays open meanwhile.
  const other = await context.newPage();
  await other.goto(`${appUrl()}/piece/${inner}`);
  await openPicture(other);
  await put(other, 'Ellipse');
  await waitSaved(other);
  await notice(page, /Updated “Inner flag”/);
  await waitSaved(page);
  const after = (await layersOf(page, outer)).find((layer) => layer.kind === 'piece')!;
  expect(after.content.mediaId).not.toBe(before.content.mediaId);
  expect(
    ((await storedPiece(page, outer)) as unknown as Piece).media.filter((ref) => ref.kind === 'piece'),
  ).toHaveLength(1);

  // The other way round it is refused.
  await other.getByRole('button', { name: 'Piece …' }).click();
  await other.getByRole('button', { name: 'Add Outer' }).click();
  await notice(other, /contains this piece/);
  expect((await layersOf(other, inner)).some((layer) => layer.kind === 'piece')).toBe(false);
});

test('a group becomes a piece of its own and stays where it was', async ({ page }) => {
  const id = await newPiece(page, 'Whole');
  await openPicture(page);
  await put(page, 'Rectangle', 'Ellipse');
  await timeline(page)
    .getByRole('button', { name: 'Rectangle', exact: true })
    .click({ modifiers: ['Shift'] });
  await page.getByRole('button', { name: 'Group', exact: true }).click();
  await page.getByRole('button', { name: 'Convert group to piece' }).click();
  await notice(page, /Converted “Group 1” to a nested piece/);
  await waitSaved(page);
  const layers = await layersOf(page, id);
  expect(layers.map((layer) => layer.kind)).toEqual(['piece']);
  const made = await storedPiece(page, String(layers[0]!.content.pieceId));
  expect(made.name).toBe('Group 1');
  expect(made.layers.map((layer) => layer.kind).sort()).toEqual(['ellipse', 'rectangle']);
});
