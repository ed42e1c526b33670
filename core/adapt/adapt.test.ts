import { beforeAll, describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { adaptTo } from '@core/adapt';
import { applyEdits, createLayer, createPiece, resolveTimes, safeBox } from '@core/piece';
import type { Layer, Piece } from '@core/piece';
import { findItem, prepareScene, sceneAt } from '@core/scene';
import type { LayoutText } from '@core/scene';
import { transformBox } from '@core/geometry';
import type { Box } from '@core/geometry';
import { createLayoutCache } from '@core/text';
import { FRAME_RATES, freeMoment } from '@core/time';
import { countingIds } from '../../tests/helpers/documents';
import { testFonts } from '../../tests/helpers/fonts';

const ids = countingIds('a');
const fonts = testFonts();
let layoutText: LayoutText;
beforeAll(async () => {
  await fonts.load('syne', false, 'abcdefghijklmnopqrstuvwxyz Kite Week');
  layoutText = createLayoutCache(fonts);
});

const FORMATS = [
  { id: 'wide', name: 'Wide', width: 1920, height: 1080 },
  { id: 'tall', name: 'Tall', width: 1080, height: 1920 },
  { id: 'square', name: 'Square', width: 1080, height: 1080 },
];
const words = (text: string, size: number, at: [number, number], from = 0, to = 8): Layer =>
  createLayer(
    'text',
    {
      name: text,
      start: freeMoment(from),
      end: freeMoment(to),
      content: { text, family: 'syne' },
      values: { size, position: at },
    },
    ids,
  );
const plate = (dimensions: [number, number], position: [number, number]): Layer =>
  createLayer(
    'rectangle',
    { name: 'Plate', start: freeMoment(0), end: freeMoment(8), values: { dimensions, position } },
    ids,
  );
const pieceOf = (layers: Layer[]): Piece => ({
  ...createPiece({ name: 'p', formats: FORMATS, frameRate: FRAME_RATES['30'] }, ids),
  layers,
  end: freeMoment(8),
});
const adapted = (piece: Piece, formatId: string): Piece => {
  const times = resolveTimes(piece, null);
  return applyEdits(piece, adaptTo(piece, formatId, times, layoutText), times).piece;
};
const boxIn = (piece: Piece, formatId: string, id: string, at = 4.8): Box => {
  const item = findItem(sceneAt(prepareScene(piece, resolveTimes(piece, null), formatId), at, layoutText), id)!;
  return transformBox(item.matrix, item.box);
};
const meets = (a: Box, b: Box): boolean => a[0] < b[2] - 1 && b[0] < a[2] - 1 && a[1] < b[3] - 1 && b[1] < a[3] - 1;

describe('a layout for another frame', () => {
  it('is within the safe area, overlaps nowhere and keeps the reading order, whatever stands in the lead', () => {
    const word = fc.string({ unit: fc.constantFrom(...'aeinorstk '), minLength: 2, maxLength: 26 });
    const text = fc.record({
      text: word,
      size: fc.integer({ min: 30, max: 160 }),
      row: fc.integer({ min: 0, max: 5 }),
    });
    fc.assert(
      fc.property(
        fc.uniqueArray(text, { minLength: 1, maxLength: 5, selector: ({ row }) => row }),
        fc.constantFrom('tall', 'square'),
        (texts, formatId) => {
          const rows = texts
            .filter((one) => one.text.trim() !== '')
            .sort((a, b) => a.row - b.row)
            .map(({ text: t, size, row }) =>
              words(t.trim(), Math.min(size, 120), [(row % 3) * 160 - 160, row * 165 - 412]),
            );
          const piece = adapted(pieceOf(rows), formatId);
          const format = FORMATS.find(({ id }) => id === formatId)!;
          const [l, t, r, b] = safeBox(format);
          const boxes = rows.map(({ id }) => boxIn(piece, formatId, id));
          boxes.forEach((box, i) => {
            expect(box[0]).toBeGreaterThanOrEqual(l - 1);
            expect(box[1]).toBeGreaterThanOrEqual(t - 1);
            expect(box[2]).toBeLessThanOrEqual(r + 1);
            expect(box[3]).toBeLessThanOrEqual(b + 1);
            for (const other of boxes.slice(i + 1)) {
              const wereApart = !meets(
                boxIn(piece, 'wide', rows[i]!.id),
                boxIn(piece, 'wide', rows[boxes.indexOf(other)]!.id),
              );
              if (wereApart) expect(meets(box, other)).toBe(false);
            }
          });
        },
      ),
      { numRuns: 60 },
    );
  });
  it('has words as large as they are read from the same distance, where there is room', () => {
    const title = words('Kite', 100, [0, -200]);
    const piece = pieceOf([title]);
    const high = ([, t, , b]: Box): number => b - t;
    expect(high(boxIn(piece, 'tall', title.id))).toBeLessThan(high(boxIn(piece, 'wide', title.id)) * 0.6);
    expect(high(boxIn(adapted(piece, 'tall'), 'tall', title.id))).toBeCloseTo(high(boxIn(piece, 'wide', title.id)), 0);
  });
  it('keeps together what lies on one another: words on their plate', () => {
    const title = words('Kite Week', 80, [-600, 300]);
    const below = plate([700, 160], [-600, 300]);
    const piece = adapted(pieceOf([below, title]), 'tall');
    const [outer, inner] = [boxIn(piece, 'tall', below.id), boxIn(piece, 'tall', title.id)];
    expect(inner[0]).toBeGreaterThan(outer[0]);
    expect(inner[2]).toBeLessThan(outer[2]);
    const [from, to] = ['wide', 'tall'].map((id) => {
      const [o, i] = [boxIn(piece, id, below.id), boxIn(piece, id, title.id)];
      return (i[0] - o[0]) / (o[2] - o[0]);
    });
    expect(from).toBeCloseTo(to!, 4);
  });
  it('lets things that are not there at the same time stand in the same place', () => {
    const [a, b] = [words('one', 120, [0, 0], 0, 3), words('two', 120, [0, 0], 4, 8)];
    const piece = adapted(pieceOf([a, b]), 'tall');
    expect(boxIn(piece, 'tall', a.id, 2)[1]).toBeCloseTo(boxIn(piece, 'tall', b.id, 6)[1], 0);
  });
  it('proposed twice changes nothing the second time, and leaves what fills the frame or is held', () => {
    const ground = plate([1920, 1080], [0, 0]);
    const held: Layer = {
      ...words('held', 60, [0, 400]),
      constraints: { horizontal: 'centre', vertical: 'bottom', within: 'safe-area', scales: 'reading' },
    };
    const piece = adapted(pieceOf([ground, held, words('free words', 90, [300, 0])]), 'tall');
    expect(piece.layers.map((layer) => Object.keys(layer.overrides))).toEqual([[], [], ['tall']]);
    expect(adaptTo(piece, 'tall', resolveTimes(piece, null), layoutText)).toEqual([]);
    expect(adaptTo(piece, 'wide', resolveTimes(piece, null), layoutText)).toEqual([]);
  });
});
