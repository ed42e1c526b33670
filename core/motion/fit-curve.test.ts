import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { fitCurve } from '@core/motion';
import type { Vector } from '@core/motion';
import { flattenPath } from '@core/geometry';

/** How far a point is from the nearest piece of a path. */
function away([x, y]: Vector, d: string): number {
  let best = Infinity;
  for (const { points } of flattenPath(d, 64)) {
    for (let i = 0; i + 3 < points.length; i += 2) {
      const [ax, ay, bx, by] = [points[i]!, points[i + 1]!, points[i + 2]!, points[i + 3]!];
      const length = (bx - ax) ** 2 + (by - ay) ** 2;
      const t = length > 0 ? Math.min(1, Math.max(0, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / length)) : 0;
      best = Math.min(best, Math.hypot(ax + t * (bx - ax) - x, ay + t * (by - ay) - y));
    }
  }
  return best;
}
const curves = (d: string) => (d.match(/C/g) ?? []).length;

describe('a path through points drawn by hand', () => {
  it('keeps within the tolerance of every point and ends where the hand did', () => {
    const walk = fc.array(
      fc.tuple(fc.double({ min: -30, max: 30, noNaN: true }), fc.double({ min: -30, max: 30, noNaN: true })),
      { minLength: 2, maxLength: 60 },
    );
    fc.assert(
      fc.property(walk, (steps) => {
        let at: Vector = [0, 0];
        const points = [at, ...steps.map(([dx, dy]): Vector => (at = [at[0] + dx, at[1] + dy]))];
        const d = fitCurve(points, 2);
        if (d === null) return;
        for (const point of points) expect(away(point, d)).toBeLessThan(2.2);
        const last = points[points.length - 1]!;
        expect(d.endsWith(`${Math.round(last[0] * 100) / 100} ${Math.round(last[1] * 100) / 100}`)).toBe(true);
      }),
      { seed: 11, numRuns: 60 },
    );
  });
  it('is one curve for a straight line and a handful for a circle', () => {
    const straight = Array.from({ length: 40 }, (_, i): Vector => [i * 5, i * 2]);
    expect(curves(fitCurve(straight, 1)!)).toBe(1);
    const round = Array.from({ length: 200 }, (_, i): Vector => [100 * Math.cos(i / 32), 100 * Math.sin(i / 32)]);
    expect(curves(fitCurve(round, 1)!)).toBeLessThanOrEqual(8);
  });
  it('is nothing for a point', () => {
    expect(fitCurve([[3, 4]], 1)).toBeNull();
    expect(
      fitCurve(
        [
          [3, 4],
          [3, 4],
          [3, 4],
        ],
        1,
      ),
    ).toBeNull();
  });
});
