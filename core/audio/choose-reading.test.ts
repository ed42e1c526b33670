import { mostLikely } from './choose-reading';
import type { ScoredReading } from './choose-reading';
import type { GridFacts } from './grid-facts';
import { METERS } from './meter';
import { fullStart } from './song-features';

/** A pulse of sixteenths at 120, followed from a frame on: only what the choice looks at. */
const pulse = (from: number): GridFacts =>
  ({
    grid: { frames: Float64Array.from({ length: 480 }, (_, i) => from + i * 12.5), perPulse: 4 },
    tatum: 0.125,
  }) as unknown as GridFacts;

function reading(facts: GridFacts, phase: number, score: number): ScoredReading {
  const perBeat = 4;
  return {
    ...{ facts, score, reading: { perBeat, meter: METERS[0]!, phase } },
    beats: facts.grid.frames.filter((_, i) => i % perBeat === phase % perBeat),
  };
}

describe('the choice between readings', () => {
  test('two pulses that come to the same beats speak for them together', () => {
    const [one, other] = [pulse(0), pulse(3)];
    const chosen = mostLikely([reading(one, 2, 10.2), reading(one, 0, 10), reading(other, 0, 9.9)]);
    expect(chosen?.reading.phase).toBe(0);
    expect(chosen?.facts).toBe(one);
  });

  test('and the better of them says where the bars begin', () => {
    const [one, other] = [pulse(0), pulse(3)];
    const readings = [reading(one, 8, 10), reading(one, 4, 9.9), reading(other, 0, 10.1)];
    expect(mostLikely(readings)?.facts).toBe(other);
  });

  test('pulses that lie half a beat apart do not', () => {
    const [one, other] = [pulse(0), pulse(25)];
    expect(mostLikely([reading(one, 0, 10), reading(other, 0, 9.9)])?.facts).toBe(one);
  });

  test('of nothing there is none', () => {
    expect(mostLikely([])).toBeNull();
  });
});

/** Running sums of a power that is told frame by frame. */
function sumsOf(length: number, power: (frame: number) => number) {
  const sums = new Float64Array(length + 1);
  for (let i = 0; i < length; i++) sums[i + 1] = sums[i]! + power(i);
  return { power: sums };
}

describe('where a song is first as loud as usual', () => {
  const ONSET = 412;
  const onsets = Float32Array.from({ length: 2000 }, (_, i) => (i === 8 ? 2 : i === ONSET ? 5 : i % 50 === 0 ? 1 : 0));

  test('the onset with which everyone comes in, behind a quiet intro', () => {
    const sums = sumsOf(2000, (i) => (i < ONSET ? 0.001 : 0.1));
    expect(fullStart(sums, onsets, 8)).toBe(ONSET);
  });

  test('the first note where it is loud from the start', () => {
    const loud = sumsOf(2000, () => 0.1);
    expect(fullStart(loud, onsets, 8)).toBe(8);
    expect(fullStart(loud, onsets, null)).toBeNull();
  });

  test('nowhere in a sound too short to have a loudness', () => {
    expect(
      fullStart(
        sumsOf(10, () => 0.1),
        new Float32Array(10),
        0,
      ),
    ).toBeNull();
  });
});
