import { describe, expect, it } from '@jest/globals';
import { HeardLine, secondsHeardAt } from './heard-clock';

describe('what is heard at a moment', () => {
  const loop = [
    { since: 1000, from: 2, to: 3 },
    { since: 2000, from: 2, to: 3 },
  ];
  it('is in the pass that sounds then, and stands before the first and after the last', () => {
    expect([900, 1000, 1250, 1999, 2000, 2400, 9000].map((at) => secondsHeardAt(loop, at))).toEqual([
      2, 2, 2.25, 2.999, 2, 2.4, 3,
    ]);
    expect(secondsHeardAt([], 5)).toBe(0);
  });
});

describe('the line between the clocks of sound and page', () => {
  it('lies in the mean of readings that are out by up to a block', () => {
    const line = new HeardLine();
    for (let i = 0; i < 400; i++) line.read(i * 0.017 - ((i * 7) % 10) / 1000, 5000 + i * 17);
    // Readings are four and a half milliseconds behind in the mean.
    expect(Math.abs(line.momentOf(0) - 5004.5)).toBeLessThan(1);
  });
  it('follows clocks that drift, and a jump at once', () => {
    const line = new HeardLine();
    for (let i = 0; i < 2000; i++) line.read(i * 0.017, i * 17 * 1.0001);
    expect(Math.abs(line.momentOf(1999 * 0.017) - 1999 * 17 * 1.0001)).toBeLessThan(0.1);
    line.read(50, 90_000);
    expect(line.momentOf(50)).toBe(90_000);
  });
});
