import { describe, expect, it } from '@jest/globals';
import { ANALYSIS_RATE, analyseSong, normaliseOnsets, onsetBands, tempoCandidates } from '@core/audio';
import { demoSongs } from '../../tests/helpers/demo-files';

/**
 * Mono at the analysis rate from a 44.1 kHz stereo 16-bit WAV: pairs of frames averaged, which is filter enough for
 * tests.
 */
function decodeDemo(wav: Buffer): Float32Array {
  const frames = (wav.length - 44) / 4;
  const out = new Float32Array(Math.floor(frames / 2));
  for (let i = 0; i < out.length; i++) {
    let sum = 0;
    for (let k = 0; k < 2; k++) sum += wav.readInt16LE(44 + (2 * i + k) * 4) + wav.readInt16LE(46 + (2 * i + k) * 4);
    out[i] = sum / 4 / 32768;
  }
  return out;
}

function clicks(bpm: number, first: number, seconds: number): { samples: Float32Array; beats: number[] } {
  const samples = new Float32Array(seconds * ANALYSIS_RATE);
  const beats: number[] = [];
  for (let t = first; t < seconds - 0.2; t += 60 / bpm) {
    beats.push(t);
    const start = Math.round(t * ANALYSIS_RATE);
    for (let k = 0; k < 110; k++)
      samples[start + k]! += 0.7 * Math.sin((2 * Math.PI * 2000 * k) / ANALYSIS_RATE) * (1 - k / 110);
  }
  return { samples, beats };
}

const nearestError = (truth: number, found: readonly number[]) =>
  found.reduce((best, t) => (Math.abs(t - truth) < Math.abs(best) ? t - truth : best), Infinity);

describe('beats of clicks', () => {
  it.each([72, 90, 100, 117.3, 128, 151, 174])('are found at most 8 ms early and never late at %d BPM', (bpm) => {
    const { samples, beats } = clicks(bpm, 0.5, 25);
    const analysis = analyseSong(samples);
    // Bare clicks as quick as 174 are heard at half the tempo by people too; anything slower must be met.
    const level = bpm > 160 ? 0.5 : 1;
    expect(analysis.bpm / (bpm * level)).toBeCloseTo(1, 2);
    // Every second click is a beat at half the tempo, the even ones or the odd ones.
    const errors = analysis.beats.map((t) => -nearestError(t, beats));
    expect(Math.min(...errors)).toBeGreaterThan(-0.008);
    expect(Math.max(...errors)).toBeLessThan(0.001);
    expect(analysis.beats.length).toBeGreaterThanOrEqual(Math.floor(beats.length * level) - 1);
  });
});

describe('clicks over noise', () => {
  const noisy = (bpm: number, decibels: number) => {
    const { samples, beats } = clicks(bpm, 0.5, 25);
    const level = 0.7 * 10 ** (decibels / 20);
    let seed = 7;
    for (let i = 0; i < samples.length; i++)
      samples[i]! += level * ((seed = (seed * 1103515245 + 12345) & 0x7fffffff) / 0x3fffffff - 1);
    return { samples, beats };
  };
  it.each([-20, -30, -37, -45, -60].flatMap((decibels) => [60, 128, 200].map((bpm) => [decibels, bpm] as const)))(
    '%d dB below the clicks: none is lost at %d BPM',
    (decibels, bpm) => {
      const { samples, beats } = noisy(bpm, decibels);
      const analysis = analyseSong(samples);
      const level = analysis.bpm / bpm;
      const gap = 60 / analysis.bpm;
      // The song keeps its beats to its ends, whatever their reading.
      expect(analysis.beats[0]!).toBeLessThan(beats[0]! + 2.1 * gap);
      expect(analysis.beats[analysis.beats.length - 1]!).toBeGreaterThan(beats[beats.length - 1]! - 2.1 * gap);
      expect(analysis.beats.length).toBeGreaterThanOrEqual(Math.floor(beats.length * level) - 3);
      // Under noise as loud as that the off-beat may be taken for the beat; below it every beat stands on a click.
      if (decibels > -30) return;
      expect([0.5, 1, 2].some((k) => Math.abs(level / k - 1) < 0.02)).toBe(true);
      const found = analysis.beats.filter((t) => Math.abs(nearestError(t, beats)) < 0.02).length;
      expect(found).toBeGreaterThanOrEqual(Math.floor(beats.length * Math.min(1, level)) - 2);
    },
  );
  it('one loud hit does not make silence of what follows', () => {
    const samples = new Float32Array(25 * ANALYSIS_RATE);
    const hit = (t: number, level: number, decay: number) => {
      for (let k = 0; k < 2000; k++)
        samples[Math.round(t * ANALYSIS_RATE) + k]! += level * Math.sin(k * 1.9) * Math.exp(-k / decay);
    };
    hit(0.5, 0.95, 600);
    for (let i = 1; i < 46; i++) hit(0.5 + i * 0.5, 0.02, 60);
    expect(analyseSong(samples).beats.length).toBeGreaterThan(20);
  });
});

