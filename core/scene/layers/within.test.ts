import { beforeAll, describe, expect, it } from '@jest/globals';
import { createLayer, createPiece, parsePiece, piecesWithin, readWithin, resolveTimes, writeWithin } from '@core/piece';
import type { Layer, Piece } from '@core/piece';
import { loadWithin } from '@core/piece';
import { applyMatrix, pathBounds } from '@core/geometry';
import { prepareScene, sceneAt } from '@core/scene';
import type { DisplayItem, GroupItem, ShapeItem } from '@core/scene';
import { freeMoment } from '@core/time';
import { loadPathEngine } from '../../../server/render/ready-to-draw';

const span = { start: freeMoment(0), end: freeMoment(8) };
const WIDE = { id: 'wide', name: 'Wide', width: 1920, height: 1080 };
const TALL = { id: 'tall', name: 'Tall', width: 1080, height: 1920 };
let ids = 0;
const pieceOf = (name: string, layers: Layer[], formats = [WIDE], change: Partial<Piece> = {}): Piece => ({
  ...createPiece({ name, formats, frameRate: { num: 30, den: 1 } }, () => `${name}${ids++}`),
  id: name,
  end: freeMoment(8),
  layers,
  ...change,
});
const sliding = (id: string, change: Partial<Layer> = {}): Layer =>
  ({
    ...createLayer('rectangle', { name: id, ...span, values: { dimensions: [100, 60] } }, () => id),
    tracks: {
      dimensions: { value: [100, 60], keyframes: [] },
      position: {
        value: [0, 0],
        keyframes: [
          { id: 'a', at: freeMoment(0), value: [0, 0], easing: { type: 'linear' } },
          { id: 'b', at: freeMoment(8), value: [800, 0], easing: { type: 'linear' } },
        ],
      },
    },
    ...change,
  }) as Layer;
const HASH: Record<string, string> = { inner: 'a'.repeat(64), middle: 'b'.repeat(64), other: 'c'.repeat(64) };
const holding = (id: string, of: string, dimensions: [number, number], content: object = {}): Layer =>
  createLayer(
    'piece',
    { name: id, ...span, content: { pieceId: of, mediaId: of, ...content }, values: { dimensions } },
    () => id,
  );
const media = (...names: string[]): Piece['media'] =>
  names.map((name) => ({ id: name, hash: HASH[name]!, kind: 'piece', name }));
const noText = () => ({ letters: [] }) as never;
const items = (piece: Piece, seconds: number, formatId = piece.leadFormatId): readonly DisplayItem[] =>
  sceneAt(prepareScene(piece, resolveTimes(piece, null), formatId), seconds, noText).items;
/** Everything that is drawn as a shape, wherever it hangs. */
const shapes = (list: readonly DisplayItem[]): ShapeItem[] =>
  list.flatMap((item) => (item.kind === 'shape' ? [item] : item.kind === 'group' ? shapes(item.children) : []));
const middle = (item: ShapeItem): [number, number] => applyMatrix(item.matrix, 0, 0);

