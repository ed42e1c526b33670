import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import {
  analysisOf,
  ffprobe,
  frameLuma,
  goTo,
  newPiece,
  renderTo,
  storedPiece,
  testFile,
  timeline,
  timelineX,
  workFile,
} from './support/app';
import type { StoredKey } from './support/app';

const QUOTE =
  'A kite is a question you ask the wind. Some days it answers at once; some days you stand on the harbour wall with a cold hand and a slack string, and you learn to wait. My father said the string is not there to hold the kite down. It is how the two of you keep talking. Bring patience.';

interface StoredUse {
  id: string;
  gesture: string;
  role: string;
  unit: string;
  at: StoredKey['at'] | null;
  every: number | null;
  tracks: unknown;
  words: number[] | null;
  stagger: { rhythm: { pattern: string; step: number } | null; order: string };
  duration: { unit: string; value: number };
}
const usesOf = (layer: object): StoredUse[] => (layer as { gestures: StoredUse[] }).gestures;
const textOf = (layer: { content: Record<string, unknown> }): string => String(layer.content.text);
const phrasesOf = async (page: Page, id: string) =>
  (await storedPiece(page, id)).layers.filter((l) => (l.content.phrase as { role: string } | null)?.role === 'phrase');

async function withSong(page: Page, song: string): Promise<void> {
  await page.getByLabel('Import song').setInputFiles(testFile(`${song}.wav`));
  await expect(page.getByRole('heading', { name: song })).toBeVisible({ timeout: 60_000 });
}

test('a 60-word quote on a 30-second song, from paste to the finished video', async ({ page }) => {
  expect(QUOTE.split(/\s+/u)).toHaveLength(60);
  const began = Date.now();
  const id = await newPiece(page, 'What a kite asks', { custom: [640, 360] });
  await withSong(page, 'salt-and-string');
  await page.getByRole('button', { name: 'Words', exact: true }).click();
  await page.getByLabel('Quote').fill(QUOTE);
  await page.getByLabel('Author').fill('Inés Vardal, kite maker');
  await page.getByRole('button', { name: 'Place on beats' }).click();
  await expect(page.getByText(/phrases, all readable/)).toBeVisible();
  await page.getByLabel('Staging').selectOption('pennants');
  const interfaceSeconds = (Date.now() - began) / 1000;

  const phrases = await phrasesOf(page, id);
  expect(phrases.map(textOf).join(' ')).toBe(QUOTE);
  const { beats, bars } = await analysisOf(page, id);
  const beatOf = (moment: StoredKey['at']) => moment.to?.beat;
  const starts = phrases.map((l) => beatOf(l.start));
  expect(starts.every((b) => b !== undefined && b % 0.5 === 0)).toBe(true);
  // Most begin on a downbeat, none before the one before it has ended.
  expect(starts.filter((b) => b! % 4 === 0).length).toBeGreaterThan(starts.length / 2);
  for (let i = 1; i < phrases.length; i++)
    expect(beatOf(phrases[i]!.start)!).toBeGreaterThanOrEqual(beatOf(phrases[i - 1]!.end)!);

  const file = workFile('quote.mp4');
  await renderTo(page, file);
  console.log(`quote to video: ${interfaceSeconds.toFixed(1)} s of interface steps, ${phrases.length} phrases`);
  expect(interfaceSeconds).toBeLessThan(120);
  expect(
    ffprobe(file)
      .streams.map((s) => s.codec_type)
      .sort(),
  ).toEqual(['audio', 'video']);
  // In the middle of every phrase there are words on the screen; before the first beat there are none.
  const luma = frameLuma(file);
  const empty = Math.min(...luma);
  const second = (beat: number) => beats[beat + bars[0]!.beat] ?? NaN;
  for (const layer of phrases.slice(0, -1)) {
    const middle = (second(beatOf(layer.start)!) + second(Math.floor(beatOf(layer.end)!))) / 2;
    expect(luma[Math.round(middle * 30)]! - empty, textOf(layer)).toBeGreaterThan(3);
  }
});

