import { randomUUID } from 'node:crypto';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import type { Page } from '@playwright/test';
import { createLayer, createPiece, ownTrack } from '@core/piece';
import type { Layer, Piece } from '@core/piece';
import { FRAME_RATES, freeMoment } from '@core/time';
import { HEADLESS } from './headless';

/**
 * How late the desk's preview is, milliseconds: a bar crosses the frame once a second while the app plays; where it is
 * in pictures of the screen tells which moment is shown, and the audio clock which one was heard when they were taken.
 * `npm run bench:lateness -- ADDRESS` of an app that runs.
 */
const SECONDS = 30;
const WATCHED = 6000;
const SETTLED = 1500;
const [WIDTH, HEIGHT] = [1920, 1080];
const REACH = 900;
const VIEW = { width: 1280, height: 800 };

type Reading = readonly [moment: number, contextTime: number, latency: number];

/** @param heavy - blurred layers that move under the bar. */
function barPiece(rate: '30' | '60', heavy: number): Piece {
  let ids = 0;
  const id = (): string => `b${++ids}`;
  const base = createPiece(
    {
      name: 'Lateness',
      formats: [{ id: 'wide', name: 'Wide', width: WIDTH, height: HEIGHT }],
      frameRate: FRAME_RATES[rate],
    },
    id,
  );
  const moving = (name: string, values: Parameters<typeof createLayer>[1]['values']): Layer => {
    const layer = createLayer(
      'rectangle',
      { name, start: freeMoment(0), end: freeMoment(SECONDS), ...(values ? { values } : {}) },
      id,
    );
    ownTrack(layer, 'position').keyframes = Array.from({ length: SECONDS }, (_, n) => [
      { id: id(), at: freeMoment(n), value: [-REACH, 0] as [number, number], easing: { type: 'linear' as const } },
      {
        id: id(),
        at: freeMoment(n + 0.9999),
        value: [REACH, 0] as [number, number],
        easing: { type: 'linear' as const },
      },
    ]).flat();
    return layer;
  };
  const layers = [
    ...Array.from({ length: heavy }, (_, i) =>
      moving(`heavy ${i}`, { dimensions: [1700, 100], fill: '#330000', blur: 12 }),
    ),
    moving('bar', { dimensions: [60, HEIGHT], fill: '#FFFFFF' }),
  ];
  return {
    ...base,
    id: randomUUID(),
    background: { value: '#000000', keyframes: [] },
    layers,
    end: freeMoment(SECONDS),
  };
}

/** Reads the audio clock all the time, and when the first sound was scheduled. */
const LISTENER = `
  globalThis.readings = []; globalThis.clicks = [];
  const Own = globalThis.AudioContext;
  globalThis.AudioContext = class extends Own { constructor(options) { super(options); globalThis.sound = this; } };
  const start = OscillatorNode.prototype.start;
  OscillatorNode.prototype.start = function (when) { globalThis.clicks.push(when); return start.call(this, when); };
  setInterval(() => {
    const c = globalThis.sound;
    if (c) globalThis.readings.push([performance.timeOrigin + performance.now(), c.currentTime, c.outputLatency]);
  }, 5);
`;

/** The time of the audio clock at a moment, by the straight line through the readings. */
function clockOf(readings: readonly Reading[]): (moment: number) => number {
  const from = readings[0]![0]; // the app has played
  const mean = (of: (r: Reading) => number): number => readings.reduce((sum, r) => sum + of(r), 0) / readings.length;
  const [x, y] = [mean(([m]) => m - from), mean(([, t]) => t)];
  const slope = mean(([m, t]) => (m - from - x) * (t - y)) / mean(([m]) => (m - from - x) ** 2);
  return (moment) => y + slope * (moment - from - x);
}

