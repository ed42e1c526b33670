import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { pieceWithSong, steadyAnalysis } from '../../../tests/helpers/documents';
import { applyMatrix } from '../../geometry';
import { applyEdits, createLayer, resolveTimes } from '../../piece';
import type { Follow, Layer, LayerKind, NewLayer, Piece, Repeat } from '../../piece';
import { beatToSeconds, freeMoment } from '../../time';
import { prepareScene, propertyAt, sceneAt } from '..';
import type { DisplayItem } from '..';

/** Layers tied to others: following, hugging, copies. */
const analysis = steadyAnalysis(120, 0.5, 40);
const times = (piece: Piece) => resolveTimes(piece, analysis);

function pieceOf(...layers: Layer[]): Piece {
  const { piece } = pieceWithSong();
  return { ...piece, end: freeMoment(8), layers };
}
const layerOf = (
  id: string,
  values: NewLayer['values'],
  more: Partial<Layer> = {},
  kind: LayerKind = 'ellipse',
): Layer =>
  ({
    ...createLayer(kind, { name: id, start: freeMoment(0), end: freeMoment(8), values: values ?? {} }, () => id),
    ...more,
  }) as Layer; // what is added fits any kind
const layout = (): never => {
  throw new Error('there are no words here');
};
const items = (piece: Piece, seconds: number): readonly DisplayItem[] =>
  sceneAt(prepareScene(piece, times(piece), piece.leadFormatId), seconds, layout).items;
const itemOf = (piece: Piece, id: string, seconds = 1): DisplayItem =>
  items(piece, seconds).find((item) => item.layerId === id)!;
const middleOf = (item: DisplayItem): [number, number] =>
  applyMatrix(item.matrix, (item.box[0] + item.box[2]) / 2, (item.box[1] + item.box[3]) / 2);

const moving = layerOf('leader', {});
moving.tracks.position = {
  value: [0, 0],
  keyframes: [
    { id: 'a', at: freeMoment(1), value: [0, 0], easing: { type: 'linear' } },
    { id: 'b', at: freeMoment(3), value: [200, -100], easing: { type: 'linear' } },
  ],
};
const FOLLOW: Follow = {
  layerId: 'leader',
  properties: ['position'],
  keepsOwn: true,
  delay: { unit: 'beats', value: 0 },
  damping: 0,
  looksAt: false,
};

describe('following', () => {
  const at = (follow: Partial<Follow>, seconds: number, property: 'position' | 'rotation' | 'opacity' = 'position') => {
    const piece = pieceOf(
      moving,
      layerOf('f', { position: [10, 20], opacity: 0.5 }, { follow: { ...FOLLOW, ...follow } }),
    );
    const { byId } = prepareScene(piece, times(piece), piece.leadFormatId);
    return propertyAt(byId.get('f')!, property, seconds);
  };
  it('adds its own place, or takes the other alone', () => {
    expect(at({}, 2)).toEqual([110, -30]);
    expect(at({ keepsOwn: false }, 2)).toEqual([100, -50]);
  });
  it('multiplies what are factors', () => {
    const piece = pieceOf(
      layerOf('leader', { opacity: 0.4 }),
      layerOf('f', { opacity: 0.5 }, { follow: { ...FOLLOW, properties: ['opacity'] } }),
    );
    const { byId } = prepareScene(piece, times(piece), piece.leadFormatId);
    expect(propertyAt(byId.get('f')!, 'opacity', 1)).toBeCloseTo(0.2);
  });
  it('comes later by beats of the piece', () => {
    const { grid } = times(pieceOf(moving));
    const beat = beatToSeconds(grid, 3) - beatToSeconds(grid, 2);
    expect(at({ delay: { unit: 'beats', value: 1 } }, 2 + beat)).toEqual([
      expect.closeTo(110, 6),
      expect.closeTo(-30, 6),
    ]);
    expect(at({ delay: { unit: 'seconds', value: 0.25 } }, 2.25)).toEqual([110, -30]);
  });
  it('with damping lags behind what moves, never leaves where it has been, and comes to rest with it', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.05, max: 0.8, noNaN: true }),
        fc.double({ min: 0, max: 8, noNaN: true }),
        (damping, t) => {
          const [x] = at({ damping, keepsOwn: false }, t) as [number, number];
          const [sharp] = at({ keepsOwn: false }, t) as [number, number];
          expect(x).toBeGreaterThanOrEqual(-1e-9);
          expect(x).toBeLessThanOrEqual(sharp + 1e-9);
        },
      ),
    );
    expect((at({ damping: 0.5, keepsOwn: false }, 7) as number[])[0]).toBeCloseTo(200, 6);
  });
  it('half the way is left after a tenth of a second with a damping of a half', () => {
    const piece = pieceOf(
      layerOf('leader', {}),
      layerOf('f', {}, { follow: { ...FOLLOW, damping: 0.5, keepsOwn: false } }),
    );
    piece.layers[0]!.tracks.position = {
      value: [0, 0],
      keyframes: [
        { id: 'a', at: freeMoment(1), value: [0, 0], easing: { type: 'hold' } },
        { id: 'b', at: freeMoment(2), value: [100, 0], easing: { type: 'hold' } },
      ],
    };
    const { byId } = prepareScene(piece, times(piece), piece.leadFormatId);
    expect((propertyAt(byId.get('f')!, 'position', 2.1) as number[])[0]).toBeCloseTo(50, -1);
  });
  it('turns to look at the other', () => {
    const piece = pieceOf(
      layerOf('leader', { position: [100, 100] }),
      layerOf('f', { rotation: 5 }, { follow: { ...FOLLOW, properties: ['opacity'], looksAt: true } }),
    );
    const { byId } = prepareScene(piece, times(piece), piece.leadFormatId);
    expect(propertyAt(byId.get('f')!, 'rotation', 1)).toBeCloseTo(50);
  });
  it('a ring of followers is refused', () => {
    const piece = pieceOf(moving, layerOf('f', {}, { follow: FOLLOW }));
    const edits = [{ type: 'layer.setFollow' as const, id: 'leader', follow: { ...FOLLOW, layerId: 'f' } }];
    expect(applyEdits(piece, edits, times(piece)).patches).toEqual([]);
  });
});

