import { expect, test } from '@playwright/test';
import { appUrl, ffprobe, workFile } from './support/app';

test('the guided first piece leads from nothing to a rendered video, each step seen by itself', async ({ page }) => {
  const began = Date.now();
  await page.goto(appUrl());
  await page.getByRole('button', { name: 'Start the guide' }).click();
  const guide = page.getByRole('region', { name: 'Guide' });
  const now = (step: string) => expect(guide.locator('[data-step]')).toHaveAttribute('data-step', step);

  await now('song');
  await guide.getByRole('button', { name: 'Use “Salt and String”' }).click();
  await now('listen');
  await page.keyboard.press('Space');
  await now('length');
  await page.keyboard.press('Space');
  await page.getByRole('tab', { name: 'Cut' }).click();
  await page.getByLabel('Target duration').fill('15');
  await page.getByRole('button', { name: 'Fit by whole bars' }).click();
  await now('background');
  // What was done stays done over a reload, and over its undoing.
  await page.reload();
  await now('background');
  await page.getByRole('textbox', { name: 'Background' }).fill('#0b2c36');
  await page.keyboard.press('Enter');
  await now('words');
  await guide.getByRole('button', { name: 'New text' }).click();
  await page.keyboard.type('Nine days of wind');
  await page.keyboard.press('Escape');

  await now('entrance');
  const gestures = page.getByRole('region', { name: 'Gestures' });
  await gestures.getByRole('option', { name: /^Dawn/ }).click();
  await now('accent');
  await gestures.getByRole('tab', { name: 'Accent' }).click();
  await gestures.getByRole('option').first().click();
  await now('exit');
  await gestures.getByRole('tab', { name: 'Exit' }).click();
  await gestures.getByRole('button', { name: 'Reverse of entrance' }).click();
  await now('check');
  await page.getByRole('button', { name: 'Run-through' }).click();
  await now('render');
  await page.getByRole('button', { name: 'Export Wide' }).click();
  await expect(guide.locator('[data-step]')).toHaveAttribute('data-step', 'end', { timeout: 180_000 });
  console.log(`guided first piece: ${((Date.now() - began) / 1000).toFixed(0)} s`);

  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: /^Download/ }).click(),
  ]);
  const file = workFile('first-piece.mp4');
  await download.saveAs(file);
  expect(
    ffprobe(file)
      .streams.map((s) => s.codec_type)
      .sort(),
  ).toEqual(['audio', 'video']);
  const seconds = Number(ffprobe(file).format.duration);
  expect(seconds).toBeGreaterThan(10);
  expect(seconds).toBeLessThan(20);

  await guide.getByRole('button', { name: 'Close the guide' }).click();
  await expect(guide).toHaveCount(0);
});
