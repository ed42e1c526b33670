import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { applyMatrix, ellipsePath, flattenPath, movedPath, roundedRectanglePath } from '@core/geometry';
import type { Matrix } from '@core/geometry';

const factor = fc.double({ min: -3, max: 3, noNaN: true });
const way = fc.double({ min: -500, max: 500, noNaN: true });
const matrices: fc.Arbitrary<Matrix> = fc.tuple(factor, factor, factor, factor, way, way);
const sides = fc.double({ min: 1, max: 400, noNaN: true });
const paths = fc.oneof(
  fc.tuple(sides, sides).map(([w, h]) => ellipsePath(w, h)),
  fc.tuple(sides, sides, sides).map(([w, h, r]) => roundedRectanglePath(w, h, r)),
  fc.constant('M0 0L10,-2.5Q1e-7 4 3 -.5Z'),
);

describe('a moved path', () => {
  it('goes where a matrix leads the points of the path', () => {
    fc.assert(
      fc.property(paths, matrices, (d, m) => {
        const moved = flattenPath(movedPath(d, m)).flatMap(({ points }) => [...points]);
        const points = flattenPath(d).flatMap(({ points: own }) => [...own]);
        expect(moved).toHaveLength(points.length);
        for (let i = 0; i < points.length; i += 2) {
          const [x, y] = applyMatrix(m, points[i]!, points[i + 1]!);
          expect(moved[i]).toBeCloseTo(x, 6);
          expect(moved[i + 1]).toBeCloseTo(y, 6);
        }
      }),
      { numRuns: 60 },
    );
  });
});
