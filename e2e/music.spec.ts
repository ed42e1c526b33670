import { writeFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import {
  analysisOf,
  goTo,
  markStretch,
  newPiece,
  renderTo,
  soundOf,
  storedPiece,
  testFile,
  timeline,
  timelineX,
  waitSaved,
  workFile,
} from './support/app';
import { styleNamed } from '../bench/made/styles';
import { styleSong } from '../bench/made/arrange';
import { toMix } from '../bench/made/sound';
import { noBeatSounds } from '../bench/made/no-beat';
import { toWav } from '../demo/synth';
import { encodeWav } from '../demo/wav';
import { lagOf, sharpest } from './support/sound';

const BEAT = 60 / 118;

async function pieceWithMusic(page: Page, name: string, song = testFile('salt-and-string.wav')): Promise<string> {
  const id = await newPiece(page, name, { custom: [320, 180] });
  await page.getByLabel('Import song').setInputFiles(song);
  await expect(page.getByText(/\d hits ·/)).toBeVisible({ timeout: 60_000 });
  await waitSaved(page);
  return id;
}
const tab = (page: Page, name: string) => page.getByRole('tab', { name, exact: true }).click();
const music = async (page: Page, id: string) => (await storedPiece(page, id)).music!;
const undo = (page: Page) => page.keyboard.press('Control+z');
const tempoShown = async (page: Page) =>
  Number((await page.getByLabel('Tempo', { exact: true }).inputValue()).replace(/[^\d.]/g, ''));

test('beats are halved, doubled, nudged, dragged and counted from a new "one", each with undo', async ({ page }) => {
  const id = await pieceWithMusic(page, 'Corrections');
  const { beats } = await analysisOf(page, id);
  await page.getByRole('button', { name: 'Half tempo', exact: true }).click();
  expect((await music(page, id)).correction.factor).toBe(0.5);
  expect(await tempoShown(page)).toBeCloseTo(59, 0);
  await page.getByRole('button', { name: 'Double tempo', exact: true }).click();
  await page.getByRole('button', { name: 'Double tempo', exact: true }).click();
  expect((await music(page, id)).correction.factor).toBe(2);
  expect(await tempoShown(page)).toBeCloseTo(236, 0);
  await timeline(page).focus();
  for (let i = 0; i < 3; i++) await undo(page);
  expect((await music(page, id)).correction.factor).toBe(1);

  await page.getByRole('button', { name: 'Move beats 5 ms later' }).click();
  expect((await music(page, id)).correction.shift).toBeCloseTo(0.005, 9);
  await timeline(page).focus();
  await undo(page);

  await page.getByRole('button', { name: 'Flash beats' }).click();
  await expect(page.getByTestId('beat-flash')).toBeAttached();
  await page.getByRole('button', { name: 'Flash beats' }).click();

  // The ninth beat is dragged by its handle, 60 ms to the right.
  await page.getByRole('button', { name: 'Edit beats by dragging' }).click();
  await timeline(page).focus();
  await goTo(page, beats[8]!);
  for (let i = 0; i < 4; i++) await page.keyboard.press('+');
  const y = (await timeline(page).boundingBox())!.y + 60;
  const [from, to] = [await timelineX(page, beats[8]!), await timelineX(page, beats[8]! + 0.06)];
  await page.mouse.move(from, y);
  await page.mouse.down();
  await page.mouse.move((from + to) / 2, y, { steps: 3 });
  await page.mouse.move(to, y, { steps: 3 });
  await page.mouse.up();
  const { moves } = (await music(page, id)).correction;
  expect(moves).toHaveLength(1);
  expect(moves[0]!.at).toBeCloseTo(beats[8]!, 2);
  expect(moves[0]!.to - moves[0]!.at).toBeCloseTo(0.06, 2);
  await undo(page);
  expect((await music(page, id)).correction.moves).toEqual([]);

  // "One" on the tenth beat, three beats a bar from there.
  await goTo(page, beats[9]!);
  await page.getByLabel('Time signature from here').fill('3');
  await page.getByLabel('Time signature from here').press('Enter');
  await page.getByRole('button', { name: 'Set as downbeat' }).click();
  const { bars } = (await music(page, id)).correction;
  expect(bars[0]!.beatsPerBar).toBe(3);
  expect(bars[0]!.at).toBeCloseTo(beats[9]!, 3);
  await expect(page.getByLabel('Bar and beat')).toContainText(/beat/);
  const shown = async () => (await page.getByLabel('Bar and beat').innerText()).replace(/\s+/g, ' ');
  expect(await shown()).toMatch(/bar 1 beat/);

  await page.getByRole('button', { name: 'Reset to detected beats' }).click();
  expect((await music(page, id)).correction).toMatchObject({ factor: 1, bars: [], moves: [] });
});

test('four taps while it plays set the beats of the whole song on what is really struck', async ({ page }) => {
  const id = await pieceWithMusic(page, 'Taps');
  const { beats } = await analysisOf(page, id);
  await page.getByRole('button', { name: 'Half tempo', exact: true }).click();
  await goTo(page, beats[16]! - 0.3);
  await timeline(page).focus();
  await page.keyboard.press('Space');
  // A tap each time the clock passes a beat, a little behind it, as people do. Each tells when the finger came down, so
  // that a machine too busy to draw every frame hears them as even as they are.
  await page.evaluate(
    ([first, beat, count]) =>
      new Promise<void>((resolve) => {
        const clock = document.querySelector('[aria-label="Time"]')!;
        let tapped = 0;
        const observer = new MutationObserver(() => {
          const now = performance.now();
          const [m, s] = clock.textContent.split(':').map(Number);
          const seconds = m! * 60 + s!;
          for (; tapped < count && seconds >= first + tapped * beat + 0.02; tapped++) {
            const press = new KeyboardEvent('keydown', { key: 'b', code: 'KeyB', bubbles: true });
            const late = seconds - (first + tapped * beat + 0.02);
            Object.defineProperty(press, 'timeStamp', { value: now - late * 1000 });
            document.body.dispatchEvent(press);
          }
          if (tapped < count) return;
          observer.disconnect();
          resolve();
        });
        observer.observe(clock, { childList: true, characterData: true, subtree: true });
      }),
    [beats[16]!, BEAT, 7] as const,
  );
  await page.keyboard.press('Space');
  const { correction } = await music(page, id);
  const tapped = correction.tapped!;
  expect(correction.factor).toBe(1);
  expect(tapped.length).toBeGreaterThan(60);
  // Where drums play, every beat lies on a true one.
  const errors = tapped
    .filter((t) => t > beats[14]! && t < beats[50]!)
    .map((t) => Math.min(...beats.map((b) => Math.abs(b - t))));
  expect(errors.length).toBeGreaterThan(30);
  expect(Math.max(...errors)).toBeLessThan(0.04);
  await undo(page);
  expect((await music(page, id)).correction).toMatchObject({ tapped: null, factor: 0.5 });
});

test('a stretch is left out on the beat: even beats, the rendered sound without a click, the phase kept', async ({
  page,
}) => {
  const id = await pieceWithMusic(page, 'A cut');
  const { beats, duration } = await analysisOf(page, id);
  // The piece is as long as six bars.
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  // the sound is loaded: the join is matched on it
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await tab(page, 'Cut');
  await markStretch(page, beats[4]! + 0.03, beats[8]! - 0.04);
  await page.getByRole('button', { name: 'Cut selection' }).click();
  const { cuts } = await music(page, id);
  expect(cuts).toHaveLength(1);
  expect(Math.abs(cuts[0]!.at - beats[4]!)).toBeLessThan(0.005);
  expect(Math.abs(cuts[0]!.to - cuts[0]!.at - (beats[8]! - beats[4]!))).toBeLessThan(0.005);

  const out = workFile('a-cut.mp4');
  await renderTo(page, out);
  const heard = soundOf(out);
  const song = soundOf(testFile('salt-and-string.wav'));
  const join = cuts[0]!.at;
  const by = cuts[0]!.to - cuts[0]!.at;
  // Phase: the sound behind the join is the song's, to well within 5 ms.
  const lag = lagOf(heard, 0.5, song, 0.5);
  expect(Math.abs(lag)).toBeLessThan(0.003);
  expect(Math.abs(lagOf(heard, join + 1, song, join + by + 1) - lag)).toBeLessThan(0.005);
  // No click: the joint bends no sharper than the music itself.
  expect(sharpest(heard, join - 0.02, join + 0.02)).toBeLessThan(
    1.2 * Math.max(sharpest(heard, 0.15, join - 0.05), sharpest(heard, join + 0.05, join + 2)),
  );

  await page.getByRole('button', { name: 'Music', exact: true }).click();
  await tab(page, 'Cut');
  await expect(page.getByText(new RegExp(`${(duration - by).toFixed(1)} of`))).toBeVisible();
  await timeline(page).focus();
  await undo(page);
  expect((await music(page, id)).cuts).toEqual([]);
});

test('the song is split and a part repeated; fitted to a length by whole bars it comes to its own end', async ({
  page,
}) => {
  const id = await pieceWithMusic(page, 'Fitted');
  const { beats, duration, bars } = await analysisOf(page, id);
  await tab(page, 'Cut');
  await goTo(page, beats[8]! + 0.1);
  await page.getByRole('button', { name: 'Split at beat' }).click();
  const split = (await music(page, id)).cuts;
  expect(split).toHaveLength(1);
  expect(split[0]!.at).toBe(split[0]!.to);
  expect(Math.abs(split[0]!.at - beats[8]!)).toBeLessThan(1e-6);
  await page.getByRole('group', { name: 'Part 1' }).getByRole('button', { name: 'Repeat' }).click();
  await expect(page.getByText(new RegExp(`${(duration + beats[8]!).toFixed(1)} of`))).toBeVisible();

  await page.getByLabel('Target duration').fill('25');
  await page.getByLabel('Target duration').press('Enter');
  await page.getByRole('button', { name: 'Fit by whole bars' }).click();
  const fitted = await storedPiece(page, id);
  expect(fitted.music!.cuts.length).toBeGreaterThan(0);
  expect(fitted.music!.trimStart).toBe(0);
  expect(fitted.music!.trimEnd).toBeNull();
  expect(Math.abs(fitted.end.seconds! - 25)).toBeLessThan(4 * BEAT * 0.51);
  // Every join leads from the end of a bar to the start of another.
  const downs = bars.map((b) => beats[b.beat]!);
  for (const cut of fitted.music!.cuts)
    for (const t of [cut.at, cut.to]) expect(Math.min(...downs.map((d) => Math.abs(d - t)))).toBeLessThan(0.005);

  // Rendered, it sounds as it is written: every part in step with the song, no click at a join, silence at the end.
  const out = workFile('fitted.mp4');
  await renderTo(page, out);
  const heard = soundOf(out);
  const song = soundOf(testFile('salt-and-string.wav'));
  expect(Math.abs(heard.length / 48000 - fitted.end.seconds!)).toBeLessThan(0.06);
  const lag = lagOf(heard, 0.5, song, 0.5);
  let [at, from] = [0, 0];
  for (const cut of fitted.music!.cuts) {
    at += cut.at - from;
    from = cut.to;
    expect(Math.abs(lagOf(heard, at + 0.1, song, cut.to + 0.1, 0.8) - lag)).toBeLessThan(0.005);
    // A drum is struck on most joins: the same beat of the song, unjoined, is the measure.
    expect(sharpest(heard, at - 0.02, at + 0.02)).toBeLessThan(
      1.3 *
        Math.max(
          sharpest(song, cut.to - 0.02, cut.to + 0.02),
          sharpest(song, cut.at - 0.02, cut.at + 0.02),
          sharpest(song, cut.at - 2, cut.at),
        ),
    );
  }
  await page.getByRole('button', { name: 'Music', exact: true }).click();
  await timeline(page).focus();
  await undo(page);
  // The first part twice: one jump back; the split has become the end of the second time.
  expect((await music(page, id)).cuts).toEqual([{ at: split[0]!.at, to: 0 }]);
});

test('the drop is put under the playhead, and what was pinned stays on a beat where it was', async ({ page }) => {
  const id = await pieceWithMusic(page, 'The drop');
  const { drops, beats } = await analysisOf(page, id);
  expect(Math.abs(drops[0]!.time - (0.2 + 16 * BEAT))).toBeLessThan(0.03);
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await goTo(page, beats[2]!);
  await page.getByRole('button', { name: 'Rectangle' }).click();
  const before = (await storedPiece(page, id)).layers[0]!.start.to!.beat!;
  await page.getByRole('button', { name: 'Music', exact: true }).click();
  await tab(page, 'Cut');
  await goTo(page, 4);
  const at = Number((await page.getByLabel('Time', { exact: true }).innerText()).split(':')[1]);
  await page
    .getByRole('button', { name: /^Drop at/ })
    .first()
    .click();
  const piece = await storedPiece(page, id);
  expect(Math.abs(piece.music!.start + drops[0]!.time - at)).toBeLessThan(0.002);
  const after = piece.layers[0]!.start.to!.beat!;
  const moved = (after - before) * BEAT + piece.music!.start;
  expect(Math.abs(moved)).toBeLessThan(BEAT * 0.51);
  expect(Number.isInteger(after)).toBe(true);
});

test('layers and copies are spread on the beats, and movements that miss them are landed in one click', async ({
  page,
}) => {
  const id = await pieceWithMusic(page, 'Spread');
  const { beats } = await analysisOf(page, id);
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await goTo(page, beats[4]!);
  for (let i = 0; i < 3; i++)
    await page.getByRole('region', { name: 'Picture' }).getByRole('button', { name: 'Ellipse' }).click();
  await page.keyboard.press('Control+a');
  await page.getByRole('button', { name: 'Motion', exact: true }).click();
  await page.getByRole('tab', { name: 'Spread' }).click();
  await page.getByLabel('Spread on', { exact: true }).selectOption('pattern');
  await page.getByLabel('Rhythm').fill('x..x..x.');
  await page.getByRole('button', { name: 'Spread', exact: true }).click();
  const starts = async () => (await storedPiece(page, id)).layers.map((l) => l.start.to!.beat!);
  const first = (await starts())[0]!;
  expect(await starts()).toEqual([first, first + 0.75, first + 1.5]);

  await page.getByLabel('Spread on', { exact: true }).selectOption('beat');
  await page.getByLabel('Order').selectOption('ends');
  await page.getByRole('button', { name: 'Spread', exact: true }).click();
  expect(await starts()).toEqual([first, first + 2, first + 1]);

  await timeline(page).focus();
  await page.keyboard.press('Escape');
  await page.locator('[data-bar]').first().click();
  await page.getByLabel('Number of copies').fill('3');
  await page.getByLabel('Number of copies').press('Enter');
  const chosen = (await storedPiece(page, id)).layers.length;
  await page.getByRole('button', { name: 'Add copies' }).click();
  const copies = (await storedPiece(page, id)).layers.slice(chosen).map((l) => l.start.to!.beat!);
  expect(copies).toHaveLength(3);
  expect([copies[1]! - copies[0]!, copies[2]! - copies[1]!]).toEqual([1, 1]);

  // A movement that comes in 40 ms late of its beat: two stars off the grid.
  await goTo(page, beats[10]!);
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Rectangle' }).click();
  await page.getByRole('button', { name: 'Snap to beat lattice' }).click();
  await page.getByRole('button', { name: 'Add Position keyframe' }).click();
  for (let i = 0; i < 9; i++) await page.keyboard.press('ArrowRight');
  await page.getByLabel('Position x', { exact: true }).fill('90');
  await page.getByLabel('Position x', { exact: true }).press('Enter');
  await page.keyboard.press('Shift+A');
  await page.getByRole('button', { name: 'Motion', exact: true }).click();
  await page.getByRole('tab', { name: 'Keyframes' }).click();
  await page.getByRole('button', { name: 'Leave', exact: true }).click();
  await page.getByRole('button', { name: 'Run-through', exact: true }).click();
  const check = page.getByRole('region', { name: 'Beat sync' });
  await expect(check.getByText(/Rectangle lands/)).toBeVisible();
  await check.getByRole('button', { name: /^Snap all/ }).click();
  await expect(check.getByText('1 of 1 animations hit within half a frame.')).toBeVisible();
  await timeline(page).focus();
  await undo(page);
  await expect(check.getByRole('button', { name: /^Snap all/ })).toBeVisible();
});

test('markers are set by key and in one step, renamed, pinned to and cleared', async ({ page }) => {
  const id = await pieceWithMusic(page, 'Markers');
  const { beats } = await analysisOf(page, id);
  await timeline(page).focus();
  await goTo(page, beats[5]!);
  await page.keyboard.press('m');
  await tab(page, 'Markers');
  await page.getByLabel('Marker 1 name').fill('Gust');
  await page.getByLabel('Marker 1 name').press('Enter');
  const markers = async () => (await storedPiece(page, id)).markers;
  expect((await markers())[0]).toMatchObject({ name: 'Gust', at: { kind: 'pinned' } });
  await page.getByLabel('Add markers on').selectOption('bar');
  const barCount = (await markers()).length - 1;
  expect(barCount).toBeGreaterThan(3);
  expect((await markers()).some((m) => m.name === 'Bar 2')).toBe(true);

  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Rectangle' }).click();
  await page.getByRole('button', { name: 'Music', exact: true }).click();
  await tab(page, 'Markers');
  await page.getByRole('button', { name: 'Pin selected layers to Gust' }).click();
  expect((await storedPiece(page, id)).layers[0]!.start).toMatchObject({ kind: 'pinned', to: { type: 'marker' } });
  await page.getByRole('button', { name: 'Remove Bar 2' }).click();
  expect(await markers()).toHaveLength(barCount);
  await page.getByRole('button', { name: 'Remove all' }).click();
  expect(await markers()).toEqual([]);
  await timeline(page).focus();
  await undo(page);
  expect(await markers()).toHaveLength(barCount);
});

test('where no beat is, the app says so, and takes the song as free time at a click', async ({ page }) => {
  const file = workFile('syllables.wav');
  const syllables = noBeatSounds(1).find((s) => s.name === 'noise in syllables')!;
  await writeFile(file, encodeWav([syllables.samples()], 22050));
  const id = await pieceWithMusic(page, 'Wind in the Row', file);
  await expect(timeline(page).getByText('no steady beat')).toBeVisible();
  await expect(page.getByRole('note')).toContainText('No steady beat found');
  await page.getByRole('button', { name: 'Free tempo, hits only' }).click();
  await expect(page.getByRole('note')).toBeHidden();
  await waitSaved(page);
  expect((await music(page, id)).correction.free).toHaveLength(1);
  await timeline(page).focus();
  await undo(page);
  await expect(page.getByRole('note')).toBeVisible();
});

test('doubtful beats are counted, and gone through by key, one stretch after another', async ({ page }) => {
  // A beat, noise without one, and the beat again.
  const { left, right } = toMix(styleSong(styleNamed('house'), 120, 0));
  const beat = Float32Array.from({ length: 16 * 22050 }, (_, i) => (left[2 * i]! + right[2 * i + 1]!) / 2);
  const syllables = noBeatSounds(1).find((s) => s.name === 'noise in syllables')!;
  const noise = syllables.samples().subarray(0, 10 * 22050);
  const file = workFile('interrupted.wav');
  await writeFile(file, encodeWav([Float32Array.from([...beat, ...noise, ...beat])], 22050));
  const id = await pieceWithMusic(page, 'Interrupted', file);
  await expect(page.getByText(/\d+ range/)).toBeVisible();
  await timeline(page).focus();
  await page.keyboard.press('g');
  for (let i = 0; i < 3; i++) {
    await page.keyboard.press('Shift+d');
    await page.keyboard.press('m');
  }
  await waitSaved(page);
  const places = (await storedPiece(page, id)).markers.map(({ at }) => at.seconds!);
  expect(places).toHaveLength(3);
  for (const [i, at] of places.entries()) {
    expect(at).toBeGreaterThan(15);
    expect(at).toBeLessThan(27);
    if (i > 0) expect(at).toBeGreaterThan(places[i - 1]!);
  }
});

test('where two tempi fit, both are offered, heard with clicks and chosen at a click', async ({ page }) => {
  const file = workFile('ballad.wav');
  await writeFile(file, toWav(toMix(styleSong(styleNamed('piano ballad'), 58, 0))));
  const id = await pieceWithMusic(page, 'Slow Morning', file);
  await expect(timeline(page).getByText(/59 or 11\d BPM\?/)).toBeVisible();
  const note = page.getByRole('note');
  await expect(note).toContainText('Both fit this song.');
  const [slow, quick] = [/Set tempo to 59 BPM/, /Set tempo to 11\d BPM/].map((name) =>
    note.getByRole('button', { name }),
  );
  const isSlow = (await slow!.getAttribute('aria-pressed')) === 'true';
  await (isSlow ? quick! : slow!).click();
  await waitSaved(page);
  expect((await music(page, id)).correction.factor).toBe(isSlow ? 2 : 0.5);
  expect(Math.abs((await tempoShown(page)) / (isSlow ? 118 : 59) - 1)).toBeLessThan(0.03);
  await expect(isSlow ? quick! : slow!).toHaveAttribute('aria-pressed', 'true');
  // The other tempo is heard before it is taken.
  await note.getByRole('button', { name: isSlow ? /^Play at 59 BPM/ : /^Play at 11\d BPM/ }).click();
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await page.keyboard.press('Space');
  expect((await music(page, id)).correction.factor).toBe(isSlow ? 2 : 0.5);
  await note.getByRole('button', { name: 'Play with clicks' }).click();
  await expect(page.getByRole('button', { name: 'Click track' })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('Space');

  // The next such piece counts the song as it was chosen here.
  const next = await newPiece(page, 'Another Slow Morning', { custom: [320, 180] });
  await page.getByLabel('Import song').setInputFiles(file);
  await expect(page.getByText(/like your last piece/)).toBeVisible({ timeout: 60_000 });
  await waitSaved(page);
  expect((await music(page, next)).correction.factor).toBe(isSlow ? 2 : 0.5);
});

test('the end of the piece and the fades of its music are set by their handles, by pointer and by keys', async ({
  page,
}) => {
  const id = await pieceWithMusic(page, 'Handles');
  const handle = (name: string) => timeline(page).getByRole('slider', { name, exact: true });
  const drag = async (name: string, by: number) => {
    const box = (await handle(name).boundingBox())!;
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + by / 2, y);
    await page.mouse.move(x + by, y);
    await page.mouse.up();
    await waitSaved(page);
  };
  const before = (await storedPiece(page, id)).end as unknown as { seconds: number };
  await drag('End', -120);
  const end = (await storedPiece(page, id)).end as unknown as { kind: string; to: { type: string } };
  expect(end).toMatchObject({ kind: 'pinned', to: { type: 'beat' } });
  await undo(page);
  await waitSaved(page);
  expect((await storedPiece(page, id)).end).toEqual(before);
  await handle('End').focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowLeft');
  await waitSaved(page);
  expect((await storedPiece(page, id)).end).toMatchObject({
    kind: 'free',
    seconds: expect.closeTo(before.seconds - 3 / 30, 3),
  });
  await drag('Fade in', 60);
  expect((await music(page, id)).fadeIn).toBeGreaterThan(0.2);
  await handle('Fade out').focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await waitSaved(page);
  expect((await music(page, id)).fadeOut).toBeGreaterThan(0.3);
});
