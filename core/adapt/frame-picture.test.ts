import { describe, expect, it } from '@jest/globals';
import { fillFrameEdits, focusEdits, isReframable } from '@core/adapt';
import type { Focus } from '@core/framing';
import { applyEdits, createLayer, createPiece, resolveTimes } from '@core/piece';
import type { Edit, LayerOf, Piece } from '@core/piece';
import { findItem, prepareScene, sceneAt } from '@core/scene';
import { transformBox } from '@core/geometry';
import { FRAME_RATES, freeMoment } from '@core/time';
import { countingIds } from '../../tests/helpers/documents';

const ids = countingIds('f');
const FORMATS = [
  { id: 'wide', name: 'Wide', width: 1600, height: 900 },
  { id: 'tall', name: 'Tall', width: 900, height: 1600 },
  { id: 'square', name: 'Square', width: 900, height: 900 },
];
const picture = (dimensions: [number, number]): LayerOf<'picture'> =>
  createLayer(
    'picture',
    { name: 'harbour', start: freeMoment(0), end: freeMoment(4), content: { mediaId: 'm' }, values: { dimensions } },
    ids,
  ) as LayerOf<'picture'>; // of that kind
const pieceOf = (layer: LayerOf<'picture'>): Piece => ({
  ...createPiece({ name: 'p', formats: FORMATS, frameRate: FRAME_RATES['30'] }, ids),
  media: [{ id: 'm', hash: 'c'.repeat(64), kind: 'picture', name: 'harbour.png', width: 3200, height: 1800 }],
  layers: [layer],
  end: freeMoment(4),
});
const done = (piece: Piece, edits: Edit[]): Piece => {
  const result = applyEdits(piece, edits, resolveTimes(piece, null));
  expect(result.refused).toBeNull();
  return result.piece;
};
const only = (piece: Piece): LayerOf<'picture'> => piece.layers[0] as LayerOf<'picture'>; // the one of the tests
/** Where a point of the picture is seen in a format, shares of the frame. */
function seenAt(piece: Piece, formatId: string, [x, y]: Focus): Focus {
  const { width, height } = FORMATS.find(({ id }) => id === formatId)!;
  const scene = prepareScene(piece, resolveTimes(piece, null), formatId);
  const list = sceneAt(scene, 1, () => {
    throw new Error('no words here');
  });
  const item = findItem(list, only(piece).id)!;
  if (item.kind !== 'shape' || item.fill?.type !== 'picture') throw new Error('not filled with a picture');
  const frame = transformBox(item.matrix, item.box);
  expect(frame.map(Math.round)).toEqual([0, 0, width, height]);
  const [l, t, r, b] = transformBox(item.matrix, item.fill.box);
  return [(l + x * (r - l)) / width, (t + y * (b - t)) / height];
}

describe('a picture that fills the frame', () => {
  const SUBJECT: Focus = [0.85, 0.4];
  const start = pieceOf(picture([1600, 900]));
  const filled = done(start, fillFrameEdits(start, only(start)));
  const framed = done(
    filled,
    focusEdits(filled, only(filled), 16 / 9, ({ width, height }) => [
      Math.min(1 - width / 2, Math.max(width / 2, SUBJECT[0])),
      Math.min(1 - height / 2, Math.max(height / 2, SUBJECT[1])),
    ]),
  );

  it('does so in every format, unstretched, with its subject in it', () => {
    for (const { id } of FORMATS) {
      const [x, y] = seenAt(framed, id, SUBJECT);
      expect(x).toBeGreaterThan(0.05);
      expect(x).toBeLessThan(0.95);
      expect([y > 0, y < 1]).toEqual([true, true]);
    }
    // Without a focus, the tall frame shows the middle of the picture, and its subject lies outside.
    expect(seenAt(filled, 'tall', SUBJECT)[0]).toBeGreaterThan(1);
  });
  it('can be framed anew for other formats where the lead stays as it is', () => {
    expect(isReframable(start, only(start), 16 / 9)).toBe(true);
    expect(isReframable(framed, only(framed), 16 / 9)).toBe(false); // it is held already
    const small = pieceOf(picture([800, 450]));
    expect(isReframable(small, only(small), 16 / 9)).toBe(false);
    const stretched = pieceOf(picture([1600, 900]));
    expect(isReframable(stretched, only(stretched), 4 / 3)).toBe(false);
  });
  it('takes back what a format had of its own where it needs nothing', () => {
    const again = done(
      framed,
      focusEdits(framed, only(framed), 16 / 9, () => [0.5, 0.5]),
    );
    expect(only(again).overrides.tall?.tracks?.focus).toBeUndefined();
  });
});
