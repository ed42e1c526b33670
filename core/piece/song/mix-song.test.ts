import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  JOIN_SECONDS,
  constantTrack,
  createMusic,
  heardParts,
  joinCorrelation,
  joinGain,
  mixSong,
  neededOfSong,
  partGain,
} from '@core/piece';
import type { Music, SongSamples } from '@core/piece';
import type { Moment } from '@core/time';
import { freeMoment } from '@core/time';

const RATE = 8000;
/** Moments of these tests are free. */
const secondsOf = (moment: Moment) => (moment.kind === 'free' ? moment.seconds : moment.last);
const LENGTH = 8;
const media = { id: 'song', hash: 'a'.repeat(64), kind: 'audio' as const, name: 'song.wav' };
const music = (change: Partial<Music>): Music => ({ ...createMusic(media), ...change });
const samplesOf = (f: (t: number) => number, seconds = LENGTH): SongSamples => ({
  channels: [Float32Array.from({ length: seconds * RATE }, (_, i) => f(i / RATE))],
  rate: RATE,
  offset: 0,
});
/** A song that is a ramp: its value tells the second it comes from. */
const ramp = samplesOf((t) => t / 10);
const heard = (m: Music, duration: number, song = ramp) =>
  mixSong(m, LENGTH, song, Math.round(duration * RATE), secondsOf)[0];
const at = (sound: Float32Array, seconds: number) => sound[Math.round(seconds * RATE)]!;

describe('the song in the film', () => {
  it('is exactly as long as the picture, silent behind its end', () => {
    const sound = heard(music({}), 10);
    expect(sound.length).toBe(10 * RATE);
    expect(at(sound, 5)).toBeCloseTo(0.5, 4);
    expect(at(sound, 9)).toBe(0);
  });
  it('starts to the sample where it is placed, cut where it is cut', () => {
    const sound = heard(music({ start: 1.5, trimStart: 2, trimEnd: 5 }), 8);
    expect(sound[1.5 * RATE - 1]).toBe(0);
    expect(at(sound, 1.5)).toBeCloseTo(0.2, 4);
    expect(at(sound, 4.4)).toBeCloseTo(0.49, 4);
    expect(at(sound, 4.5)).toBe(0);
  });
  it('is as loud as its volume says, keyframe by keyframe', () => {
    const key = (seconds: number, value: number) => ({
      id: `k${seconds}`,
      at: freeMoment(seconds),
      value,
      easing: { type: 'linear' as const },
    });
    const sound = heard(music({ volume: { value: 1, keyframes: [key(2, 1), key(4, 0.25)] } }), 6);
    expect(at(sound, 1)).toBeCloseTo(0.1, 4);
    expect(at(sound, 3)).toBeCloseTo(0.3 * 0.625, 4);
    expect(at(sound, 5)).toBeCloseTo(0.5 * 0.25, 4);
  });
  it('begins in the middle when it is placed before the start', () => {
    expect(at(heard(music({ start: -3 }), 2), 0)).toBeCloseTo(0.3, 4);
  });
  it('of one channel is heard at its full level on both sides', () => {
    const [left, right] = mixSong(music({}), LENGTH, ramp, RATE * 6, secondsOf);
    expect([at(left, 5), at(right, 5)]).toEqual([expect.closeTo(0.5, 4), expect.closeTo(0.5, 4)]);
  });
  it('has its volume and fades, smoothly also when a fade began before the piece', () => {
    const sound = heard(music({ volume: constantTrack(0.5), fadeIn: 2, fadeOut: 2 }), 8);
    expect(at(sound, 5)).toBeCloseTo(0.25, 4);
    expect(at(sound, 1)).toBeCloseTo(0.025, 4);
    expect(at(sound, 7)).toBeCloseTo(0.175, 4);
    const begun = heard(
      music({ start: -1, fadeIn: 2 }),
      4,
      samplesOf(() => 1),
    );
    for (let i = 1; i < RATE; i++) expect(Math.abs(begun[i]! - begun[i - 1]!)).toBeLessThan(1.01 / 2 / RATE);
    expect(at(begun, 0.5)).toBeCloseTo(0.75, 4);
    expect(at(heard(music({ fadeOut: 2, fadeOutCurve: 'power' }), 8), 7)).toBeCloseTo(0.7 * Math.SQRT1_2, 3);
    expect(at(heard(music({ fadeOut: 2, fadeOutCurve: 'soft' }), 8), 7.5)).toBeCloseTo(
      (0.75 * (1 - Math.SQRT1_2)) / 2,
      3,
    );
  });
  it('fades out at the end of the piece where that comes before its own', () => {
    const sound = heard(
      music({ fadeOut: 1 }),
      5,
      samplesOf(() => 1),
    );
    expect(at(sound, 3.9)).toBeCloseTo(1, 4);
    expect(at(sound, 4.5)).toBeCloseTo(0.5, 3);
    expect(at(sound, 4.999)).toBeLessThan(0.01);
  });
});

