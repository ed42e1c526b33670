import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { appUrl, newPiece, storedPiece, testFile, timeline, waitSaved } from './support/app';

/** Templates: put in, filled, made again for the next name, changed in one format, kept and brought back. */

type Made = Awaited<ReturnType<typeof storedPiece>>['layers'][number] & {
  madeFrom: { name: string; version: number; values: Record<string, string>; isMirrored: boolean } | null;
  constraints: Record<string, string> | null;
  overrides: Record<
    string,
    { hidden: boolean; tracks?: Record<string, { value: unknown }>; parts?: Record<string, unknown> }
  >;
};
const layersOf = async (page: Page, id: string) => (await storedPiece(page, id)).layers as Made[];
const made = async (page: Page, id: string) => (await layersOf(page, id)).filter((layer) => layer.madeFrom);
const slot = (page: Page, name: string) => page.getByRole('textbox', { name, exact: true });

async function choose(page: Page, name: string): Promise<void> {
  await page.keyboard.press('Shift+T');
  await page.getByRole('option', { name: `Choose ${name}` }).click();
}

/** Words on the canvas, in a group of their own. */
async function groupOneLine(page: Page): Promise<void> {
  await page.keyboard.press('t');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+A');
  await page.keyboard.press('Control+G');
}

test('from nothing to three lower thirds in two formats, in less than three minutes of steps', async ({ page }) => {
  const began = Date.now();
  const id = await newPiece(page, 'People of the week');
  await page.getByLabel('Add format').selectOption('tall');
  await page.getByRole('button', { name: 'Wide', exact: true }).click();
  await choose(page, 'Quayside');
  await slot(page, 'Name').fill('Teo Marsh');
  await slot(page, 'Line below').fill('Wind reader');
  await page.getByRole('button', { name: /^Mark or logo: choose/ }).click();
  await page.getByRole('option', { name: 'Sail' }).click();
  await page.getByRole('button', { name: 'Insert' }).click();
  const slots = page.getByRole('region', { name: 'Slots' });
  await expect(slots.getByRole('textbox', { name: 'Name', exact: true })).toHaveValue('Teo Marsh');
  for (const [name, line] of [
    ['Oona Castell', 'Night pilot'],
    ['Inés Vardal', 'Kite maker'],
  ] as const) {
    await slots.getByRole('button', { name: 'Add next name' }).click();
    await expect(slots.getByRole('textbox', { name: 'Name', exact: true })).toBeFocused();
    await slots.getByRole('textbox', { name: 'Name', exact: true }).fill(name);
    await slots.getByRole('textbox', { name: 'Line below', exact: true }).fill(line);
  }
  await waitSaved(page);
  expect(Date.now() - began).toBeLessThan(180_000);

  const groups = await made(page, id);
  expect(groups.map(({ madeFrom }) => madeFrom!.values)).toEqual([
    { name: 'Teo Marsh', line: 'Wind reader', mark: 'mark:sail' },
    { name: 'Oona Castell', line: 'Night pilot', mark: 'mark:sail' },
    { name: 'Inés Vardal', line: 'Kite maker', mark: 'mark:sail' },
  ]);
  // Each begins where the one before it ends.
  const beats = groups.map((group) => [group.start, group.end].map((at) => (at as { to: { beat: number } }).to.beat));
  expect(beats[1]![0]).toBe(beats[0]![1]);
  expect(beats[2]![0]).toBe(beats[1]![1]);
  // In neither format is a word cut, unsafe, unread or without room.
  await page.getByRole('button', { name: 'Run-through', exact: true }).click();
  const panel = page.getByRole('region', { name: 'Run-through' });
  await expect(panel.getByText(/No problems found|problems? found/).first()).toBeVisible();
  await expect(panel.getByText(/doesn’t fit|safe area in|cut off|takes .* s to read/)).toHaveCount(0);

  await page.keyboard.press('Control+Z');
  await waitSaved(page);
  expect((await made(page, id))[2]!.madeFrom!.values.line).not.toBe('Kite maker');
});

