import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from '@jest/globals';
import { FRAME_RATES } from '@core/time';
import { encoderArguments, startEncoder } from './encoder';
import { evenSide } from './even-side';
import { VIDEO_RECIPES } from './video-recipes';

const dir = mkdtempSync(join(tmpdir(), 'estrella-encoder-'));

describe('the encoder', () => {
  it('is told the exact rate, the colours, and to put the index first', () => {
    const args = encoderArguments({
      width: 64,
      height: 36,
      frameRate: FRAME_RATES['29.97'],
      out: 'x.mp4',
      recipe: VIDEO_RECIPES.mp4,
    }).join(' ');
    for (const part of [
      '-framerate 30000/1001',
      '-profile:v high',
      '-pix_fmt yuv420p',
      '-colorspace bt709',
      '+faststart',
      '-c:a aac',
      '-ar 48000',
    ])
      expect(args).toContain(part);
  });
  it('writes the frames it is given, in order', async () => {
    const out = join(dir, 'levels.mp4');
    const encoder = startEncoder({
      width: 16,
      height: 16,
      frameRate: FRAME_RATES['25'],
      sound: null,
      soundFrames: 19200,
      out,
      recipe: VIDEO_RECIPES.mp4,
    });
    for (let i = 0; i < 10; i++) await encoder.write(new Uint8Array(384).fill(128).fill(16 + i * 20, 0, 256));
    await encoder.finish();
    const gray = execFileSync('ffmpeg', ['-v', 'error', '-i', out, '-vf', 'format=yuv420p', '-f', 'rawvideo', '-']);
    expect(gray.length).toBe(3840);
    for (let i = 0; i < 10; i++) expect(Math.abs(gray[i * 384]! - (16 + i * 20))).toBeLessThanOrEqual(2);
  });
  it('writes the sound it is given beside the pictures, to the sample', async () => {
    const out = join(dir, 'tone.mp4');
    const frames = 48000;
    const tone = Float32Array.from({ length: frames }, (_, i) =>
      i < 24000 ? 0 : 0.5 * Math.sin((2 * Math.PI * 440 * i) / 48000),
    );
    const encoder = startEncoder({
      width: 16,
      height: 16,
      frameRate: FRAME_RATES['25'],
      sound: [tone, new Float32Array(frames)],
      soundFrames: frames,
      out,
      recipe: VIDEO_RECIPES.mp4,
    });
    for (let i = 0; i < 25; i++) await encoder.write(new Uint8Array(384).fill(128));
    await encoder.finish();
    const pcm = execFileSync('ffmpeg', ['-v', 'error', '-i', out, '-f', 'f32le', '-ac', '2', '-'], {
      maxBuffer: 1 << 26,
    });
    const samples = new Float32Array(pcm.buffer.slice(pcm.byteOffset, pcm.byteOffset + pcm.length));
    const power = (from: number, to: number, channel: number) => {
      let sum = 0;
      for (let i = from; i < to; i++) sum += samples[2 * i + channel]! ** 2;
      return sum / (to - from);
    };
    expect(power(2000, 20000, 0)).toBeLessThan(1e-5);
    expect(power(26000, 46000, 0)).toBeCloseTo(0.125, 2);
    expect(power(26000, 46000, 1)).toBeLessThan(1e-4);
  });
  it('says why when it cannot write', async () => {
    const encoder = startEncoder({
      width: 16,
      height: 16,
      frameRate: FRAME_RATES['25'],
      sound: null,
      soundFrames: 48000,
      out: join(dir, 'no', 'such', 'folder.mp4'),
      recipe: VIDEO_RECIPES.mp4,
    });
    await expect(encoder.finish()).rejects.toMatchObject({ code: 'ENCODER_FAILED' });
  });
  it('gets even sides', () => {
    expect([16, 17, 4095, 4096].map(evenSide)).toEqual([16, 18, 4096, 4096]);
  });
});
