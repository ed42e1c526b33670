import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { FRAME_RATES, formatClock, parseTypedTime, secondsToTimecode } from '@core/time';
import type { BeatGrid } from '@core/time';

/** 120 BPM in four from the beginning on. */
const grid: BeatGrid = {
  beats: Array.from({ length: 65 }, (_, i) => i * 0.5),
  origin: 0,
  confidence: Array.from({ length: 65 }, () => 1),
  meters: [{ fromBeat: 0, beatsPerBar: 4 }],
};
const read = (text: string, now = 10) => parseTypedTime(text, { now, rate: FRAME_RATES['30'], grid });

describe('a typed time', () => {
  it.each([
    ['12.5', 12.5],
    ['12,5 s', 12.5],
    ['1:02.5', 62.5],
    ['1:00:02.5', 3602.5],
    ['00:00:12:15', 12.5],
    ['375f', 12.5],
    ['8 beats', 4],
    ['4 bars', 8],
    ['bar 3', 4],
    ['bar 3.2', 4.5],
    ['Bar 3 beat 2.5', 4.75],
    ['+2', 12],
    ['-10f', 10 - 1 / 3],
    ['−1 bar', 8],
    ['+3b', 11.5],
    ['+0:30', 40],
    ['2 min', 120],
  ] as const)('%s', (text, seconds) => expect(read(text)).toBeCloseTo(seconds, 9));
  it.each(['', 'soon', '1:75', 'bar', '3.1.2', '00:00:12:45', '+', '1e3', 'bar -2'])('“%s” is none', (text) =>
    expect(read(text)).toBeNull(),
  );
  it('reads back what is written', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 107_000 }), (frame) => {
        const seconds = frame / 30;
        expect(read(secondsToTimecode(seconds, FRAME_RATES['30']))).toBeCloseTo(seconds, 6);
        expect(Math.abs(read(formatClock(seconds))! - seconds)).toBeLessThan(0.001);
      }),
    );
  });
});
