import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { evaluateTrack, evenlyPaced, prepareTrack, travelDirection } from '.';
import type { Track, Vector } from '.';
import { freeMoment } from '../time';
import type { Moment } from '../time';

const timeOf = (moment: Moment): number => (moment.kind === 'free' ? moment.seconds : 0);
const wayOf = (...stops: (readonly [seconds: number, x: number, y: number])[]) => {
  const track: Track = {
    value: [0, 0],
    keyframes: stops.map(([seconds, x, y], i) => ({
      id: String(i),
      at: freeMoment(seconds),
      value: [x, y],
      easing: { type: 'named', name: 'ease-in-out' },
    })),
  };
  return prepareTrack(track, timeOf);
};

describe('an even pace', () => {
  it('goes the same way, as far in each second', () => {
    const even = evenlyPaced(wayOf([0, 0, 0], [1, 300, 0], [4, 300, 100]));
    expect(evaluateTrack(even, 0)).toEqual([0, 0]);
    expect(evaluateTrack(even, 4)).toEqual([300, 100]);
    expect(evaluateTrack(even, 3)).toEqual([300, 0]);
    expect(evaluateTrack(even, 1.5)).toEqual([150, 0]);
  });
  it('holds for any way: steps of a straight one are equal', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 400 }), { minLength: 2, maxLength: 8 }), (steps) => {
        let x = 0;
        const even = evenlyPaced(wayOf(...steps.map((step, i) => [i, (x += step), 0] as const)));
        const [first, last] = [steps[0]!, x];
        const end = steps.length - 1;
        for (const share of [0.1, 0.35, 0.5, 0.9])
          expect((evaluateTrack(even, end * share) as Vector)[0]).toBeCloseTo(first + (last - first) * share, 6);
      }),
    );
  });
  it('leaves what stands still as it is', () => {
    const still = wayOf([0, 5, 5], [2, 5, 5]);
    expect(evenlyPaced(still)).toBe(still);
  });
});

describe('the direction of a way', () => {
  const corner = wayOf([1, 0, 0], [2, 100, 0], [3, 100, 100], [4, 100, 100], [5, 0, 100]);
  it('is that of the stretch, also just beside a corner', () => {
    expect(travelDirection(corner, 1.5)).toBeCloseTo(0, 6);
    expect(travelDirection(corner, 1.9999)).toBeCloseTo(0, 3);
    expect(travelDirection(corner, 2.0001)).toBeCloseTo(90, 3);
    expect(Math.abs(travelDirection(corner, 4.5)!)).toBeCloseTo(180, 6);
  });
  it('is kept while it stands, and known before it sets out', () => {
    expect(travelDirection(corner, 0)).toBeCloseTo(0, 6);
    expect(travelDirection(corner, 3.5)).toBeCloseTo(90, 3);
    expect(Math.abs(travelDirection(corner, 9)!)).toBeCloseTo(180, 3);
    expect(travelDirection(wayOf([0, 3, 3], [2, 3, 3]), 1)).toBeNull();
  });
});
