import { writeFileSync } from 'node:fs';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import type { Image } from '@napi-rs/canvas';
import { expect, test } from '@playwright/test';
import type { Vector } from '@core/motion';
import { H264, encodeFilm } from '../tests/helpers/film';
import { newPiece, storedPiece, waitSaved, workFile } from './support/app';
import { bringIn, followSubject, insideOf, isInTallFrame, openPictures } from './support/footage';

/** Faces count for more than what stands out and what moves. The photographs are those of the package that finds them. */
const PHOTOS = 'node_modules/@vladmandic/face-api/demo';
const [WIDTH, HEIGHT] = [640, 360];
const RATE = 25;

/** Heads in the photographs: left, top, width and height, pixels. */
const HEADS = {
  smiling: { photo: 'sample1.jpg', box: [1390, 150, 340, 340] },
  turned: { photo: 'sample6.jpg', box: [640, 200, 340, 420] },
} as const;

async function headOf(
  name: keyof typeof HEADS,
): Promise<{ photo: Image; box: readonly [number, number, number, number] }> {
  const { photo, box } = HEADS[name];
  return { photo: await loadImage(`${PHOTOS}/${photo}`), box };
}

/** A head in a dull room, and a ball that is far more colourful. Places are shares of the sides. */
function paintRoom(
  head: { readonly photo: Image; readonly box: readonly [number, number, number, number] },
  headAt: readonly [number, number],
  ballAt: readonly [number, number],
): Uint8Array {
  const context = createCanvas(WIDTH, HEIGHT).getContext('2d');
  context.fillStyle = '#5b5650';
  context.fillRect(0, 0, WIDTH, HEIGHT);
  context.fillStyle = '#ff7a1a';
  context.beginPath();
  context.arc(ballAt[0] * WIDTH, ballAt[1] * HEIGHT, 40, 0, Math.PI * 2);
  context.fill();
  const [x, y, w, h] = head.box;
  const tall = 0.45 * HEIGHT;
  const wide = (tall * w) / h;
  context.drawImage(head.photo, x, y, w, h, headAt[0] * WIDTH - wide / 2, headAt[1] * HEIGHT - tall / 2, wide, tall);
  return Uint8Array.from(context.getImageData(0, 0, WIDTH, HEIGHT).data);
}

test('a picture is framed by the face in it, not by what is brighter', async ({ page }) => {
  const head = await headOf('turned');
  const canvas = createCanvas(WIDTH, HEIGHT);
  const context = canvas.getContext('2d');
  const pixels = context.createImageData(WIDTH, HEIGHT);
  pixels.data.set(paintRoom(head, [0.22, 0.45], [0.8, 0.5]));
  context.putImageData(pixels, 0, 0);
  const file = workFile('room.png');
  writeFileSync(file, canvas.toBuffer('image/png'));
  const id = await newPiece(page, 'A face', { custom: [180, 320], rate: '25' });
  await openPictures(page);
  await page.getByLabel('Import picture, clip or logo').setInputFiles(file);
  const framing = page.getByRole('region', { name: 'Framing' });
  await expect(framing).toBeVisible({ timeout: 30_000 });
  await framing.getByRole('button', { name: 'Fill frame' }).click();
  await framing.getByRole('button', { name: 'Find subject' }).click();
  await expect(page.getByText(/Framed the subject of/)).toBeVisible({ timeout: 60_000 });
  await waitSaved(page);
  const focus = (await storedPiece(page, id)).layers[0]!.tracks.focus!.value as unknown as Vector; // as it is stored
  expect(isInTallFrame(focus, [0.22, 0.45])).toBe(true);
  expect(isInTallFrame(focus, [0.8, 0.5])).toBe(false);
});

test('footage is followed by the face in it, past what moves faster', async ({ page }) => {
  const frames = 100;
  const faceAt = (frame: number): readonly [number, number] => [0.2 + (0.5 * frame) / frames, 0.45];
  const ballAt = (frame: number): readonly [number, number] => [0.88 - (0.6 * frame) / frames, 0.75];
  const head = await headOf('smiling');
  const painted = Array.from({ length: frames }, (_, frame) => paintRoom(head, faceAt(frame), ballAt(frame)));
  const film = workFile('face.mp4');
  encodeFilm(painted, { width: WIDTH, height: HEIGHT, rate: String(RATE), codec: H264 }, film);
  const id = await newPiece(page, 'A face that moves', { custom: [180, 320], rate: '25' });
  await openPictures(page);
  await bringIn(page, film);
  const focus = await followSubject(page, id, 60_000);
  const inside = insideOf(focus, frames, RATE, faceAt);
  console.log(`the face is in ${inside} of ${frames} frames`);
  expect(inside / frames).toBeGreaterThanOrEqual(0.99);
});
