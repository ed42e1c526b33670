import { describe, expect, it } from '@jest/globals';
import { NO_DRESS, createLayer, createPiece, inCase, resolveTimes } from '@core/piece';
import type { Piece } from '@core/piece';
import { pathBounds, transformBox } from '@core/geometry';
import type { Box } from '@core/geometry';
import { prepareScene, sceneAt } from '@core/scene';
import type { DisplayItem } from '@core/scene';
import { createLayoutCache } from '@core/text';
import { FRAME_RATES, freeMoment } from '@core/time';
import { countingIds } from '../../../tests/helpers/documents';
import { testFonts } from '../../../tests/helpers/fonts';

const BAND = '#FFB74A';
const fonts = testFonts();
const ids = countingIds('band');

/** Boxes of the bands and of the letters of a text, pixels. */
async function boxesOf(text: string): Promise<{ bands: Box[]; ink: { top: number; bottom: number } }> {
  const family = 'bricolage-grotesque';
  await fonts.load(family, false, text);
  const band = { per: 'word' as const, colour: BAND, padX: 0.1, padY: 0.1, radius: 0 };
  const layer = createLayer(
    'text',
    {
      ...{ name: 'w', start: freeMoment(0), end: freeMoment(2) },
      content: { text, family, dress: { ...NO_DRESS, band } },
      values: { size: 100, fill: '#000000' },
    },
    ids,
  );
  const piece: Piece = {
    ...createPiece(
      { name: 'p', formats: [{ id: 'wide', name: 'Wide', width: 1920, height: 1080 }], frameRate: FRAME_RATES['30'] },
      ids,
    ),
    layers: [layer],
  };
  const scene = prepareScene(piece, resolveTimes(piece, null), 'wide');
  const { items } = sceneAt(scene, 1, createLayoutCache(fonts));
  const bands: Box[] = [];
  let [top, bottom] = [Infinity, -Infinity];
  const look = (item: DisplayItem): void => {
    if ('children' in item) return item.children.forEach(look);
    if (item.kind !== 'shape') return;
    const bounds = pathBounds(item.pathKey, item.path);
    if (!bounds) return;
    const box = transformBox(item.matrix, bounds);
    if (item.fill?.type === 'solid' && item.fill.colour.toUpperCase() === BAND) bands.push(box);
    else {
      top = Math.min(top, box[1]);
      bottom = Math.max(bottom, box[3]);
    }
  };
  items.forEach(look);
  return { bands, ink: { top, bottom } };
}

describe('a band behind words', () => {
  it.each(['김서연 바람', '欧阳晓雯', 'অনন্যা সেনগুপ্ত', 'สมชาย วงศ์ไทย', 'தமிழ்ச்செல்வி', 'សុខ ដារា', 'نور الهاشمي'])(
    'covers %s from top to bottom, all words alike',
    async (text) => {
      const { bands, ink } = await boxesOf(text);
      expect(bands.length).toBeGreaterThan(0);
      for (const [, top, , bottom] of bands) {
        expect(top).toBeLessThan(ink.top);
        expect(bottom).toBeGreaterThan(ink.bottom);
        expect([top, bottom]).toEqual([bands[0]![1], bands[0]![3]]);
      }
    },
  );
  it('reaches from the baseline to the height of capitals where there are capitals, whatever hangs below', async () => {
    const [plain, hanging] = [await boxesOf('HIM'), await boxesOf('Hîgh')];
    const height = ({ bands: [box] }: typeof plain): number => box![3] - box![1];
    expect(height(hanging)).toBeCloseTo(height(plain), 6);
    expect(height(plain) - (plain.ink.bottom - plain.ink.top)).toBeCloseTo(20, 0);
  });
});

it('Greek in capitals has no accents, and no other letter changes its length', () => {
  expect(inCase('Ελένη Παππά, Ναΐς', 'upper')).toBe('ΕΛΕΝΗ ΠΑΠΠΑ, ΝΑΪΣ');
  expect(inCase('Straße, été', 'upper')).toBe('STRAßE, ÉTÉ');
});
