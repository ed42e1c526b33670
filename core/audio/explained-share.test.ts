import fc from 'fast-check';
import { explainedShare } from './explained-share';

const FRAMES = 3000;
/** Onsets every `step` frames, each of one strength. */
const every = (step: number, strength = 1, from = 0): Float32Array =>
  Float32Array.from({ length: FRAMES }, (_, i) => (i > 0 && (i - from) % step === 0 ? strength : 0));
const grid = (step: number, from = 0): Float64Array =>
  Float64Array.from({ length: Math.floor((FRAMES - from) / step) }, (_, i) => from + i * step);

describe('how much of the onsets lies on a grid', () => {
  test('all of them on their own grid, none on one that lies between', () => {
    expect(explainedShare(grid(24), every(24))).toBeCloseTo(1, 2);
    expect(explainedShare(grid(24, 12), every(24))).toBeLessThan(-0.2);
  });

  test('a third of the eighths lies on a grid of three quarters of a beat, less what chance would put there', () => {
    const chance = 5 / 36;
    expect(explainedShare(grid(36), every(24))).toBeCloseTo((1 / 3 - chance) / (1 - chance), 2);
  });

  test('strong onsets count more, but not by all that they are stronger', () => {
    const onsets = every(24, 4);
    every(24, 1, 12).forEach((v, i) => (onsets[i] = Math.max(onsets[i]!, v)));
    const [strong, weak] = [explainedShare(grid(24), onsets), explainedShare(grid(24, 12), onsets)];
    expect(strong).toBeGreaterThan(weak);
    expect(strong).toBeGreaterThan(0.5);
    expect(weak).toBeGreaterThan(0.1);
  });

  test('silence explains nothing', () => {
    expect(explainedShare(grid(24), new Float32Array(FRAMES))).toBe(0);
    expect(explainedShare(new Float64Array(0), new Float32Array(0))).toBe(0);
  });

  test('it lies between -1 and 1, whatever the grid and the onsets', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 20, noNaN: true }), { maxLength: 200 }),
        fc.array(fc.double({ min: 0, max: 300, noNaN: true }), { maxLength: 60 }),
        (onsets, frames) => {
          const share = explainedShare(Float64Array.from(frames).sort(), Float32Array.from(onsets));
          return share >= -1 && share <= 1;
        },
      ),
    );
  });
});
