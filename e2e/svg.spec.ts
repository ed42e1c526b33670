import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import type { Source } from '@core/paint';
import { writeSvg } from '@core/svg';
import type { Piece } from '@core/piece';
import { kiteMakersQuote, openingTitle } from '../demo/pieces';
import { createFrameSource } from '../server/render/frame-source';
import { createServerFonts } from '../server/render/skia-host';
import { workFile } from './support/app';
import { SCENE_NAMES, parityPiece } from './support/parity-piece';
import { difference, drawnByChromium, openSvgPage, paintSvg } from './support/svg-compare';
import { SVG_FILES } from './support/svg-files';
import { writeFileSync } from 'node:fs';

/** Mean difference of two pictures that look the same, 0 to 1. */
const SAME = 0.01;
const names = Object.keys(SVG_FILES);

test.describe('SVG files', () => {
  test.beforeEach(async ({ page }) => {
    await page.setViewportSize({ width: 2000, height: 2000 });
    await openSvgPage(page);
  });

  test('come in as layers that look as Chromium draws the file', async ({ page }) => {
    expect(names.length).toBeGreaterThanOrEqual(60);
    const wrong: string[] = [];
    for (const name of names) {
      const ours = await paintSvg(SVG_FILES[name]!); // a name of the table
      const off = await difference(ours.png, await drawnByChromium(page, SVG_FILES[name]!));
      if (off > SAME || ours.left.length > 0) wrong.push(`${name}: ${(off * 100).toFixed(2)} % ${ours.left.join()}`);
    }
    expect(wrong).toEqual([]);
  });

  /** Frames of a piece as SVG, drawn by Chromium and read back: both look like the frame, where nothing is said to be left. */
  async function sameBothWays(
    page: Parameters<typeof drawnByChromium>[0],
    piece: Piece,
    files: Record<string, string>,
    moments: readonly (readonly [string, number])[],
  ): Promise<{ wrong: string[]; compared: number }> {
    const source = await createFrameSource(
      { piece, analysis: null, formatId: piece.leadFormatId, files },
      createServerFonts('dist/fonts'),
    );
    const wrong: string[] = [];
    let compared = 0;
    for (const [name, seconds] of moments) {
      const list = source.resolve(seconds);
      const picture = ({ hash }: Source): string =>
        `data:image/png;base64,${readFileSync(files[hash]!).toString('base64')}`; // all files are given
      const { svg, left } = writeSvg(list, { picture });
      if (left.length > 0) continue;
      source.forget();
      const frame = (await source.paint(list)).canvas.toBuffer('image/png');
      const drawn = await difference(frame, await drawnByChromium(page, svg));
      const back = await paintSvg(svg);
      const again = back.left.length > 0 ? 0 : await difference(frame, back.png);
      compared++;
      if (drawn > SAME || again > SAME)
        wrong.push(`${name}: ${(drawn * 100).toFixed(2)} % drawn, ${(again * 100).toFixed(2)} % read back`);
    }
    return { wrong, compared };
  }

  test('written from frames look like the frames, drawn by Chromium and read back', async ({ page }) => {
    const { piece, files } = parityPiece();
    const stored: Record<string, string> = {};
    for (const [hash, content] of files) writeFileSync((stored[hash] = workFile(`svg-${hash.slice(0, 12)}`)), content);
    const scenes = SCENE_NAMES.map((name, i) => [name, i + 0.5] as const);
    const found = await sameBothWays(page, piece, stored, scenes);
    expect(found.wrong).toEqual([]);
    // What is left out is named: effects on pixels, motion blur, long shadows.
    expect(found.compared).toBeGreaterThan(28);
  });

  test('written from the demo pieces look like them', async ({ page }) => {
    const media = { id: 'song', hash: 'x', kind: 'audio', name: 'song', duration: 60 } as const;
    for (const piece of [openingTitle(media), kiteMakersQuote(media)]) {
      const found = await sameBothWays(page, piece, {}, [
        ['first', 1.5],
        ['second', 4],
        ['third', 7],
      ]);
      expect(found).toEqual({ wrong: [], compared: 3 });
    }
  });
});
