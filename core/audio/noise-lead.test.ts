import { describe, expect, it } from '@jest/globals';
import { ANALYSIS_RATE, analyseSong } from '@core/audio';
import { createRandom } from '../../demo/synth';
import { noiseLead } from './noise-lead';

const LEAD = 8;

/** Eight seconds of something, then a struck song of twelve. */
function songAfter(lead: (i: number) => number): Float32Array {
  const samples = new Float32Array((LEAD + 12) * ANALYSIS_RATE);
  for (let i = 0; i < LEAD * ANALYSIS_RATE; i++) samples[i] = lead(i);
  for (let beat = 0; beat < 24; beat++) {
    const first = Math.round((LEAD + beat * 0.5) * ANALYSIS_RATE);
    const hertz = beat % 2 === 0 ? 110 : 1400;
    for (let i = 0; i < 3000 && first + i < samples.length; i++)
      samples[first + i]! += 0.6 * Math.cos((2 * Math.PI * hertz * i) / ANALYSIS_RATE) * Math.exp(-i / 700);
  }
  return samples;
}

describe('a song that begins with hiss', () => {
  it.each([0.003, 0.02, 0.1])('has no sure beats in it, and sure ones after it (hiss of %d)', (level) => {
    const random = createRandom(3);
    const { beats, confidence } = analyseSong(songAfter(() => level * (random() * 2 - 1)));
    const within = confidence.filter((_, i) => beats[i]! < LEAD - 1);
    const after = confidence.filter((_, i) => beats[i]! > LEAD);
    expect(Math.max(0, ...within)).toBeLessThanOrEqual(0.2);
    expect(Math.max(...after)).toBeGreaterThan(0.8);
  });
  it('is told from a held chord and from drums', () => {
    const chord = (i: number) =>
      0.1 * (Math.sin((2 * Math.PI * 220 * i) / ANALYSIS_RATE) + Math.sin((2 * Math.PI * 277 * i) / ANALYSIS_RATE));
    expect(noiseLead(songAfter(chord))).toBe(0);
    const random = createRandom(9);
    const hats = (i: number) => 0.4 * (random() * 2 - 1) * Math.exp(-(i % (ANALYSIS_RATE / 4)) / 400);
    expect(noiseLead(songAfter(hats))).toBe(0);
  });
});
