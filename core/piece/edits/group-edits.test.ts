import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { applyMatrix, multiply } from '@core/geometry';
import {
  applyEdits,
  createLayer,
  createPiece,
  fitIn,
  inTreeOrder,
  layerMatrix,
  leadFormat,
  parsePiece,
  resolveTimes,
  trackOf,
} from '@core/piece';
import type { Edit, Layer, Piece } from '@core/piece';
import { FRAME_RATES, freeMoment } from '@core/time';
import { countingIds } from '../../../tests/helpers/documents';
import { outerAtTime, readerAt } from './carry';

const span = { start: freeMoment(0), end: freeMoment(4) };
const flag = (id: string, values: object = {}, parentId: string | null = null): Layer =>
  createLayer('rectangle', { name: id, ...span, values, parentId }, () => id);
const group = (id: string, values: object = {}, parentId: string | null = null): Layer =>
  createLayer('group', { name: id, ...span, values, parentId }, () => id);
const pieceOf = (...layers: Layer[]): Piece => ({
  ...createPiece(
    { name: 'p', formats: [{ id: 'wide', name: 'Wide', width: 1920, height: 1080 }], frameRate: FRAME_RATES['30'] },
    countingIds(),
  ),
  layers,
});
const after = (piece: Piece, ...edits: Edit[]): Piece => {
  const result = applyEdits(piece, edits, resolveTimes(piece, null));
  expect(result.refused).toBeNull();
  expect(parsePiece(JSON.parse(JSON.stringify(result.piece)))).toMatchObject({ ok: true });
  return result.piece;
};
const shape = (piece: Piece) => piece.layers.map((layer) => [layer.id, layer.parentId]);
/** Where the corners of a layer's box are seen. */
function corners(piece: Piece, id: string): number[] {
  const lead = leadFormat(piece);
  const times = resolveTimes(piece, null);
  const layer = piece.layers.find((l) => l.id === id)!;
  const own = layerMatrix(readerAt(layer, 1, times), fitIn(layer, lead, lead));
  const matrix = multiply(outerAtTime(piece, id, lead, 1, times), own);
  return [
    [-50, -30],
    [50, 30],
    [50, -30],
  ].flatMap(([x, y]) => applyMatrix(matrix, x!, y!));
}
const near = (a: number[], b: number[]) => a.every((n, i) => Math.abs(n - b[i]!) < 0.02);

describe('the tree of layers', () => {
  it('a group takes the place of the front one of its layers and keeps their order', () => {
    const made = after(pieceOf(flag('a'), flag('b'), flag('c'), flag('d')), {
      type: 'group.make',
      group: group('g'),
      ids: ['c', 'a'],
      at: 1,
    });
    expect(shape(made)).toEqual([
      ['b', null],
      ['a', 'g'],
      ['c', 'g'],
      ['g', null],
      ['d', null],
    ]);
  });
  it('is never made of itself: cycles, strangers and parents that are no groups are refused', () => {
    const piece = pieceOf(flag('a', {}, 'g'), group('g', {}, 'h'), group('h'), flag('b'));
    const times = resolveTimes(piece, null);
    const change = (edit: Edit) => applyEdits(piece, [edit], times);
    for (const parentId of ['g', 'a', 'b', 'gone'])
      expect(change({ type: 'layer.reparent', ids: ['h'], parentId, behind: null, at: 0 }).patches).toEqual([]);
    const stray = change({ type: 'layer.add', layers: [flag('x', {}, 'gone')] });
    expect([stray.refused !== null, stray.piece === piece]).toEqual([true, true]);
    for (const layers of [
      [flag('a', {}, 'gone')],
      [flag('a', {}, 'b'), flag('b')],
      [group('g', {}, 'h'), group('h', {}, 'g')],
      [{ ...flag('a'), follow: null, matte: { layerId: 'gone', channel: 'alpha', inverted: false } }],
    ])
      expect(parsePiece(pieceOf(...(layers as Layer[])))).toMatchObject({ ok: false });
  });
  it('deleting a group deletes what is in it, and what others said of it', () => {
    const matte = { layerId: 'a', channel: 'alpha' as const, inverted: false };
    const piece = pieceOf(flag('a', {}, 'g'), group('g'), { ...flag('b'), matte });
    const left = after(piece, { type: 'layer.remove', ids: ['g'] });
    expect(shape(left)).toEqual([['b', null]]);
    expect(left.layers[0]!.matte).toBeNull();
  });
  it('moving a group in time moves what is in it', () => {
    const piece = pieceOf(flag('a', {}, 'g'), group('g'), flag('b'));
    const moved = after(piece, { type: 'layer.move', ids: ['g'], seconds: 1.5 });
    expect(moved.layers.map((l) => l.start)).toEqual([freeMoment(1.5), freeMoment(1.5), freeMoment(0)]);
  });
  it('layers stay where they are seen when they go into groups, out of them, and when groups are taken apart', () => {
    const number = (min: number, max: number) => fc.integer({ min, max });
    fc.assert(
      fc.property(
        fc.record({ x: number(-800, 800), y: number(-400, 400), turn: number(-180, 180), size: number(30, 250) }),
        fc.record({ x: number(-800, 800), y: number(-400, 400), turn: number(-180, 180), size: number(30, 250) }),
        fc.constantFrom('in', 'out', 'apart', 'make'),
        (of, around, way) => {
          const values = (p: typeof of) => ({
            position: [p.x, p.y],
            rotation: p.turn,
            scale: [p.size / 100, p.size / 100],
          });
          const inside = way === 'out' || way === 'apart';
          const piece = pieceOf(flag('a', values(of), inside ? 'g' : null), group('g', values(around)));
          const before = corners(piece, 'a');
          const edits: Record<typeof way, Edit> = {
            in: { type: 'layer.reparent', ids: ['a'], parentId: 'g', behind: null, at: 1 },
            out: { type: 'layer.reparent', ids: ['a'], parentId: null, behind: 'g', at: 1 },
            apart: { type: 'group.dissolve', ids: ['g'], at: 1 },
            make: { type: 'group.make', group: group('n', values(around)), ids: ['a'], at: 1 },
          };
          expect(near(corners(after(piece, edits[way]), 'a'), before)).toBe(true);
        },
      ),
      { numRuns: 60 },
    );
  });
  it('a fading group leaves its fading to its layers when it is taken apart', () => {
    const piece = pieceOf(flag('a', { opacity: 0.5 }, 'g'), group('g', { opacity: 0.4 }));
    const apart = after(piece, { type: 'group.dissolve', ids: ['g'], at: 1 });
    expect(trackOf(apart.layers[0]!, 'opacity')!.value).toBeCloseTo(0.2, 6);
  });
  it('tree order keeps siblings in order and puts what is in a group right below it', () => {
    const list = [group('g'), flag('a', {}, 'g'), flag('b'), flag('c', {}, 'g')];
    expect(inTreeOrder(list).map((l) => l.id)).toEqual(['a', 'c', 'g', 'b']);
    expect(inTreeOrder(inTreeOrder(list))).toEqual(inTreeOrder(list));
  });
});
