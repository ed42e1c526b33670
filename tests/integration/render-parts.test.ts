import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from '@jest/globals';
import type { SongAnalysis } from '@core/audio';
import { USUAL_SETTINGS } from '@core/formats';
import type { ExportKindId, ExportSettings } from '@core/formats';
import { createLayer, createMusic, onlyLayers, ownTrack, resolveTimes, sectionExcerpts } from '@core/piece';
import type { Piece } from '@core/piece';
import { FRAME_RATES, frameMiddle, freeMoment } from '@core/time';
import type { FrameRate } from '@core/time';
import { EXPORTERS } from '../../server/render/export-kinds';
import { createFrameSource } from '../../server/render/frame-source';
import { renderPart, renderVideo } from '../../server/render/render-video';
import { createServerFonts } from '../../server/render/skia-host';
import { videoParts } from '../../server/render/video-parts';
import { VIDEO_RECIPES } from '../../server/render/video-recipes';
import { countingIds, newPiece, steadyAnalysis } from '../helpers/documents';

import { BUILT } from '../helpers/server';

/** Parts of pieces, pieces in parts, and files of a given size. */
const [W, H] = [96, 64];
const dir = mkdtempSync(join(tmpdir(), 'estrella-parts-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));

/** A disc that goes from left to right, over a plate that stands still. */
function travelling(seconds: number, frameRate: FrameRate = FRAME_RATES['29.97']): Piece {
  const ids = countingIds('p');
  const plate = createLayer(
    'rectangle',
    {
      name: 'plate',
      start: freeMoment(0),
      end: freeMoment(seconds),
      values: { dimensions: [90, 12], position: [0, 24], fill: '#3E7C6B' },
    },
    ids,
  );
  const disc = createLayer(
    'ellipse',
    { name: 'disc', start: freeMoment(0), end: freeMoment(seconds), values: { dimensions: [20, 20], fill: '#FFB74A' } },
    ids,
  );
  ownTrack(disc, 'position').keyframes = [-40, 40].map((x, i) => ({
    id: `k${i}`,
    at: freeMoment(i * seconds),
    value: [x, 0],
    easing: { type: 'linear' },
  }));
  return {
    ...newPiece('Parts'),
    formats: [{ id: 'wide', name: 'Wide', width: W, height: H }],
    leadFormatId: 'wide',
    frameRate,
    background: { value: '#203040', keyframes: [] },
    layers: [plate, disc],
    end: freeMoment(seconds),
  };
}
const inputOf = (piece: Piece) => ({ piece, analysis: null, formatId: 'wide', files: {} });
const settings = (some: Partial<ExportSettings>): ExportSettings => ({ ...USUAL_SETTINGS, ...some });

async function made(
  kind: ExportKindId,
  piece: Piece,
  more: Partial<Parameters<(typeof EXPORTERS)[ExportKindId]>[0]> = {},
): Promise<string> {
  const out = join(dir, `${Math.random().toString(36).slice(2)}.${kind}`);
  await EXPORTERS[kind]({ input: inputOf(piece), songFile: null, at: 0, out, assets: BUILT, threads: 2, ...more });
  return out;
}
const ffprobe = (file: string, ...entries: string[]): string[] =>
  execFileSync('ffprobe', ['-v', 'error', ...entries, '-of', 'csv=p=0', file])
    .toString()
    .trim()
    .split('\n')
    .map((line) => line.replace(/,$/, ''));
/** A checksum of each decoded frame. */
const frameSums = (file: string): string[] =>
  execFileSync('ffmpeg', ['-v', 'error', '-i', file, '-map', '0:v', '-fps_mode', 'passthrough', '-f', 'framemd5', '-'])
    .toString()
    .split('\n')
    .filter((line) => line !== '' && !line.startsWith('#'))
    .map((line) => line.split(',').pop()!.trim());

describe('a video in parts', () => {
  // Few frames, whose length is no whole number of anything.
  const piece = travelling(24, { num: 10_000, den: 1001 });
  it('begins each part where a whole frame is due, and leaves none out', () => {
    const parts = videoParts({ first: 7, count: 700 }, FRAME_RATES['29.97']);
    expect(parts.map((part) => part.first)).toEqual([7, 307, 607]);
    expect(parts.at(-1)!.end).toBe(707);
  });
  it.each(['mp4', 'webm', 'prores-alpha'] as const)(
    'as %s is the same to the bit whether one makes it or several, whatever their order',
    async (kind) => {
      const recipe = VIDEO_RECIPES[kind];
      const run = { input: inputOf(piece), songFile: null, assets: BUILT, threads: 2, recipe };
      const alone = join(dir, `alone.${kind}`);
      await renderVideo({ ...run, out: alone });
      const joined = join(dir, `joined.${kind}`);
      await renderVideo({
        ...run,
        out: joined,
        async makeParts(parts) {
          const fileOf = (index: number): string => join(dir, `${kind}-${index}.${recipe.part.extension}`);
          for (const part of [...parts].reverse()) await renderPart({ ...run, out: fileOf(part.index) }, part);
          return parts.map((part) => fileOf(part.index));
        },
      });
      const sums = frameSums(alone);
      expect(sums).toHaveLength(Math.ceil((24 * 10_000) / 1001));
      expect(frameSums(joined)).toEqual(sums);
      const times = (file: string) => ffprobe(file, '-select_streams', 'v', '-show_entries', 'packet=pts').sort();
      expect(times(joined)).toEqual(times(alone));
      const sound = (file: string) =>
        execFileSync('ffmpeg', ['-v', 'error', '-i', file, '-map', '0:a', '-f', 'md5', '-']).toString();
      expect(sound(joined)).toBe(sound(alone));
    },
    120_000,
  );
  it('has no step in its times where parts meet, and no delay in players that ignore edit lists', async () => {
    const file = await made('mp4', travelling(21));
    const pts = ffprobe(file, '-select_streams', 'v', '-show_entries', 'packet=pts').map(Number);
    expect(pts.sort((a, b) => a - b)).toEqual(pts.map((_, i) => i * 1001));
    // Frames wait for later ones in this file, and yet the first stands at nought.
    expect(ffprobe(file, '-select_streams', 'v', '-show_entries', 'stream=has_b_frames')).not.toEqual(['0']);
    const args = ['-ignore_editlist', '1', '-select_streams', 'v', '-show_entries', 'stream=start_pts'];
    expect(ffprobe(file, ...args)).toEqual(['0']);
  });
});

describe('a part of a piece', () => {
  const piece = travelling(4);
  it('is its frames and no others, to the last level', async () => {
    const excerpt = { from: 1.5, to: 2.25 };
    const file = await made('png-sequence', piece, { excerpt });
    const names = execFileSync('unzip', ['-Z1', file]).toString().trim().split('\n');
    expect(names).toHaveLength(Math.round((2.25 * 30000) / 1001) - Math.round((1.5 * 30000) / 1001));
    const source = await createFrameSource(
      { ...inputOf(piece), isSeeThrough: true },
      createServerFonts(BUILT.fontsDir),
    );
    const first = Math.round((1.5 * 30000) / 1001);
    const { canvas } = await source.paint(frameMiddle(first, piece.frameRate));
    expect(execFileSync('unzip', ['-p', file, '00000.png']).equals(await canvas.encode('png'))).toBe(true);
  });
  it('as video has as much sound as picture', async () => {
    const file = await made('prores', piece, { excerpt: { from: 1, to: 2 } });
    const counts = ['-count_frames', '-show_entries', 'stream=codec_type,nb_read_frames,duration_ts'];
    const [video, audio] = ffprobe(file, ...counts);
    expect(video).toContain(',30');
    expect(audio).toContain(`,${Math.round((60 * 1001 * 48000) / 30000) - Math.round((30 * 1001 * 48000) / 30000)}`);
  });
  it('can be one layer alone, in its place, with the rest not there', async () => {
    const [plate, disc] = piece.layers as [Piece['layers'][number], Piece['layers'][number]];
    const shown = async (p: Piece): Promise<Uint8ClampedArray> => {
      const source = await createFrameSource({ ...inputOf(p), isSeeThrough: true }, createServerFonts(BUILT.fontsDir));
      return (await source.paint(2)).canvas.getContext('2d').getImageData(0, 0, W, H).data;
    };
    const alphaAt = (data: Uint8ClampedArray, x: number, y: number): number => data[(y * W + x) * 4 + 3]!;
    const [onlyPlate, onlyDisc] = [
      await shown(onlyLayers(piece, [plate.id])),
      await shown(onlyLayers(piece, [disc.id])),
    ];
    expect([alphaAt(onlyPlate, 48, 56), alphaAt(onlyPlate, 48, 32)]).toEqual([255, 0]);
    expect([alphaAt(onlyDisc, 48, 56), alphaAt(onlyDisc, 48, 32)]).toEqual([0, 255]);
  });
  it('can be a section of the song, by the name it has', () => {
    const analysis: SongAnalysis = {
      ...steadyAnalysis(120, 0, 80),
      sections: [
        { start: 0, end: 8, label: 'intro', energy: 0.2 },
        { start: 8, end: 16, label: 'main', energy: 0.9 },
        { start: 16, end: 40, label: 'main', energy: 0.9 },
      ],
    };
    const media = { id: 'm', hash: 'a'.repeat(64), kind: 'audio' as const, name: 'song', duration: 40 };
    const sung: Piece = {
      ...travelling(20),
      media: [media],
      music: { ...createMusic(media), start: 2, trimStart: 4, cuts: [] },
    };
    const found = sectionExcerpts(sung, resolveTimes(sung, analysis), analysis);
    expect(found).toEqual([
      { name: 'Intro', from: 2, to: 6 },
      { name: 'Main', from: 6, to: 14 },
      { name: 'Main 2', from: 14, to: 20 },
    ]);
  });
});

describe('a file of a given size', () => {
  const piece = travelling(5);
  const size = (file: string): number => statSync(file).size;
  it.each(['mp4', 'hevc', 'webm'] as const)('as %s is at most so large, in two passes', async (kind) => {
    const megabytes = 0.16;
    const file = await made(kind, piece, { settings: settings({ rate: { by: 'size', megabytes } }) });
    expect(size(file)).toBeLessThanOrEqual(megabytes * 1e6);
    expect(frameSums(file)).toHaveLength(150);
  });
  it('follows the quality that is asked for', async () => {
    const of = async (quality: 'small' | 'good' | 'finest') =>
      size(await made('mp4', piece, { settings: settings({ rate: { by: 'quality', quality } }) }));
    const [small, good, finest] = [await of('small'), await of('good'), await of('finest')];
    expect(small).toBeLessThan(good);
    expect(good).toBeLessThan(finest);
  });
  it('says so where it cannot be made so small', async () => {
    const moving = { ...USUAL_SETTINGS.moving, longerSide: 64, megabytes: 0.001 };
    const out = join(dir, 'never.gif');
    const facts = await EXPORTERS.gif({
      ...{ input: inputOf(piece), songFile: null, at: 0, out, assets: BUILT, settings: settings({ moving }) },
    });
    expect(facts.isTooLarge).toBe(true);
  });
  it('as GIF and as WebP is at most so large, with as many frames as are asked for', async () => {
    // Large enough that most of a file is picture, and not what every frame has around it.
    const large = { ...travelling(5), formats: [{ id: 'wide', name: 'Wide', width: 6 * W, height: 6 * H }] };
    for (const layer of large.layers) ownTrack(layer, 'blur').value = 40;
    for (const kind of ['gif', 'webp-animated'] as const) {
      const moving = { ...USUAL_SETTINGS.moving, longerSide: 384, framesPerSecond: 10 };
      const free = size(await made(kind, large, { settings: settings({ moving }) }));
      const megabytes = (free * 0.75) / 1e6;
      const file = await made(kind, large, { settings: settings({ moving: { ...moving, megabytes } }) });
      expect(size(file)).toBeLessThanOrEqual(megabytes * 1e6);
      if (kind === 'gif') expect(frameSums(file).length).toBeGreaterThanOrEqual(49);
    }
  });
});
