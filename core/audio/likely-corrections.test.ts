import { describe, expect, it } from '@jest/globals';
import { likelyCorrections } from '@core/audio';
import type { Hit } from '@core/audio';

/** Four bars of a groove: where its drums are, in beats of the true tempo. */
const BARS = 8;
const groove = (bpm: number, kicks: readonly number[], snares: readonly number[], hats: readonly number[]): Hit[] =>
  Array.from({ length: BARS }, (_, bar) => bar * 4)
    .flatMap((first) => [
      ...kicks.map((b): Hit => ({ time: ((first + b) * 60) / bpm, class: 'low', strength: 1 })),
      ...snares.map((b): Hit => ({ time: ((first + b) * 60) / bpm, class: 'mid', strength: 0.9 })),
      ...hats.map((b): Hit => ({ time: ((first + b) * 60) / bpm, class: 'high', strength: 0.8 })),
    ])
    .sort((a, b) => a.time - b.time);
const EIGHTHS = [0, 0.5, 1, 1.5, 2, 2.5, 3, 3.5];
const beatsAt = (bpm: number, seconds: number, first = 0): number[] =>
  Array.from({ length: Math.floor(((seconds - first) * bpm) / 60) }, (_, i) => first + (i * 60) / bpm);
const LENGTH = (bpm: number): number => (BARS * 4 * 60) / bpm;

describe('corrections that are offered', () => {
  it.each([136, 150, 174, 187])('twice the beats for a backbeat of %d BPM that was heard at half of it', (bpm) => {
    const hits = groove(bpm, [0, 2], [1, 3], EIGHTHS);
    expect(likelyCorrections({ beats: beatsAt(bpm / 2, LENGTH(bpm)), hits, bpm: bpm / 2 })).toEqual(['double-tempo']);
    expect(likelyCorrections({ beats: beatsAt(bpm, LENGTH(bpm)), hits, bpm })).toEqual([]);
  });
  it('none for a slow song with its backbeat on the beats, whatever the hats do', () => {
    const hits = groove(74, [0, 2], [1, 3], EIGHTHS);
    expect(likelyCorrections({ beats: beatsAt(74, LENGTH(74)), hits, bpm: 74 })).toEqual([]);
  });
  it('half a beat for beats that were counted on the hats', () => {
    const hits = groove(127, [0, 1, 2, 3], [], [0.5, 1.5, 2.5, 3.5]);
    const onHats = beatsAt(127, LENGTH(127), 30 / 127);
    expect(likelyCorrections({ beats: onHats, hits, bpm: 127 })).toEqual(['half-beat']);
    expect(likelyCorrections({ beats: beatsAt(127, LENGTH(127)), hits, bpm: 127 })).toEqual([]);
  });
  it('none without drums, and none for a few beats', () => {
    const tonal = groove(80, [0, 1, 2, 3], [], []).map((hit): Hit => ({ ...hit, class: 'tonal' }));
    expect(likelyCorrections({ beats: beatsAt(40, LENGTH(80)), hits: tonal, bpm: 40 })).toEqual([]);
    expect(likelyCorrections({ beats: [0, 1], hits: [], bpm: 60 })).toEqual([]);
  });
});
