import { execFileSync } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { createLayer, createMusic, createPiece, ownTrack, resolveTimes } from '@core/piece';
import type { Piece } from '@core/piece';
import { FRAME_RATES, framesPerSecond, freeMoment } from '@core/time';
import type { FrameRateLabel } from '@core/time';
import { assets as built } from '../../server/platform/config';
import { renderVideo } from '../../server/render/render-video';
import { SONG_HASH, countingIds, pin, steadyAnalysis } from '../helpers/documents';

/**
 * The exported file is decoded and each change of the picture held against the pin that made it, in frames: how much
 * later than its pin a hit is seen. A frame shows the moment at its middle, so that a hit is seen half a frame early to
 * half a frame late.
 */
const LENGTH = 20;
const HITS = 88;
const [WIDTH, HEIGHT] = [64, 36];
const dist = join(process.cwd(), 'dist');
const assets = {
  ...built,
  serverDir: join(dist, 'server'),
  fontsDir: join(dist, 'fonts'),
  wasmFile: join(dist, 'i420.wasm'),
};

/** A piece that turns from black to white and back on every half beat of a song that does not keep its time exactly. */
function flashing(rate: FrameRateLabel): { piece: Piece; analysis: ReturnType<typeof steadyAnalysis> } {
  const ids = countingIds('flash');
  const steady = steadyAnalysis(147.3, 0.2371, 60);
  // Up to 9 ms off, as a drummer's beats are; irrational steps, so that every part of a frame is met.
  const beats = steady.beats.map((beat, i) => beat + 0.009 * Math.sin(i * 2.399963));
  const analysis = { ...steady, beats, downbeats: beats.filter((_, i) => i % 4 === 0) };
  const layer = createLayer(
    'rectangle',
    {
      name: 'Flash',
      start: freeMoment(0),
      end: freeMoment(LENGTH),
      values: { dimensions: [WIDTH, HEIGHT], fill: '#000000' },
    },
    ids,
  );
  const hold = { type: 'hold' as const };
  ownTrack(layer, 'fill').keyframes = [
    { id: 'begin', at: freeMoment(0), value: '#000000', easing: hold },
    ...Array.from({ length: HITS }, (_, i) => ({
      id: `k${i}`,
      at: pin(i / 2 + 1),
      value: i % 2 === 0 ? '#ffffff' : '#000000',
      easing: hold,
    })),
  ];
  const media = { id: 'song', hash: SONG_HASH, kind: 'audio' as const, name: 'salt.wav', duration: 30 };
  const base = createPiece(
    { name: 'Sync', formats: [{ id: 'f', name: 'F', width: WIDTH, height: HEIGHT }], frameRate: FRAME_RATES[rate] },
    ids,
  );
  const piece = { ...base, end: freeMoment(LENGTH), layers: [layer], media: [media], music: createMusic(media) };
  return { piece, analysis };
}

/** Index of each frame that is on the other side of grey than the one before, the first frame counting from black. */
function changes(file: string): number[] {
  const pixels = execFileSync(
    'ffmpeg',
    [
      '-v',
      'error',
      '-i',
      file,
      '-vf',
      'scale=1:1',
      '-pix_fmt',
      'gray',
      '-fps_mode',
      'passthrough',
      '-f',
      'rawvideo',
      '-',
    ],
    { maxBuffer: 1e7 },
  );
  return [...pixels].flatMap((grey, i) => (grey > 127 === (i > 0 && pixels[i - 1]! > 127) ? [] : [i]));
}

describe('sync of the exported file', () => {
  let dir = '';
  const all: number[] = [];
  beforeAll(async () => {
    dir = await mkdtemp(join(tmpdir(), 'estrella-sync-'));
  });
  afterAll(() => rm(dir, { recursive: true, force: true }));

  it.each(Object.keys(FRAME_RATES) as FrameRateLabel[])(
    'at %s frames a second every hit is seen within 0.55 frames of its pin, and none of them late in the mean',
    async (rate) => {
      const { piece, analysis } = flashing(rate);
      const out = join(dir, `${rate}.mp4`);
      // The song itself is not read: nothing of it is to be heard.
      const input = { piece, analysis, formatId: 'f', files: {} };
      await renderVideo({ input, songFile: null, out, assets, threads: 2 });
      const { timeOf } = resolveTimes(piece, analysis);
      const perSecond = framesPerSecond(FRAME_RATES[rate]);
      const pins = piece.layers[0]!.tracks.fill!.keyframes.slice(1).map((key) => timeOf(key.at) * perSecond);
      const seen = changes(out);
      expect(seen).toHaveLength(pins.length);
      const late = seen.map((frame, i) => frame - pins[i]!);
      const mean = late.reduce((sum, x) => sum + x, 0) / late.length;
      expect(Math.max(...late.map(Math.abs))).toBeLessThan(0.55);
      expect(Math.abs(mean)).toBeLessThan(0.1);
      all.push(...late);
    },
    60_000,
  );
  it('over all frame rates the mean is nothing', () => {
    expect(all.length).toBe(HITS * Object.keys(FRAME_RATES).length);
    expect(Math.abs(all.reduce((sum, x) => sum + x, 0) / all.length)).toBeLessThan(0.03);
  });
});
