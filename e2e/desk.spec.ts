import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { appUrl, goTo, newPiece, storedPiece, testFile, timeline, timelineX, waitSaved } from './support/app';

/** Screen point of the middle of the canvas plus format pixels. */
async function canvasPoint(
  page: Page,
  dx: number,
  dy: number,
  width = 1920,
): Promise<{ x: number; y: number; zoom: number }> {
  const box = (await page.getByTestId('canvas').boundingBox())!;
  const zoom = box.width / width;
  return { x: box.x + box.width / 2 + dx * zoom, y: box.y + box.height / 2 + dy * zoom, zoom };
}
async function drag(page: Page, from: { x: number; y: number }, to: { x: number; y: number }): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x + (to.x - from.x) / 2, from.y + (to.y - from.y) / 2, { steps: 4 });
  await page.mouse.move(to.x, to.y, { steps: 4 });
  await page.mouse.up();
}
const setNumber = async (page: Page, label: string, value: string) => {
  await page.getByLabel(label, { exact: true }).fill(value);
  await page.getByLabel(label, { exact: true }).press('Enter');
};
const handleCentre = async (page: Page, name: string) => {
  const box = (await page.locator(`[data-handle=${name}]`).first().boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
};

test('words are typed on the canvas, moved, scaled and turned by hand, and undone after a reload', async ({ page }) => {
  const id = await newPiece(page, 'By hand');
  await page.keyboard.press('t');
  await page.getByLabel('Text on canvas').fill('Kite Week');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('complementary', { name: 'Details' }).getByRole('heading')).toHaveText('Kite Week');

  // The words can be grasped once the canvas shows them again.
  await expect(page.locator('[data-handle]').first()).toBeVisible();
  const middle = await canvasPoint(page, 0, 0);
  const target = await canvasPoint(page, 311, 187);
  await drag(page, middle, target);
  let piece = await storedPiece(page, id);
  const [x, y] = piece.layers[0]!.tracks.position!.value as [number, number];
  expect(Math.abs(x - 311)).toBeLessThan(12);
  expect(Math.abs(y - 187)).toBeLessThan(12);

  // Dropped near the middle it snaps to the frame's exact centre lines.
  await drag(page, target, { x: middle.x + 2, y: middle.y - 2 });
  expect((await storedPiece(page, id)).layers[0]!.tracks.position!.value).toEqual([0, 0]);

  const corner = await handleCentre(page, 'corner-2');
  await drag(page, corner, { x: middle.x + (corner.x - middle.x) * 1.5, y: middle.y + (corner.y - middle.y) * 1.5 });
  piece = await storedPiece(page, id);
  expect((piece.layers[0]!.tracks.scale!.value as number[])[0]).toBeCloseTo(1.5, 1);

  const stalk = await handleCentre(page, 'rotate');
  await drag(page, stalk, { x: middle.x + (middle.y - stalk.y), y: middle.y });
  expect(Math.abs(((await storedPiece(page, id)).layers[0]!.tracks.rotation!.value as number) - 90)).toBeLessThan(2);

  await page.reload();
  await expect(timeline(page)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Undo' })).toBeEnabled();
  await page.keyboard.press('Control+z');
  expect((await storedPiece(page, id)).layers[0]!.tracks.rotation!.value).toBe(0);
  await page.keyboard.press('Control+z');
  expect((await storedPiece(page, id)).layers[0]!.tracks.scale!.value).toEqual([1, 1]);
  await page.keyboard.press('Control+Shift+z');
  expect(((await storedPiece(page, id)).layers[0]!.tracks.scale!.value as number[])[0]).toBeCloseTo(1.5, 1);
});

test('layers are ordered, renamed, hidden, locked, duplicated and deleted, each with undo', async ({ page }) => {
  const id = await newPiece(page, 'Layers');
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Rectangle' }).click();
  await page.getByRole('button', { name: 'Ellipse' }).click();
  const names = async () => (await storedPiece(page, id)).layers.map((l) => l.name);
  expect(await names()).toEqual(['Rectangle', 'Ellipse']);
  await page.keyboard.press('Shift+ArrowDown');
  expect(await names()).toEqual(['Ellipse', 'Rectangle']);
  await page
    .getByRole('group', { name: 'Rectangle' })
    .getByRole('button', { name: 'Rectangle', exact: true })
    .dblclick();
  await page.getByLabel('Layer name').fill('Pennant');
  await page.getByLabel('Layer name').press('Enter');
  expect(await names()).toEqual(['Ellipse', 'Pennant']);
  const row = page.getByRole('group', { name: 'Pennant' });
  await row.hover();
  await row.getByRole('button', { name: 'Hide Pennant' }).click();
  expect((await storedPiece(page, id)).layers[1]!.hidden).toBe(true);
  await row.getByRole('button', { name: 'Lock Pennant' }).click();
  await row.getByRole('button', { name: 'Pennant', exact: true }).click();
  await page.keyboard.press('Delete');
  expect(await names()).toHaveLength(2);
  await row.getByRole('button', { name: 'Unlock Pennant' }).click();
  await page.keyboard.press('Control+d');
  expect(await names()).toEqual(['Ellipse', 'Pennant', 'Pennant copy']);
  await page.keyboard.press('Delete');
  expect(await names()).toEqual(['Ellipse', 'Pennant']);
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  const piece = await storedPiece(page, id);
  expect(piece.layers.map((l) => l.name)).toEqual(['Ellipse', 'Pennant']);
  expect(piece.layers[1]!.hidden).toBe(true);
});

test('keyframes are set, eased with a dragged curve, reversed and stretched', async ({ page }) => {
  const id = await newPiece(page, 'Keys');
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Rectangle' }).click();
  await page.getByRole('button', { name: 'Add Position keyframe' }).click();
  for (let i = 0; i < 2; i++) await page.keyboard.press('Shift+ArrowRight');
  await setNumber(page, 'Position x', '400');
  const keys = async () => (await storedPiece(page, id)).layers[0]!.tracks.position!.keyframes;
  expect((await keys()).map((k) => k.value)).toEqual([
    [0, 0],
    [400, 0],
  ]);
  expect((await keys())[1]!.at).toMatchObject({ kind: 'pinned', to: { beat: 2 } });

  await page.locator('.star').first().click();
  await page.getByLabel('Easing', { exact: true }).selectOption('bezier');
  const handle = await handleCentre(page, 'curve-1');
  await drag(page, handle, { x: handle.x + 30, y: handle.y - 25 });
  const eased = (await keys())[0]!.easing;
  expect(eased.type).toBe('bezier');
  expect(eased.x1!).toBeGreaterThan(0.33);
  await page.getByLabel('Easing', { exact: true }).selectOption('spring');
  await setNumber(page, 'Oscillations', '3');
  expect((await keys())[0]!.easing).toMatchObject({ type: 'spring', oscillations: 3 });

  await page.keyboard.press('Escape');
  await page.locator('[data-bar]').first().click();
  await page.keyboard.press('Shift+A');
  await page.getByRole('button', { name: 'Motion', exact: true }).click();
  const panel = page.getByRole('region', { name: 'Motion' });
  await panel.getByRole('tab', { name: 'Keyframes' }).click();
  await panel.getByRole('button', { name: 'Reverse' }).click();
  expect((await keys()).map((k) => k.value)).toEqual([
    [400, 0],
    [0, 0],
  ]);
  await panel.getByRole('button', { name: 'Stretch ×2' }).click();
  expect((await keys())[1]!.at).toMatchObject({ to: { beat: 4 } });

  // The way it travels can be bent on the canvas.
  await page.locator('.star').first().click();
  await page.keyboard.press('Home');
  const tangent = await handleCentre(page, 'tangentOut');
  await drag(page, tangent, { x: tangent.x, y: tangent.y + 60 });
  expect((await keys())[0]).toHaveProperty('tangentOut');

  // It turns along that way, at one speed.
  await page.getByRole('checkbox', { name: 'Orient to path' }).check();
  await page.getByRole('checkbox', { name: 'Constant speed' }).check();
  await expect
    .poll(async () => ((await storedPiece(page, id)).layers[0] as unknown as { travel: unknown }).travel)
    .toEqual({ turns: true, isEven: true });

  await page.keyboard.press('PageDown');
  await expect(page.getByLabel('Time', { exact: true })).toHaveText('00:02.000');
  await page.keyboard.press('PageUp');
  await expect(page.getByLabel('Time', { exact: true })).toHaveText('00:00.000');
});

test('spans are dragged and snap to beats; the music moves what is pinned in one undo step', async ({ page }) => {
  const id = await newPiece(page, 'Clock');
  await page.getByLabel('Import song').setInputFiles(testFile('salt-and-string.wav'));
  await expect(page.getByText(/\d hits ·/)).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Rectangle' }).click();
  const bar = page.locator('[data-bar]').first();
  const box = (await bar.boundingBox())!;
  const beat = 60 / 118;
  await drag(
    page,
    { x: box.x + box.width / 2, y: box.y + 12 },
    {
      x: box.x + box.width / 2 + (await timelineX(page, 0.2 + 8 * beat)) - (await timelineX(page, 0)) + 2,
      y: box.y + 12,
    },
  );
  const start = (await storedPiece(page, id)).layers[0]!.start;
  expect(start).toMatchObject({ kind: 'pinned', to: { type: 'beat', beat: 8 } });

  const left = async () => (await bar.boundingBox())!.x;
  const before = await left();
  await page.getByRole('button', { name: 'Music', exact: true }).click();
  await setNumber(page, 'Beat offset', '250');
  const pps = Number(await timeline(page).getAttribute('data-pixels-per-second'));
  await expect.poll(async () => Math.abs((await left()) - before - 0.25 * pps) < 1.5).toBe(true);
  await setNumber(page, 'Tempo', '100');
  await waitSaved(page);
  expect((await storedPiece(page, id)).music!.correction).toMatchObject({ bpm: 100, shift: 0.25 });
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => Math.abs((await left()) - before) < 1).toBe(true);

  // Another song: the bar stands on beat 8 of that one.
  await page.getByLabel('Replace song').setInputFiles(testFile('harbour-lamps.wav'));
  await expect(page.getByRole('heading', { name: 'harbour-lamps' })).toBeVisible({ timeout: 60_000 });
  await expect
    .poll(async () => Math.abs((await left()) - (await timelineX(page, 0.35 + (8 * 60) / 84))) < 2)
    .toBe(true);
});

