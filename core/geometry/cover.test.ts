import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { coveringBox } from '@core/geometry';

const side = fc.double({ min: 1, max: 5000, noNaN: true });
const share = fc.double({ min: 0, max: 1, noNaN: true });

describe('a picture that fills its frame', () => {
  it('covers it in its own shape, whatever the focus and zoom', () => {
    fc.assert(
      fc.property(
        side,
        side,
        side,
        side,
        share,
        share,
        fc.double({ min: 0.1, max: 8, noNaN: true }),
        (w, h, pw, ph, x, y, zoom) => {
          const frame = [-w / 2, -h / 2, w / 2, h / 2] as const;
          const [l, t, r, b] = coveringBox([...frame], [pw, ph], [x, y], zoom);
          const near = 1e-6 * Math.max(w, h, r - l, b - t);
          expect(l).toBeLessThanOrEqual(frame[0] + near);
          expect(t).toBeLessThanOrEqual(frame[1] + near);
          expect(r).toBeGreaterThanOrEqual(frame[2] - near);
          expect(b).toBeGreaterThanOrEqual(frame[3] - near);
          expect((r - l) / (b - t) / (pw / ph)).toBeCloseTo(1, 6);
        },
      ),
    );
  });
  it('has its focus in the middle where there is picture around it, and as near as can be elsewhere', () => {
    const frame = [0, 0, 100, 100] as const;
    const [l, , r] = coveringBox([...frame], [400, 100], [0.4, 0.5], 1);
    expect(l + 0.4 * (r - l)).toBeCloseTo(50, 9);
    expect(coveringBox([...frame], [400, 100], [0.05, 0.5], 1)).toEqual([0, 0, 400, 100]);
    expect(coveringBox([...frame], [400, 100], [1, 0.5], 1)).toEqual([-300, 0, 100, 100]);
    expect(coveringBox([...frame], [100, 100], [0, 1], 2)).toEqual([0, -100, 200, 100]);
  });
});