describe('a piece within a piece', () => {
  const inner = pieceOf('inner', [sliding('flag')], [WIDE, TALL]);
  const files: Record<string, string> = {
    [HASH.inner!]: writeWithin({ piece: inner, analysis: null }),
    [HASH.middle!]: writeWithin({
      piece: pieceOf('middle', [holding('h', 'inner', [1920, 1080])], [WIDE], { media: media('inner') }),
      analysis: null,
    }),
  };
  const around = (layers: Layer[], formats = [WIDE]): Piece =>
    pieceOf('around', layers, formats, { media: media('inner', 'middle') });
  beforeAll(() =>
    loadWithin(around([holding('a', 'inner', [1, 1]), holding('b', 'middle', [1, 1])]), (hash) =>
      Promise.resolve(files[hash]!),
    ),
  );

  it('is drawn in its box, at its own moment', () => {
    const piece = around([holding('w', 'inner', [960, 540], { from: 2 })]);
    expect(parsePiece(JSON.parse(JSON.stringify(piece)))).toMatchObject({ ok: true });
    // Three seconds in, from the second on: 500 of 800 pixels, at half the size.
    const [flag] = shapes(items(piece, 3));
    expect(middle(flag!)[0]).toBeCloseTo(960 + 250, 6);
    expect(flag!.matrix[0]).toBeCloseTo(0.5, 9);
  });
  it('is over when it is over, and plays slower if told', () => {
    const seen = (content: object, at: number) =>
      shapes(items(around([holding('w', 'inner', [1920, 1080], content)]), at));
    expect(seen({ from: 5 }, 3.5)).toHaveLength(0);
    const slow = { time: { speed: 0.5, repeat: null, turns: false, freeze: null } };
    expect(middle(seen(slow, 4)[0]!)[0]).toBeCloseTo(960 + 200, 6);
  });
  it('is cut off at its frame and one layer to those who point at it', () => {
    const [whole] = items(around([holding('w', 'inner', [960, 540])]), 1) as GroupItem[];
    expect(whole).toMatchObject({ kind: 'group', holds: 'parts', layerId: 'w' });
    expect((whole!.children[0] as GroupItem).clip?.box).toEqual([0, 0, 1920, 1080]);
  });
  it('fills every format in the one of its own that is like it', () => {
    const piece = around([holding('w', 'inner', [1920, 1080])], [WIDE, TALL]);
    const frame = (items(piece, 1, 'tall')[0] as GroupItem).children[0] as GroupItem;
    expect(frame.clip?.box).toEqual([0, 0, 1080, 1920]);
    expect(frame.matrix.map((n) => Math.round(n * 1e6) / 1e6)).toEqual([1, 0, 0, 1, 0, 0]);
  });
  it('shows its background only when told', () => {
    const count = (showsGround: boolean) =>
      shapes(items(around([holding('w', 'inner', [960, 540], { showsGround })]), 1)).length;
    expect([count(false), count(true)]).toEqual([1, 2]);
  });
  it('may hold another, and knows who stands in it', () => {
    const piece = around([holding('w', 'middle', [960, 540])]);
    expect(middle(shapes(items(piece, 4))[0]!)[0]).toBeCloseTo(960 + 200, 6);
    expect(piecesWithin(piece)).toEqual(new Set(['middle', 'inner']));
  });
  it('draws nothing where its file was not read', () => {
    const piece = pieceOf('lost', [holding('w', 'other', [960, 540])], [WIDE], { media: media('other') });
    expect(items(piece, 1)).toEqual([]);
  });
  it('is read back as it was written, and nothing else is taken for one', () => {
    expect(readWithin(files[HASH.inner!]!)).toEqual({ piece: inner, analysis: null });
    for (const text of ['', '{', '[]', 'null', '{"estrella":"piece-within","piece":{"version":1}}'])
      expect(readWithin(text)).toBeNull();
  });
});

describe('a group that is one shape', () => {
  beforeAll(loadPathEngine);
  const plate = (id: string, x: number, change: Partial<Layer> = {}): Layer =>
    ({
      ...createLayer(
        'rectangle',
        { name: id, ...span, values: { dimensions: [200, 100], position: [x, 0], fill: '#ff0000' } },
        () => id,
      ),
      parentId: 'g',
      ...change,
    }) as Layer; // what is added fits any kind
  const group = (combine: string | null): Layer =>
    createLayer('group', { name: 'G', ...span, content: { combine } }, () => 'g');
  const drawn = (combine: string | null, ...layers: Layer[]): ShapeItem =>
    items(pieceOf('combined', [...layers, group(combine)]), 1)[0] as ShapeItem;
  const width = (item: ShapeItem): number => {
    const [l, , r] = pathBounds(item.pathKey, item.path)!;
    return r - l;
  };

  it('is painted as the lowest, wherever its layers lie', () => {
    const item = drawn('union', plate('a', -50), plate('b', 50));
    expect(item).toMatchObject({ kind: 'shape', layerId: 'g', rule: 'evenodd', fill: { colour: '#ff0000' } });
    expect(width(item)).toBeCloseTo(300, 4);
    expect(width(drawn('intersect', plate('a', -50), plate('b', 50)))).toBeCloseTo(100, 4);
    expect(width(drawn('subtract', plate('a', -50), plate('b', 50)))).toBeCloseTo(100, 4);
  });
  it('counts only what is there, and names its layers for those who point', () => {
    expect(width(drawn('union', plate('a', -50), plate('b', 50, { hidden: true })))).toBeCloseTo(200, 4);
    expect(drawn('union', plate('a', -50), plate('b', 50)).parts?.map(({ layerId }) => layerId)).toEqual(['a', 'b']);
  });
  it('moves with what moves in it', () => {
    const at = (seconds: number) =>
      width(
        items(pieceOf('m', [plate('a', 0), sliding('s', { parentId: 'g' }), group('union')]), seconds)[0] as ShapeItem,
      );
    expect(at(0)).toBeCloseTo(200, 4);
    expect(at(1)).toBeCloseTo(250, 4);
  });
});

