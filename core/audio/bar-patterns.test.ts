import { patternOf } from './bar-patterns';
import { gridFacts } from './grid-facts';
import type { GridFacts } from './grid-facts';
import { METERS, barOfBeat, meterOfBars } from './meter';
import { METER_WEIGHTS } from './meter-weights';
import { PARAMETER_NAMES } from './reading-parameters';
import { FEATURE_COUNT, TATUM_FEATURES } from './tatum-features';

const WEIGHTS = PARAMETER_NAMES.map((name) => METER_WEIGHTS[name] ?? 0);
const PER_BEAT = 2;
const FOUR = METERS[0]!;

/**
 * A song in which a low note and another chord begin each bar, a snare is on the third beat of fours, and every beat
 * sounds.
 */
function songOf(bars: readonly number[]): GridFacts {
  const rows = bars.flatMap((beats) =>
    Array.from({ length: beats * PER_BEAT }, (_, i) => {
      const values: Partial<Record<(typeof TATUM_FEATURES)[number], number>> =
        i === 0
          ? { low: 2.5, all: 1.5, harmony: 2, bass: 2, chord: 2, rise: 1 }
          : { snap: i === 2 * PER_BEAT ? 2 : -0.4, all: i % PER_BEAT === 0 ? 0.6 : -0.8, low: -0.5 };
      return TATUM_FEATURES.map((feature) => values[feature] ?? -0.3);
    }),
  );
  const features = Float32Array.from(rows.flat());
  const frames = Float64Array.from({ length: features.length / FEATURE_COUNT }, (_, i) => 10 + 25 * i);
  const onsets = new Float32Array(10 + 25 * frames.length);
  return gridFacts(
    { frames, perPulse: PER_BEAT, features },
    { onsets, onsetRate: 2, firstFrame: null, fullFrame: null },
  );
}

const around = (pattern: readonly number[], times: number): number[] =>
  Array.from({ length: times }, () => pattern).flat();
const found = (bars: readonly number[]) =>
  patternOf(songOf(bars), { perBeat: PER_BEAT, meter: FOUR, phase: 0 }, WEIGHTS);

describe('bars of several lengths that come round', () => {
  it.each([[[4, 4, 2]], [[4, 4, 4, 2]], [[4, 4, 4, 3]], [[3, 3, 4]], [[4, 5]]])('are heard: %j', (pattern) => {
    const reading = found(around(pattern, 8));
    expect([...(reading?.meter.bars ?? [])].sort()).toEqual([...pattern].sort());
    // Wherever the pattern is said to begin, its bars begin where the song's do.
    const begins = new Set<number>();
    let beat = 0;
    for (const beats of around(pattern, 8)) {
      begins.add(beat);
      beat += beats;
    }
    const first = reading!.phase / PER_BEAT;
    for (let k = first; k < beat; k++)
      if (barOfBeat(reading!.meter, (k - first) % reading!.meter.beats).beat === 0) expect(begins.has(k)).toBe(true);
  });

  it.each([3, 4, 5])('are not made of equal bars of %d', (beats) => {
    expect(found(around([beats], 24))).toBeNull();
  });

  it('are not heard in three, three and two: after eight beats bars of four are alike as well', () => {
    expect(found(around([3, 3, 2], 8))).toBeNull();
  });

  it('need to come round three times', () => {
    expect(found(around([4, 4, 4, 2], 2))).toBeNull();
  });

  it('say of each beat its bar and its place in it', () => {
    const meter = meterOfBars([4, 4, 2]);
    const places = Array.from({ length: meter.beats }, (_, beat) => {
      const { beat: inBar, meter: bar } = barOfBeat(meter, beat);
      return [inBar, bar.beats];
    });
    expect(places.map(([inBar]) => inBar)).toEqual([0, 1, 2, 3, 0, 1, 2, 3, 0, 1]);
    expect(places.map(([, beats]) => beats)).toEqual([4, 4, 4, 4, 4, 4, 4, 4, 2, 2]);
  });
});
