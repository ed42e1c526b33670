import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { needsOf } from '@core/paint';
import { applyEdits, createLayer, cutEdits, resolveTimes } from '@core/piece';
import type { Edit, LayerOf, MediaRef, Piece } from '@core/piece';
import { frameOf, prepareScene, sceneAt } from '@core/scene';
import { freeMoment } from '@core/time';
import { runThrough } from '@core/checks';
import { countingIds, newPiece } from '../../../tests/helpers/documents';

const FRAMES = 100;
const RATE = { num: 25, den: 1 };
const MEDIA: MediaRef = {
  ...{ id: 'film', hash: 'f'.repeat(64), kind: 'footage', name: 'kite.mp4', width: 320, height: 180, duration: 4 },
  footage: { frameRate: RATE, frames: FRAMES, hasSound: false },
};
const others = (() => {
  let made = 0;
  return () => `other${++made}`;
})();
const NO_WORDS = (): never => {
  throw new Error('there are no words');
};

function pieceWith(content: Partial<LayerOf<'picture'>['content']> = {}, start = 1, end = 4): Piece {
  const layer = createLayer(
    'picture',
    {
      ...{ name: 'Kite', start: freeMoment(start), end: freeMoment(end) },
      content: { mediaId: 'film', ...content },
      values: { dimensions: [320, 180] },
    },
    countingIds(),
  );
  return { ...newPiece('Footage'), end: freeMoment(6), media: [MEDIA], layers: [layer] };
}
const timesOf = (piece: Piece) => resolveTimes(piece, null);
/** The frames of footage that are seen at a moment. */
const seen = (piece: Piece, at: number): (number | null)[] =>
  needsOf(sceneAt(prepareScene(piece, timesOf(piece), piece.leadFormatId), at, NO_WORDS)).map(({ frame }) => frame);
const edited = (piece: Piece, edits: readonly Edit[]): Piece => {
  const { piece: next, refused } = applyEdits(piece, edits, timesOf(piece));
  expect(refused).toBeNull();
  return next;
};

describe('the frame of footage at a moment', () => {
  it('is the one that stands then, whatever the sum of seconds it came from', () => {
    const rates = fc.constantFrom(
      { num: 24000, den: 1001 },
      { num: 25, den: 1 },
      { num: 60, den: 1 },
      { num: 12500, den: 1000 },
    );
    fc.assert(
      fc.property(
        rates,
        fc.integer({ min: 0, max: 999 }),
        fc.double({ min: 0, max: 0.99, noNaN: true }),
        (frameRate, frame, share) => {
          const footage = { frameRate, frames: 1000, hasSound: false };
          const begin = (frame * frameRate.den) / frameRate.num;
          expect(frameOf(footage, begin)).toBe(frame);
          expect(frameOf(footage, begin + (share * frameRate.den) / frameRate.num)).toBe(frame);
          expect(frameOf(footage, 1e6 + begin - 1e6)).toBe(frame); // what is lost far from nought
        },
      ),
    );
  });
  it('is none before the first and after the last, which stands a frame longer', () => {
    const { footage } = MEDIA;
    expect([-0.1, 4.03, 4.05].map((at) => frameOf(footage!, at))).toEqual([null, FRAMES - 1, null]);
  });
  it('follows the layer: its start, what is passed over, its time', () => {
    expect(seen(pieceWith(), 1.5)).toEqual([12]);
    expect(seen(pieceWith({ from: 2 }), 1.5)).toEqual([62]);
    const time = { speed: 0.5, repeat: null, turns: false, freeze: null };
    expect(seen(pieceWith({ from: 2, time }), 1.5)).toEqual([56]);
    expect(seen(pieceWith({ from: 3.5 }), 3)).toEqual([]);
    expect(seen(pieceWith(), 0.5)).toEqual([]);
  });
  it('is seen in a frame that it fills, and through letters', () => {
    expect(seen(pieceWith({ fit: 'fill' }), 2)).toEqual([25]);
  });
});

