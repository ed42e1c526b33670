import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { createMusic, fitSong, musicSpan, rearranged, uncut } from '@core/piece';
import type { Music } from '@core/piece';
import { steadyAnalysis } from '../../../tests/helpers/documents';

const analysis = steadyAnalysis(120, 0, 80);
const DURATION = analysis.duration;
const base = createMusic({ id: 'song', hash: 'a'.repeat(64), kind: 'audio', name: 'song.wav', duration: DURATION });
const BAR = 2;

/** Where the music lies in the piece once a song is fitted. */
function fitted(music: Music, seconds: number): { from: number; to: number } {
  const fit = fitSong(music, analysis, seconds);
  if (fit.kind !== 'fits') throw new Error(fit.kind);
  const span = musicSpan(rearranged(uncut(music), DURATION, fit.stretches)!, DURATION);
  expect(span.to).toBeCloseTo(fit.end, 6);
  return span;
}

describe('fitting a song to a length', () => {
  it('counts only what is heard: what lies before the piece is no part of the length', () => {
    fc.assert(
      fc.property(fc.double({ min: -20, max: 0, noNaN: true }), fc.integer({ min: 8, max: 30 }), (start, seconds) => {
        const span = fitted({ ...base, start }, seconds);
        expect(span.from).toBeCloseTo(start, 6);
        expect(Math.abs(span.to - seconds)).toBeLessThanOrEqual(BAR / 2 + 0.05);
      }),
      { numRuns: 60 },
    );
  });
  it('takes what was cut before for the whole song again', () => {
    const span = fitted({ ...base, trimStart: 5, trimEnd: 20 }, 12);
    expect(Math.abs(span.to - 12)).toBeLessThanOrEqual(BAR / 2);
  });
  it('says what the bars can make, and when there are too few', () => {
    expect(fitSong(base, analysis, 4000)).toMatchObject({ kind: 'not-that-long' });
    expect(fitSong({ ...base, start: -39 }, analysis, 12)).toEqual({ kind: 'too-few-bars' });
  });
});