/** The moment within its second that a picture of the screen shows; null if the bar is at an end. */
async function momentShown(
  jpeg: Buffer,
  box: { x: number; y: number; width: number; height: number },
): Promise<number | null> {
  const image = await loadImage(jpeg);
  const context = createCanvas(image.width, image.height).getContext('2d');
  context.drawImage(image, 0, 0);
  const scale = image.width / VIEW.width;
  const [x, width] = [Math.round(box.x * scale), Math.round(box.width * scale)];
  const { data } = context.getImageData(x, Math.round((box.y + box.height * 0.8) * scale), width, 1);
  let [sum, weight] = [0, 0];
  for (let i = 0; i < width; i++) {
    const light = data[i * 4 + 1]!; // within the row
    if (light < 100) continue;
    sum += light * (i + 0.5);
    weight += light;
  }
  const at = weight === 0 ? NaN : (sum / weight / width - 0.5) * WIDTH;
  return Math.abs(at) < REACH - 40 ? (at + REACH) / (2 * REACH) : null;
}

async function lateness(page: Page, address: string, piece: Piece): Promise<number[]> {
  const made = await page.request.post(`${address}/api/pieces`, { headers: { origin: address }, data: { piece } });
  if (made.status() !== 201) throw new Error(`the piece was not taken: ${await made.text()}`);
  const { id } = (await made.json()) as { id: string };
  await page.addInitScript(LISTENER);
  await page.goto(`${address}/piece/${id}`);
  const canvas = page.getByTestId('canvas');
  await canvas.locator('canvas').waitFor();
  await page.waitForLoadState('networkidle');
  const box = await canvas.boundingBox();
  if (!box) throw new Error('there is no canvas');
  const pictures: { taken: number; jpeg: string }[] = [];
  const session = await page.context().newCDPSession(page);
  session.on('Page.screencastFrame', ({ metadata, data, sessionId }) => {
    pictures.push({ taken: (metadata.timestamp ?? 0) * 1000, jpeg: data });
    void session.send('Page.screencastFrameAck', { sessionId });
  });
  // Clicks sound also where there is no music.
  await page.keyboard.press('k');
  await page.keyboard.press('Space');
  await page.waitForTimeout(SETTLED);
  await session.send('Page.startScreencast', { format: 'jpeg', quality: 60 });
  await page.waitForTimeout(WATCHED);
  await session.send('Page.stopScreencast');
  const { readings, clicks } = await page.evaluate(() => {
    const own = globalThis as unknown as { readings: Reading[]; clicks: number[] };
    return { readings: own.readings, clicks: own.clicks };
  });
  await page.request.delete(`${address}/api/pieces/${id}`, { headers: { origin: address } });
  const [began] = clicks;
  if (began === undefined) throw new Error('nothing was heard');
  const played = readings.filter(([, time]) => time > began + 0.5);
  const clock = clockOf(played);
  const latency = played.at(-1)![2];
  const late: number[] = [];
  for (const { taken, jpeg } of pictures) {
    const shown = await momentShown(Buffer.from(jpeg, 'base64'), box);
    if (shown === null) continue;
    const behind = (clock(taken) - latency - began - shown) % 1;
    late.push((behind > 0.5 ? behind - 1 : behind < -0.5 ? behind + 1 : behind) * 1000);
  }
  return late.sort((a, b) => a - b);
}

const address = process.argv[2];
if (!address) throw new Error('the address of an app that runs is wanted');
const { chromium } = await import('@playwright/test');
const browser = await chromium.launch({
  executablePath: HEADLESS,
  args: ['--no-sandbox', '--disable-gpu', '--autoplay-policy=no-user-gesture-required'],
});
try {
  for (const [rate, heavy] of [
    ['30', 0],
    ['60', 0],
    ['30', 3],
    ['60', 3],
  ] as const) {
    const page = await browser.newPage({ viewport: VIEW });
    const late = await lateness(page, address, barPiece(rate, heavy));
    const at = (share: number): string => late[Math.floor(share * (late.length - 1))]!.toFixed(0);
    const mean = late.reduce((sum, one) => sum + one, 0) / late.length;
    console.log(
      `${rate} frames a second, ${heavy} heavy layers: ${mean.toFixed(1)} ms late in the mean of ${late.length} pictures, ${at(0.05)} to ${at(0.95)} for nine of ten`,
    );
    await page.close();
  }
} finally {
  await browser.close();
}
