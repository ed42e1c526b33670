import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { ANALYSIS_RATE, bestJoin, createLoudnessMeter, fitToBars } from '@core/audio';
import { refineBeats } from './refine-beats';
import { findSilences } from './silences';
import { songForm } from './sections';
import { PROFILE_SIZE } from './pitch-profile';

const sine = (rate: number, seconds: number, hertz: number, amplitude: number, channels: number) => {
  const out = new Float32Array(Math.round(rate * seconds) * channels);
  for (let i = 0; i < out.length / channels; i++)
    for (let c = 0; c < channels; c++) out[i * channels + c] = amplitude * Math.sin((2 * Math.PI * hertz * i) / rate);
  return out;
};

describe('loudness', () => {
  // EBU Tech 3341, cases 1 and 2: a stereo sine of 1 kHz at -23 dBFS reads -23 LUFS, at -33 dBFS it reads -33.
  it.each([
    [-23, 48000],
    [-33, 48000],
    [-23, 44100],
  ])('a stereo sine of 1 kHz at %d dBFS and %d Hz reads the same in LUFS', (level, rate) => {
    const meter = createLoudnessMeter(rate, 2);
    meter.push(sine(rate, 5, 1000, 10 ** (level / 20), 2));
    expect(Math.abs(meter.result().integrated - level)).toBeLessThan(0.1);
    expect(Math.abs(meter.result().shortTerm - level)).toBeLessThan(0.1);
  });
  it('leaves silence and quiet passages out of the integrated loudness (case 3 of EBU Tech 3341)', () => {
    const meter = createLoudnessMeter(48000, 2);
    for (const [level, seconds] of [
      [-36, 3],
      [-23, 12],
      [-36, 3],
    ] as const)
      meter.push(sine(48000, seconds, 1000, 10 ** (level / 20), 2));
    expect(Math.abs(meter.result().integrated + 23)).toBeLessThan(0.1);
  });
  it('gives the same in one piece or many', () => {
    const sound = sine(48000, 5, 440, 0.3, 2);
    const whole = createLoudnessMeter(48000, 2);
    whole.push(sound);
    const pieces = createLoudnessMeter(48000, 2);
    for (let i = 0; i < sound.length; i += 1998) pieces.push(sound.subarray(i, i + 1998));
    expect(pieces.result()).toEqual(whole.result());
  });
  it('finds the peak between two samples', () => {
    // A quarter of the rate at 45 degrees: every sample is 3 dB below the wave's own peak.
    const tone = Float32Array.from({ length: 48000 }, (_, i) => 0.5 * Math.sin((Math.PI / 2) * i + Math.PI / 4));
    const meter = createLoudnessMeter(48000, 1);
    meter.push(tone);
    expect(Math.abs(meter.result().truePeak - 20 * Math.log10(0.5))).toBeLessThan(0.3);
  });
  it('silence has none', () => {
    const meter = createLoudnessMeter(48000, 2);
    meter.push(new Float32Array(48000 * 2));
    expect(meter.result().integrated).toBe(-Infinity);
  });
});

describe('fitting a song to a number of bars', () => {
  const rows = (letters: string) => [...letters].map((c, i) => [c.charCodeAt(0), 0.01 * (i % 3)]);
  const played = (letters: string, wanted: number) =>
    fitToBars(rows(letters), wanted)
      ?.flatMap((r) => [...letters].slice(r.from, r.to))
      .join('') ?? null;
  it('leaves out where the music is alike, so that what follows is what would have followed', () => {
    const result = played('iABABABABo', 6)!;
    expect(result).toBe('iABABo');
  });
  it('repeats where the music is alike', () => {
    expect(played('iABABo', 10)).toBe('iABABABABo');
  });
  it('always begins with the first bar, ends with the last, and is as long as asked', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('a', 'b', 'c'), { minLength: 3, maxLength: 14 }),
        fc.integer({ min: 3, max: 24 }),
        (bars, wanted) => {
          const ranges = fitToBars(rows(bars.join('')), wanted);
          fc.pre(ranges !== null);
          expect(ranges[0]!.from).toBe(0);
          expect(ranges[ranges.length - 1]!.to).toBe(bars.length);
          expect(ranges.reduce((sum, r) => sum + r.to - r.from, 0)).toBe(wanted);
        },
      ),
    );
  });
  it('asked for the bars it has, leaves the song alone; asked for the impossible, says so', () => {
    expect(fitToBars(rows('abcd'), 4)).toEqual([{ from: 0, to: 4 }]);
    expect(fitToBars(rows('ab'), 5)).toBeNull();
    expect(fitToBars(rows('abc'), 99)).toBeNull();
  });
});

