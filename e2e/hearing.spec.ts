import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { ANALYSIS_VERSION } from '../core/audio';
import type { SongAnalysis } from '../core/audio';
import { appUrl, goTo, newPiece, storedPiece, testFile, timeline, waitSaved } from './support/app';

const undo = (page: Page) => page.keyboard.press('Control+z');
const tempo = (page: Page) => page.getByLabel('Tempo', { exact: true });

async function pieceWithMusic(page: Page, name: string): Promise<string> {
  const id = await newPiece(page, name, { custom: [320, 180] });
  await page.getByLabel('Import song').setInputFiles(testFile('salt-and-string.wav'));
  await expect(page.getByText(/\d hits ·/)).toBeVisible({ timeout: 60_000 });
  await waitSaved(page);
  return id;
}

/** The piece as a file whose song was heard by an earlier method, at half the tempo; opened as a new piece. */
async function heardByAnEarlierMethod(page: Page, id: string): Promise<string> {
  const file = await page.request.get(`${appUrl()}/api/pieces/${id}/file`);
  const entries = unzipSync(new Uint8Array(await file.body()));
  const entry = Object.keys(entries).find((name) => /^analysis\/./.test(name))!; // it has music
  const now = JSON.parse(strFromU8(entries[entry]!)) as SongAnalysis;
  const even = (_: unknown, i: number) => i % 2 === 0;
  const beats = now.beats.filter(even);
  const before: SongAnalysis = {
    ...now,
    version: ANALYSIS_VERSION - 1,
    bpm: now.bpm / 2,
    beats,
    confidence: now.confidence.filter(even),
    energy: now.energy.filter(even),
    downbeats: beats.filter((_, i) => i % 4 === 0),
    bars: beats.flatMap((_, beat) => (beat % 4 === 0 ? [{ beat, beatsPerBar: 4, groups: [], sound: [] }] : [])),
  };
  const data = Buffer.from(zipSync({ ...entries, [entry]: strToU8(JSON.stringify(before)) }));
  const opened = await page.request.post(`${appUrl()}/api/pieces/import`, { data });
  return ((await opened.json()) as { id: string }).id;
}

test('a song that an earlier method heard is heard anew: what would change is shown, taken and taken back', async ({
  page,
}) => {
  const first = await pieceWithMusic(page, 'Heard before');
  await timeline(page).focus();
  await goTo(page, 4.2);
  await page.keyboard.press('m');
  await waitSaved(page);
  const id = await heardByAnEarlierMethod(page, first);
  await page.goto(`${appUrl()}/piece/${id}`);
  await expect(tempo(page)).toHaveValue(/^5[89]/);
  const note = page.getByRole('note').filter({ hasText: 'An earlier version analysed' });
  await note.getByRole('button', { name: 'Re-analyse' }).click();
  const dialog = page.getByRole('dialog', { name: 'Changes' });
  await expect(dialog).toContainText('59.0 → 118.0 BPM');
  await expect(dialog).toContainText(' new');
  await dialog.getByRole('button', { name: 'Keep current beats' }).click();
  await expect(tempo(page)).toHaveValue(/^5[89]/);
  await note.getByRole('button', { name: 'Re-analyse' }).click();
  await dialog.getByRole('button', { name: 'Use new beats' }).click();
  await expect(tempo(page)).toHaveValue(/^11[78]/);
  await expect(note).toBeHidden();
  expect((await storedPiece(page, id)).music).toMatchObject({ analysisVersion: ANALYSIS_VERSION });
  await timeline(page).focus();
  await undo(page);
  await expect(tempo(page)).toHaveValue(/^5[89]/);
  await expect(note).toBeVisible();
});

test('bars of five are grouped by hand, marked by their groups, and grouped anew from a beat on', async ({ page }) => {
  const id = await pieceWithMusic(page, 'Fives');
  const music = async () => (await storedPiece(page, id)).music as unknown as { correction: Record<string, unknown> };
  await expect(page.getByLabel('Beat grouping', { exact: true })).toBeHidden();
  await page.getByLabel('Time signature', { exact: true }).fill('5');
  await page.getByLabel('Time signature', { exact: true }).press('Enter');
  await page.getByLabel('Beat grouping', { exact: true }).selectOption('3 + 2');
  expect((await music()).correction).toMatchObject({ beatsPerBar: 5, groups: [3, 2] });
  await page.getByRole('tab', { name: 'Markers', exact: true }).click();
  await page.getByLabel('Add markers on').selectOption('group');
  const { markers } = await storedPiece(page, id);
  const beats = markers.map((m) => m.at.to!.beat!).sort((a, b) => a - b);
  expect(beats.length).toBeGreaterThan(8);
  for (const beat of beats) expect([0, 3]).toContain(((beat % 5) + 5) % 5);
  await page.getByRole('tab', { name: 'Beats', exact: true }).click();
  await page.getByLabel('Time signature from here').fill('7');
  await page.getByLabel('Time signature from here').press('Enter');
  await page.getByLabel('Beat grouping from here').selectOption('2 + 2 + 3');
  await page.getByRole('button', { name: 'Set as downbeat' }).click();
  expect((await music()).correction.bars).toMatchObject([{ beatsPerBar: 7, groups: [2, 2, 3] }]);
  await timeline(page).focus();
  await undo(page);
  expect((await music()).correction.bars).toEqual([]);
});
