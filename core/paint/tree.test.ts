import { describe, expect, it } from '@jest/globals';
import { createPainter, damageBetween, needsOf } from '@core/paint';
import { createLayer, createPiece, resolveTimes } from '@core/piece';
import type { Layer } from '@core/piece';
import { prepareScene, sceneAt } from '@core/scene';
import type { DisplayItem, DisplayList, GroupItem, PictureItem, ShapeItem } from '@core/scene';
import { FRAME_RATES, freeMoment } from '@core/time';
import { createSkiaHost, createSkiaSurface } from '../../server/render/skia-host';
import { shapeItem, wholeGroup } from '../../tests/helpers/display-items';
import { countingIds } from '../../tests/helpers/documents';

const noLayout = (): never => {
  throw new Error('no words here');
};
const SIDE = 64;
const span = { start: freeMoment(0), end: freeMoment(4) };
const flag = (id: string, values: object, parentId: string | null = null): Layer =>
  createLayer('rectangle', { name: id, ...span, values, parentId }, () => id);
const group = (id: string, values: object, parentId: string | null = null): Layer =>
  createLayer('group', { name: id, ...span, values, parentId }, () => id);
function frame(...layers: Layer[]): DisplayList {
  const base = createPiece(
    { name: 'p', formats: [{ id: 'f', name: 'F', width: SIDE, height: SIDE }], frameRate: FRAME_RATES['30'] },
    countingIds(),
  );
  const piece = { ...base, background: { value: '#000000', keyframes: [] }, layers };
  return sceneAt(prepareScene(piece, resolveTimes(piece, null), 'f'), 1, noLayout);
}
function painted(list: DisplayList): (x: number, y: number) => number[] {
  const surface = createSkiaSurface(SIDE, SIDE);
  createPainter(createSkiaHost()).paint(surface.context, list);
  const data = surface.canvas.data();
  return (x, y) => [...data.subarray((y * SIDE + x) * 4, (y * SIDE + x) * 4 + 3)];
}
const square = (item: Partial<ShapeItem>): ShapeItem =>
  shapeItem({
    path: 'M-10 -10L10 -10L10 10L-10 10Z',
    pathKey: 'square',
    matrix: [1, 0, 0, 1, SIDE / 2, SIDE / 2],
    box: [-10, -10, 10, 10],
    ...item,
  });
const whole = (item: Partial<GroupItem>): GroupItem => wholeGroup(SIDE, item);
const listOf = (...items: DisplayItem[]): DisplayList => ({ width: SIDE, height: SIDE, background: '#000000', items });

describe('groups', () => {
  it('that do nothing change no pixel', () => {
    const parts = [
      flag('a', { dimensions: [30, 20], fill: '#ff0000' }),
      flag('b', { dimensions: [10, 30], fill: '#00ff00' }),
    ];
    const plain = painted(frame(...parts));
    const grouped = painted(frame(...parts.map((l) => ({ ...l, parentId: 'g' })), group('g', {})));
    for (let y = 0; y < SIDE; y += 3) for (let x = 0; x < SIDE; x += 3) expect(grouped(x, y)).toEqual(plain(x, y));
  });
  it('fade as one: what lies below another layer of the group does not shine through', () => {
    const parts = (parentId: string | null) => [
      flag('a', { dimensions: [40, 40], fill: '#ff0000' }, parentId),
      flag('b', { dimensions: [20, 20], fill: '#0000ff' }, parentId),
    ];
    const [r, , b] = painted(frame(...parts('g'), group('g', { opacity: 0.5 })))(32, 32);
    expect(r).toBe(0);
    expect(Math.abs(b! - 128)).toBeLessThanOrEqual(1);
  });
  it('move, turn and scale what is in them, and groups in groups do so in turn', () => {
    const inner = flag('a', { dimensions: [8, 8], position: [10, 0], fill: '#ffffff' }, 'g');
    const at = painted(frame(inner, group('g', { rotation: 90 }, 'h'), group('h', { position: [0, 10] })));
    expect(at(32, 52)).toEqual([255, 255, 255]);
    expect(at(42, 32)).toEqual([0, 0, 0]);
  });
  it('keep the blend modes of their layers to themselves', () => {
    const below = flag('x', { dimensions: [64, 64], fill: '#00ff00' });
    const screened = { ...flag('a', { dimensions: [20, 20], fill: '#ff0000' }, 'g'), blend: 'screen' as const };
    expect(painted(frame(below, screened, group('g', {})))(32, 32)).toEqual([255, 0, 0]);
    expect(painted(frame(below, { ...screened, parentId: null }))(32, 32)).toEqual([255, 255, 0]);
  });
  it('hide what is in them with themselves, and outside their own time', () => {
    const inner = flag('a', { dimensions: [8, 8] }, 'g');
    expect(frame(inner, { ...group('g', {}), hidden: true }).items).toEqual([]);
    expect(frame(inner, { ...group('g', {}), start: freeMoment(2) }).items).toEqual([]);
  });
  it('are seen through a matte, or where it is not', () => {
    const matte = (inverted: boolean) =>
      painted(
        listOf(
          whole({
            children: [square({ matrix: [2, 0, 0, 2, 32, 32] })],
            matte: { items: [square({ layerId: 'm', matrix: [0.5, 0, 0, 0.5, 32, 32] })], channel: 'alpha', inverted },
          }),
        ),
      );
    expect([matte(false)(32, 32)[0], matte(false)(45, 32)[0]]).toEqual([255, 0]);
    expect([matte(true)(32, 32)[0], matte(true)(45, 32)[0]]).toEqual([0, 255]);
  });
  it('are washed with a colour as far as they reach', () => {
    const at = painted(listOf(whole({ children: [square({})], wash: { colour: '#ff0000', share: 1 } })));
    expect([at(32, 32), at(50, 50)]).toEqual([
      [255, 0, 0],
      [0, 0, 0],
    ]);
  });
});

describe('what a frame needs and what it damages', () => {
  it('every picture of the tree is named once, in groups, mattes, trails and letters too', () => {
    const picture = (hash: string): PictureItem => ({
      ...square({}),
      kind: 'picture',
      source: { hash, frame: null },
      cornerRadius: 0,
    });
    const filled = square({
      fill: { type: 'picture', source: { hash: 'c', frame: null }, box: [0, 0, 1, 1], fallback: '#000000' },
    });
    const list = listOf(
      picture('a'),
      whole({
        children: [picture('a'), whole({ children: [filled] })],
        matte: { items: [picture('b')], channel: 'alpha', inverted: false },
      }),
      { ...square({}), kind: 'trail', copies: [picture('d')] } as unknown as DisplayItem,
    );
    expect(
      needsOf(list)
        .map((s) => s.hash)
        .sort(),
    ).toEqual(['a', 'b', 'c', 'd']);
  });
  it('a layer that moves in a group that does not is repainted alone', () => {
    const still = flag('a', { dimensions: [10, 10], position: [-20, -20] }, 'g');
    const list = (x: number) => frame(still, flag('b', { dimensions: [6, 6], position: [x, 20] }, 'g'), group('g', {}));
    const damage = damageBetween(list(10), list(12), 1)!;
    expect(damage).toHaveLength(1);
    expect(damage[0]![1]).toBeGreaterThan(40);
  });
});
