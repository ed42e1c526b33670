import { expect } from '@playwright/test';
import type { Page } from '@playwright/test';
import { coveringBox } from '@core/geometry';
import { evaluateTrack, prepareTrack } from '@core/motion';
import type { Track, Vector } from '@core/motion';
import type { Moment } from '@core/time';
import { storedPiece, waitSaved } from './app';

/** Films in browser tests. */

export const openPictures = (page: Page): Promise<void> =>
  page.getByRole('button', { name: 'Picture', exact: true }).click();

/** Brings a film in. The rung of pictures is open. */
export async function bringIn(page: Page, file: string): Promise<void> {
  await page.getByLabel('Import picture, clip or logo').setInputFiles(file);
  await expect(page.getByRole('region', { name: 'Footage' })).toBeVisible({ timeout: 60_000 });
}

/** Has the first layer follow its subject. @returns the focus as it is stored. */
export async function followSubject(page: Page, id: string, timeout: number): Promise<Track> {
  await page.getByRole('button', { name: 'Track subject' }).click();
  await expect(page.getByText('Added focus keyframes that follow the subject')).toBeVisible({ timeout });
  await waitSaved(page);
  return (await storedPiece(page, id)).layers[0]!.tracks.focus as unknown as Track; // as it is stored
}

/** Whether a place of a wide film, 16:9, is seen in a tall frame, 9:16, whose focus is given. */
export function isInTallFrame(focus: Vector, [place]: readonly [number, number]): boolean {
  const [left, , right] = coveringBox([0, 0, 180, 320], [320, 180], focus, 1);
  const x = left + place * (right - left);
  return x > 0 && x < 180;
}

/** In how many frames of a wide film a subject is seen where a tall frame follows it. @param rate - frames a second. */
export function insideOf(
  focus: Track,
  frames: number,
  rate: number,
  subject: (frame: number) => readonly [number, number],
): number {
  const track = prepareTrack(focus, (moment: Moment) => (moment.kind === 'free' ? moment.seconds : 0));
  let inside = 0;
  for (let frame = 0; frame < frames; frame++) {
    const at = evaluateTrack(track, (frame + 0.5) / rate) as Vector; // a track of vectors
    if (isInTallFrame(at, subject(frame))) inside++;
  }
  return inside;
}
