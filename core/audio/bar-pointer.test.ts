import { followBars } from './bar-pointer';
import { METERS } from './meter';
import type { Meter } from './meter';
import { PARAMETER_NAMES } from './reading-parameters';
import { FEATURE_COUNT, TATUM_FEATURES } from './tatum-features';

const LOW = TATUM_FEATURES.indexOf('low');
const ALL = TATUM_FEATURES.indexOf('all');
/** Something low on the one, something at all on every beat. */
const WEIGHTS = PARAMETER_NAMES.map((name) => (name === 'down.low' ? 9 : name === 'beat.low' ? -3 : 0));
const PER_BEAT = 2;
const [FOUR, THREE]: readonly Meter[] = METERS;

/** Bars of so many beats, one after another, with something low on every one; a null is a beat of rest. */
function gridOf(bars: readonly (number | null)[]) {
  const beats = bars.flatMap((bar): ('one' | 'beat' | 'rest')[] =>
    bar === null ? ['rest'] : Array.from({ length: bar }, (_, i) => (i === 0 ? 'one' : 'beat')),
  );
  const count = beats.length * PER_BEAT;
  const features = new Float32Array(count * FEATURE_COUNT);
  beats.forEach((beat, i) => {
    for (let k = 0; k < PER_BEAT; k++) {
      const row = (i * PER_BEAT + k) * FEATURE_COUNT;
      features[row + LOW] = beat === 'one' && k === 0 ? 2.5 : -0.4;
      features[row + ALL] = beat === 'rest' ? -1.5 : k === 0 ? 1 : -0.5;
    }
  });
  const frames = Float64Array.from({ length: count }, (_, i) => 10 + i * 25);
  return { frames, perPulse: PER_BEAT, features };
}

function barsOf(bars: readonly (number | null)[], meter: Meter, phase = 0): number[] {
  const grid = gridOf(bars);
  return followBars(grid, { perBeat: PER_BEAT, meter, phase }, 0.25, WEIGHTS).flatMap(({ position }, i) =>
    position === 0 ? [i / PER_BEAT] : [],
  );
}

/** Beats on which the bars begin. */
const begins = (bars: readonly (number | null)[]): number[] => {
  let beat = 0;
  return bars.flatMap((bar) => {
    const at = beat;
    beat += bar ?? 1;
    return bar === null ? [] : [at];
  });
};
const fours = (count: number): number[] => new Array<number>(count).fill(4);

describe('bars along the tatums', () => {
  it('begin where something says so, from begin to end', () => {
    expect(barsOf(fours(16), FOUR!)).toEqual(begins(fours(16)));
    expect(barsOf([2, ...fours(16)], FOUR!, 2 * PER_BEAT)).toEqual(begins([2, ...fours(16)]).slice(1));
  });

  it('are moved by a bar of two among fours, and go on from there', () => {
    const bars = [...fours(10), 2, ...fours(10)];
    expect(barsOf(bars, FOUR!).slice(-8)).toEqual(begins(bars).slice(-8));
  });

  it('are not moved by a single stress beside them', () => {
    const grid = gridOf(fours(16));
    grid.features[(5 * 4 + 2) * PER_BEAT * FEATURE_COUNT + LOW] = 2.5;
    const found = followBars(grid, { perBeat: PER_BEAT, meter: FOUR!, phase: 0 }, 0.25, WEIGHTS);
    found.forEach(({ position }, i) => expect(position).toBe(i % (4 * PER_BEAT)));
  });

  it('become threes where the music does', () => {
    const bars = [...fours(12), ...new Array<number>(30).fill(3)];
    const grid = gridOf(bars);
    const found = followBars(grid, { perBeat: PER_BEAT, meter: FOUR!, phase: 0 }, 0.25, WEIGHTS);
    expect(found[10]!.meter).toBe(FOUR);
    expect(found[found.length - 5]!.meter).toBe(THREE);
    expect(barsOf(bars, FOUR!).slice(-10)).toEqual(begins(bars).slice(-10));
  });

  it.each([2, 3, 5])('begin anew behind a rest of %d beats', (rest) => {
    const bars = [...fours(10), ...new Array<null>(rest).fill(null), ...fours(10)];
    expect(barsOf(bars, FOUR!).slice(-9)).toEqual(begins(bars).slice(-9));
  });

  it('say a place within its bar for every tatum', () => {
    const grid = gridOf([...fours(5), 3, ...fours(5)]);
    for (const meter of METERS) {
      const found = followBars(grid, { perBeat: PER_BEAT, meter, phase: 0 }, 0.25, WEIGHTS);
      expect(found).toHaveLength(grid.frames.length);
      for (const { position, meter: m } of found) expect(position).toBeLessThan(m.beats * PER_BEAT);
    }
  });
});
