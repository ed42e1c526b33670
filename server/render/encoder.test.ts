import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from '@jest/globals';
import { USUAL_SETTINGS } from '@core/formats';
import { FRAME_RATES } from '@core/time';
import { BUILT } from '../../tests/helpers/server';
import { SOUND_RATE, encodeSound } from './encode-sound';
import { encoderArguments, startEncoder } from './encoder';
import type { EncoderOptions } from './encoder';
import { evenSide } from './even-side';
import { AAC, PCM, VIDEO_RECIPES } from './video-recipes';

const dir = mkdtempSync(join(tmpdir(), 'estrella-encoder-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));

const options = (out: string): EncoderOptions => ({
  ...{ width: 16, height: 16, frameRate: FRAME_RATES['25'], pixels: 'i420', isTagged: true, out },
  video: VIDEO_RECIPES.mp4.video(25, USUAL_SETTINGS),
  container: VIDEO_RECIPES.mp4.container,
});

describe('the encoder of pictures', () => {
  it('is told the exact rate, the colours, and to put the index first', () => {
    const args = encoderArguments({ ...options('x.mp4'), frameRate: FRAME_RATES['29.97'] }).join(' ');
    for (const part of [
      '-framerate 30000/1001',
      '-profile:v high',
      '-pix_fmt yuv420p',
      '-colorspace bt709',
      '+faststart',
    ])
      expect(args).toContain(part);
  });
  it('writes the frames it is given, in order', async () => {
    const out = join(dir, 'levels.mp4');
    const encoder = startEncoder(options(out));
    for (let i = 0; i < 10; i++) await encoder.write(new Uint8Array(384).fill(128).fill(16 + i * 20, 0, 256));
    await encoder.finish();
    const gray = execFileSync('ffmpeg', ['-v', 'error', '-i', out, '-vf', 'format=yuv420p', '-f', 'rawvideo', '-']);
    expect(gray.length).toBe(3840);
    for (let i = 0; i < 10; i++) expect(Math.abs(gray[i * 384]! - (16 + i * 20))).toBeLessThanOrEqual(2);
  });
  it('says why when it cannot write', async () => {
    const encoder = startEncoder(options(join(dir, 'no', 'such', 'folder.mp4')));
    await expect(encoder.finish()).rejects.toMatchObject({ code: 'ENCODER_FAILED' });
  });
  it('gets even sides', () => {
    expect([16, 17, 4095, 4096].map(evenSide)).toEqual([16, 18, 4096, 4096]);
  });
});

describe('the encoder of sound', () => {
  const frames = 10 * SOUND_RATE;
  /** Soft, then loud, with peaks that lie between samples. */
  const music = (level: number): Float32Array =>
    Float32Array.from({ length: frames }, (_, i) => {
      const t = i / SOUND_RATE;
      const beat = Math.exp(-((t * 2) % 1) * 6);
      return level * (0.3 * Math.sin(2 * Math.PI * 220 * t) + beat * Math.sin((2 * Math.PI * 12000 * i) / 48000 + 0.8));
    });
  /** Integrated loudness and true peak by another meter. */
  function metered(file: string): { integrated: number; truePeak: number } {
    const args = ['-hide_banner', '-nostats', '-i', file, '-af', 'ebur128=peak=true', '-f', 'null', '-'];
    const said = execFileSync('sh', ['-c', `ffmpeg ${args.join(' ')} 2>&1`]).toString();
    const summary = said.slice(said.lastIndexOf('Summary:'));
    const number = (name: string): number => Number(new RegExp(`${name}:\\s+(-?[\\d.]+)`).exec(summary)?.[1]);
    return { integrated: number('I'), truePeak: number('Peak') };
  }

  it('keeps true peaks under −1 dBTP where no loudness is asked for, and softer sound as it is', async () => {
    const loud = join(dir, 'loud.m4a');
    const facts = await encodeSound([music(1.1), music(1.1)], AAC, null, BUILT.serverDir, loud);
    expect(facts.truePeak).toBeLessThanOrEqual(-0.99);
    expect(metered(loud).truePeak).toBeLessThanOrEqual(-0.9);
    const soft = await encodeSound([music(0.5), music(0.5)], PCM, null, BUILT.serverDir, join(dir, 'soft.wav'));
    const louder = await encodeSound([music(0.55), music(0.55)], PCM, null, BUILT.serverDir, join(dir, 'louder.wav'));
    expect(louder.integrated! - soft.integrated!).toBeCloseTo(20 * Math.log10(1.1), 1);
  });
  it('writes what it is given, left and right, to the sample', async () => {
    const out = join(dir, 'tone.m4a');
    const second = SOUND_RATE;
    const tone = Float32Array.from({ length: second }, (_, i) =>
      i < 24000 ? 0 : 0.5 * Math.sin((2 * Math.PI * 440 * i) / SOUND_RATE),
    );
    await encodeSound([tone, new Float32Array(second)], AAC, null, BUILT.serverDir, out);
    const pcm = execFileSync('ffmpeg', ['-v', 'error', '-i', out, '-f', 'f32le', '-ac', '2', '-'], {
      maxBuffer: 1 << 26,
    });
    const samples = new Float32Array(pcm.buffer.slice(pcm.byteOffset, pcm.byteOffset + pcm.length));
    // Decoders hand over whole blocks; how much of them counts is said by the file.
    const args = ['-v', 'error', '-show_entries', 'stream=duration_ts', '-of', 'csv=p=0', out];
    expect(Number(execFileSync('ffprobe', args).toString())).toBe(second);
    const power = (from: number, to: number, channel: number) => {
      let sum = 0;
      for (let i = from; i < to; i++) sum += samples[2 * i + channel]! ** 2;
      return sum / (to - from);
    };
    expect(power(2000, 20000, 0)).toBeLessThan(1e-5);
    expect(power(26000, 46000, 0)).toBeCloseTo(0.125, 2);
    expect(power(26000, 46000, 1)).toBeLessThan(1e-4);
  });
  it.each([
    [-14, 0.2],
    [-14, 0.9],
    [-16, 0.05],
    [-23, 0.9],
  ])('brings the file to %d LUFS with no true peak over -1 dB, from a level of %d', async (target, level) => {
    const out = join(dir, `loud${target}-${level}.m4a`);
    const sound = [music(level), music(level)] as const;
    const told = await encodeSound(sound, AAC, { target, peak: -1 }, BUILT.serverDir, out);
    const { integrated, truePeak } = metered(out);
    expect(Math.abs(integrated - target)).toBeLessThanOrEqual(0.2);
    expect(truePeak).toBeLessThanOrEqual(-0.9); // the meter rounds to a tenth
    expect(told.integrated).toBeCloseTo(integrated, 0);
    expect(Math.abs((told.truePeak ?? 0) - truePeak)).toBeLessThan(0.15);
  });
  it('has no number for silence, and leaves it silent', async () => {
    const silence = new Float32Array(SOUND_RATE);
    const out = join(dir, 'silence.m4a');
    const told = await encodeSound([silence, silence], AAC, { target: -14, peak: -1 }, BUILT.serverDir, out);
    expect(told.integrated).toBeNull();
  });
});
