import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { analyseSong } from '@core/audio';
import { madeCases } from '../../bench/made/cases';
import { toMix } from '../../bench/made/sound';
import { toAnalysis } from '../../bench/made/to-analysis';
import { foundShare } from '../../tests/helpers/beat-share';
import { steadyPulse } from './steady-pulse';

const FRAMES = 3000;
/** Onsets on every `interval` frames from `phase` on, from one frame to another. */
function onsetsOn(
  interval: number,
  ...stretches: readonly { phase: number; from: number; to: number }[]
): Float32Array {
  const onsets = new Float32Array(FRAMES);
  for (const { phase, from, to } of stretches)
    for (let t = phase; t < to; t += interval) if (t >= from) onsets[Math.round(t)] = 3;
  return onsets;
}
/** The pulses that follow them. */
const following = (onsets: Float32Array): Int32Array =>
  Int32Array.from([...onsets.keys()].filter((frame) => onsets[frame]! > 0));
const phases = (pulses: ArrayLike<number>, interval: number): number[] =>
  Array.from(pulses, (frame) => (frame / interval) % 1);

describe('a steady pulse', () => {
  it('is on one grid where it leaps by half an interval and the music goes on, the grid of the longer stretch', () => {
    const onsets = onsetsOn(48, { phase: 24, from: 0, to: 900 }, { phase: 0, from: 912, to: FRAMES });
    const steady = steadyPulse(following(onsets), onsets);
    expect(steady.length).toBeGreaterThanOrEqual(Math.floor(FRAMES / 48));
    for (const phase of phases(steady, 48)) expect(Math.min(phase, 1 - phase)).toBeLessThan(0.03);
  });
  it('leaps where the music rests', () => {
    const onsets = onsetsOn(48, { phase: 24, from: 0, to: 900 }, { phase: 0, from: 1000, to: FRAMES });
    const pulses = following(onsets);
    expect(steadyPulse(pulses, onsets)).toBe(pulses);
  });
  it('stays as it is where the tempo changes, and where it is even from begin to end', () => {
    const jump = onsetsOn(48, { phase: 0, from: 0, to: 1400 });
    for (let t = 1420; t < FRAMES; t += 40) jump[t] = 3;
    const even = onsetsOn(47.3, { phase: 11, from: 0, to: FRAMES });
    for (const onsets of [jump, even]) {
      const pulses = following(onsets);
      expect(steadyPulse(pulses, onsets)).toBe(pulses);
    }
  });
  it('stays as it is where it wanders, and of any pulses is ascending and evenly spaced if it was changed', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 38, max: 58 }), { maxLength: 80 }),
        fc.integer({ min: 0, max: 1000 }),
        (gaps, first) => {
          let t = first;
          const pulses = Int32Array.from([first, ...gaps.map((gap) => (t += gap))]);
          const onsets = new Float32Array(t + 60);
          for (const frame of pulses) onsets[frame] = 2;
          const steady = steadyPulse(pulses, onsets);
          if (steady === pulses) return;
          const steps = Array.from(steady)
            .slice(1, -1)
            .map((frame, i) => frame - steady[i]!);
          for (const step of steps) expect(step).toBeCloseTo(steps[0]!, 6);
          expect(steps[0]).toBeGreaterThan(0);
        },
      ),
    );
    const wandering = Int32Array.from({ length: 60 }, (_, i) => Math.round(48 * i + 20 * Math.sin(i / 4)));
    const onsets = new Float32Array(FRAMES);
    for (const frame of wandering) onsets[frame] = 3;
    expect(steadyPulse(wandering, onsets)).toBe(wandering);
  });
});

describe('a song that misleads at first', () => {
  it.each([
    'openHat alone for 12 s, disco at 120',
    'off the beat for 30 s, ska at 144',
    'rest of 2.4 beats, motown at 108',
  ])('has its beats where they are all through: %s', (name) => {
    const song = madeCases().find((made) => made.name === name)!; // one of the list
    const found = analyseSong(toAnalysis(toMix(song)));
    expect(
      foundShare(
        song.beats.filter((t) => t > 5),
        found.beats,
      ),
    ).toBeGreaterThan(0.95);
    expect(found.beats.length / song.beats.length).toBeLessThan(1.1);
  });
});
