import { expect, test } from '@playwright/test';
import type { Locator, Page } from '@playwright/test';
import { appUrl, ffprobe, storedPiece, testFile, workFile } from './support/app';

/** Whether the control has the focus and keeps it: a dialog that closes gives the focus back a frame or two later. */
function keepsFocus(target: Locator): Promise<boolean> {
  return target.evaluate(async (element) => {
    for (let frames = 0; frames < 3; frames++) {
      if (element !== document.activeElement) return false;
      await new Promise(requestAnimationFrame);
    }
    return element === document.activeElement;
  });
}

/** Goes on by Tab until the control has the focus; fails if it is never reached. */
async function tabTo(page: Page, target: Locator, most = 90): Promise<void> {
  await expect(target).toBeVisible();
  for (let pressed = 0; pressed < most; pressed++) {
    if (await keepsFocus(target)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`Tab never reached ${String(target)}`);
}

async function press(page: Page, target: Locator, key = 'Enter', most?: number): Promise<void> {
  await tabTo(page, target, most);
  await page.keyboard.press(key);
}

/** From one leaf of a panel to the one beside it. */
async function nextTab(page: Page, from: string, to: string): Promise<void> {
  await press(page, page.getByRole('tab', { name: from }), 'ArrowRight');
  await expect(page.getByRole('tab', { name: to })).toBeFocused();
  await page.keyboard.press('Enter');
}

/** Runs a command by its name, or goes to a layer, panel or piece: what people without a pointer do most. */
async function find(page: Page, words: string): Promise<void> {
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('combobox', { name: 'Find anything' })).toBeFocused();
  await page.keyboard.type(words);
  await expect(page.getByRole('option').first()).toContainText(words);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('combobox', { name: 'Find anything' })).toBeHidden();
}

test('from the home to a rendered video by keyboard alone', async ({ page }) => {
  await page.goto(appUrl());
  await expect(page.getByRole('article', { name: 'Nine days of wind' })).toBeVisible();
  await press(page, page.getByRole('button', { name: 'New piece' }));
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('textbox', { name: 'Name' })).toBeFocused();
  await page.keyboard.type('Kite Week by hand');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Timeline' })).toBeVisible();
  const id = new URL(page.url()).pathname.split('/').pop() ?? '';

  // Music: the button opens the system's own chooser, which is the browser's.
  await find(page, 'Music');
  const drop = page.getByRole('button', { name: /^Drop a song here/ });
  await expect(async () => {
    await tabTo(page, drop);
    const opened = page.waitForEvent('filechooser', { timeout: 5000 });
    await page.keyboard.press('Enter');
    await (await opened).setFiles(testFile('salt-and-string.wav'));
  }).toPass();
  await expect(page.getByText(/\d hits ·/)).toBeVisible({ timeout: 60_000 });
  await nextTab(page, 'Beats', 'Cut');
  await tabTo(page, page.getByLabel('Target duration'));
  await page.keyboard.type('8');
  await press(page, page.getByRole('button', { name: 'Fit by whole bars' }));
  await expect(page.getByText(/ of .* used$/)).not.toHaveText(/^3/);

  // Words, a gesture, a keyframe.
  await find(page, 'New text');
  await expect(page.getByLabel('Text on canvas')).toBeFocused();
  await page.keyboard.type('Kite Week');
  await page.keyboard.press('Escape');
  await find(page, 'Motion');
  await press(page, page.getByRole('option', { name: /^Dawn/ }));
  await page.keyboard.press('Shift+ArrowRight');
  // The long way round is cut short: to the part before this one, and forward into the panel again.
  await page.keyboard.press('Shift+F6');
  await page.keyboard.press('F6');
  await nextTab(page, 'Gestures', 'Keyframes');
  await press(page, page.getByRole('button', { name: 'Rotation', exact: true }).first());
  const { layers } = await storedPiece(page, id);
  expect(layers[0]!.content.text).toBe('Kite Week');
  expect((layers[0] as unknown as { gestures: { gesture: string }[] }).gestures.map((g) => g.gesture)).toEqual([
    'dawn',
  ]);
  expect(layers[0]!.tracks.rotation!.keyframes).toHaveLength(1);

  // Undo and redo, then the video.
  await page.keyboard.press('Control+z');
  expect((await storedPiece(page, id)).layers[0]!.tracks.rotation!.keyframes).toHaveLength(0);
  await page.keyboard.press('Control+Shift+z');
  await find(page, 'Run-through');
  await expect(page.getByRole('heading', { name: 'Run-through' })).toBeVisible();
  await find(page, 'Export');
  await press(page, page.getByRole('button', { name: /^Export (?!all)/ }).first());
  const link = page.getByRole('link', { name: /^Download/ });
  await expect(link).toBeVisible({ timeout: 120_000 });
  await tabTo(page, link);
  const [download] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('Enter')]);
  const file = workFile('by-keyboard.mp4');
  await download.saveAs(file);
  expect(ffprobe(file).streams.map((s) => s.codec_type)).toContain('video');
});
