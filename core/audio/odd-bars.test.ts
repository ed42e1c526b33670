import { arrange, styleSong } from '../../bench/made/arrange';
import type { Part } from '../../bench/made/notes';
import { toMix } from '../../bench/made/sound';
import { styleNamed } from '../../bench/made/styles';
import { toAnalysis } from '../../bench/made/to-analysis';
import { analyseSong } from './analyse-song';
import { foundShare } from '../../tests/helpers/beat-share';
import { findHits } from './hits';
import { onsetBands } from './spectral-flux';

const madeOf = (name: string, bpm: number) => {
  const song = styleSong(styleNamed(name), bpm, 4);
  return { song, samples: toAnalysis(toMix(song)) };
};

describe('bars of five and seven', () => {
  it.each([
    ['five as three and two', 126, 5],
    ['five as two and three', 138, 5],
    ['seven as two two three', 150, 7],
    ['seven as three two two', 160, 7],
  ])('hears %s at %i', (name, bpm, beatsPerBar) => {
    const { song, samples } = madeOf(name, bpm);
    const found = analyseSong(samples);
    expect(found.beatsPerBar).toBe(beatsPerBar);
    expect(foundShare(song.beats, found.beats)).toBeGreaterThan(0.95);
    expect(foundShare(song.downbeats, found.downbeats)).toBeGreaterThan(0.9);
  });
});

const BARS = 28;
/** A song whose bars have these lengths in turn. */
function patternSong(name: string, bpm: number, pattern: readonly number[]) {
  const bars = Array.from({ length: BARS }, (_, i) => ({
    beatsPerBar: pattern[i % pattern.length]!,
    silent: new Set<Part>(),
  }));
  return arrange({ name, style: styleNamed(name), seed: 7, lead: 0.5, bars, bpmAt: () => bpm, jitter: 0.003 });
}

describe('bars of several lengths that come round', () => {
  it.each([
    ['rock', 120, [4, 4, 4, 2]],
    ['rock in three', 126, [3, 3, 3, 2]],
    ['motown', 112, [4, 4, 4, 5]],
  ])('hears %s at %i in bars of %j', (name, bpm, pattern) => {
    const song = patternSong(name, bpm, pattern);
    const found = analyseSong(toAnalysis(toMix(song)));
    expect(foundShare(song.beats, found.beats)).toBeGreaterThan(0.95);
    expect(foundShare(song.downbeats, found.downbeats)).toBeGreaterThan(0.9);
    expect(foundShare(found.downbeats, song.downbeats)).toBeGreaterThan(0.9);
  });

  it('leaves equal bars equal', () => {
    const song = patternSong('rock', 120, [4]);
    const found = analyseSong(toAnalysis(toMix(song)));
    expect(foundShare(found.downbeats, song.downbeats)).toBeGreaterThan(0.95);
  });
});

describe('hits', () => {
  it('are dated by the begin of their attack, rather a hair early than late', () => {
    const { song, samples } = madeOf('rock', 112);
    const off = findHits(onsetBands(samples)).flatMap(({ time }) => {
      const near = song.notes.map((n) => time - n.at).filter((d) => Math.abs(d) < 0.03);
      return near.length > 0 ? [near.reduce((a, b) => (Math.abs(a) < Math.abs(b) ? a : b))] : [];
    });
    off.sort((a, b) => a - b);
    expect(off.length).toBeGreaterThan(100);
    expect(Math.abs(off[off.length >> 1]!)).toBeLessThan(0.003);
  });
});