describe('a song with cuts', () => {
  it('leaves out what is cut out, to the sample', () => {
    const sound = heard(music({ cuts: [{ at: 2, to: 5 }] }), 6);
    for (const [t, value] of [
      [1.9, 0.19],
      [2.1, 0.51],
      [4.9, 0.79],
      [5.1, 0],
    ] as const)
      expect(at(sound, t)).toBeCloseTo(value, 4);
  });
  it('plays a stretch again', () => {
    const sound = heard(
      music({
        start: 0.5,
        cuts: [
          { at: 4, to: 2 },
          { at: 4, to: 2 },
        ],
      }),
      12,
    );
    for (const [t, value] of [
      [0.4, 0],
      [2.6, 0.21],
      [4.6, 0.21],
      [6.6, 0.21],
      [8.6, 0.41],
    ] as const)
      expect(at(sound, t)).toBeCloseTo(value, 4);
  });
  const power = (sound: Float32Array, from: number, to: number) =>
    sound.subarray(Math.round(from * RATE), Math.round(to * RATE)).reduce((a, v) => a + v * v, 0) /
    Math.round((to - from) * RATE);
  it('whose two sides are the same sound keeps its level at the join, and does not clip', () => {
    // A tone of 400 Hz: any whole number of periods later it is the same.
    const tone = samplesOf((t) => 0.9 * Math.sin(2 * Math.PI * 400 * t));
    const sound = heard(music({ cuts: [{ at: 2, to: 5 }] }), 4, tone);
    expect(Math.max(...sound.subarray(1.9 * RATE, 2.1 * RATE))).toBeLessThanOrEqual(0.9001);
    expect(10 * Math.log10(power(sound, 1.985, 2.015) / power(sound, 1, 1.5))).toBeCloseTo(0, 1);
  });
  it('whose two sides are unrelated keeps its power', () => {
    let seed = 3;
    const noise = samplesOf(() => (seed = (seed * 1103515245 + 12345) & 0x7fffffff) / 0x3fffffff - 1);
    const sound = heard(music({ cuts: [{ at: 2, to: 5 }] }), 4, noise);
    expect(Math.abs(10 * Math.log10(power(sound, 1.985, 2.015) / power(sound, 0.5, 1.5)))).toBeLessThan(1);
  });
  it('has even power over the whole join, whatever the likeness (the law)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -0.5, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (alike, x) => {
          const [a, b] = [joinGain(x, alike), joinGain(1 - x, alike)];
          expect(a * a + b * b + 2 * alike * a * b).toBeCloseTo(1, 6);
        },
      ),
    );
  });
  it('needs no more of the song than is heard, and mixes the same from that part alone', () => {
    const m = music({ start: -2, cuts: [{ at: 4, to: 5 }] });
    const needed = neededOfSong(m, LENGTH, 3)!;
    expect(needed.from).toBeGreaterThan(1.9);
    expect(needed.to).toBeLessThan(6.1);
    const from = Math.floor(needed.from * RATE);
    const part: SongSamples = {
      channels: [ramp.channels[0]!.slice(from, Math.ceil(needed.to * RATE))],
      rate: RATE,
      offset: from / RATE,
    };
    expect(mixSong(m, LENGTH, part, 3 * RATE, secondsOf)[0]).toEqual(mixSong(m, LENGTH, ramp, 3 * RATE, secondsOf)[0]);
    expect(neededOfSong(music({ start: 20 }), LENGTH, 3)).toBeNull();
  });
  it('is heard in parts that overlap by the join and nowhere else', () => {
    const parts = heardParts(music({ cuts: [{ at: 2, to: 5 }] }), LENGTH, ramp);
    expect(parts.map((p) => [p.begin, p.end])).toEqual([
      [0, 2 + JOIN_SECONDS / 2],
      [2 - JOIN_SECONDS / 2, 5],
    ]);
    expect(partGain(parts[0]!, 1)).toBe(1);
    expect(joinCorrelation(ramp, 2, 2)).toBeCloseTo(1, 6);
  });
});
