import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { beatsFromTaps } from '@core/piece';
import { steadyAnalysis } from '../../../tests/helpers/documents';

const { hits } = steadyAnalysis(120, 0.25, 80);

describe('beats from taps', () => {
  it('a few uneven taps find the beats that are played, to both ends of the song', () => {
    const taps = [10.22, 10.74, 11.27, 11.78, 12.24, 12.77].map((t) => t + 0.03);
    const beats = beatsFromTaps(taps, hits, 40)!;
    for (const t of beats) expect(Math.abs((t % 0.5) - 0.25)).toBeLessThan(0.012);
    expect(beats[0]).toBeLessThan(0.5);
    expect(beats[beats.length - 1]).toBeGreaterThan(39);
  });
  it('a missed or doubled tap does no harm', () => {
    const beats = beatsFromTaps([10.25, 10.75, 10.8, 11.25, 12.25, 12.75, 13.25], hits, 40)!;
    expect(beats[41]! - beats[40]!).toBeCloseTo(0.5, 2);
  });
  it('taps without a tempo, or too few, are refused', () => {
    expect(beatsFromTaps([1, 2, 3], hits, 40)).toBeNull();
    expect(beatsFromTaps([1, 1.4, 3.1, 3.3, 5.9], hits, 40)).toBeNull();
  });
  it('without hits the taps themselves set the grid, in order, whatever their tempo', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.3, max: 1.4, noNaN: true }),
        fc.double({ min: 0, max: 20, noNaN: true }),
        (period, first) => {
          const beats = beatsFromTaps(
            Array.from({ length: 6 }, (_, i) => first + i * period),
            [],
            60,
          )!;
          for (let i = 1; i < beats.length; i++) expect(beats[i]! - beats[i - 1]!).toBeCloseTo(period, 6);
          expect(Math.min(...beats.map((t) => Math.abs(t - first)))).toBeLessThan(1e-6);
        },
      ),
    );
  });
});
