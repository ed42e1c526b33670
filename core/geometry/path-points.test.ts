import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  flattenPath,
  insertedPoint,
  movedHandle,
  movedPoint,
  nearestOn,
  readPoints,
  removedPoint,
  tightBox,
  toggledCorner,
  writePoints,
} from '@core/geometry';

const number = fc.integer({ min: -4000, max: 4000 }).map((n) => n / 4);
const pair = fc.tuple(number, number).map(([x, y]) => `${x} ${y}`);
const piece = fc.oneof(
  pair.map((p) => `L${p}`),
  fc.tuple(pair, pair).map((p) => `Q${p.join(' ')}`),
  fc.tuple(pair, pair, pair).map((p) => `C${p.join(' ')}`),
);
const contour = fc
  .tuple(pair, fc.array(piece, { minLength: 1, maxLength: 6 }), fc.boolean())
  .map(([start, pieces, closed]) => `M${start}${pieces.join('')}${closed ? 'Z' : ''}`);
const path = fc.array(contour, { minLength: 1, maxLength: 3 }).map((all) => all.join(''));

const boxOf = (d: string): number[] => [...(tightBox(d) ?? [])];
const nearly = (a: readonly number[], b: readonly number[], within: number) => {
  expect(a).toHaveLength(b.length);
  a.forEach((v, i) => expect(Math.abs(v - b[i]!)).toBeLessThanOrEqual(within));
};
/** Points along a path, so that two ways to write it can be compared. */
const walk = (d: string): number[] => flattenPath(d, 24).flatMap((c) => [...c.points]);

describe('paths as points', () => {
  it('say the same when they are written again', () => {
    fc.assert(
      fc.property(path, (d) => {
        const again = writePoints(readPoints(d));
        nearly(boxOf(again), boxOf(d), 0.05);
        expect(writePoints(readPoints(again))).toBe(again);
      }),
    );
  });
  it('join the end of a closed contour with its begin', () => {
    const [square] = readPoints('M0 0L10 0L10 10L0 10L0 0Z');
    expect(square).toMatchObject({ isClosed: true });
    expect(square!.points).toHaveLength(4);
    expect(writePoints([square!])).toBe('M0 0L10 0L10 10L0 10Z');
    // What follows a close begins where it closed.
    expect(readPoints('M5 5L9 5L9 9ZL1 1').map((c) => c.points[0]!.at)).toEqual([
      [5, 5],
      [5, 5],
    ]);
  });
  it('change nothing of the way when a point is added', () => {
    fc.assert(
      fc.property(contour, fc.nat(5), fc.double({ min: 0.05, max: 0.95, noNaN: true }), (d, at, t) => {
        const before = readPoints(d);
        const ref = { contour: 0, point: at % before[0]!.points.length };
        const after = insertedPoint(before, ref, t);
        const isEnd = !before[0]!.isClosed && ref.point === before[0]!.points.length - 1;
        expect(after[0]!.points).toHaveLength(before[0]!.points.length + (isEnd ? 0 : 1));
        nearly(boxOf(writePoints(after)), boxOf(writePoints(before)), 0.1);
      }),
    );
  });
  it('move a point with its handles, and a handle with the one across from it', () => {
    const before = readPoints('M0 0C10 0 20 10 30 10C40 10 50 0 60 0');
    const ref = { contour: 0, point: 1 };
    const [moved] = movedPoint(before, ref, [30, 20]);
    expect(moved!.points[1]).toEqual({ at: [30, 20], before: [-10, 0], after: [10, 0] });
    const [turned] = movedHandle(before, ref, 'after', [0, 5], 'line');
    expect(turned!.points[1]!.before).toEqual([-0, -10]);
    const [broken] = movedHandle(before, ref, 'after', [0, 5], 'nothing');
    expect(broken!.points[1]).toMatchObject({ before: [-10, 0], after: [0, 5] });
  });
  it('turn corners smooth and back, and let points go', () => {
    const square = readPoints('M0 0L30 0L30 30L0 30Z');
    const ref = { contour: 0, point: 1 };
    const smooth = toggledCorner(square, ref);
    const { before, after } = smooth[0]!.points[1]!;
    expect(before![0] * after![1]).toBeCloseTo(before![1] * after![0]);
    expect(Math.hypot(...before!)).toBeCloseTo(10);
    expect(toggledCorner(smooth, ref)).toEqual(square);
    expect(removedPoint(square, ref)[0]!.points).toHaveLength(3);
    expect(removedPoint(readPoints('M0 0L5 5'), { contour: 0, point: 0 })).toEqual([]);
  });
  it('find the piece under the pointer', () => {
    const found = nearestOn(readPoints('M0 0L100 0L100 100'), [52, 3])!;
    expect(found).toMatchObject({ contour: 0, point: 0 });
    expect(found.t).toBeCloseTo(0.5, 1);
    expect(found.distance).toBeLessThan(5);
    expect(nearestOn([], [0, 0])).toBeNull();
  });
  it('walk as they did', () => {
    nearly(walk(writePoints(readPoints('M0 0Q50 80 100 0Z'))), walk('M0 0Q50 80 100 0Z'), 0.05);
  });
});
