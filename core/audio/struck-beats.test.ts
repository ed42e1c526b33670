import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { ANALYSIS_RATE, analyseSong } from '@core/audio';
import { onAttacks } from './struck-beats';
import { createRandom } from '../../demo/synth';

const LENGTH = 2 * ANALYSIS_RATE;

/** A struck sound from a second on: a partial that dies away, as loud as `gain`. */
function struck(samples: Float32Array, at: number, hertz: number, gain: number): void {
  const first = Math.round(at * ANALYSIS_RATE);
  for (let i = 0; i < 3000 && first + i < samples.length; i++)
    samples[first + i]! += gain * Math.cos((2 * Math.PI * hertz * i) / ANALYSIS_RATE) * Math.exp(-i / 700);
}

describe('times on attacks', () => {
  it('go to where a sound is struck, over a bass that goes on', () => {
    fc.assert(
      fc.property(fc.double({ min: -0.01, max: 0.01, noNaN: true }), fc.constantFrom(180, 900, 2500), (off, hertz) => {
        const samples = Float32Array.from(
          { length: LENGTH },
          (_, i) => 0.1 * Math.sin((2 * Math.PI * 55 * i) / ANALYSIS_RATE),
        );
        struck(samples, 1, hertz, 0.7);
        expect(Math.abs(onAttacks([1 + off], samples)[0]! - 1)).toBeLessThan(0.001);
      }),
      { numRuns: 60 },
    );
  });
  it('stay where nothing is struck: silence, a held note, one that swells, noise', () => {
    const random = createRandom(5);
    const held = (i: number) => 0.3 * Math.sin((2 * Math.PI * 220 * i) / ANALYSIS_RATE);
    for (const sound of [() => 0, held, (i: number) => (held(i) * i) / LENGTH, () => random() * 0.2 - 0.1]) {
      const samples = Float32Array.from({ length: LENGTH }, (_, i) => sound(i));
      expect(onAttacks([0.5, 1, 1.5], samples)).toEqual([0.5, 1, 1.5]);
    }
  });
  it('take no other note for theirs: what is struck 20 ms away is left alone', () => {
    const samples = new Float32Array(LENGTH);
    struck(samples, 1.02, 900, 0.7);
    expect(onAttacks([1], samples)).toEqual([1]);
  });
});

it('beats and hits of a struck song lie on their attacks, within a millisecond', () => {
  const samples = new Float32Array(14 * ANALYSIS_RATE);
  const truth = Array.from({ length: 26 }, (_, i) => 0.5 + i * 0.5);
  truth.forEach((at, i) => struck(samples, at, i % 4 === 0 ? 120 : 1500, 0.6));
  const { beats, hits } = analyseSong(samples);
  const off = (time: number) => Math.min(...truth.map((at) => Math.abs(time - at)));
  expect(beats.length).toBeGreaterThan(10);
  expect(hits.length).toBeGreaterThan(20);
  const onTruth = beats.filter((time) => time > 0.4 && time < 13.2);
  expect(Math.max(...onTruth.map(off))).toBeLessThan(0.001);
  expect(Math.max(...hits.map(({ time }) => off(time)))).toBeLessThan(0.001);
});
