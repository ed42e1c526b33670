import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from '@jest/globals';
import { createMusic } from '@core/piece';
import type { Music } from '@core/piece';
import { FRAME_RATES } from '@core/time';
import { SOUND_RATE, encoderArguments, soundFilter, startEncoder } from './encoder';
import { evenSide } from './even-side';

const dir = mkdtempSync(join(tmpdir(), 'estrella-encoder-'));
const media = { id: 'song', hash: 'a'.repeat(64), kind: 'audio' as const, name: 'song.wav' };
const music = (change: Partial<Music>): Music => ({ ...createMusic(media), ...change });

/** A song that is a ramp: its value tells the second it comes from. */
const ramp = join(dir, 'ramp.wav');
execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', `aevalsrc=t/10:s=${SOUND_RATE}:d=8`, '-c:a', 'pcm_f32le', ramp]);

function heard(m: Music, duration: number, song = ramp): Float32Array {
  const out = execFileSync('ffmpeg', ['-v', 'error', '-i', song, '-filter_complex', soundFilter(m, 8, duration, '0:a'), '-map', '[sound]', '-ac', '1', '-f', 'f32le', '-'], { maxBuffer: 1 << 28 });
  return new Float32Array(out.buffer.slice(out.byteOffset, out.byteOffset + out.length));
}
const at = (sound: Float32Array, seconds: number) => sound[Math.round(seconds * SOUND_RATE)]!;

describe('the song in the film', () => {
  it('is exactly as long as the picture, silent behind its end', () => {
    const sound = heard(music({}), 10);
    expect(sound.length).toBe(10 * SOUND_RATE);
    expect(at(sound, 5)).toBeCloseTo(0.5, 3);
    expect(at(sound, 9)).toBe(0);
  });
  it('starts to the sample where it is placed, cut where it is cut', () => {
    const sound = heard(music({ start: 1.5, trimStart: 2, trimEnd: 5 }), 8);
    expect(at(sound, 1.49)).toBe(0);
    expect(at(sound, 1.5)).toBeCloseTo(0.2, 3);
    expect(at(sound, 4.4)).toBeCloseTo(0.49, 3);
    expect(at(sound, 4.6)).toBe(0);
  });
  it('begins in the middle when it is placed before the start', () => {
    expect(at(heard(music({ start: -3 }), 2), 0)).toBeCloseTo(0.3, 3);
  });
  it('has its gain and fades', () => {
    const sound = heard(music({ gain: 0.5, fadeIn: 2, fadeOut: 2 }), 8);
    expect(at(sound, 5)).toBeCloseTo(0.25, 3);
    expect(at(sound, 1)).toBeCloseTo(0.025, 3);
    expect(at(sound, 7)).toBeCloseTo(0.175, 2);
  });
});

describe('a song with cuts', () => {
  it('leaves out what is cut out, to the sample', () => {
    const sound = heard(music({ cuts: [{ at: 2, to: 5 }] }), 6);
    expect(at(sound, 1.9)).toBeCloseTo(0.19, 3);
    expect(at(sound, 2.1)).toBeCloseTo(0.51, 3);
    expect(at(sound, 4.9)).toBeCloseTo(0.79, 3);
    expect(at(sound, 5.1)).toBe(0);
  });
  it('plays a stretch again', () => {
    const sound = heard(music({ start: 0.5, cuts: [{ at: 4, to: 2 }, { at: 4, to: 2 }] }), 12);
    for (const [t, value] of [[0.4, 0], [2.6, 0.21], [4.6, 0.21], [6.6, 0.21], [8.6, 0.41]] as const) expect(at(sound, t)).toBeCloseTo(value, 3);
  });
  it('joins without a click, and keeps the power of what is not alike', () => {
    // A tone against another: the joint must not be steeper than the tones themselves, nor louder or softer by much.
    const tones = join(dir, 'tones.wav');
    execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', `aevalsrc='0.5*sin(2*PI*if(lt(t,4),220,331)*t)':s=${SOUND_RATE}:d=8`, '-c:a', 'pcm_f32le', tones]);
    const sound = heard(music({ cuts: [{ at: 2, to: 6.0013 }] }), 3, tones);
    const steepest = (from: number, to: number) => {
      let top = 0;
      for (let i = Math.round(from * SOUND_RATE); i < to * SOUND_RATE; i++) top = Math.max(top, Math.abs(sound[i + 1]! - sound[i]!));
      return top;
    };
    expect(steepest(1.9, 2.1)).toBeLessThan(1.5 * Math.max(steepest(1, 1.5), steepest(2.3, 2.8)));
    const power = (from: number, to: number) => sound.subarray(Math.round(from * SOUND_RATE), Math.round(to * SOUND_RATE)).reduce((a, v) => a + v * v, 0) / (to - from);
    expect(power(1.985, 2.015) / power(1, 1.5)).toBeGreaterThan(0.5);
    expect(power(1.985, 2.015) / power(1, 1.5)).toBeLessThan(2);
  });
  it('fades by the curve that is chosen, also if the song began before the piece', () => {
    expect(at(heard(music({ fadeOut: 2, fadeOutCurve: 'power' }), 8), 7)).toBeCloseTo(0.7 * Math.SQRT1_2, 2);
    expect(at(heard(music({ fadeOut: 2, fadeOutCurve: 'soft' }), 8), 7.5)).toBeCloseTo(0.75 * (1 - Math.SQRT1_2) / 2, 2);
    expect(at(heard(music({ start: -1, fadeIn: 2 }), 4), 0.5)).toBeCloseTo(0.15 * 0.75, 2);
  });
});

describe('the encoder', () => {
  it('is told the exact rate, the colours, and to put the index first', () => {
    const args = encoderArguments({ width: 64, height: 36, frameRate: FRAME_RATES['29.97'], duration: 1, song: null, out: 'x.mp4' }).join(' ');
    for (const part of ['-framerate 30000/1001', '-profile:v high', '-pix_fmt yuv420p', '-colorspace bt709', '+faststart', '-c:a aac', '-ar 48000']) expect(args).toContain(part);
  });
  it('writes the frames it is given, in order', async () => {
    const out = join(dir, 'levels.mp4');
    const encoder = startEncoder({ width: 16, height: 16, frameRate: FRAME_RATES['25'], duration: 0.4, song: null, out });
    for (let i = 0; i < 10; i++) await encoder.write(new Uint8Array(384).fill(128).fill(16 + i * 20, 0, 256));
    await encoder.finish();
    const gray = execFileSync('ffmpeg', ['-v', 'error', '-i', out, '-vf', 'format=yuv420p', '-f', 'rawvideo', '-']);
    expect(gray.length).toBe(3840);
    for (let i = 0; i < 10; i++) expect(Math.abs(gray[i * 384]! - (16 + i * 20))).toBeLessThanOrEqual(2);
  });
  it('says why when it cannot write', async () => {
    const encoder = startEncoder({ width: 16, height: 16, frameRate: FRAME_RATES['25'], duration: 1, song: null, out: join(dir, 'no', 'such', 'folder.mp4') });
    await expect(encoder.finish()).rejects.toMatchObject({ code: 'ENCODER_FAILED' });
  });
  it('gets even sides', () => {
    expect([16, 17, 4095, 4096].map(evenSide)).toEqual([16, 18, 4096, 4096]);
  });
});