test('the next mark keeps everything else, and words from right to left turn it about', async ({ page }) => {
  const id = await newPiece(page, 'Marks');
  await choose(page, 'Moored handle');
  await page.getByRole('button', { name: 'Insert' }).click();
  const slots = page.getByRole('region', { name: 'Slots' });
  await slots.getByRole('textbox', { name: 'Handle' }).fill('@teo.marsh');
  await slots.getByRole('button', { name: 'Add next mark' }).click();
  await expect(slots.getByRole('button', { name: /^Mark or logo: choose/ })).toContainText('Buoy');
  await waitSaved(page);
  const groups = await made(page, id);
  expect(groups.map(({ madeFrom }) => madeFrom!.values)).toEqual([
    { name: '@teo.marsh' },
    { name: '@teo.marsh', mark: 'mark:buoy' },
  ]);
  await slots.getByRole('textbox', { name: 'Handle' }).fill('نور');
  await waitSaved(page);
  expect((await made(page, id))[1]!.madeFrom!.isMirrored).toBe(true);
});

test('the gallery is searched and filtered, and shows what each is for', async ({ page }) => {
  await newPiece(page, 'Gallery');
  await page.keyboard.press('Shift+T');
  const options = page.getByRole('listbox', { name: 'Templates' }).getByRole('option');
  await expect(options.first()).toBeVisible();
  const all = await options.count();
  await page.getByRole('textbox', { name: 'Search templates' }).fill('alert');
  await expect(options.first()).toHaveAccessibleName('Choose On the air');
  expect(await options.count()).toBeLessThan(all);
  await page.getByRole('textbox', { name: 'Search templates' }).fill('zzzz');
  await expect(page.getByText(/No templates found/)).toBeVisible();
  await page.getByRole('textbox', { name: 'Search templates' }).fill('');
  await page.getByRole('combobox', { name: 'Use' }).selectOption('lower-third');
  await options.first().press('ArrowRight');
  await expect(options.nth(1)).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Insert' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

test('a layer is held by an edge, and differs in one format until that is taken back', async ({ page }) => {
  const id = await newPiece(page, 'Two frames');
  await page.getByLabel('Add format').selectOption('tall');
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Rectangle', exact: true }).click();
  const section = page.getByRole('region', { name: 'In other frame sizes' });
  await section.getByRole('checkbox', { name: 'Anchored to frame' }).check();
  await section.getByRole('combobox', { name: 'Vertical anchor' }).selectOption('bottom');
  await section.getByRole('combobox', { name: 'Only in Tall' }).selectOption('Opacity');
  const details = page.getByRole('complementary', { name: 'Details' });
  await details.getByRole('textbox', { name: 'Opacity', exact: true }).fill('40');
  await details.getByRole('textbox', { name: 'Opacity', exact: true }).press('Enter');
  await section.getByRole('checkbox', { name: 'Hidden in Tall' }).check();
  await waitSaved(page);
  const [layer] = await layersOf(page, id);
  expect(layer!.constraints).toMatchObject({ vertical: 'bottom', horizontal: 'centre' });
  expect(layer!.overrides.tall).toMatchObject({ hidden: true, tracks: { opacity: { value: 0.4 } } });

  await page.getByRole('button', { name: 'Wide', exact: true }).click();
  await expect(details.getByRole('textbox', { name: 'Opacity', exact: true })).toHaveValue(/100/);
  await page.getByRole('button', { name: 'Tall', exact: true }).click();
  await details.getByRole('button', { name: 'Reset Opacity to the other formats' }).click();
  await section.getByRole('checkbox', { name: 'Hidden in Tall' }).uncheck();
  await waitSaved(page);
  expect((await layersOf(page, id))[0]!.overrides).toEqual({});

  // So does an effect.
  await page.getByRole('tab', { name: 'Effects' }).click();
  await page.getByLabel('Add effect').selectOption({ label: 'Glow' });
  await section.getByRole('combobox', { name: 'Only in Tall' }).selectOption('Glow: Radius');
  const radius = page.getByRole('textbox', { name: 'Radius of Glow' });
  await radius.fill('90');
  await radius.press('Enter');
  await waitSaved(page);
  const [glowing] = await layersOf(page, id);
  expect(Object.values(glowing!.overrides.tall!.parts!)).toEqual([{ value: 90, keyframes: [] }]);
  await page.getByRole('button', { name: 'Wide', exact: true }).click();
  await expect(radius).toHaveValue(/24/);
  await page.getByRole('button', { name: 'Tall', exact: true }).click();
  await page.getByRole('button', { name: 'Reset Glow: Radius to the other formats' }).click();
  await waitSaved(page);
  expect((await layersOf(page, id))[0]!.overrides).toEqual({});
});

test('a group is kept as a template, saved as a file, and comes back as its next version', async ({ page }) => {
  const id = await newPiece(page, 'My card');
  await groupOneLine(page);
  await expect(timeline(page).getByRole('button', { name: 'Group 1', exact: true })).toBeVisible();
  const keep = async (): Promise<void> => {
    await page.keyboard.press('Shift+K');
    await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Plain card');
    await page.getByRole('textbox', { name: 'Mood' }).fill('plain');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
  };
  await keep();
  await expect(page.getByText('Saved “Plain card”, version 1')).toBeVisible();

  await choose(page, 'Plain card');
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save Plain card as file' }).click();
  const file = await (await download).path();
  await page.getByRole('textbox', { name: 'Your text' }).fill('Nine days of wind');
  await page.getByRole('button', { name: 'Insert' }).click();
  await waitSaved(page);
  expect((await made(page, id)).map(({ madeFrom }) => [madeFrom!.name, madeFrom!.version])).toEqual([
    ['Plain card', 1],
  ]);

  // A newer version waits until it is taken over, and the slots keep what they hold.
  await page.keyboard.press('Shift+T');
  await page.getByLabel('Import template file').setInputFiles(file);
  await expect(page.getByText('Imported “Plain card”').first()).toBeVisible();
  await page.keyboard.press('Escape');
  const slots = page.getByRole('region', { name: 'Slots' });
  await slots.getByRole('button', { name: 'Update to version 2' }).click();
  await waitSaved(page);
  expect((await made(page, id)).map(({ madeFrom }) => [madeFrom!.version, Object.values(madeFrom!.values)])).toEqual([
    [2, ['Nine days of wind']],
  ]);
  await page.keyboard.press('Shift+T');
  await page.getByRole('option', { name: 'Choose Plain card' }).click();
  await page.getByRole('button', { name: 'Delete Plain card' }).click();
  await expect(page.getByRole('option', { name: 'Choose Plain card' })).toHaveCount(0);
  await page.goto(appUrl());
});

test('a template asks for a song, which becomes the music', async ({ page }) => {
  const id = await newPiece(page, 'A card with a song');
  await groupOneLine(page);
  await page.keyboard.press('Shift+K');
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Sung card');
  await page.getByRole('checkbox', { name: 'Include a song slot' }).check();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Saved “Sung card”, version 1')).toBeVisible();
  await choose(page, 'Sung card');
  await page.getByRole('button', { name: 'Insert' }).click();
  const slots = page.getByRole('region', { name: 'Slots' });
  const bring = slots.getByLabel('Song: import a song');
  await bring.setInputFiles(testFile('salt-and-string.wav'));
  await expect(slots.getByRole('combobox', { name: 'Song' })).toHaveValue(/.+/, { timeout: 60_000 });
  await waitSaved(page);
  const first = (await storedPiece(page, id)).music!.mediaId;
  expect((await made(page, id))[0]!.madeFrom!.values.song).toBe(first);

  // A second song takes its place; the first can be chosen again, and keeps how loud the music is.
  await bring.setInputFiles(testFile('harbour-lamps.wav'));
  await expect(slots.getByRole('combobox', { name: 'Song' })).not.toHaveValue(first, { timeout: 60_000 });
  await slots.getByRole('combobox', { name: 'Song' }).selectOption({ label: 'salt-and-string.wav' });
  await waitSaved(page);
  expect((await storedPiece(page, id)).music!.mediaId).toBe(first);
  expect((await made(page, id))[0]!.madeFrom!.values.song).toBe(first);
  await page.keyboard.press('Shift+T');
  await page.getByRole('option', { name: 'Choose Sung card' }).click();
  await page.getByRole('button', { name: 'Delete Sung card' }).click();
});

test('a new piece can begin with a template', async ({ page }) => {
  await page.goto(appUrl());
  await page.getByRole('button', { name: 'New piece' }).first().click();
  await page.getByRole('button', { name: 'From a template …' }).click();
  await page.getByRole('option', { name: 'Choose Quayside' }).click();
  await page.getByRole('button', { name: 'Insert' }).click();
  await expect(page.getByRole('region', { name: 'Slots' })).toBeVisible();
  await waitSaved(page);
  // It is asked for once.
  await page.reload();
  await expect(page.getByRole('group', { name: 'Quayside', exact: true })).toBeVisible();
  await expect(page.getByRole('dialog', { name: 'Templates' })).toHaveCount(0);
});
