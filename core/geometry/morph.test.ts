import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { flattenPath, lengthOf, morphedPath, tightBox } from '@core/geometry';

const SQUARE = 'M0 0L100 0L100 100L0 100Z';
const areaOf = (d: string): number =>
  flattenPath(d).reduce((sum, { points }) => {
    let area = 0;
    for (let i = 0; i + 3 < points.length; i += 2)
      area += points[i]! * points[i + 3]! - points[i + 2]! * points[i + 1]!;
    return sum + area / 2;
  }, 0);
const whole = (d: string): number => flattenPath(d).reduce((sum, contour) => sum + lengthOf(contour), 0);

describe('a path on its way to another', () => {
  it('is the one at its begin and the other at its end', () => {
    const star = 'M50 0C60 40 90 40 100 50L50 100Q10 80 0 50Z';
    expect(morphedPath(SQUARE, star, 0)).toBe(SQUARE);
    expect(morphedPath(SQUARE, star, 1)).toBe(star);
    for (const [t, d] of [
      [1e-6, SQUARE],
      [1 - 1e-6, star],
    ] as const) {
      expect(whole(morphedPath(SQUARE, star, t))).toBeCloseTo(whole(d), -0.5);
      expect(tightBox(morphedPath(SQUARE, star, t))![2]).toBeCloseTo(tightBox(d)![2], 0);
    }
  });
  it('keeps its form whatever point the other begins with and whichever way round it runs', () => {
    const turned = 'M100 100L0 100L0 0L100 0Z';
    const back = 'M0 100L100 100L100 0L0 0Z';
    for (const other of [turned, back]) {
      const half = morphedPath(SQUARE, other, 0.5);
      expect(Math.abs(areaOf(half))).toBeCloseTo(10_000, -1);
      expect(tightBox(half)).toEqual([0, 0, 100, 100]);
    }
  });
  it('moves what is moved and grows what is grown', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -300, max: 300 }),
        fc.integer({ min: 1, max: 6 }),
        fc.double({ min: 0.01, max: 0.99, noNaN: true }),
        (shift, size, t) => {
          const other = `M${shift} 0L${shift + 100 * size} 0L${shift + 100 * size} ${100 * size}L${shift} ${100 * size}Z`;
          const [l, top, r, b] = tightBox(morphedPath(SQUARE, other, t))!;
          expect(l).toBeCloseTo(shift * t, 1);
          expect(top).toBeCloseTo(0, 1);
          expect(r - l).toBeCloseTo(100 + 100 * (size - 1) * t, 1);
          expect(b).toBeCloseTo(100 + 100 * (size - 1) * t, 1);
        },
      ),
    );
  });
  it('lets a contour without a partner grow out of the nearest one', () => {
    const two = `${SQUARE}M200 0L240 0L240 40L200 40Z`;
    const half = flattenPath(morphedPath(SQUARE, two, 0.5));
    expect(half).toHaveLength(2);
    expect(lengthOf(half[1]!)).toBeCloseTo(80, 0);
    expect(flattenPath(morphedPath(two, SQUARE, 0.999))).toHaveLength(2);
  });
  it('keeps open paths open', () => {
    expect(morphedPath('M0 0L100 0', 'M0 50L60 90L100 50', 0.5)).not.toContain('Z');
    expect(tightBox(morphedPath('M0 0L100 0', 'M0 50L100 50', 0.5))).toEqual([0, 25, 100, 25]);
  });
});
