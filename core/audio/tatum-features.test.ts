import fc from 'fast-check';
import { PROFILE_RATE, PROFILE_SIZE } from './pitch-profile';
import { FRAME_RATE } from './spectral-flux';
import type { OnsetBands } from './spectral-flux';
import {
  FEATURE_COUNT,
  TATUM_FEATURES,
  meanPower,
  powerRise,
  profileChange,
  runningSums,
  tatumGrid,
} from './tatum-features';

const FRAMES = 1200;

function bandsOf(curves: Partial<Omit<OnsetBands, 'frameCount'>> = {}): OnsetBands {
  const empty = () => new Float32Array(FRAMES);
  return {
    ...{ low: empty(), mid: empty(), snap: empty(), high: empty(), all: empty(), power: empty(), bass: empty() },
    frameCount: FRAMES,
    ...curves,
  };
}

/** Profiles in which one pitch class sounds up to a second and another from there on. */
function twoNotes(change: number): Float32Array {
  const rows = Math.floor((FRAMES / FRAME_RATE) * PROFILE_RATE);
  const out = new Float32Array(rows * PROFILE_SIZE);
  for (let row = 0; row < rows; row++) out[row * PROFILE_SIZE + (row / PROFILE_RATE < change ? 0 : 7)] = 1;
  return out;
}

const everyFifty = Int32Array.from({ length: 24 }, (_, i) => 10 + 50 * i);
const column = (features: Float32Array, feature: (typeof TATUM_FEATURES)[number]): number[] => {
  const at = TATUM_FEATURES.indexOf(feature);
  return [...features].filter((_, i) => i % FEATURE_COUNT === at);
};

describe('what is looked at on the tatums', () => {
  it('lies on even parts of the pulse, which itself is among them', () => {
    for (const perPulse of [3, 4]) {
      const { frames } = tatumGrid(everyFifty, perPulse, bandsOf(), runningSums(bandsOf(), twoNotes(5)));
      expect(frames).toHaveLength(23 * perPulse);
      frames.forEach((frame, i) => expect(frame).toBeCloseTo(10 + (50 / perPulse) * i, 9));
    }
  });

  it('has mean 0, deviation 1 and nothing beyond 3 in every column (the law)', () => {
    const curve = fc.array(fc.float({ min: 0, max: 4, noNaN: true }), { minLength: FRAMES, maxLength: FRAMES });
    fc.assert(
      fc.property(curve, (values) => {
        const bands = bandsOf({ low: Float32Array.from(values) });
        const low = column(tatumGrid(everyFifty, 4, bands, runningSums(bands, twoNotes(5))).features, 'low');
        const mean = low.reduce((a, b) => a + b, 0) / low.length;
        const deviation = Math.sqrt(low.reduce((a, b) => a + b * b, 0) / low.length);
        for (const v of low) expect(Math.abs(v)).toBeLessThanOrEqual(3);
        expect(Math.abs(mean)).toBeLessThan(0.2);
        expect(deviation === 0 || Math.abs(deviation - 1) < 0.2).toBe(true);
      }),
      { numRuns: 25 },
    );
  });

  it('is strongest on the tatum nearest to a hit, though that is a little off', () => {
    const snap = new Float32Array(FRAMES);
    for (const pulse of everyFifty) snap[pulse + 27] = 3;
    const bands = bandsOf({ snap });
    const values = column(tatumGrid(everyFifty, 4, bands, runningSums(bands, twoNotes(5))).features, 'snap');
    values.forEach((v, i) => expect(v > 0).toBe(i % 4 === 2));
  });

  it('changes harmony where the note changes and nowhere else', () => {
    const sums = runningSums(bandsOf(), twoNotes(5));
    const at = 5 * FRAME_RATE;
    expect(profileChange(sums, at, 50, 0, 12)).toBeGreaterThan(0.8);
    expect(profileChange(sums, at - 200, 50, 0, 12)).toBeCloseTo(0, 6);
    expect(profileChange(sums, at, 50, 12, 24)).toBe(0);
  });

  it('means the power of any stretch as a loop would (the law)', () => {
    const power = Float32Array.from({ length: FRAMES }, (_, i) => 1 + Math.sin(i) ** 2);
    const sums = runningSums(bandsOf({ power }), twoNotes(5));
    fc.assert(
      fc.property(fc.nat({ max: FRAMES }), fc.nat({ max: FRAMES }), (a, b) => {
        const stretch = power.slice(a, b);
        const mean = stretch.length > 0 ? stretch.reduce((x, y) => x + y, 0) / stretch.length : 0;
        expect(meanPower(sums, a, b)).toBeCloseTo(mean, 3);
      }),
    );
    expect(meanPower(sums, -100, -5)).toBe(0);
    expect(meanPower(sums, FRAMES + 5, FRAMES + 50)).toBe(0);
  });

  it('rises by the logarithm of the power, and stays calm in silence', () => {
    const power = new Float32Array(FRAMES).fill(0.01).fill(0.1, 600);
    const sums = runningSums(bandsOf({ power }), twoNotes(5));
    expect(powerRise(sums, 600, 50)).toBeCloseTo(Math.log(10), 3);
    expect(powerRise(sums, 300, 50)).toBeCloseTo(0, 6);
    expect(powerRise(runningSums(bandsOf(), twoNotes(5)), 300, 50)).toBe(0);
  });
});
