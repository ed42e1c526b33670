import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { createCanvas } from '@napi-rs/canvas';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { unzipSync } from 'fflate';
import { EXPORT_KINDS, EXPORT_KIND_IDS, PAGE_DATA_ID, USUAL_SETTINGS, pageDataSchema } from '@core/formats';
import type { ExportKindId } from '@core/formats';
import { createLayer, ownTrack } from '@core/piece';
import type { Piece } from '@core/piece';
import { frameMiddle, freeMoment } from '@core/time';
import { unpackPiece } from '../../server/features/pieces/piece-archive';
import { EXPORTERS } from '../../server/render/export-kinds';
import { createFrameSource } from '../../server/render/frame-source';
import { createServerFonts } from '../../server/render/skia-host';
import { countingIds, newPiece } from '../helpers/documents';
import { BUILT } from '../helpers/server';

/** Every kind of export, decoded by ffmpeg and held against the frames as they were painted. */
const [W, H, FRAMES] = [160, 96, 12];
const ids = countingIds('x');
const dir = mkdtempSync(join(tmpdir(), 'estrella-kinds-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));

/** A half transparent plate that moves, and a disc with a soft edge. */
function testPiece(): Piece {
  const plate = createLayer(
    'rectangle',
    {
      name: 'plate',
      start: freeMoment(0),
      end: freeMoment(2),
      values: { dimensions: [60, 40], fill: '#E0652B', opacity: 0.5, cornerRadius: 8 },
    },
    ids,
  );
  ownTrack(plate, 'position').keyframes = [-40, 40].map((x, i) => ({
    id: `k${i}`,
    at: freeMoment(i * 0.4),
    value: [x, 10],
    easing: { type: 'linear' },
  }));
  const disc = createLayer(
    'ellipse',
    {
      name: 'disc',
      start: freeMoment(0),
      end: freeMoment(2),
      values: { dimensions: [36, 36], position: [0, -20], fill: '#2BA0E0', blur: 3 },
    },
    ids,
  );
  return {
    ...newPiece('Kinds'),
    formats: [{ id: 'wide', name: 'Wide', width: W, height: H }],
    leadFormatId: 'wide',
    background: { value: '#203040', keyframes: [] },
    layers: [plate, disc],
    end: freeMoment(FRAMES / 30),
  };
}
const piece = testPiece();
const input = { piece, analysis: null, formatId: 'wide', files: {} };

type Frames = readonly Uint8Array[];
let opaque: Frames;
let seeThrough: Frames;
async function painted(isSeeThrough: boolean): Promise<Frames> {
  const source = await createFrameSource({ ...input, isSeeThrough }, createServerFonts(BUILT.fontsDir));
  const out: Uint8Array[] = [];
  for (let frame = 0; frame < FRAMES; frame++) {
    source.forget();
    const { canvas } = await source.paint(frameMiddle(frame, piece.frameRate));
    out.push(new Uint8Array(canvas.getContext('2d').getImageData(0, 0, W, H).data));
  }
  return out;
}
beforeAll(async () => {
  [opaque, seeThrough] = [await painted(false), await painted(true)];
});

async function made(kind: ExportKindId): Promise<string> {
  const out = join(dir, `${kind}.${EXPORT_KINDS[kind].extension}`);
  await EXPORTERS[kind]({ input, songFile: null, at: 0.2, out, assets: BUILT });
  expect(statSync(out).size).toBeGreaterThan(100);
  return out;
}
const probed = (file: string): Record<string, string>[] => {
  const args = ['-v', 'error', '-count_frames', '-show_streams', '-of', 'json', file];
  return (JSON.parse(execFileSync('ffprobe', args).toString()) as { streams: Record<string, string>[] }).streams;
};
const BT709 = 'scale=in_color_matrix=bt709:in_range=tv,format=rgba';
/** Frames of a file as straight RGBA. */
function decoded(file: string, decoder: readonly string[] = [], filter = BT709): Frames {
  const args = ['-v', 'error', ...decoder, '-i', file, '-vf', filter];
  const raw = execFileSync('ffmpeg', [...args, '-fps_mode', 'passthrough', '-f', 'rawvideo', '-'], {
    maxBuffer: 1 << 27,
  });
  const size = W * H * 4;
  return Array.from({ length: raw.length / size }, (_, i) => new Uint8Array(raw.subarray(i * size, (i + 1) * size)));
}
/** Peak signal to noise of what is seen over a ground, dB. */
function psnr(a: Frames, b: Frames, ground: number): number {
  let [sum, count] = [0, 0];
  const over = (frame: Uint8Array, i: number, c: number): number =>
    (frame[i + c]! * frame[i + 3]!) / 255 + ground * (1 - frame[i + 3]! / 255);
  for (const [k, frame] of a.entries())
    for (let i = 0; i < frame.length; i += 4)
      for (let c = 0; c < 3; c++, count++) sum += (over(frame, i, c) - over(b[k]!, i, c)) ** 2;
  return sum === 0 ? Infinity : 10 * Math.log10((255 * 255 * count) / sum);
}
/** How long all frames of a GIF stand together, hundredths of a second. */
function gifHundredths(file: Buffer): number {
  let sum = 0;
  // Graphic control extensions: 21 F9 04, flags, delay (little endian), colour, 00.
  for (let i = 0; i + 7 < file.length; i++)
    if (file[i] === 0x21 && file[i + 1] === 0xf9 && file[i + 2] === 4 && file[i + 7] === 0)
      sum += file.readUInt16LE(i + 4);
  return sum;
}
/** Mean difference of alpha, of 255. */
function alphaOff(a: Frames, b: Frames): number {
  let [sum, count] = [0, 0];
  for (const [k, frame] of a.entries())
    for (let i = 3; i < frame.length; i += 4, count++) sum += Math.abs(frame[i]! - b[k]![i]!);
  return sum / count;
}

describe('moving pictures', () => {
  it.each([
    ['mp4', 'h264', 33],
    ['hevc', 'hevc', 33],
    ['webm', 'vp9', 33],
    ['av1', 'av1', 32],
    ['prores', 'prores', 38],
  ] as [ExportKindId, string, number][])('%s is %s with every frame as it was painted', async (kind, codec, floor) => {
    const file = await made(kind);
    const [video, sound] = probed(file);
    expect(video).toMatchObject({ codec_name: codec, width: W, height: H, nb_read_frames: String(FRAMES) });
    expect(video).toMatchObject({ color_space: 'bt709' });
    expect(sound).toMatchObject({ codec_type: 'audio', sample_rate: '48000', channels: 2 });
    const frames = decoded(file);
    expect(frames).toHaveLength(FRAMES);
    expect(psnr(frames, opaque, 0)).toBeGreaterThan(floor);
  });
  it.each([
    ['prores-alpha', [], 36, 0.3],
    ['webm-alpha', ['-c:v', 'libvpx-vp9'], 32, 0.8],
  ] as [ExportKindId, string[], number, number][])(
    '%s can be seen through, over black and over white',
    async (kind, decoder, floor, most) => {
      const file = await made(kind);
      expect(probed(file)[0]).toMatchObject({ nb_read_frames: String(FRAMES) });
      const frames = decoded(file, decoder);
      expect(frames).toHaveLength(FRAMES);
      for (const ground of [0, 255]) expect(psnr(frames, seeThrough, ground)).toBeGreaterThan(floor);
      expect(alphaOff(frames, seeThrough)).toBeLessThanOrEqual(most);
      expect(frames[0]![3]).toBe(0); // the corner, where there is only background
    },
  );
  it('apng and PNG frames keep every bit, transparency too', async () => {
    const moving = decoded(await made('apng'));
    expect(moving.map((frame) => Buffer.from(frame).equals(Buffer.from(seeThrough[moving.indexOf(frame)]!)))).toEqual(
      Array.from({ length: FRAMES }, () => true),
    );
    const entries = unzipSync(new Uint8Array(readFileSync(await made('png-sequence'))));
    expect(Object.keys(entries)).toEqual(Array.from({ length: FRAMES }, (_, i) => `${String(i).padStart(5, '0')}.png`));
    const folder = join(dir, 'frames');
    mkdirSync(folder);
    for (const [name, bytes] of Object.entries(entries)) writeFileSync(join(folder, name), bytes);
    const frames = readdirSync(folder)
      .sort()
      .flatMap((name) => decoded(join(folder, name)));
    for (const [i, frame] of frames.entries())
      expect(Buffer.from(frame).equals(Buffer.from(seeThrough[i]!))).toBe(true);
  });
  it('webp and gif play again and again, and look like it', async () => {
    const webp = readFileSync(await made('webp-animated'));
    expect(webp.subarray(8, 16).toString()).toBe('WEBPVP8X');
    const text = webp.toString('latin1');
    expect(text.split('ANMF').length - 1).toBe(FRAMES);
    expect(webp.readUInt16LE(text.indexOf('ANIM') + 12)).toBe(0); // for ever
    const gif = await made('gif');
    const frames = decoded(gif);
    expect(frames).toHaveLength(FRAMES / 2);
    const every = opaque.filter((_, i) => i % 2 === 0);
    const next = opaque.filter((_, i) => i % 2 === 1);
    expect(Math.max(psnr(frames, every, 0), psnr(frames, next, 0))).toBeGreaterThan(27);
    expect(readFileSync(gif).toString('latin1')).toContain('NETSCAPE2.0');
  });
  it.each([0.4, 0.43, 1, 1.3])('a gif of %d s lasts as long as its piece, within a hundredth', async (seconds) => {
    const out = join(dir, `lasts-${seconds}.gif`);
    const long = { ...input, piece: { ...piece, end: freeMoment(seconds) } };
    await EXPORTERS.gif({ input: long, songFile: null, at: 0, out, assets: BUILT });
    expect(Math.abs(gifHundredths(readFileSync(out)) - seconds * 100)).toBeLessThanOrEqual(1);
  });
  it('odd sides get a line more; what was painted is not resampled', async () => {
    const odd = [161, 97] as const;
    const even = [162, 98] as const;
    // Stripes a pixel wide are grey as soon as anything is drawn at another size.
    const stripes = Array.from({ length: 81 }, (_, i) =>
      createLayer(
        'rectangle',
        {
          ...{ name: `stripe ${i}`, start: freeMoment(0), end: freeMoment(2) },
          values: { dimensions: [1, odd[1]], position: [2 * i - 80, 0], fill: '#FFFFFF' },
        },
        ids,
      ),
    );
    const striped: Piece = {
      ...piece,
      formats: [{ id: 'wide', name: 'Wide', width: odd[0], height: odd[1] }],
      background: { value: '#000000', keyframes: [] },
      layers: stripes,
      end: freeMoment(0.1),
    };
    const out = join(dir, 'odd.mp4');
    const rate = { by: 'quality', quality: 'finest' } as const;
    const settings = { ...USUAL_SETTINGS, rate };
    await EXPORTERS.mp4({ input: { ...input, piece: striped }, songFile: null, at: 0, out, assets: BUILT, settings });
    const luma = execFileSync('ffmpeg', [
      ...['-v', 'error', '-i', out, '-frames:v', '1', '-vf', 'format=gray', '-f', 'rawvideo', '-'],
    ]);
    expect(luma.length).toBe(even[0] * even[1]);
    const row = luma.subarray(48 * even[0], 49 * even[0]);
    const expected = (x: number): number => (Math.min(x, odd[0] - 1) % 2 === 0 ? 235 : 16);
    const off = [...row].map((level, x) => Math.abs(level - expected(x)));
    expect(Math.max(...off)).toBeLessThan(40);
  });
});

describe('stills and sound', () => {
  it.each([
    ['png', Infinity],
    ['jpeg', 34],
    ['webp', 34],
  ] as [ExportKindId, number][])('%s shows the frame of the moment', async (kind, floor) => {
    // Stills say by themselves how their colours are meant.
    const [frame] = decoded(await made(kind), [], 'format=rgba');
    expect(psnr([frame!], [opaque[6]!], 0)).toBeGreaterThanOrEqual(floor);
  });
  it.each([
    ['wav', 'pcm_s24le', 0],
    ['mp3', 'mp3', 0.08],
    ['m4a', 'aac', 0.05],
    ['opus', 'opus', 0.05],
  ] as [ExportKindId, string, number][])('%s is as long as the picture', async (kind, codec, slack) => {
    const [stream] = probed(await made(kind));
    expect(stream).toMatchObject({ codec_name: codec, channels: 2 });
    expect(Math.abs(Number(stream!.duration) - FRAMES / 30)).toBeLessThanOrEqual(slack + 1e-6);
  });
  it('the page holds all that it needs, and nothing that it could load from elsewhere', async () => {
    const page = readFileSync(await made('html'), 'utf8');
    expect(page).toContain(`<title>${piece.name}</title>`);
    expect(page).toContain("default-src 'none'");
    const packed = new RegExp(`id="${PAGE_DATA_ID}">([^<]+)<`).exec(page)?.[1] ?? '';
    const data = pageDataSchema.parse(JSON.parse(gunzipSync(Buffer.from(packed, 'base64')).toString()));
    expect(data).toMatchObject({ first: 0, count: FRAMES, sound: null });
    expect(Object.keys(data.files)).toEqual(['/fonts/manifest.json']); // nothing is written in it
    expect(/(src|href)="(?!data:)/.exec(page)).toBeNull();
  });
  it('the hand-over folder has picture, sound, times, fonts and the piece, all named in its list', async () => {
    const entries = unzipSync(new Uint8Array(readFileSync(await made('handover'))));
    const names = [
      'Kinds.mp4',
      'Kinds.wav',
      'poster.png',
      'timeline.otio',
      'markers.csv',
      'tempo.mid',
      'Kinds.estrella',
    ];
    expect(Object.keys(entries).sort()).toEqual([...names, 'Read me.txt'].sort());
    const list = Buffer.from(entries['Read me.txt']!).toString();
    for (const name of names) expect(list).toContain(name);
    expect(list).toContain(`${W} × ${H}, 30 frames a second, ${FRAMES} frames`);
    const folder = join(dir, 'handover');
    mkdirSync(folder);
    for (const name of names) writeFileSync(join(folder, name), entries[name]!);
    expect(probed(join(folder, 'Kinds.mp4'))[0]).toMatchObject({ nb_read_frames: String(FRAMES) });
    expect(psnr(decoded(join(folder, 'poster.png'), [], 'format=rgba'), [opaque[4]!], 0)).toBe(Infinity);
    const timeline = JSON.parse(Buffer.from(entries['timeline.otio']!).toString()) as unknown;
    expect(JSON.stringify(timeline)).toContain('Kinds.mp4');
    mkdirSync(join(folder, 'unpacked'));
    const back = await unpackPiece(join(folder, 'Kinds.estrella'), join(folder, 'unpacked'));
    expect(back.piece).toEqual(piece);
  });
  it('media goes along under the names that people know, each once, with the fonts that are written with', async () => {
    const word = createLayer(
      'text',
      { name: 'word', start: freeMoment(0), end: freeMoment(1), content: { text: 'Up', family: 'literata' } },
      ids,
    );
    const file = join(dir, 'kite.png');
    writeFileSync(file, createCanvas(8, 8).toBuffer('image/png'));
    const media = ['Kite.PNG', 'kite.png'].map((name, i) => ({
      id: `m${i}`,
      hash: String(i).repeat(64),
      kind: 'picture' as const,
      name,
      width: 8,
      height: 8,
    }));
    const files = Object.fromEntries(media.map(({ hash }) => [hash, file]));
    const out = join(dir, 'media.zip');
    const withMedia = { ...input, files, piece: { ...piece, media, layers: [...piece.layers, word] } };
    await EXPORTERS.handover({ input: withMedia, originals: files, songFile: null, at: 0, out, assets: BUILT });
    const names = Object.keys(unzipSync(new Uint8Array(readFileSync(out))));
    expect(names.filter((name) => name.startsWith('media/'))).toEqual(['media/Kite.png', 'media/kite 2.png']);
    const fonts = names.filter((name) => name.startsWith('fonts/'));
    expect(fonts.filter((name) => name.endsWith('.ttf')).length).toBeGreaterThan(0);
    expect(fonts.filter((name) => name.endsWith('LICENSE.txt')).length).toBeGreaterThan(0);
    const lost = EXPORTERS.handover({ input: withMedia, songFile: null, at: 0, out, assets: BUILT });
    await expect(lost).rejects.toMatchObject({ code: 'MEDIA_MISSING' });
  });
  it('every kind is among these', () => {
    const tried = readdirSync(dir).map((name) => name.split('.')[0]);
    // SVG, Lottie and times have tests of their own.
    const isOther = (id: ExportKindId): boolean =>
      ['svg', 'lottie', 'lottie-alpha'].includes(id) || EXPORT_KINDS[id].family === 'times';
    expect(EXPORT_KIND_IDS.filter((id) => !isOther(id) && !tried.includes(id))).toEqual([]);
  });
});

describe('words and times', () => {
  it.each(['markers-csv', 'midi-tempo', 'otio'] as const)('%s is written', async (kind) => {
    const out = join(dir, `times.${EXPORT_KINDS[kind].extension}`);
    await EXPORTERS[kind]({ input, songFile: null, at: 0, out, assets: BUILT });
    expect(statSync(out).size).toBeGreaterThan(30);
  });
  it.each(['srt', 'vtt'] as const)('%s holds the captions, and is not written where there are none', async (kind) => {
    const out = join(dir, `captions.${kind}`);
    const none = EXPORTERS[kind]({ input, songFile: null, at: 0, out, assets: BUILT });
    await expect(none).rejects.toMatchObject({ code: 'NO_CAPTIONS' });
    const caption = createLayer(
      'text',
      {
        name: 'caption',
        start: freeMoment(0.1),
        end: freeMoment(0.3),
        content: {
          text: 'The kites are up',
          family: 'literata',
          phrase: { role: 'caption', locked: false, emphasis: [] },
        },
      },
      ids,
    );
    const said = { ...input, piece: { ...piece, layers: [...piece.layers, caption] } };
    await EXPORTERS[kind]({ input: said, songFile: null, at: 0, out, assets: BUILT });
    const written = readFileSync(out, 'utf8');
    expect(written).toContain('The kites are up');
    expect(written).toMatch(/00:00:00[.,]100 --> 00:00:00[.,]300/);
  });
});