describe('the place of a join', () => {
  it('is moved by the few milliseconds that put the waves in step', () => {
    const rate = 48000;
    const tone = Float32Array.from(
      { length: rate * 4 },
      (_, i) => Math.sin((2 * Math.PI * 220 * i) / rate) * (1 + 0.1 * Math.sin(i / 9000)),
    );
    const to = bestJoin(tone, rate, 1, 3.0007);
    const phase = (t: number) => (220 * t) % 1;
    const apart = Math.abs(phase(to) - phase(1));
    expect(Math.min(apart, 1 - apart)).toBeLessThan(0.02);
    expect(Math.abs(to - 3.0007)).toBeLessThanOrEqual(0.004 + 1e-9);
  });
  it('stays where it was asked for in silence', () => {
    expect(bestJoin(new Float32Array(48000), 48000, 0.2, 0.6)).toBeCloseTo(0.6, 9);
  });
});

describe('silences', () => {
  it('are the stretches without sound, not the short gaps', () => {
    const power = new Float32Array(1000).fill(0.1);
    power.fill(0, 200, 300);
    power.fill(0, 500, 510);
    const found = findSilences(power);
    expect(found).toHaveLength(1);
    expect(found[0]!.start).toBeCloseTo(200 / (ANALYSIS_RATE / 220), 3);
  });
});

describe('the form of a song', () => {
  const bars = Array.from({ length: 24 }, (_, k) => ({ beat: 4 * k, beatsPerBar: 4 }));
  const beats = Array.from({ length: 96 }, (_, i) => 0.5 * i);
  const loud = (bar: number) => bar >= 8 && bar < 16;
  const sound = {
    power: Float64Array.from(beats, (_, i) => (loud(i >> 2) ? 0.1 : 0.01)),
    bass: Float64Array.from(beats, (_, i) => (loud(i >> 2) ? 1 : 0.05)),
    // The bar before the drop is busy: a fill.
    busy: Float64Array.from(beats, (_, i) => (i >> 2 === 7 ? 6 : 2)),
    profile: Float64Array.from({ length: 96 * PROFILE_SIZE }, (_, k) =>
      (k % PROFILE_SIZE) % (loud(Math.floor(k / PROFILE_SIZE) >> 2) ? 3 : 4) === 0 ? 1 : 0.1,
    ),
  };
  const energy = beats.map((_, i) => (loud(i >> 2) ? 1 : 0.5));
  const form = songForm(bars, beats, sound, energy, 48.5);
  it('has its parts at the bars where it changes, the drop where energy and bass jump', () => {
    expect(form.sections.map((s) => [s.label, s.start])).toEqual([
      ['intro', 0],
      ['drop', 16],
      ['outro', 32],
    ]);
    expect(form.sections[2]!.end).toBe(48.5);
    expect(form.drops[0]).toMatchObject({ time: 16 });
  });
  it('has a fill before the drop', () => {
    expect(form.fills).toEqual([{ start: 15, end: 16 }]);
  });
  it('of a few bars is none', () => {
    expect(songForm(bars.slice(0, 5), beats, sound, energy, 10)).toEqual({ sections: [], drops: [], fills: [] });
  });
});

describe('beat times below the hop size', () => {
  const rate = ANALYSIS_RATE / 220;
  /** Onset strength that rises and falls within three frames of each beat. */
  const fluxOf = (beats: readonly number[]) => {
    const flux = new Float32Array(Math.ceil((beats[beats.length - 1]! + 1) * rate));
    for (const t of beats)
      for (let k = -3; k <= 3; k++) {
        const frame = Math.round(t * rate) + k;
        if (frame >= 0) flux[frame] = Math.max(flux[frame]!, 3 - Math.abs(frame - t * rate));
      }
    return flux;
  };
  const spread = (beats: readonly number[]) => {
    const flux = fluxOf(beats);
    const errors = refineBeats(
      beats.map((t) => Math.round(t * rate)),
      flux,
      flux,
    ).map((t, i) => t - beats[i]!);
    const middle = [...errors].sort((a, b) => a - b)[errors.length >> 1]!;
    return Math.max(...errors.map((e) => Math.abs(e - middle)));
  };
  it('run evenly at a steady tempo, a slowing one, and one that jumps', () => {
    expect(spread(Array.from({ length: 60 }, (_, i) => 1 + i * 0.4837))).toBeLessThan(0.004);
    let t = 1;
    expect(spread(Array.from({ length: 60 }, (_, i) => (t += 0.45 + i * 0.004)))).toBeLessThan(0.006);
    let u = 1;
    expect(spread(Array.from({ length: 60 }, (_, i) => (u += i < 30 ? 0.6 : 0.47)))).toBeLessThan(0.02);
  });
});
