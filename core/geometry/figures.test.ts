import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { FIGURES, flattenPath, lengthOf, pathBounds, roundedPolygon, roundedRectanglePath } from '.';
import type { FigureId, FigureNumbers } from '.';

const NUMBERS: FigureNumbers = {
  width: 200,
  height: 120,
  points: 5,
  inner: 0.5,
  radius: 0,
  from: 0,
  sweep: 270,
  head: 0.4,
};
const side = fc.double({ min: 1, max: 4000, noNaN: true });
const share = fc.double({ min: 0, max: 1, noNaN: true });
const numbers = fc.record({
  width: side,
  height: side,
  points: fc.double({ min: 3, max: 60, noNaN: true }),
  inner: share,
  radius: fc.double({ min: 0, max: 3000, noNaN: true }),
  from: fc.double({ min: -720, max: 720, noNaN: true }),
  sweep: fc.double({ min: -360, max: 360, noNaN: true }),
  head: share,
});
const areaOf = (d: string): number =>
  flattenPath(d, 64).reduce((sum, { points }) => {
    let area = 0;
    for (let i = 0; i + 3 < points.length; i += 2)
      area += points[i]! * points[i + 3]! - points[i + 2]! * points[i + 1]!;
    return sum + area / 2;
  }, 0);

describe('figures', () => {
  it.each(Object.keys(FIGURES) as FigureId[])('%s is a path of plain commands that stays in its box', (id) => {
    fc.assert(
      fc.property(numbers, (figure) => {
        const d = FIGURES[id].path(figure);
        expect(d).toMatch(/^[MLCZ\d\s.e-]*$/);
        for (const { points } of flattenPath(d))
          for (let i = 0; i < points.length; i += 2) {
            expect(Math.abs(points[i]!)).toBeLessThanOrEqual(figure.width / 2 + 0.01 + figure.width * 1e-3);
            expect(Math.abs(points[i + 1]!)).toBeLessThanOrEqual(figure.height / 2 + 0.01 + figure.height * 1e-3);
          }
      }),
      { numRuns: 25 },
    );
  });
  it('a star has twice as many corners as points, a polygon as many', () => {
    const corners = (d: string): number => (d.match(/[ML]/g) ?? []).length;
    expect(corners(FIGURES.star.path({ ...NUMBERS, points: 7 }))).toBe(14);
    expect(corners(FIGURES.polygon.path({ ...NUMBERS, points: 6.4 }))).toBe(6);
  });
  it('an arc covers its share of the ring', () => {
    const ring = (sweep: number): number =>
      Math.abs(areaOf(FIGURES.arc.path({ ...NUMBERS, width: 200, height: 200, sweep })));
    const whole = Math.PI * 100 ** 2 * (1 - 0.5 ** 2);
    for (const sweep of [45, 90, 200, -120]) expect(ring(sweep)).toBeCloseTo((whole * Math.abs(sweep)) / 360, -1);
  });
});

describe('round corners', () => {
  const square: [number, number][] = [
    [-50, -50],
    [50, -50],
    [50, 50],
    [-50, 50],
  ];
  it('of a square are quarter circles', () => {
    const radius = fc.double({ min: 1, max: 50, noNaN: true });
    fc.assert(
      fc.property(radius, (r) => {
        expect(areaOf(roundedPolygon(square, r))).toBeCloseTo(10_000 - (4 - Math.PI) * r * r, -1);
        const [outline] = flattenPath(roundedPolygon(square, r), 64);
        expect(lengthOf(outline!)).toBeCloseTo(400 - 8 * r + 2 * Math.PI * r, 0);
      }),
    );
  });
  it('of a rectangle are each its own, and shrink alike where they do not fit', () => {
    expect(areaOf(roundedRectanglePath(100, 100, [50, 0, 0, 0]))).toBeCloseTo(10_000 - (1 - Math.PI / 4) * 2500, -1);
    expect(roundedRectanglePath(100, 40, 999)).toBe(roundedRectanglePath(100, 40, 20));
    expect(pathBounds('corners', roundedRectanglePath(100, 40, [90, 90, 0, 0]))).toEqual([-50, -20, 50, 20]);
  });
});
