import { expect, test } from '@playwright/test';
import {
  analysisOf,
  ffprobe,
  frameLuma,
  goTo,
  newPiece,
  renderTo,
  soundOf,
  storedPiece,
  timeline,
  timelineX,
  waitSaved,
  workFile,
} from './support/app';
import { burstOnsets, writeClickTrack } from './support/click-track';

/**
 * The whole path through the real interface: a song in, words and a shape on its beats, a video out, and the movement
 * in that video measured against the sound in the same file.
 */
for (const { rate, ffrate, bpm } of [
  { rate: '30', ffrate: '30/1', bpm: 117.3 },
  { rate: '23.976', ffrate: '24000/1001', bpm: 104 },
]) {
  test(`a flash on every beat lands within one frame of its click over 30 s at ${rate} fps`, async ({ page }) => {
    const song = workFile(`clicks-${bpm}.wav`);
    const truth = writeClickTrack(song, { bpm, first: 0.37, seconds: 31 });
    const id = await newPiece(page, `Clicks at ${rate}`, { rate, custom: [640, 360] });
    await page.getByLabel('Import song').setInputFiles(song);
    await expect(page.getByText(/\d hits ·/)).toBeVisible({ timeout: 60_000 });
    await waitSaved(page);
    const { beats } = await analysisOf(page, id);
    expect(beats.length).toBeGreaterThanOrEqual(truth.length - 1);

    // A white rectangle over the whole frame, whose opacity jumps on each beat.
    await page.getByRole('button', { name: 'Picture', exact: true }).click();
    await page.getByRole('button', { name: 'Rectangle' }).click();
    for (const [label, value] of [
      ['Size width', '640'],
      ['Size height', '360'],
      ['Fill', '#ffffff'],
      ['Opacity', '0'],
    ] as const) {
      await page.getByLabel(label, { exact: true }).fill(value);
      await page.getByLabel(label, { exact: true }).press('Enter');
    }
    // Its span is dragged to the piece's end by its edge.
    const bar = page.locator('[data-bar]').first();
    const edge = await bar.locator('[data-edge=end]').boundingBox();
    await page.mouse.move(edge!.x + 4, edge!.y + 8);
    await page.mouse.down();
    await page.mouse.move(await timelineX(page, 30.5), edge!.y + 8, { steps: 6 });
    await page.mouse.up();

    // Two stars at bar 1, made by hand: on at the beat, off a quarter beat later; held, not faded.
    await page.keyboard.press('Home');
    await page.keyboard.press('Shift+ArrowRight');
    await page.getByRole('button', { name: 'Add Opacity keyframe' }).click();
    await page.getByLabel('Opacity', { exact: true }).fill('100');
    await page.getByLabel('Opacity', { exact: true }).press('Enter');
    await page.getByLabel('Easing', { exact: true }).selectOption('hold');
    const first = await storedPiece(page, id);
    const on = first.layers[0]!.tracks.opacity!.keyframes[0]!;
    expect(on.at).toMatchObject({ kind: 'pinned', to: { type: 'beat' } });
    expect(on.value).toBe(1);

    // The off star comes from the keyboard: a beat on, set to nothing, then dragged back by half a beat.
    await page.keyboard.press('Shift+ArrowRight');
    await page.getByLabel('Opacity', { exact: true }).fill('0');
    await page.getByLabel('Opacity', { exact: true }).press('Enter');
    const beatLength = 60 / bpm;
    const stars = page.locator('.star');
    await expect(stars).toHaveCount(2);
    // Zoomed in, the half beat is a wide enough target.
    await timeline(page).focus();
    for (let i = 0; i < 6; i++) await page.keyboard.press('+');
    const off = await stars.nth(1).boundingBox();
    const pps = Number(await timeline(page).getAttribute('data-pixels-per-second'));
    await page.mouse.move(off!.x + 8.5, off!.y + 8.5);
    await page.mouse.down();
    await page.mouse.move(off!.x + 8.5 - (beatLength / 2) * pps, off!.y + 8.5, { steps: 8 });
    await page.mouse.up();
    const second = await storedPiece(page, id);
    const pair = second.layers[0]!.tracks.opacity!.keyframes;
    expect(pair[1]!.at.to!.beat! - pair[0]!.at.to!.beat!).toBeCloseTo(0.5, 6);
    await page.keyboard.press('0');

    // Copy the pair and paste it on every further beat.
    await page.keyboard.press('Shift+A');
    await page.getByRole('button', { name: 'Motion', exact: true }).click();
    await page.getByRole('tab', { name: 'Keyframes' }).click();
    await page.getByRole('button', { name: 'Hold', exact: true }).click();
    await page.keyboard.press('Control+C');
    await page.keyboard.press('Home');
    await page.keyboard.press('Shift+ArrowRight');
    const total = beats.filter((t) => t < 29.5).length;
    for (let i = 1; i < total; i++) {
      await page.keyboard.press('Shift+ArrowRight');
      await page.keyboard.press('Control+V');
    }
    const full = await storedPiece(page, id);
    expect(full.layers[0]!.tracks.opacity!.keyframes).toHaveLength(total * 2);
    expect(full.layers[0]!.tracks.opacity!.keyframes.every((k) => k.at.kind === 'pinned')).toBe(true);

    // Dark before the first beat: a star at the very start.
    await page.keyboard.press('Home');
    await page.getByLabel('Opacity', { exact: true }).fill('0');
    await page.getByLabel('Opacity', { exact: true }).press('Enter');
    expect((await storedPiece(page, id)).layers[0]!.tracks.opacity!.keyframes[0]).toMatchObject({
      value: 0,
      easing: { type: 'hold' },
    });

    // Words too, so that the frame is not only a flash.
    await goTo(page, 0);
    await page.keyboard.press('t');
    await page.getByLabel('Text on canvas').fill('Nine days of wind');
    await page.keyboard.press('Escape');
    const out = workFile(`first-path-${rate}.mp4`);
    await renderTo(page, out);

    const facts = ffprobe(out);
    const video = facts.streams.find((s) => s.codec_type === 'video')!;
    const audio = facts.streams.find((s) => s.codec_type === 'audio')!;
    expect(video).toMatchObject({
      codec_name: 'h264',
      profile: 'High',
      pix_fmt: 'yuv420p',
      color_space: 'bt709',
      color_primaries: 'bt709',
      color_transfer: 'bt709',
      color_range: 'tv',
      r_frame_rate: ffrate,
      width: 640,
      height: 360,
    });
    expect(audio).toMatchObject({ codec_name: 'aac', sample_rate: '48000' });
    expect(Number(facts.format.duration)).toBeGreaterThan(29.9);

    const fps = eval(ffrate) as number; // "24000/1001", from this file
    const luma = frameLuma(out);
    expect(luma.length).toBe(Number(video.nb_frames));
    const flashes = luma.flatMap((v, i) => (v > 120 && (luma[i - 1] ?? 0) <= 120 ? [i / fps] : []));
    const onsets = burstOnsets(soundOf(out), 48000).filter((t) => t < 29.4);
    const early = onsets.map((onset) => {
      const flash = flashes.reduce((best, t) => (Math.abs(t - onset) < Math.abs(best - onset) ? t : best), Infinity);
      return (flash - onset) * fps;
    });
    console.log(
      `${rate} fps: ${early.length} beats, flash − onset in frames: from ${Math.min(...early).toFixed(2)} to ${Math.max(...early).toFixed(2)}`,
    );
    expect(onsets.length).toBe(truth.filter((t) => t < 29.4).length);
    for (const frames of early) expect(Math.abs(frames)).toBeLessThanOrEqual(1);
  });
}