test('phrases are parted, joined, emphasised, locked and dragged on the lattice; the music lays them anew', async ({
  page,
}) => {
  const id = await newPiece(page, 'Sheet');
  await withSong(page, 'harbour-lamps');
  await page.getByRole('button', { name: 'Words', exact: true }).click();
  await page.getByLabel('Quote').fill('A kite is a question. You ask the wind. It answers at once.');
  await page.getByRole('button', { name: 'Place on beats' }).click();
  const texts = async () => (await phrasesOf(page, id)).map(textOf);
  await expect.poll(texts).toEqual(['A kite is a question.', 'You ask the wind.', 'It answers at once.']);

  const second = page.getByLabel('Phrase 2', { exact: true });
  await second.focus();
  await second.evaluate((field: HTMLTextAreaElement) => field.setSelectionRange(7, 7));
  await second.press('Enter');
  await expect.poll(texts).toEqual(['A kite is a question.', 'You ask', 'the wind.', 'It answers at once.']);
  const parted = await phrasesOf(page, id);
  expect(parted[1]!.end).toEqual(parted[2]!.start);
  const third = page.getByLabel('Phrase 3', { exact: true });
  await third.focus();
  await third.evaluate((field: HTMLTextAreaElement) => field.setSelectionRange(0, 0));
  await third.press('Backspace');
  await expect.poll(texts).toEqual(['A kite is a question.', 'You ask the wind.', 'It answers at once.']);

  // A word that carries the sense stands out and answers on a beat.
  await page.getByRole('group', { name: 'Emphasised words' }).getByRole('button', { name: 'wind.' }).click();
  const marked = (await phrasesOf(page, id))[1]!;
  expect(marked.content.spans).toHaveLength(1);
  expect(usesOf(marked).find((u) => u.words)).toMatchObject({
    gesture: 'flare',
    words: [3],
    at: { kind: 'pinned', to: { type: 'beat' } },
  });

  // The stroke between two phrases is dragged on the lattice: one ends, the next begins there.
  const before = (await phrasesOf(page, id))[0]!;
  const stroke = page.locator('[data-boundary]').first();
  const box = (await stroke.boundingBox())!;
  const { beats, bars } = await analysisOf(page, id);
  const target = before.end.to!.beat! + 1;
  await page.mouse.move(box.x + box.width / 2, box.y + 8);
  await page.mouse.down();
  await page.mouse.move(await timelineX(page, beats[target + bars[0]!.beat]!), box.y + 8, { steps: 5 });
  await page.mouse.up();
  const dragged = await phrasesOf(page, id);
  expect(dragged[0]!.end.to!.beat).toBe(target);
  expect(dragged[1]!.start.to!.beat).toBe(target);

  // Locked it stays where it is when the rest is laid anew.
  await page.getByLabel('Phrase 1', { exact: true }).focus();
  await page.getByRole('listitem').first().getByRole('button', { name: 'Lock timing' }).click();
  await page.getByLabel('Reading pace').selectOption('calm');
  const relaid = await phrasesOf(page, id);
  expect(relaid[0]!.end.to!.beat).toBe(target);
  await page.getByLabel('Phrase order').selectOption('build');
  expect((await phrasesOf(page, id)).every((l) => usesOf(l).some((u) => u.role === 'entrance'))).toBe(true);

  // Too much to read is said in seconds and words, and nothing is lost.
  await page.getByRole('button', { name: 'New quote' }).click();
  await page.getByLabel('Quote').fill('wind and kite and string and harbour '.repeat(60));
  await page.getByRole('button', { name: 'Place on beats' }).click();
  await expect(page.getByRole('alert')).toContainText(
    /The text needs [\d.]+ s to read and has [\d.]+ s\. About \d+ words too many/,
  );
  expect((await texts()).length).toBeGreaterThan(20);
  await timeline(page).focus();
  await page.keyboard.press('Control+z');
  await expect.poll(texts).toEqual(['A kite is a question.', 'You ask the wind.', 'It answers at once.']);
});