describe('the demo songs, whose beats are known', () => {
  it.each(demoSongs().map((song) => [song.title, song] as const))(
    '%s: tempo, beats within 10 ms, bars',
    (_title, song) => {
      const analysis = analyseSong(decodeDemo(song.wav));
      expect(analysis.bpm / song.bpm).toBeCloseTo(1, 2);
      const errors = song.beats.map((t) => nearestError(t, analysis.beats));
      const good = errors.filter((e) => Math.abs(e) < 0.01).length / errors.length;
      expect(good).toBeGreaterThan(0.95);
      expect(analysis.beatsPerBar).toBe(song.beatsPerBar);
      expect(Math.abs(nearestError(song.beats[song.beatsPerBar]!, analysis.downbeats))).toBeLessThan(0.02);
    },
  );
});

describe('what is no rhythm', () => {
  it('gives no beats for silence', () => {
    expect(analyseSong(new Float32Array(ANALYSIS_RATE * 5))).toMatchObject({
      beats: [],
      downbeats: [],
      bpm: 0,
      hits: [],
    });
  });
  it('survives a sound shorter than one window', () => {
    expect(analyseSong(new Float32Array(100))).toMatchObject({ beats: [], hits: [] });
  });
  it('is not startled by a steady tone', () => {
    const tone = Float32Array.from(
      { length: ANALYSIS_RATE * 6 },
      (_, i) => 0.5 * Math.sin((2 * Math.PI * 440 * i) / ANALYSIS_RATE),
    );
    expect(analyseSong(tone).hits.filter((h) => h.time > 0.2 && h.time < 5.8)).toEqual([]);
  });
});

describe('analysis', () => {
  it('is the same on every run', () => {
    const { samples } = clicks(110, 0.3, 8);
    expect(analyseSong(samples)).toEqual(analyseSong(samples));
  });
  it('reports progress that rises, and stops when told to', () => {
    const { samples } = clicks(110, 0.3, 60);
    const seen: number[] = [];
    analyseSong(samples, (share) => seen.push(share));
    expect(seen.every((s, i) => i === 0 || s >= seen[i - 1]!)).toBe(true);
    expect(() =>
      analyseSong(samples, () => {
        throw new Error('stop');
      }),
    ).toThrow('stop');
  });
  it('classes low thumps and high ticks apart', () => {
    const samples = new Float32Array(ANALYSIS_RATE * 6);
    let noise = 1;
    for (let t = 0.5; t < 5.5; t += 0.5) {
      const isLow = Math.round(t * 2) % 2 === 0;
      for (let k = 0; k < 3000; k++) {
        const s = k / ANALYSIS_RATE;
        noise = (noise * 16807) % 2147483647;
        samples[Math.round(t * ANALYSIS_RATE) + k]! += isLow
          ? 0.8 * Math.sin(2 * Math.PI * 60 * s) * Math.exp(-s * 20)
          : k > 0
            ? 0.3 * (noise / 1073741824 - 1 - (samples[Math.round(t * ANALYSIS_RATE) + k - 1] ?? 0)) * Math.exp(-s * 60)
            : 0;
      }
    }
    const { hits } = analyseSong(samples);
    const near = (t: number, cls: string) => hits.some((h) => h.class === cls && Math.abs(h.time - t) < 0.03);
    for (const t of [1, 2, 3, 4]) expect(near(t, 'low')).toBe(true);
    for (const t of [1.5, 2.5, 3.5]) expect(near(t, 'high')).toBe(true);
    for (const t of [1.5, 2.5, 3.5]) expect(near(t, 'low')).toBe(false);
  });
  it('offers the true tempo among its candidates, best first', () => {
    const { samples } = clicks(140, 0.2, 20);
    const candidates = tempoCandidates(normaliseOnsets(onsetBands(samples).all));
    expect(candidates[0]!.weight).toBe(1);
    expect(candidates.some((c) => Math.abs(c.bpm - 140) < 2)).toBe(true);
  });
});
