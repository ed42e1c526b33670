import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { expect, test } from '@playwright/test';
import { FOOTAGE_FILE, FOOTAGE_FRAMES, kiteAt } from '../demo/footage';
import { H264, makeFilm, readNumber } from '../tests/helpers/film';
import { appUrl, goTo, newPiece, renderTo, storedPiece, testFile, timeline, waitSaved, workFile } from './support/app';
import { pixelsOf } from './support/canvas-pixels';
import { bringIn, followSubject, insideOf, openPictures } from './support/footage';

/** Films as footage: brought in, trimmed, slowed, cut in two, followed, and rendered. */
const WHOLE = [0, 0, 320, 180] as const;
const RATE = 25;

/** Every frame of a video, as RGBA. */
function decoded(file: string, width: number, height: number): Buffer[] {
  const all = execFileSync('ffmpeg', ['-v', 'error', '-i', file, '-f', 'rawvideo', '-pix_fmt', 'rgba', '-'], {
    maxBuffer: 1 << 30,
  });
  const size = width * height * 4;
  return Array.from({ length: all.length / size }, (_, i) => all.subarray(i * size, (i + 1) * size));
}

test('a film is cut in two and slowed, and every frame is the same on the desk, in the file and on a page', async ({
  page,
  browser,
}) => {
  const film = workFile('numbers.mp4');
  makeFilm({ width: 320, height: 180, frames: 50, rate: String(RATE), codec: H264 }, film);
  const id = await newPiece(page, 'Numbers', { custom: [320, 180], rate: '25' });
  await openPictures(page);
  await bringIn(page, film);
  await waitSaved(page);
  const whole = await storedPiece(page, id);
  expect(whole.layers).toHaveLength(1);
  expect(whole.layers[0]!.content).toMatchObject({ fit: 'fill', from: 0 });
  expect(whole.end).toMatchObject({ kind: 'free', seconds: 2 });

  await timeline(page).focus();
  await page.keyboard.press('g'); // no snapping: the cut lies where it is put
  await goTo(page, 1);
  await page.keyboard.press('Shift+c');
  await waitSaved(page);
  const [first, second] = (await storedPiece(page, id)).layers;
  const cut = first!.end.seconds!;
  expect(Math.abs(cut - 1)).toBeLessThan(0.05);
  expect(second!.start.seconds).toBe(cut);
  expect(second!.content.from).toBeCloseTo(cut, 6);
  const speed = page.getByRole('region', { name: 'Footage' }).getByLabel('Speed');
  await speed.fill('50');
  await speed.press('Enter');
  await waitSaved(page);
  // Along the bar of the second are frames of its own half, at half the speed.
  const strips = timeline(page).locator('.strip');
  await expect(strips).toHaveCount(2);
  await expect(strips.locator('img').first()).toBeVisible();
  const shown = await strips.evaluateAll((all) =>
    all
      .map((strip) => [...strip.querySelectorAll('img')].map((one) => Number(one.src.split('/').at(-1))))
      .sort(([a = 0], [b = 0]) => a - b),
  );
  for (const [part, [least, most]] of [
    [shown[0]!, [0, 24]],
    [shown[1]!, [25, 37]],
  ] as const) {
    expect(part.length).toBeGreaterThan(1);
    expect(part).toEqual([...part].sort((a, b) => a - b));
    expect(part[0]).toBeGreaterThanOrEqual(least);
    expect(part.at(-1)).toBeLessThanOrEqual(most);
  }
  /** The number of the frame that is seen in a frame of the piece. */
  const wanted = (frame: number): number => {
    const at = (frame + 0.5) / RATE;
    return Math.floor((at < cut ? at : cut + (at - cut) / 2) * RATE + 1e-4);
  };

  const video = workFile('numbers-out.mp4');
  await renderTo(page, video);
  const seen = decoded(video, 320, 180).map((frame) => readNumber(frame, 320, WHOLE));
  expect(seen).toEqual(Array.from({ length: 50 }, (_, frame) => wanted(frame)));

  const file = workFile('numbers.estrella');
  writeFileSync(file, await (await page.request.get(`${appUrl()}/api/pieces/${id}/file`)).body());
  const times = [0.02, 0.98, 1.5, 1.98];
  const pictures = workFile('numbers-frame.png');
  execFileSync(process.execPath, [
    ...['dist/server/cli.js', 'frame', file, '--at', times.join(','), '--out', pictures],
  ]);
  const alone = workFile('numbers.html');
  execFileSync(process.execPath, ['dist/server/cli.js', 'render', file, '--out', alone]);
  const context = await browser.newContext({ offline: true });
  const apart = await context.newPage();
  for (const [i, at] of times.entries()) {
    await page.goto(`${appUrl()}/frame/${id}?at=${at}`);
    await expect(page.locator('canvas')).toHaveAttribute('data-state', 'painted');
    const browserPixels = await pixelsOf(page);
    const image = await loadImage(pictures.replace('.png', `-${i + 1}.png`));
    const target = createCanvas(320, 180).getContext('2d');
    target.drawImage(image, 0, 0);
    expect(Buffer.from(target.getImageData(0, 0, 320, 180).data).equals(browserPixels), `at ${at}`).toBe(true);
    const frame = Math.floor(at * RATE);
    await apart.goto(`${pathToFileURL(alone).href}#frame=${frame}`);
    await expect(apart.locator('body')).toHaveAttribute('data-frame', String(frame));
    expect(readNumber(await pixelsOf(apart), 320, WHOLE)).toBe(wanted(frame));
  }
  await context.close();
});