test('gestures are chosen on one’s own words, put on the beats, mirrored, opened up and kept', async ({ page }) => {
  const id = await newPiece(page, 'Gestures');
  await page.keyboard.press('t');
  await page.getByLabel('Text on canvas').fill('Nine days of wind');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Motion', exact: true }).click();
  const panel = page.getByRole('region', { name: 'Motion' });
  const uses = async () => usesOf((await storedPiece(page, id)).layers[0]!);

  // Previews move: the canvas of one shows different pixels a moment later.
  const preview = panel.getByRole('option', { name: /^Gravity/ }).locator('canvas');
  await preview.scrollIntoViewIfNeeded();
  const picture = () => preview.evaluate((c: HTMLCanvasElement) => c.toDataURL());
  const first = await picture();
  await expect.poll(picture).not.toBe(first);

  await panel.getByRole('option', { name: /^Gravity/ }).click();
  expect(await uses()).toMatchObject([{ gesture: 'gravity', role: 'entrance', unit: 'letter', at: null }]);
  const card = panel.getByRole('group', { name: 'Gesture Gravity' });
  await card.getByLabel('Animate by', { exact: true }).selectOption('word');
  await card.getByLabel('Stagger on beats').selectOption('0.5');
  await card.getByLabel('Stagger rhythm').fill('x.xx');
  expect((await uses())[0]!.stagger.rhythm).toEqual({ pattern: 'x.xx', step: 0.5 });
  await goTo(page, 1.5);
  await card.getByRole('button', { name: /pin here/ }).click();
  expect((await uses())[0]!.at).toMatchObject({ kind: 'pinned', to: { type: 'beat', beat: 3 } });

  await panel.getByRole('tab', { name: 'Exit' }).click();
  await panel.getByRole('button', { name: 'Reverse of entrance' }).click();
  expect((await uses()).map((u) => [u.gesture, u.role])).toEqual([
    ['gravity', 'entrance'],
    ['gravity', 'exit'],
  ]);

  // Another gesture in its place, as a whole, opened up into stars.
  await panel.getByRole('tab', { name: 'Entrance' }).click();
  await panel.getByLabel('Search gestures').fill('far away');
  await panel.getByRole('option', { name: /^Comet/ }).click();
  await panel
    .getByRole('group', { name: 'Gesture Comet' })
    .getByLabel('Animate by', { exact: true })
    .selectOption('whole');
  await panel
    .getByRole('group', { name: 'Gesture Comet' })
    .getByRole('button', { name: 'Convert to keyframes' })
    .click();
  const opened = (await storedPiece(page, id)).layers[0]!;
  expect(usesOf(opened).map((u) => u.role)).toEqual(['exit']);
  expect(opened.tracks.scale!.keyframes.length).toBeGreaterThanOrEqual(2);
  expect(opened.tracks.opacity!.keyframes[0]!.value).toBe(0);

  // One's own keyframes are kept as a gesture and can be given.
  await panel.getByRole('button', { name: /Save keyframes/ }).click();
  await panel.getByLabel('Gesture name').fill('Far lamp');
  await panel.getByLabel('Gesture name').press('Enter');
  await panel.getByLabel('Search gestures').fill('');
  await expect(panel.getByRole('option', { name: /^Far lamp/ })).toBeVisible();
  await panel.getByRole('option', { name: /^Far lamp/ }).click();
  expect((await uses()).some((u) => u.role === 'entrance' && u.duration.unit === 'seconds')).toBe(true);
});

test('words are dressed, fill a place in the frame, and blur as they move', async ({ page }) => {
  const id = await newPiece(page, 'Text effects');
  await page.keyboard.press('t');
  await page.getByLabel('Text on canvas').fill('Puerto Lumo');
  await page.keyboard.press('Escape');
  const dress = page.getByRole('region', { name: 'Text effects' });
  await dress.getByRole('button', { name: 'Band', exact: true }).click();
  await dress.getByLabel('Band', { exact: true }).selectOption('word');
  await dress.getByRole('button', { name: 'Glow' }).click();
  await dress.getByLabel('Case').selectOption('small');
  await dress.getByLabel('Text box').check();
  const layer = (await storedPiece(page, id)).layers[0]!;
  expect(layer.content).toMatchObject({
    letterCase: 'small',
    area: { x: 0.08, valign: 'middle' },
    dress: { band: { per: 'word' }, glow: { radius: 0.12 } },
  });
  await page.getByRole('button', { name: 'Motion', exact: true }).click();
  await page.getByRole('tab', { name: 'Motion blur' }).click();
  await page.getByLabel('Shutter angle').fill('180');
  await page.getByLabel('Shutter angle').press('Enter');
  await page.getByLabel('Trail').fill('4');
  await page.getByLabel('Trail').press('Enter');
  const piece = (await storedPiece(page, id)) as unknown as {
    shutter: number;
    layers: { trail: { copies: number } }[];
  };
  expect(piece.shutter).toBe(180);
  expect(piece.layers[0]!.trail.copies).toBe(4);
  await timeline(page).focus();
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  expect((await storedPiece(page, id)) as unknown as { shutter: number }).toMatchObject({ shutter: 0 });
});