/** The time shown and the audio clock, both read in the moment the shown time changes. */
const readClocks = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<{ shown: number; audio: number }>((resolve) => {
        const label = document.querySelector('[aria-label="Time"]')!; // the transport is on the page
        const observer = new MutationObserver(() => {
          observer.disconnect();
          const [m, s] = (label.textContent ?? '').split(':');
          const { audioContexts } = window as unknown as { audioContexts: AudioContext[] }; // set by the test's init script
          resolve({ shown: Number(m) * 60 + Number(s), audio: audioContexts[0]!.currentTime });
        });
        observer.observe(label, { childList: true, characterData: true, subtree: true });
      }),
  );

test('sound and picture run from the audio clock: the playhead keeps time, loops, and stops', async ({ page }) => {
  await page.addInitScript(() => {
    const made: AudioContext[] = [];
    Object.assign(window, { audioContexts: made });
    window.AudioContext = class extends AudioContext {
      constructor(options?: AudioContextOptions) {
        super(options);
        made.push(this);
      }
    };
  });
  await page.goto(`${appUrl()}/piece/demo-nine-days`);
  await expect(timeline(page)).toBeVisible();
  await goTo(page, 2);
  const seconds = async () => {
    const [m, s] = ((await page.getByLabel('Time', { exact: true }).textContent()) ?? '0:0').split(':');
    return Number(m) * 60 + Number(s);
  };
  const from = await seconds();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  await expect.poll(seconds, { timeout: 10_000 }).toBeGreaterThan(from + 0.3);
  const a = await readClocks(page);
  await expect.poll(seconds, { timeout: 10_000 }).toBeGreaterThan(a.shown + 2);
  const b = await readClocks(page);
  // The wall clock is no measure here: on a busy machine the sound itself may wait, and the picture has to wait with
  // it.
  expect(Math.abs(b.shown - a.shown - (b.audio - a.audio))).toBeLessThan(0.1);
  await page.getByRole('button', { name: 'Show preview frame rate' }).click();
  await expect(page.getByTestId('preview-rate')).toHaveText(/[\d.]+ of 30 fps/);
  await page.getByRole('button', { name: 'Stop' }).click();

  await page.keyboard.press('Home');
  await page.keyboard.press('Alt+ArrowRight');
  await page.keyboard.press('l');
  await page.keyboard.press('Space');
  // Two bars at 118 are 4.07 s: inside the loop the playhead comes back.
  const readings: number[] = [];
  await expect
    .poll(
      async () => {
        readings.push(await seconds());
        return readings.some((t, i) => i > 0 && t < readings[i - 1]! - 2);
      },
      { timeout: 20_000, intervals: [100] },
    )
    .toBe(true);
  expect(Math.max(...readings)).toBeLessThan(0.3 + 4.07 + 0.6);
  await page.keyboard.press('Space');
});