test('what is seen of footage follows its subject through a cut, in one step that is undone', async ({ page }) => {
  const film = workFile('subject.mp4');
  const frames = 150;
  const cut = 88;
  const subject = (frame: number): readonly [number, number] => {
    const t = frame / RATE;
    return frame < cut ? [0.5 + 0.36 * Math.sin(t * 1.1 - 1), 0.6] : [0.2 + 0.1 * (t - cut / RATE), 0.55];
  };
  const ground = (frame: number): number => (frame < cut ? 60 : 180);
  const size = { width: 320, height: 180, frames, rate: String(RATE), codec: H264 };
  makeFilm({ ...size, subject, ground, radius: 0.09, isPlain: true }, film);
  const id = await newPiece(page, 'Followed', { custom: [180, 320], rate: '25' });
  await openPictures(page);
  await bringIn(page, film);
  const focus = await followSubject(page, id, 30_000);
  expect(focus.keyframes.length).toBeGreaterThan(4);
  const inside = insideOf(focus, frames, RATE, subject);
  console.log(`the subject is in ${inside} of ${frames} frames, by ${focus.keyframes.length} keyframes`);
  expect(inside / frames).toBeGreaterThanOrEqual(0.99);
  await timeline(page).focus();
  await page.keyboard.press('Control+z');
  await waitSaved(page);
  expect((await storedPiece(page, id)).layers[0]!.tracks.focus?.keyframes ?? []).toEqual([]);
});

test('the kite of the demo stays in a tall frame', async ({ page }) => {
  const id = await newPiece(page, 'Kite', { custom: [180, 320], rate: '25' });
  await openPictures(page);
  await bringIn(page, testFile(FOOTAGE_FILE));
  const focus = await followSubject(page, id, 60_000);
  const inside = insideOf(focus, FOOTAGE_FRAMES, RATE, (frame) => kiteAt(frame / RATE));
  console.log(`the kite is in ${inside} of ${FOOTAGE_FRAMES} frames`);
  expect(inside / FOOTAGE_FRAMES).toBeGreaterThanOrEqual(0.99);
});

test('a film that is none is refused in words, and the run-through tells where footage is over too soon', async ({
  page,
}) => {
  const broken = workFile('broken.mp4');
  const film = workFile('short.mp4');
  makeFilm({ width: 320, height: 180, frames: 30, rate: String(RATE), codec: H264 }, film);
  writeFileSync(broken, readFileSync(film).subarray(0, 700));
  await newPiece(page, 'Too soon', { custom: [320, 180], rate: '25' });
  await openPictures(page);
  const choose = page.getByLabel('Import picture, clip or logo');
  await choose.setInputFiles(broken);
  await expect(page.getByText(/broken.mp4.*(damaged|no readable sound|isn’t a type)/)).toBeVisible({ timeout: 30_000 });
  await bringIn(page, film);
  const starts = page.getByRole('region', { name: 'Footage' }).getByLabel('Trim start');
  await starts.fill('0.6');
  await starts.press('Enter');
  await page.getByRole('button', { name: 'Run-through' }).click();
  const told = page.getByText('The clip of short.mp4 ends 0.6 s before its layer.');
  await expect(told).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Slow down' }).click();
  await expect(told).toBeHidden();
});
