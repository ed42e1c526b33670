import { allTracks } from '@core/piece';
import type { Layer } from '@core/piece';
import { execFileSync, spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { expect } from '@playwright/test';
import type { Locator, Page } from '@playwright/test';

/** The application of this worker of the tests. */
export const appUrl = (): string =>
  process.env.ESTRELLA_TEST_URLS?.split(' ')[Number(process.env.TEST_PARALLEL_INDEX)] ?? '';
export const testFile = (name: string): string => join(process.env.ESTRELLA_TEST_FILES ?? '', name);
/** A file in the folder of this worker; its application keeps its data in `app-data` there. */
export const workFile = (name: string): string =>
  join(process.env.ESTRELLA_TEST_WORK ?? '', `browser-${process.env.TEST_PARALLEL_INDEX}`, name);

/** Makes a piece through the home's own form; ends on the desk. */
export async function newPiece(
  page: Page,
  name: string,
  options: { rate?: string; formats?: readonly string[]; custom?: readonly [number, number] } = {},
): Promise<string> {
  await page.goto(appUrl());
  await page.getByRole('button', { name: 'New piece' }).click();
  await page.getByLabel('Name', { exact: true }).fill(name);
  for (const format of options.formats ?? [])
    await page
      .getByRole('dialog')
      .getByRole('button', { name: new RegExp(`^${format}`) })
      .click();
  if (options.custom) {
    await page
      .getByRole('dialog')
      .getByRole('button', { name: /^Custom/ })
      .click();
    await page.getByRole('dialog').getByRole('button', { name: /^Wide/ }).click();
    await page.getByLabel('Width in pixels').fill(String(options.custom[0]));
    await page.getByLabel('Height in pixels').fill(String(options.custom[1]));
  }
  if (options.rate) await page.getByLabel('Frame rate (fps)').selectOption(options.rate);
  await page.getByRole('button', { name: 'Create' }).click();
  await expect(page.getByRole('region', { name: 'Timeline' })).toBeVisible();
  return new URL(page.url()).pathname.split('/').pop() ?? '';
}

export const timeline = (page: Page): Locator => page.getByRole('region', { name: 'Timeline' });

/** Where a time lies on the timeline, in page pixels. */
export async function timelineX(page: Page, seconds: number): Promise<number> {
  const region = timeline(page);
  const box = await region.boundingBox();
  const [pps, scroll, names] = await Promise.all(
    ['data-pixels-per-second', 'data-scroll', 'data-names'].map(async (a) => Number(await region.getAttribute(a))),
  );
  return (box?.x ?? 0) + names! + (seconds - scroll!) * pps!;
}

/** Clicks the ruler, which moves the playhead. */
export async function goTo(page: Page, seconds: number): Promise<void> {
  const box = await timeline(page).boundingBox();
  await page.mouse.click(await timelineX(page, seconds), (box?.y ?? 0) + 12);
}

export const waitSaved = (page: Page): Promise<void> =>
  expect(page.getByRole('status', { name: 'Saving' })).toHaveText('Saved');

/** The document as the server has it. */
export async function storedPiece(page: Page, id: string): Promise<StoredPiece> {
  await waitSaved(page);
  const response = await page.request.get(`${appUrl()}/api/pieces/${id}`);
  const piece = ((await response.json()) as { piece: StoredPiece }).piece;
  // What a layer does not hold is as its kind begins.
  for (const layer of piece.layers) layer.tracks = Object.fromEntries(allTracks(layer as unknown as Layer)) as never;
  return piece;
}

export interface StoredKey {
  id: string;
  at: { kind: string; seconds?: number; to?: { type: string; beat?: number }; offset?: { value: number } };
  value: unknown;
  easing: { type: string; name?: string; x1?: number };
}
export interface StoredMusic {
  mediaId: string;
  start: number;
  trimStart: number;
  trimEnd: number | null;
  fadeIn: number;
  fadeOut: number;
  cuts: { at: number; to: number }[];
  correction: {
    factor: number;
    shift: number;
    tapped: number[] | null;
    moves: { at: number; to: number }[];
    bars: { at: number; beatsPerBar: number }[];
    spans: unknown[];
    free: unknown[];
  };
}
export interface StoredPiece {
  name: string;
  music: StoredMusic | null;
  end: StoredKey['at'];
  markers: { id: string; name: string; colour: string; at: StoredKey['at'] }[];
  layers: {
    id: string;
    name: string;
    kind: string;
    hidden: boolean;
    content: Record<string, unknown>;
    start: StoredKey['at'];
    end: StoredKey['at'];
    tracks: Record<string, { value: unknown; keyframes: StoredKey[] }>;
  }[];
}

export interface StoredAnalysis {
  beats: number[];
  downbeats: number[];
  duration: number;
  drops: { time: number }[];
  hits: { time: number; class: string; strength: number }[];
  bars: { beat: number }[];
}
export async function analysisOf(page: Page, id: string): Promise<StoredAnalysis> {
  const response = await page.request.get(`${appUrl()}/api/pieces/${id}`);
  const { piece } = (await response.json()) as {
    piece: { media: { id: string; hash: string }[]; music: { mediaId: string } };
  };
  const hash = piece.media.find((m) => m.id === piece.music.mediaId)?.hash;
  return (await (await page.request.get(`${appUrl()}/api/media/${hash}/analysis`)).json()) as StoredAnalysis;
}

interface ProbeStream {
  codec_name: string;
  profile: string;
  pix_fmt: string;
  color_space: string;
  color_primaries: string;
  color_transfer: string;
  color_range: string;
  r_frame_rate: string;
  sample_rate: string;
  width: number;
  height: number;
  nb_frames: string;
  codec_type: string;
  start_time: string;
}
export function ffprobe(file: string): { streams: ProbeStream[]; format: { duration: string } } {
  return JSON.parse(
    execFileSync('ffprobe', ['-v', 'error', '-print_format', 'json', '-show_streams', '-show_format', file]).toString(),
  ) as { streams: ProbeStream[]; format: { duration: string } };
}

/** Mean luma of each frame of a video, 0…255. */
export function frameLuma(file: string): number[] {
  const out = spawnSync(
    'ffmpeg',
    ['-v', 'error', '-i', file, '-vf', 'scale=2:2:flags=area,format=gray', '-f', 'rawvideo', '-'],
    { maxBuffer: 1 << 28 },
  ).stdout;
  const luma: number[] = [];
  for (let i = 0; i + 3 < out.length; i += 4) luma.push((out[i]! + out[i + 1]! + out[i + 2]! + out[i + 3]!) / 4);
  return luma;
}

/** Renders the lead format through the Send panel and downloads it. */
export async function renderTo(page: Page, file: string): Promise<void> {
  await waitSaved(page);
  await page.getByRole('button', { name: 'Export', exact: true }).first().click();
  await page.getByRole('button', { name: /^Export (?!all)/ }).click();
  await expect(page.locator('[data-job][data-state=succeeded]')).toBeVisible({ timeout: 180_000 });
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Download MP4 video' }).click();
  await (await download).saveAs(file);
}

/** Marks a stretch of the music by dragging over it with Shift held. */
export async function markStretch(page: Page, from: number, to: number): Promise<void> {
  const box = await timeline(page).boundingBox();
  const y = (box?.y ?? 0) + 64;
  await page.keyboard.down('Shift');
  await page.mouse.move(await timelineX(page, from), y);
  await page.mouse.down();
  await page.mouse.move(await timelineX(page, to), y, { steps: 6 });
  await page.mouse.up();
  await page.keyboard.up('Shift');
}

/** The sound of a file as mono samples at 48 kHz, from the first one played. */
export function soundOf(file: string): Float32Array {
  const out = spawnSync(
    'ffmpeg',
    ['-v', 'error', '-i', file, '-map', '0:a:0', '-ac', '1', '-ar', '48000', '-f', 'f32le', '-'],
    { maxBuffer: 1 << 28 },
  ).stdout;
  return new Float32Array(out.buffer.slice(out.byteOffset, out.byteOffset + Math.floor(out.length / 4) * 4));
}

/** Opens a panel; a piece comes back with the one it was left with. */
export async function showPanel(page: Page, name: string): Promise<void> {
  const panel = page.getByRole('navigation', { name: 'Panels' }).getByRole('button', { name, exact: true });
  if ((await panel.getAttribute('aria-pressed')) !== 'true') await panel.click();
}

/** Adds a shape by its button. That it is there is looked for behind whatever dialog may have come meanwhile. */
export async function addShape(page: Page, name: string): Promise<void> {
  const button = page.getByRole('button', { name, exact: true });
  await showPanel(page, 'Picture');
  await button.click();
  await expect(page.getByRole('group', { name, includeHidden: true })).toBeAttached();
}
