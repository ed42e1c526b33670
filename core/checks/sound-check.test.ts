import { describe, expect, it } from '@jest/globals';
import type { SongAnalysis } from '@core/audio';
import { createLoudnessMeter } from '@core/audio';
import { runThrough } from '@core/checks';
import { applyEdits, createMusic, mixSong, resolveTimes } from '@core/piece';
import type { Music, Piece } from '@core/piece';
import { freeMoment } from '@core/time';
import { SONG_HASH, newPiece, steadyAnalysis } from '../../tests/helpers/documents';
import { createRandom } from '../../tests/helpers/random';
import { heardLevel } from './sound-check';

const RATE = 16_000;
const SECONDS = 8;
const PEAK_RATE = 100;

/** Noise that is quiet for the first half and four times as loud in the second. */
function song(gain: number): Float32Array {
  const random = createRandom(5);
  return Float32Array.from({ length: RATE * SECONDS }, (_, i) => {
    const loud = i < (RATE * SECONDS) / 2 ? 0.2 : 0.8;
    return gain * loud * (2 * random.unit() - 1);
  });
}
function measured(channels: readonly Float32Array[]): { integrated: number; shortTerm: number; truePeak: number } {
  const meter = createLoudnessMeter(RATE, 2);
  const both = new Float32Array(channels[0]!.length * 2);
  for (let i = 0; i < channels[0]!.length; i++) [both[i * 2], both[i * 2 + 1]] = [channels[0]![i]!, channels[1]![i]!];
  meter.push(both);
  return meter.result();
}
function analysisOf(samples: Float32Array): SongAnalysis {
  const size = RATE / PEAK_RATE;
  const peaks: number[] = [];
  const rms: number[] = [];
  for (let from = 0; from < samples.length; from += size) {
    const some = samples.subarray(from, from + size);
    peaks.push(
      Math.round(
        255 *
          Math.min(
            1,
            some.reduce((most, x) => Math.max(most, Math.abs(x)), 0),
          ),
      ),
    );
    rms.push(255 * Math.sqrt(some.reduce((sum, x) => sum + x * x, 0) / some.length));
  }
  return {
    ...steadyAnalysis(120, 0, 16),
    duration: SECONDS,
    loudness: measured([samples, samples]),
    peakRate: PEAK_RATE,
    peaks,
    rms,
  };
}
function pieceOf(change: Partial<Music>, seconds: number): Piece & { music: Music } {
  const piece = newPiece('Sound');
  const media = [{ id: 'm', hash: SONG_HASH, kind: 'audio' as const, name: 'a.wav', duration: SECONDS }];
  return { ...piece, media, end: freeMoment(seconds), music: { ...createMusic(media[0]!), ...change } };
}
const volume = (value: number) => ({ value, keyframes: [] });
const found = (piece: Piece, analysis: SongAnalysis | null) =>
  runThrough(
    {
      piece,
      times: resolveTimes(piece, analysis),
      analysis,
      layoutText: () => {
        throw new Error('no words here');
      },
    },
    ['sound'],
  );

describe('the level of what is heard', () => {
  it.each([
    ['all of it', {}, SECONDS],
    ['its quiet half', {}, 4],
    ['turned down, with a long fade', { volume: volume(0.3), fadeIn: 3, fadeOut: 4 }, SECONDS],
    ['from its middle on', { trimStart: 4 }, 3],
  ] as [string, Partial<Music>, number][])('is what a meter shows of the mix: %s', (_, change, seconds) => {
    const samples = song(1);
    const analysis = analysisOf(samples);
    const { music, ...piece } = pieceOf(change, seconds);
    const times = resolveTimes({ ...piece, music }, analysis);
    const mix = mixSong(music, SECONDS, { channels: [samples], rate: RATE, offset: 0 }, seconds * RATE, times.timeOf);
    const level = heardLevel(music, analysis, seconds, times.timeOf)!;
    const truth = measured(mix);
    // Gating leaves out what is far quieter; the mean of the power does not.
    expect(Math.abs(level.loudness! - truth.integrated)).toBeLessThan(2.5);
    const peak = Math.max(...mix.map((side) => side.reduce((most, x) => Math.max(most, Math.abs(x)), 0)));
    expect(Math.abs(20 * Math.log10(level.peak / peak))).toBeLessThan(0.3);
  });
});

describe('sound', () => {
  const analysis = analysisOf(song(1));
  it('that is well is not told of; nor is what was not measured', () => {
    expect(found(pieceOf({}, SECONDS), analysis)).toEqual([]);
    expect(found({ ...pieceOf({}, SECONDS), music: null }, analysis)).toEqual([]);
    expect(found(pieceOf({ volume: volume(4) }, SECONDS), null)).toEqual([]);
  });
  it('over full scale is an error with the moment, and is lowered by its fix', () => {
    const piece = pieceOf({ volume: volume(2) }, SECONDS);
    const [clipped, ...more] = found(piece, analysis);
    expect(more).toEqual([]);
    expect(clipped).toMatchObject({ severity: 'error', text: 'The music clips: 4.1 dB over full scale.' });
    expect(clipped!.at).toBeGreaterThan(SECONDS / 2);
    const mended = applyEdits(piece, [...clipped!.fixes[0]!.edits], resolveTimes(piece, analysis)).piece;
    expect(mended.music!.volume.value).toBeCloseTo(1.114, 2);
    expect(found(mended, analysis)).toEqual([]);
  });
  it('too quiet is raised as far as its peaks allow', () => {
    const piece = pieceOf({ volume: volume(0.06) }, SECONDS);
    const [quiet] = found(piece, analysis);
    expect(quiet!.text).toMatch(/^The music is quiet: about -\d\d LUFS/);
    const mended = applyEdits(piece, [...quiet!.fixes[0]!.edits], resolveTimes(piece, analysis)).piece;
    expect(found(mended, analysis)).toEqual([]);
    expect(mended.music!.volume.value as number).toBeGreaterThan(0.2);
  });
  it('that is over before the piece is told of with how long it is silent, and the piece ends with it by its fix', () => {
    const piece = pieceOf({}, SECONDS + 3);
    const [silence, ...more] = found(piece, analysis);
    expect(more).toEqual([]);
    expect(silence).toMatchObject({
      severity: 'warning',
      at: SECONDS,
      text: 'The last 3.0 s are silent: the music ends before the piece.',
    });
    const mended = applyEdits(piece, [...silence!.fixes[0]!.edits], resolveTimes(piece, analysis)).piece;
    expect(resolveTimes(mended, analysis).end).toBeCloseTo(SECONDS, 6);
    expect(found(mended, analysis)).toEqual([]);
    // A breath of it is not worth a word; what is too loud besides is told of as well.
    expect(found(pieceOf({}, SECONDS + 0.5), analysis)).toEqual([]);
    expect(found(pieceOf({ volume: volume(2) }, SECONDS + 3), analysis).map(({ severity }) => severity)).toEqual([
      'error',
      'warning',
    ]);
  });
});