describe('hugging', () => {
  const hug = { layerId: 'leader', padX: 10, padY: 4, axes: 'both' as const };
  it('lies about what it hugs, with room, and goes with it', () => {
    const piece = pieceOf(layerOf('plate', {}, { hug }, 'rectangle'), moving);
    for (const seconds of [0.5, 2, 5]) {
      const [plate, leader] = [itemOf(piece, 'plate', seconds), itemOf(piece, 'leader', seconds)];
      expect(middleOf(plate)).toEqual(middleOf(leader).map((v) => expect.closeTo(v, 6)));
      expect(plate.box).toEqual([-160, -154, 160, 154].map((v) => expect.closeTo(v, 0)));
    }
  });
  it('grows as that grows, also when it is turned, and in a group that is moved', () => {
    const group = layerOf('g', { position: [50, 60], scale: [2, 2] }, {}, 'group');
    const inner = layerOf('leader', { dimensions: [100, 40], rotation: 90 }, { parentId: 'g' }, 'rectangle');
    const piece = pieceOf(layerOf('plate', {}, { hug }, 'rectangle'), inner, group);
    const plate = itemOf(piece, 'plate');
    // 40 by 100 after the turn, twice as large by the group.
    expect(plate.box).toEqual([-50, -104, 50, 104].map((v) => expect.closeTo(v, 4)));
  });
  it('takes no notice of what hugs it in turn', () => {
    const piece = pieceOf(
      layerOf('leader', {}, { hug: { ...hug, layerId: 'plate' } }, 'rectangle'),
      layerOf('plate', {}, { hug }, 'rectangle'),
    );
    expect(items(piece, 1)).toHaveLength(2);
    const edits = [{ type: 'layer.setHug' as const, id: 'plate', hug: { ...hug, layerId: 'plate' } }];
    expect(applyEdits(pieceOf(moving, layerOf('plate', {})), edits, times(piece)).patches).toEqual([]);
  });
});

describe('copies', () => {
  const REPEAT: Repeat = {
    way: 'line',
    count: 4,
    columns: 2,
    step: [30, 10],
    radius: 50,
    turn: 0,
    scale: 1,
    fade: 1,
    delay: { unit: 'seconds', value: 0 },
  };
  const copies = (repeat: Partial<Repeat>, layer = layerOf('c', { position: [5, 6] }), seconds = 1) => {
    const item = itemOf(pieceOf({ ...layer, repeat: { ...REPEAT, ...repeat } } as Layer), layer.id, seconds);
    return item.kind === 'group' ? item.children : [];
  };
  const places = (list: readonly DisplayItem[]): number[][] => {
    const [x, y] = middleOf(list[0]!);
    return list.map((item) => [middleOf(item)[0] - x, middleOf(item)[1] - y].map((v) => Math.round(v * 1e6) / 1e6 + 0));
  };
  it('stand in a line, in a grid, round a circle', () => {
    expect(places(copies({}))).toEqual([
      [0, 0],
      [30, 10],
      [60, 20],
      [90, 30],
    ]);
    expect(places(copies({ way: 'grid' }))).toEqual([
      [0, 0],
      [30, 0],
      [0, 10],
      [30, 10],
    ]);
    expect(places(copies({ way: 'circle' }))).toEqual([
      [0, 0],
      [50, 50],
      [0, 100],
      [-50, 50],
    ]);
  });
  it('grow and fade from one to the next', () => {
    const found = copies({ scale: 0.5, fade: 0.5 });
    expect(found.map((item) => item.opacity)).toEqual([1, 0.5, 0.25, 0.125]);
    expect(found.map((item) => item.matrix[0])).toEqual([1, 0.5, 0.25, 0.125].map((v) => expect.closeTo(v, 9)));
  });
  it('come one after another, each as the layer was so much earlier', () => {
    const late = { step: [0, 0] as [number, number], delay: { unit: 'seconds' as const, value: 0.5 } };
    const found = copies(late, moving, 2);
    expect(found).toHaveLength(4);
    const middle = middleOf(found[0]!)[0];
    expect(found.map((item) => middleOf(item)[0] - middle)).toEqual(
      [0, -50, -100, -100].map((v) => expect.closeTo(v, 6)),
    );
    // The third would be before the layer's own time.
    expect(copies(late, moving, 0.7)).toHaveLength(2);
  });
  it('of a group move all that is in it', () => {
    const group = { ...layerOf('g', {}, {}, 'group'), repeat: REPEAT } as Layer;
    const item = itemOf(pieceOf(layerOf('a', {}, { parentId: 'g' }), group), 'g');
    const groups = item.kind === 'group' ? item.children : [];
    expect(places(groups.flatMap((one) => (one.kind === 'group' ? one.children : [])))).toEqual([
      [0, 0],
      [30, 10],
      [60, 20],
      [90, 30],
    ]);
  });
});