test('the desk follows the frame, and a format keeps its own arrangement', async ({ page }) => {
  const id = await newPiece(page, 'Formats', { formats: ['Tall'] });
  await page.keyboard.press('t');
  await page.getByLabel('Text on canvas').fill('Teo Marsh');
  await page.keyboard.press('Escape');
  const wide = (await page.getByTestId('canvas').boundingBox())!;
  expect(wide.width).toBeGreaterThan(wide.height);
  await page.getByRole('navigation', { name: 'Formats' }).getByRole('button', { name: 'Tall' }).click();
  await expect
    .poll(async () => {
      const b = (await page.getByTestId('canvas').boundingBox())!;
      return b.height > b.width && b.height > 500;
    })
    .toBe(true);
  const middle = await canvasPoint(page, 0, 0, 1080);
  await page.mouse.click(middle.x, middle.y);
  await drag(page, middle, await canvasPoint(page, 0, 400, 1080));
  const layer = (await storedPiece(page, id)).layers[0]! as unknown as {
    tracks: { position: { value: number[] } };
    overrides: Record<string, { move: number[] }>;
  };
  expect(layer.tracks.position.value).toEqual([0, 0]);
  expect(Math.abs(layer.overrides.tall!.move[1]! - 400)).toBeLessThan(15);
});