describe('an echo', () => {
  const echoing = (parameters: Record<string, number>, more: Layer['effects'] = []): Layer =>
    sliding('e', {
      effects: [
        ...more,
        {
          id: 'x',
          kind: 'echo',
          isOn: true,
          seed: 0,
          parameters: Object.fromEntries(
            Object.entries(parameters).map(([id, value]) => [id, { value, keyframes: [] }]),
          ),
        },
      ],
    });
  const of = (layer: Layer, seconds: number) => shapes(items(pieceOf('echo', [layer]), seconds));
  it('draws the layer as it was, fainter with age, the newest on top', () => {
    const drawn = of(echoing({ copies: 3, apart: 0.5, keeps: 50 }), 4);
    expect(drawn.map((item) => middle(item)[0] - 960)).toEqual([250, 300, 350, 400]);
    expect(drawn.map(({ opacity }) => opacity)).toEqual([0.125, 0.25, 0.5, 1]);
  });
  it('has none from before the layer began, and none of what stands still', () => {
    expect(of(echoing({ copies: 3, apart: 0.5, keeps: 50 }), 0.6)).toHaveLength(2);
    const still = { ...echoing({ copies: 3 }), tracks: {} };
    expect(of(still as Layer, 4)).toHaveLength(1);
  });
  it('keeps what was done before it: each copy has it, the whole what comes after', () => {
    const tint = { id: 't', kind: 'tint' as const, isOn: true, seed: 0, parameters: {} };
    const [whole] = items(pieceOf('echo', [echoing({ copies: 2, apart: 0.5 }, [tint])]), 4) as GroupItem[];
    expect(whole!.effects).toBeUndefined();
    expect(whole!.children.every((child) => (child as GroupItem).effects?.[0]?.kind === 'tint')).toBe(true);
  });
});

describe('ways', () => {
  it('turn a layer along, and are gone at one speed', () => {
    const layer = sliding('w', { travel: { turns: true, isEven: true } });
    layer.tracks.position!.keyframes = [
      { id: 'a', at: freeMoment(0), value: [0, 0], easing: { type: 'named', name: 'ease-in-out' } },
      { id: 'b', at: freeMoment(1), value: [0, 300], easing: { type: 'named', name: 'ease-in-out' } },
      { id: 'c', at: freeMoment(8), value: [0, 800], easing: { type: 'linear' } },
    ];
    const [item] = items(pieceOf('way', [layer]), 2) as ShapeItem[];
    expect(middle(item!)).toEqual([960, 540 + 200]);
    expect([item!.matrix[0], item!.matrix[1]].map((n) => Math.round(n * 1e4) / 1e4)).toEqual([0, 1]);
  });
  it('meet across groups that are moved differently', () => {
    const group = (id: string, position: [number, number], scale: [number, number]): Layer =>
      createLayer('group', { name: id, ...span, values: { position, scale } }, () => id);
    const leader = { ...sliding('leader'), parentId: 'one' };
    const follower: Layer = {
      ...createLayer('ellipse', { name: 'f', ...span, values: { dimensions: [10, 10] } }, () => 'f'),
      parentId: 'two',
      follow: {
        layerId: 'leader',
        properties: ['position'],
        keepsOwn: false,
        delay: { unit: 'beats', value: 0 },
        damping: 0,
        looksAt: false,
      },
    };
    const piece = pieceOf('ties', [
      leader,
      group('one', [100, 40], [0.5, 0.5]),
      follower,
      group('two', [-200, 0], [2, 2]),
    ]);
    const [first, second] = shapes(items(piece, 4)).map(middle);
    expect(second![0]).toBeCloseTo(first![0], 6);
    expect(second![1]).toBeCloseTo(first![1], 6);
  });
});
