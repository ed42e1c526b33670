import fc from 'fast-check';
import { gridFacts } from './grid-facts';
import type { GridFacts } from './grid-facts';
import { METERS, PLACES, placeOf } from './meter';
import { PARAMETER_NAMES, readingParameters, readingsOf, scorePlaces, scoreReading } from './reading-parameters';
import { FRAME_RATE } from './spectral-flux';
import { FEATURE_COUNT, TATUM_FEATURES } from './tatum-features';

const TATUMS = 96;

interface Options {
  readonly interval?: number;
  readonly firstFrame?: number | null;
  readonly perPulse?: number;
  /** Of a tatum and a feature. */
  readonly value: (tatum: number, feature: number) => number;
}

/** A grid of even tatums. */
function factsOf({ interval = 12.5, firstFrame = null, perPulse = 4, value }: Options): GridFacts {
  const frames = Float64Array.from({ length: TATUMS }, (_, i) => 20 + i * interval);
  const features = Float32Array.from({ length: TATUMS * FEATURE_COUNT }, (_, i) =>
    value(Math.floor(i / FEATURE_COUNT), i % FEATURE_COUNT),
  );
  const onsets = new Float32Array(Math.ceil(20 + TATUMS * interval));
  return gridFacts({ frames, perPulse, features }, { onsets, onsetRate: 4, firstFrame, fullFrame: null });
}

const parameter = (parameters: Float64Array, name: string): number => parameters[PARAMETER_NAMES.indexOf(name)]!;
const LOW = TATUM_FEATURES.indexOf('low');
const FOUR = METERS[0]!;

describe('the parameters of a reading', () => {
  it('are the means over the tatums of each place (the law)', () => {
    const values = fc.array(fc.float({ min: -3, max: 3, noNaN: true }), { minLength: TATUMS, maxLength: TATUMS });
    fc.assert(
      fc.property(values, fc.nat(), (row, choice) => {
        const facts = factsOf({ value: (tatum, feature) => (feature === LOW ? row[tatum]! : 0) });
        const readings = readingsOf(facts);
        const reading = readings[choice % readings.length]!;
        const bar = reading.perBeat * reading.meter.beats;
        const parameters = readingParameters(facts, reading);
        PLACES.forEach((name, place) => {
          const there = row.filter(
            (_, i) => placeOf((i - reading.phase + bar) % bar, reading.perBeat, reading.meter) === place,
          );
          const mean = there.length > 0 ? there.reduce((a, b) => a + b, 0) / there.length : 0;
          expect(parameter(parameters, `${name}.low`)).toBeCloseTo(mean, 5);
        });
      }),
      { numRuns: 60 },
    );
  });

  it('say that a song is alike after its own period and after no other', () => {
    const facts = factsOf({ value: (tatum) => (tatum % 16 === 0 ? 3 : -0.2) });
    const parameters = readingParameters(facts, { perBeat: 4, meter: FOUR, phase: 0 });
    expect(parameter(parameters, 'barLikeness')).toBeCloseTo(9 / 16 + (15 / 16) * 0.04, 5);
    expect(parameter(parameters, 'halfBarLikeness')).toBeLessThan(0);
    expect(parameter(parameters, 'low every bar')).toBeGreaterThan(parameter(parameters, 'low every two'));
  });

  it('say whether the song starts on a downbeat, on a beat or on neither', () => {
    const starts = (tatum: number): [number, number] => {
      const facts = factsOf({ firstFrame: 20 + tatum * 12.5, value: () => 0 });
      const parameters = readingParameters(facts, { perBeat: 4, meter: FOUR, phase: 4 });
      return [parameter(parameters, 'startsOnDown'), parameter(parameters, 'startsOnBeat')];
    };
    expect(starts(4)).toEqual([1, 1]);
    expect(starts(20)).toEqual([1, 1]);
    expect(starts(8)).toEqual([0, 1]);
    expect(starts(6)).toEqual([0, 0]);
    expect(starts(4.5)).toEqual([1, 1]);
  });

  it('have their own tempo, and count none that nobody beats', () => {
    const facts = factsOf({ value: () => 0 });
    // Sixteenths at 120: 12.5 frames are 0.125 s.
    const seconds = 12.5 / FRAME_RATE;
    for (const { perBeat } of readingsOf(facts)) {
      expect(60 / (seconds * perBeat)).toBeGreaterThanOrEqual(40);
      expect(60 / (seconds * perBeat)).toBeLessThanOrEqual(240);
    }
    const plain = readingParameters(facts, { perBeat: 4, meter: FOUR, phase: 0 });
    const double = readingParameters(facts, { perBeat: 2, meter: FOUR, phase: 0 });
    expect(parameter(double, 'tempo') - parameter(plain, 'tempo')).toBeCloseTo(1, 9);
    expect(parameter(plain, 'density') - parameter(double, 'density')).toBeCloseTo(1, 9);
  });

  it('are read once each: every phase of every bar, of thirds only where the pulse is in thirds', () => {
    for (const perPulse of [4, 3]) {
      const readings = readingsOf(factsOf({ perPulse, value: () => 0 }));
      const keys = readings.map((r) => `${r.perBeat}/${r.meter.groups.join('+')}/${r.phase}`);
      expect(new Set(keys).size).toBe(keys.length);
      for (const { perBeat, meter, phase } of readings) expect(phase).toBeLessThan(perBeat * meter.beats);
      if (perPulse === 3) expect(readings.some(({ perBeat }) => perBeat === 4)).toBe(false);
    }
  });

  it('count for the whole score and for what sounds on the places alone', () => {
    const facts = factsOf({ value: (tatum) => (tatum % 4 === 0 ? 1 : 0) });
    const parameters = readingParameters(facts, { perBeat: 4, meter: FOUR, phase: 0 });
    const weights = PARAMETER_NAMES.map((name) => (name === 'down.low' ? 2 : name === 'tempo' ? 10 : 0));
    expect(scorePlaces(parameters, weights)).toBeCloseTo(2, 9);
    expect(scoreReading(parameters, weights)).toBeCloseTo(2 + 10 * parameter(parameters, 'tempo'), 9);
  });
});