test('words that are too short, too faint or cut off are found, and helped in one click', async ({ page }) => {
  const id = await newPiece(page, 'Faint');
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await page.getByRole('button', { name: 'Rectangle' }).click();
  for (const [label, value] of [
    ['Size width', '1920'],
    ['Size height', '1080'],
  ] as const) {
    await page.getByLabel(label, { exact: true }).fill(value);
    await page.getByLabel(label, { exact: true }).press('Enter');
  }
  await page.getByLabel('Fill', { exact: true }).last().fill('#F0E8DC');
  await page.getByLabel('Fill', { exact: true }).last().press('Enter');
  await timeline(page).focus();
  await page.keyboard.press('t');
  await page
    .getByLabel('Text on canvas')
    .fill('Oona Castell, night pilot of the harbour and of everything that flies over it after dark');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Run-through', exact: true }).click();
  const check = page.getByRole('region', { name: 'Readability' });
  await expect(check.getByText(/is cut off in Wide/)).toBeVisible();
  await expect(check.getByText(/is on screen for 4\.0 s and takes [\d.]+ s to read/)).toBeVisible();
  await check.getByRole('button', { name: /^Extend/ }).click();
  await expect(check.getByText(/to read/)).toBeHidden();
  await page.getByLabel('Text box').check();
  await expect(check.getByText(/is cut off/)).toBeHidden();

  await check.getByRole('button', { name: 'Check contrast' }).click();
  await expect(check.getByText(/1\.\d : 1/)).toBeVisible();
  await check.getByRole('button', { name: 'Add band' }).click();
  await check.getByRole('button', { name: 'Check contrast' }).click();
  await expect(check.getByText('All text has enough contrast')).toBeVisible();
  expect((await storedPiece(page, id)).layers[1]!.content).toMatchObject({ dress: { band: { per: 'line' } } });
});

test('captions are opened, styled all at once, lit word by word, edited and saved', async ({ page }) => {
  const id = await newPiece(page, 'Captions');
  await page.getByRole('button', { name: 'Words', exact: true }).click();
  await page.getByRole('tab', { name: 'Captions' }).click();
  const open = (name: string, text: string) =>
    page.getByLabel('Import captions').setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
  await open('letter.srt', 'only a letter');
  await expect(page.getByText('letter.srt has no captions. Choose an SRT or WebVTT file.')).toBeVisible();
  await open(
    'kites.srt',
    '1\n00:00:01,000 --> 00:00:02,500\nThe lamps go out.\n\n2\nbroken\n\n3\n00:00:03,000 --> 00:00:04,250\nThe kites\ngo up.\n',
  );
  await expect(page.getByText('2 captions; blocks at lines 5 couldn’t be read and are missing.')).toBeVisible();
  await page.getByRole('button', { name: 'Word by word' }).click();
  await page.getByLabel('Caption position').selectOption('top');
  const stored = (await storedPiece(page, id)).layers;
  expect(stored.map(textOf)).toEqual(['The lamps go out.', 'The kites\ngo up.']);
  for (const layer of stored) {
    expect(layer.content).toMatchObject({ area: { valign: 'top' }, dress: { band: { per: 'line' } } });
    expect(usesOf(layer)).toMatchObject([{ gesture: 'aurora', unit: 'word', duration: { unit: 'stay' } }]);
  }
  await page.getByLabel('Caption 2 out', { exact: true }).fill('5');
  await page.getByLabel('Caption 2 out', { exact: true }).press('Enter');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save WebVTT' }).click();
  const file = workFile('captions.vtt');
  await (await download).saveAs(file);
  expect(readFileSync(file, 'utf8')).toBe(
    'WEBVTT\n\n00:00:01.000 --> 00:00:02.500\nThe lamps go out.\n\n00:00:03.000 --> 00:00:05.000\nThe kites\ngo up.\n',
  );
});

test('a closing roll runs in whole pixels, rests at the end, and is changed from its own list', async ({ page }) => {
  const id = await newPiece(page, 'Roll');
  await page.getByRole('button', { name: 'Words', exact: true }).click();
  await page.getByRole('tab', { name: 'Credits roll' }).click();
  await page
    .getByLabel('Credits', { exact: true })
    .fill('Kite Week\n\nKite maker: Inés Vardal\nWind reader: Teo Marsh');
  await page.getByRole('button', { name: 'Credits roll', exact: true }).click();
  const stored = async () => (await storedPiece(page, id)).layers;
  expect((await stored()).map(textOf)).toEqual([
    '\n\nKite maker\nWind reader',
    '\n\nInés Vardal\nTeo Marsh',
    'Kite Week\n\n\n',
  ]);
  for (const layer of await stored()) {
    const [start, end] = layer.tracks.position!.keyframes;
    const [from, to] = [start!.value as [number, number], end!.value as [number, number]];
    const frames = Math.round((end!.at.seconds! - start!.at.seconds!) * 30);
    expect((from[1] - to[1]) % frames).toBe(0);
    expect(from[0]).toBe(to[0]);
  }
  await page.getByLabel('Credits', { exact: true }).fill('Kite Week\n\nNight pilot: Oona Castell');
  await page.getByRole('button', { name: 'Update credits roll' }).click();
  expect((await stored()).map(textOf)[1]).toBe('\n\nOona Castell');
});
