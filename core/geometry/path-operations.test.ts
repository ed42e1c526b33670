import { beforeAll, describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { loadPathEngine } from '../../server/render/ready-to-draw';
import { combinedPath, ellipsePath, flattenPath, roundedRectanglePath } from '.';
import type { Matrix, PathOperation, PlacedPath } from '.';

beforeAll(loadPathEngine);

/** Area of a path whose outlines do not cross: those within others are holes (the even–odd rule). */
function areaOf(d: string): number {
  const rings = flattenPath(d).map(({ points }) =>
    Array.from({ length: points.length / 2 }, (_, i) => [points[2 * i]!, points[2 * i + 1]!] as const),
  );
  const signed = (ring: (typeof rings)[number]): number =>
    ring.reduce((sum, [x, y], i) => {
      const [nx, ny] = ring[(i + 1) % ring.length]!;
      return sum + (x * ny - nx * y) / 2;
    }, 0);
  const holds = (ring: (typeof rings)[number], [px, py]: readonly [number, number]): boolean =>
    ring.reduce((isIn, [x, y], i) => {
      const [nx, ny] = ring[(i + 1) % ring.length]!;
      return y > py !== ny > py && px < x + ((py - y) / (ny - y)) * (nx - x) ? !isIn : isIn;
    }, false);
  return rings.reduce((sum, ring, i) => {
    const [[ax, ay], [bx, by]] = [ring[0]!, ring[1] ?? ring[0]!];
    const inner = [(ax + bx) / 2, (ay + by) / 2] as const;
    const depth = rings.filter((other, k) => k !== i && holds(other, inner)).length;
    return sum + Math.abs(signed(ring)) * (depth % 2 === 0 ? 1 : -1);
  }, 0);
}

const placed = (d: string, x: number, y: number, turn = 0): PlacedPath => {
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const matrix: Matrix = [cos, sin, -sin, cos, x, y];
  return { d, rule: 'nonzero', matrix };
};
const areaWith = (operation: PathOperation, ...sets: PlacedPath[][]): number => areaOf(combinedPath(sets, operation));

describe('shapes of shapes', () => {
  const square = [placed(roundedRectanglePath(100, 100, [0, 0, 0, 0]), 0, 0)];
  const half = [placed(roundedRectanglePath(100, 100, [0, 0, 0, 0]), 50, 0)];

  it('of two squares that half cover one another', () => {
    expect(areaWith('union', square, half)).toBeCloseTo(15_000, 3);
    expect(areaWith('intersect', square, half)).toBeCloseTo(5_000, 3);
    expect(areaWith('subtract', square, half)).toBeCloseTo(5_000, 3);
    expect(areaWith('exclude', square, half)).toBeCloseTo(10_000, 3);
  });

  it('keep holes, and are empty where nothing is left', () => {
    const hole = [placed(ellipsePath(40, 40), 0, 0)];
    expect(areaWith('subtract', square, hole)).toBeCloseTo(10_000 - Math.PI * 400, -1);
    expect(combinedPath([hole, square], 'subtract')).toBe('');
  });

  it('hold curves as curves', () => {
    expect(combinedPath([[placed(ellipsePath(80, 60), 0, 0)], half], 'subtract')).toMatch(/C/);
  });

  it('what is together is counted once: letters that touch are one', () => {
    const word = [...square, ...half];
    expect(areaWith('union', word)).toBeCloseTo(15_000, 3);
    expect(areaWith('exclude', word, square)).toBeCloseTo(5_000, 3);
  });

  it('obey inclusion and exclusion, wherever two ellipses and plates lie', () => {
    const shape = fc.record({
      kind: fc.constantFrom('plate', 'ellipse'),
      w: fc.integer({ min: 20, max: 200 }),
      h: fc.integer({ min: 20, max: 200 }),
      x: fc.integer({ min: -120, max: 120 }),
      y: fc.integer({ min: -120, max: 120 }),
      turn: fc.double({ min: 0, max: Math.PI, noNaN: true }),
    });
    fc.assert(
      fc.property(shape, shape, (a, b) => {
        const [first, second] = [a, b].map(({ kind, w, h, x, y, turn }) => [
          placed(kind === 'plate' ? roundedRectanglePath(w, h, [0, 0, 0, 0]) : ellipsePath(w, h), x, y, turn),
        ]);
        const [one, two] = [areaWith('union', first!), areaWith('union', second!)];
        const [all, both] = [areaWith('union', first!, second!), areaWith('intersect', first!, second!)];
        const room = (one + two) * 0.004 + 2;
        expect(Math.abs(all + both - one - two)).toBeLessThan(room);
        expect(Math.abs(areaWith('exclude', first!, second!) - (all - both))).toBeLessThan(room);
        expect(Math.abs(areaWith('subtract', first!, second!) - (one - both))).toBeLessThan(room);
      }),
      { numRuns: 60 },
    );
  });
});