describe('trimming and cutting', () => {
  const layerOf = (piece: Piece, n = 0) => piece.layers[n] as LayerOf<'picture'>;
  it('the start of footage leaves what is seen where it was, and goes no further than its first frame', () => {
    const piece = pieceWith({ from: 1 });
    const id = layerOf(piece).id;
    fc.assert(
      fc.property(fc.double({ min: -2, max: 3.9, noNaN: true }), (to) => {
        const next = edited(piece, [{ type: 'layer.setSpan', id, start: freeMoment(to) }]);
        const { content, start } = layerOf(next);
        expect(timesOf(next).timeOf(start)).toBeCloseTo(Math.max(0, to), 9);
        expect(content.from).toBeCloseTo(Math.max(0, to), 9);
        const back = edited(next, [{ type: 'layer.setSpan', id, start: freeMoment(1) }]);
        expect(layerOf(back).content.from).toBeCloseTo(1, 9);
      }),
    );
  });
  it('cuts in two, and every frame is seen as before', () => {
    for (const speed of [1, 0.5]) {
      const time = speed === 1 ? null : { speed, repeat: null, turns: false, freeze: null };
      const piece = pieceWith({ from: 0.4, time });
      const { edits, seconds } = cutEdits(piece, [layerOf(piece).id], freeMoment(2.2), timesOf(piece), others);
      const next = edited(piece, edits);
      expect(next.layers).toHaveLength(2);
      expect(seconds).toEqual([layerOf(next, 1).id]);
      for (let at = 1.01; at < 4; at += 0.04) expect(seen(next, at)).toEqual(seen(piece, at));
    }
  });
  it('cuts nothing that is locked, or not there', () => {
    const piece = pieceWith();
    const [layer] = piece.layers;
    const cut = (of: Piece, at: number) => cutEdits(of, [layer!.id], freeMoment(at), timesOf(of), countingIds()).edits;
    for (const at of [0.5, 1, 4, 5]) expect(cut(piece, at)).toEqual([]);
    expect(cut({ ...piece, layers: [{ ...layer!, locked: true }] }, 2)).toEqual([]);
  });
  it('gives an entrance to the first part and an exit to the second', () => {
    const piece = pieceWith();
    const [layer] = piece.layers;
    const use = (id: string, role: 'entrance' | 'exit' | 'accent', at: number | null) => ({
      ...{ id, gesture: role === 'accent' ? 'pulsar' : 'dawn', role, unit: 'whole', landing: 'end' },
      ...{ duration: { unit: 'seconds', value: 0.4 }, at: at === null ? null : freeMoment(at), every: null },
      ...{ stagger: { amount: 0, order: 'forward', seed: 1, easing: { type: 'linear' }, rhythm: null } },
      ...{ parameters: {}, colour: '#ffffff', words: null, tracks: null },
    });
    const gestures = [
      use('in', 'entrance', null),
      use('early', 'accent', 1.5),
      use('late', 'accent', 3),
      use('out', 'exit', null),
    ];
    const dressed = {
      ...piece,
      layers: [{ ...layer!, gestures: gestures as unknown as Piece['layers'][number]['gestures'] }],
    } as Piece; // only what is read
    const { edits } = cutEdits(dressed, [layer!.id], freeMoment(2), timesOf(dressed), countingIds());
    const added = edits.find((edit) => edit.type === 'layer.add');
    expect(edits.find((edit) => edit.type === 'gesture.remove')).toMatchObject({ ids: ['late', 'out'] });
    expect(added?.type === 'layer.add' && added.layers[0]!.gestures.map(({ role }) => role)).toEqual([
      'accent',
      'exit',
    ]);
  });
});

describe('the run-through over footage', () => {
  const found = (piece: Piece) => runThrough({ piece, times: timesOf(piece), layoutText: NO_WORDS }, ['footage']);
  it('tells where it is over before its layer, and puts that right in two ways', () => {
    const piece = pieceWith({ from: 2.5 });
    const [told, ...others] = found(piece);
    expect(others).toEqual([]);
    expect(told).toMatchObject({ severity: 'warning', at: 2.5 });
    expect(told!.text).toContain('1.5 s before');
    for (const { edits } of told!.fixes) expect(found(edited(piece, edits))).toEqual([]);
    expect(told!.fixes).toHaveLength(2);
  });
  it('says nothing of footage that lasts, or comes again', () => {
    expect(found(pieceWith())).toEqual([]);
    const repeat = { unit: 'seconds' as const, value: 1 };
    expect(found(pieceWith({ from: 3, time: { speed: 1, repeat, turns: false, freeze: null } }))).toEqual([]);
  });
});
