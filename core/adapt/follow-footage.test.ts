import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { followEdits, looksAt, windowOf } from '@core/adapt';
import { simplifyCourse } from '@core/framing';
import { evaluateTrack, prepareTrack } from '@core/motion';
import { applyEdits, createLayer, footageOf, resolveTimes, trackOf } from '@core/piece';
import type { LayerOf, MediaRef, Piece } from '@core/piece';
import { freeMoment } from '@core/time';
import { countingIds, newPiece } from '../../tests/helpers/documents';

const MEDIA: MediaRef = {
  ...{ id: 'film', hash: 'f'.repeat(64), kind: 'footage', name: 'kite.mp4', width: 1280, height: 720, duration: 8 },
  footage: { frameRate: { num: 25, den: 1 }, frames: 200, hasSound: false },
};
function pieceOf(
  shapes: readonly (readonly [number, number])[],
  from = 0,
): { piece: Piece; layer: LayerOf<'picture'> } {
  const plain = newPiece('Follow');
  const formats = shapes.map(([width, height], i) => ({
    ...plain.formats[0]!,
    id: `f${i}`,
    name: `F${i}`,
    width,
    height,
  }));
  const [width, height] = shapes[0]!; // there is one
  const layer = createLayer(
    'picture',
    {
      ...{ name: 'Kite', start: freeMoment(1), end: freeMoment(6) },
      content: { mediaId: 'film', fit: 'fill', from },
      values: { dimensions: [width, height] },
    },
    countingIds(),
  ) as LayerOf<'picture'>; // as it was asked for
  layer.constraints = { horizontal: 'both', vertical: 'both', within: 'frame', scales: 'not' };
  return {
    piece: { ...plain, formats, leadFormatId: 'f0', end: freeMoment(9), media: [MEDIA], layers: [layer] },
    layer,
  };
}

describe('the window that follows in footage', () => {
  it('is as narrow as the narrowest format, and none where all is seen', () => {
    const wide = pieceOf([[1920, 1080]]);
    expect(windowOf(wide.piece, wide.layer, 16 / 9)).toBeNull();
    const many = pieceOf([
      [1920, 1080],
      [1080, 1920],
      [1080, 1080],
    ]);
    const window = windowOf(many.piece, many.layer, 16 / 9)!;
    expect(window.width).toBeCloseTo((9 / 16) ** 2, 6);
    expect(window.height).toBeCloseTo(1, 6);
  });
  it('looks at the frames that are seen, eight times a second, until the footage or the layer ends', () => {
    const { piece, layer } = pieceOf([[1080, 1920]], 5);
    const looks = looksAt(layer, footageOf([MEDIA], layer)!.ref, resolveTimes(piece, null));
    expect(looks[0]).toEqual({ at: 1, frame: 125 });
    expect(looks.at(-1)!.frame).toBeLessThan(200);
    expect(looks).toHaveLength(25); // three seconds are left of it
  });
});

describe('keyframes that follow', () => {
  const { piece, layer } = pieceOf([[1080, 1920]]);
  const times = resolveTimes(piece, null);
  const media = footageOf([MEDIA], layer)!.ref;
  const looks = looksAt(layer, media, times);
  const followed = (focus: readonly (readonly [number, number])[], shots = [{ look: 0, frame: 0 }]): Piece => {
    const edits = followEdits(piece, layer, media, times, { looks, shots, focus }, countingIds());
    const { piece: next, refused } = applyEdits(piece, edits, times);
    expect(refused).toBeNull();
    return next;
  };
  const focusAt = (next: Piece, at: number): readonly [number, number] =>
    evaluateTrack(prepareTrack(trackOf(next.layers[0]!, 'focus')!, times.timeOf), at) as [number, number]; // a track of vectors
  it('lie on the course, with few of them', () => {
    const course = looks.map(({ at }) => [0.5 + 0.3 * Math.sin(at), 0.5] as const);
    const next = followed(course);
    for (const [i, { at }] of looks.entries())
      expect(Math.abs(focusAt(next, at)[0] - course[i]![0])).toBeLessThan(0.005);
    expect(next.layers[0]!.tracks.focus!.keyframes.length).toBeLessThan(looks.length / 2);
  });
  it('leap with the very frame with which another shot begins', () => {
    // The cut lies between two looks, at frame 52: 2.08 s of the footage, 3.08 s of the piece.
    const cut = looks.findIndex(({ frame }) => frame >= 52);
    const course = looks.map((_, i) => [i < cut ? 0.2 : 0.8, 0.5] as const);
    const next = followed(course, [
      { look: 0, frame: 0 },
      { look: cut, frame: 52 },
    ]);
    expect(focusAt(next, 1 + 51.9 / 25)[0]).toBe(0.2);
    expect(focusAt(next, 1 + 52.1 / 25)[0]).toBe(0.8);
  });
  it('are none where nothing moves, and what a format had of its own goes', () => {
    const own = {
      move: [0, 0] as [number, number],
      scale: 1,
      hidden: false,
      tracks: { focus: { value: [0.1, 0.1] as [number, number], keyframes: [] } },
    };
    const formats = [...piece.formats, { ...piece.formats[0]!, id: 'other' }];
    const held = { ...piece, formats, layers: [{ ...layer, overrides: { other: own } }] };
    const edits = followEdits(
      held,
      held.layers[0]!,
      media,
      times,
      { looks, shots: [{ look: 0, frame: 0 }], focus: looks.map(() => [0.7, 0.5]) },
      countingIds(),
    );
    const next = applyEdits(held, edits, times).piece;
    expect(next.layers[0]!.tracks.focus).toEqual({ value: [0.7, 0.5], keyframes: [] });
    expect(next.layers[0]!.overrides).toEqual({});
  });
});

describe('a course with fewer points', () => {
  it('is nowhere off by more than was said', () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(share, share), { minLength: 1, maxLength: 60 }),
        fc.double({ min: 0.001, max: 0.3, noNaN: true }),
        (places, tolerance) => {
          const course = places.map((place, at) => ({ at, place }));
          const fewer = simplifyCourse(course, tolerance);
          expect(fewer[0]).toEqual(course[0]);
          expect(fewer.at(-1)).toEqual(course.at(-1));
          for (const { at, place } of course) {
            const after = fewer.findIndex((point) => point.at >= at);
            const [a, b] = [fewer[Math.max(0, after - 1)]!, fewer[after]!];
            const k = b.at === a.at ? 0 : (at - a.at) / (b.at - a.at);
            for (const axis of [0, 1] as const)
              expect(Math.abs(place[axis] - (a.place[axis] + k * (b.place[axis] - a.place[axis])))).toBeLessThanOrEqual(
                tolerance + 1e-9,
              );
          }
        },
      ),
    );
  });
});
