import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Matrix } from '../geometry';
import { transformOf } from './transform';
import type { Transform } from './transform';

/** The linear part as a player puts it together: scale, lean along x, turn. */
function matrixOf({ scale: [sx, sy], rotation, skew }: Transform): number[] {
  const r = (rotation * Math.PI) / 180;
  const k = -Math.tan((skew * Math.PI) / 180) * sy;
  return [Math.cos(r) * sx, Math.sin(r) * sx, Math.cos(r) * k - Math.sin(r) * sy, Math.sin(r) * k + Math.cos(r) * sy];
}
const number = fc.double({ min: -3, max: 3, noNaN: true });
const matrix = fc
  .tuple(number, number, number, number)
  .filter(([a, b, c, d]) => Math.abs(a * d - b * c) > 0.01)
  .map((m): Matrix => [...m, 0, 0]);
const turned = (degrees: number, sx = 1, sy = 1): Matrix => {
  const r = (degrees * Math.PI) / 180;
  return [Math.cos(r) * sx, Math.sin(r) * sx, -Math.sin(r) * sy, Math.cos(r) * sy, 0, 0];
};

describe('a matrix as turn, lean and scale', () => {
  it('is the same matrix, whatever was before', () => {
    fc.assert(
      fc.property(matrix, fc.option(matrix), (m, before) => {
        const transform = transformOf(m, before && transformOf(before, null));
        matrixOf(transform).forEach((value, i) => expect(value).toBeCloseTo(m[i]!, 6));
      }),
    );
  });
  it('turns on and on instead of jumping back', () => {
    let before: Transform | null = null;
    for (let degrees = 0; degrees <= 800; degrees += 20) before = transformOf(turned(degrees), before);
    expect(before?.rotation).toBeCloseTo(800);
  });
  it('goes through nothing to its mirror image without a turn', () => {
    let before: Transform | null = null;
    for (const sx of [1, 0.5, 0.1, -0.1, -0.5, -1]) before = transformOf(turned(0, sx), before);
    expect(before?.rotation).toBeCloseTo(0);
    expect(before?.scale[0]).toBeCloseTo(-1);
  });
  it('is flat where the matrix is', () => {
    expect(transformOf([0, 0, 0, 2, 0, 0], null)).toMatchObject({ scale: [0, 2], skew: 0 });
    expect(transformOf([2, 0, 0, 0, 0, 0], null)).toMatchObject({ scale: [2, 0], skew: 0 });
  });
});
