import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { linkedScale } from './linked-scale';

const side = fc.constantFrom<0 | 1>(0, 1);
const scale = fc.double({ min: 0.01, max: 10, noNaN: true });

describe('a linked scale', () => {
  it('sets the other side along', () => {
    expect(linkedScale([1, 1], 0, 2, {})).toEqual([2, 2]);
    expect(linkedScale([1, 0.5], 0, 2, {})).toEqual([2, 1]);
    expect(linkedScale([-1, 1], 1, 0.5, {})).toEqual([-0.5, 0.5]);
  });
  it('of nothing grows evenly, and stays within the bounds', () => {
    expect(linkedScale([0, 3], 0, 2, {})).toEqual([2, 2]);
    expect(linkedScale([1, 50], 0, 4, { min: -100, max: 100 })).toEqual([4, 100]);
  });
  it('keeps the proportion, whatever is set', () => {
    fc.assert(
      fc.property(scale, scale, side, scale, (x, y, i, value) => {
        const [nextX, nextY] = linkedScale([x, y], i, value, {});
        expect(nextX / nextY).toBeCloseTo(x / y, 6);
        expect([nextX, nextY][i]).toBe(value);
      }),
    );
  });
});
