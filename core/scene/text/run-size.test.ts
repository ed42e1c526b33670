import { beforeAll, describe, expect, it } from '@jest/globals';
import { areaForSense, createLayer, createPiece, resolveTimes } from '@core/piece';
import type { Piece, TextLayer } from '@core/piece';
import { prepareScene, sceneAt } from '@core/scene';
import type { ShapeItem } from '@core/scene';
import { createLayoutCache } from '@core/text';
import { FRAME_RATES, freeMoment } from '@core/time';
import { countingIds } from '../../../tests/helpers/documents';
import { testFonts } from '../../../tests/helpers/fonts';

const fonts = testFonts();
const layout = createLayoutCache(fonts);
beforeAll(() => fonts.load('bricolage-grotesque', false, 'A kite is a question you ask the wind and wait.'));

const ids = countingIds('r');
const FRAMES = [
  { id: 'wide', name: 'Wide', width: 640, height: 360 },
  { id: 'tall', name: 'Tall', width: 360, height: 640 },
  { id: 'square', name: 'Square', width: 360, height: 360 },
];
const phrase = (text: string, run: string | null): TextLayer =>
  createLayer(
    'text',
    {
      name: text,
      start: freeMoment(0),
      end: freeMoment(5),
      values: { size: 200 },
      content: {
        text,
        family: 'bricolage-grotesque',
        area: { ...areaForSense({ x: 0.1, y: 0.1, width: 0.8, height: 0.8, valign: 'middle' }), run },
      },
    },
    ids,
  ) as TextLayer;
const pieceOf = (...layers: TextLayer[]): Piece => ({
  ...createPiece({ name: 'p', formats: FRAMES, frameRate: FRAME_RATES['30'] }, ids),
  layers,
});
/** Pixels of the format that an em of each text has, bottom to top. */
const sizes = (piece: Piece, format: string): number[] =>
  sceneAt(prepareScene(piece, resolveTimes(piece, null), format), 1, layout).items.map(
    (item) => (item as ShapeItem).matrix[0] * 1000,
  );

describe('texts of one run', () => {
  const [first, second, third] = ['A kite is a question', 'you ask the wind', 'and wait.'] as const;

  it.each(FRAMES)('keep the size of the one with least room, in $id too', ({ id }) => {
    const alone = sizes(pieceOf(phrase(first, null), phrase(second, null), phrase(third, null)), id);
    const together = sizes(pieceOf(phrase(first, 'q'), phrase(second, 'q'), phrase(third, 'q')), id);
    expect(Math.max(...alone) / Math.min(...alone)).toBeGreaterThan(1.2);
    for (const size of together) expect(size).toBeCloseTo(Math.min(...alone), 3);
  });

  it('leave one that is emphasised its own size, and other runs theirs', () => {
    const [a, b, c] = sizes(pieceOf(phrase(first, 'q'), phrase(second, 'q'), phrase(third, null)), 'wide');
    expect(b).toBeCloseTo(a!, 3);
    expect(c).toBeGreaterThan(a! * 1.2);
    const [d, e] = sizes(pieceOf(phrase(first, 'q'), phrase(third, 'other')), 'wide');
    expect(e).toBeGreaterThan(d! * 1.2);
  });

  it('follow a text of theirs that grows longer', () => {
    const before = sizes(pieceOf(phrase(third, 'q'), phrase(second, 'q')), 'tall');
    const after = sizes(pieceOf(phrase(third, 'q'), phrase(`${first} ${second}`, 'q')), 'tall');
    expect(after[0]).toBeLessThan(before[0]!);
    expect(after[0]).toBeCloseTo(after[1]!, 3);
  });
});
