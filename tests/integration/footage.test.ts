import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ImageData, createCanvas, loadImage } from '@napi-rs/canvas';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { MEDIA_KINDS, createLayer } from '@core/piece';
import type { MediaRef, Piece } from '@core/piece';
import { frameMiddle, freeMoment } from '@core/time';
import { runJob } from '../../server/jobs/runner';
import { createFrameSource } from '../../server/render/frame-source';
import { createServerFonts } from '../../server/render/skia-host';
import { countingIds, newPiece } from '../helpers/documents';
import { H264, makeFilm, readNumber } from '../helpers/film';
import type { Film } from '../helpers/film';
import { HOST, openTestServer } from '../helpers/server';
import type { TestServer } from '../helpers/server';

/** Films as footage, from the file that is sent to the frame that is seen. */
let server: TestServer;
let dir: string;
beforeAll(async () => {
  server = await openTestServer();
  dir = mkdtempSync(join(tmpdir(), 'estrella-film-'));
});
afterAll(async () => {
  await server?.close();
  rmSync(dir, { recursive: true, force: true });
});

const PLAIN: Film = { width: 320, height: 180, frames: 50, rate: '25', codec: H264 };

function film(name: string, change: Partial<Film> = {}): Buffer {
  const file = join(dir, name);
  makeFilm({ ...PLAIN, ...change }, file);
  return readFileSync(file);
}
const upload = (name: string, bytes: Buffer, as = 'any') =>
  server.request(`/api/media?as=${as}&name=${name}`, { method: 'POST', body: new Uint8Array(bytes) });

/** Sends a film and has its frames made. */
async function ready(name: string, bytes: Buffer): Promise<{ ref: MediaRef; warning: string | null }> {
  const sent = await upload(name, bytes);
  expect(sent).toMatchObject({ status: 201, body: { media: { kind: 'footage' } } });
  const { hash } = sent.body.media as unknown as MediaRef;
  const job = await server.context.jobs.activeForMedia(hash);
  if (job) await runJob(server.context, job.id);
  const { body } = await server.request(`/api/media/${hash}`);
  expect(body.state).toBe('ready');
  return { ref: body.media as unknown as MediaRef, warning: body.warning as string | null };
}

const fileOf = ({ hash, kind }: MediaRef): string => server.context.store.path(hash, MEDIA_KINDS[kind].variant);

/** A piece that shows footage at its own size. */
function pieceWith(ref: MediaRef, content: Record<string, unknown> = {}, rate = { num: 25, den: 1 }): Piece {
  const piece = newPiece('Footage');
  const layer = createLayer(
    'picture',
    {
      ...{ name: 'Film', start: freeMoment(0), end: freeMoment(60) },
      content: { mediaId: ref.id, ...content },
      values: { dimensions: [320, 180] },
    },
    countingIds(),
  );
  const [format] = piece.formats;
  return {
    ...piece,
    frameRate: rate,
    end: freeMoment(4),
    media: [ref],
    formats: [{ ...format!, width: 320, height: 180 }],
    layers: [layer],
  };
}

/** The numbers of the frames that are seen at moments of a piece; null where there is none. */
async function seenAt(piece: Piece, moments: readonly number[]): Promise<(number | null)[]> {
  const [ref] = piece.media;
  const source = await createFrameSource(
    { piece, analysis: null, formatId: piece.leadFormatId, files: { [ref!.hash]: fileOf(ref!) } },
    createServerFonts(join(process.cwd(), 'dist', 'fonts')),
  );
  const out: (number | null)[] = [];
  for (const at of moments) {
    const list = source.resolve(at);
    if (list.items.length === 0) {
      out.push(null);
      continue;
    }
    const { canvas } = await source.paint(list);
    out.push(readNumber(canvas.getContext('2d').getImageData(0, 0, 320, 180).data, 320, [0, 0, 320, 180]));
  }
  return out;
}

/** Pixels of a frame of footage, as they are served. */
async function frameOf({ hash }: MediaRef, frame: number): Promise<ImageData> {
  const answer = await server.app.fetch(new Request(`${HOST}/api/media/${hash}/frames/full/${frame}`));
  const context = createCanvas(320, 180).getContext('2d');
  context.drawImage(await loadImage(Buffer.from(await answer.arrayBuffer())), 0, 0);
  return context.getImageData(0, 0, 320, 180);
}
const colourAt = ({ data, width }: ImageData, x: number, y: number): number[] => [
  ...data.subarray((y * width + x) * 4, (y * width + x) * 4 + 3),
];
/** Pixels that differ much from both of their neighbours above and below, where these are alike. */
function combing({ data, width, height }: ImageData): number {
  const light = (x: number, y: number): number => data[(y * width + x) * 4]!;
  let count = 0;
  for (let y = 1; y < height - 1; y++)
    for (let x = 0; x < width; x++) {
      const [above, below] = [light(x, y - 1), light(x, y + 1)];
      if (Math.abs(above - below) < 20 && Math.abs(light(x, y) - (above + below) / 2) > 30) count++;
    }
  return count;
}

describe('a film that is sent', () => {
  it.each<[string, string, Partial<Film>, { num: number; den: number }]>([
    ['MP4', 'a.mp4', {}, { num: 25, den: 1 }],
    [
      'MOV with B-frames at 29.97',
      'b.mov',
      { rate: '30000/1001', codec: [...H264, '-bf', '3'] },
      { num: 30000, den: 1001 },
    ],
    [
      'WebM',
      'c.webm',
      { rate: '24', codec: ['-c:v', 'libvpx-vp9', '-crf', '20', '-b:v', '0', '-cpu-used', '8', '-row-mt', '1'] },
      { num: 24, den: 1 },
    ],
    [
      'AVI of JPEGs at an odd rate',
      'd.avi',
      { rate: '12.5', codec: ['-c:v', 'mjpeg', '-q:v', '3'] },
      { num: 12500, den: 1000 },
    ],
  ])('as %s becomes footage whose every frame is there', async (_title, name, change, rate) => {
    const { ref, warning } = await ready(name, film(name, change));
    expect(warning).toBeNull();
    expect(ref).toMatchObject({ width: 320, height: 180, footage: { frameRate: rate, frames: 50 } });
    expect(ref.duration).toBeCloseTo((50 * rate.den) / rate.num, 6);
    const moments = Array.from({ length: 50 }, (_, frame) => frameMiddle(frame, rate));
    expect(await seenAt(pieceWith(ref), moments)).toEqual(moments.map((_, frame) => frame));
  });
  it('with uneven frames is spaced evenly, at the rate they come to', async () => {
    // Every frame stands for one or for three: two on the mean.
    const uneven = ['-vf', 'setpts=(N+2*floor(N/2))/50/TB', '-vsync', 'vfr', ...H264];
    const { ref } = await ready('uneven.mp4', film('uneven.mp4', { codec: uneven }));
    expect(ref.footage!.frames / (ref.duration ?? 0)).toBeCloseTo(25, 0);
    expect(ref.duration).toBeGreaterThan(1.8);
    const seen = await seenAt(pieceWith(ref), [0.001, 0.5, 1, 1.5]);
    expect(seen[0]).toBe(0);
    for (const [i, at] of [0.5, 1, 1.5].entries()) expect(Math.abs(seen[i + 1]! - at * 25)).toBeLessThan(2.01);
  });
  it('that can be seen through stays so', async () => {
    const alpha = (x: number): number => (x < 160 ? 255 : 64);
    const bytes = film('through.mov', { frames: 6, alpha, codec: ['-c:v', 'qtrle'] });
    const { ref } = await ready('through.mov', bytes);
    const answer = await server.app.fetch(new Request(`${HOST}/api/media/${ref.hash}/frames/full/3`));
    expect(answer.headers.get('content-type')).toBe('image/webp');
    const image = await loadImage(Buffer.from(await answer.arrayBuffer()));
    const context = createCanvas(320, 180).getContext('2d');
    context.drawImage(image, 0, 0);
    const { data } = context.getImageData(0, 0, 320, 180);
    expect([data[(100 * 320 + 40) * 4 + 3], data[(100 * 320 + 300) * 4 + 3]]).toEqual([255, 64]);
  });
  it('that is turned, wide in its pixels, large or cut off is taken as it is seen, and told of', async () => {
    const turned = join(dir, 'turned.mp4');
    film('flat.mp4');
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-i',
      join(dir, 'flat.mp4'),
      '-c',
      'copy',
      '-metadata:s:v:0',
      'rotate=90',
      turned,
    ]);
    expect((await ready('turned.mp4', readFileSync(turned))).ref).toMatchObject({ width: 180, height: 320 });
    const wide = film('wide.mp4', { frames: 3, codec: ['-vf', 'setsar=2', ...H264] });
    expect((await ready('wide.mp4', wide)).ref).toMatchObject({ width: 640, height: 180 });
    const large = film('large.mp4', { frames: 2, codec: ['-vf', 'scale=3840:2160', ...H264] });
    const kept = await ready('large.mp4', large);
    expect(kept.ref).toMatchObject({ width: 2560, height: 1440 });
    expect(kept.warning).toContain('3840×2160');
    const whole = film('whole.mkv', { frames: 100 });
    const cut = await ready('cut.mkv', whole.subarray(0, whole.length >> 1));
    expect(cut.ref.footage!.frames).toBeLessThan(90);
    expect(cut.ref.footage!.frames).toBeGreaterThan(10);
  });
  it('has colours as they were, whatever matrix it was encoded with', async () => {
    for (const [i, matrix] of (['bt709', 'smpte170m'] as const).entries()) {
      const codec = ['-vf', `scale=out_color_matrix=${matrix}:out_range=limited`, '-colorspace', matrix, ...H264];
      const name = `colour${i}.mp4`;
      const { ref } = await ready(name, film(name, { frames: 2, subject: () => [0.5, 0.6], radius: 0.3, codec }));
      const rgb = colourAt(await frameOf(ref, 1), 160, 108);
      for (const [k, wanted] of [220, 90, 40].entries()) expect(Math.abs(rgb[k]! - wanted)).toBeLessThanOrEqual(3);
    }
  });
  it.each([
    ['PQ', 'smpte2084'],
    ['HLG', 'arib-std-b67'],
  ])('of high dynamic range (%s) is brought to everyday colours', async (name, transfer) => {
    const wide = [
      'scale=out_color_matrix=bt709:out_range=limited,format=yuv444p',
      'setparams=colorspace=bt709:color_primaries=bt709:color_trc=bt709:range=limited',
      `zscale=t=linear:npl=203,format=gbrpf32le,zscale=p=bt2020:t=${transfer}:m=bt2020nc:r=limited:npl=203,format=yuv420p10le`,
    ].join(',');
    const tags = ['-colorspace', 'bt2020nc', '-color_primaries', 'bt2020', '-color_trc', transfer];
    const codec = ['-vf', wide, ...tags, '-c:v', 'libx265', '-x265-params', 'log-level=error:lossless=1'];
    const ground = (frame: number): number => 60 + 60 * frame;
    const bytes = film(`${name}.mp4`, { frames: 3, ground, subject: () => [0.5, 0.6], radius: 0.3, codec });
    const { ref } = await ready(`${name}.mp4`, bytes);
    for (const i of [0, 1, 2]) {
      const frame = await frameOf(ref, i);
      const seen = [...colourAt(frame, 160, 108), ...colourAt(frame, 20, 150)];
      const wanted = [220, 90, 40, ground(i), ground(i) + 5, ground(i) + 10];
      for (const [k, value] of wanted.entries()) expect(Math.abs(seen[k]! - value)).toBeLessThanOrEqual(8);
    }
  });
  it('that is interlaced has whole frames', async () => {
    const subject = (frame: number): readonly [number, number] => [0.15 + 0.014 * frame, 0.6];
    const codec = [
      '-vf',
      'interlace=lowpass=off',
      '-flags',
      '+ildct+ilme',
      '-c:v',
      'mpeg2video',
      '-q:v',
      '2',
      '-r',
      '25',
    ];
    const bytes = film('woven.mkv', { rate: '50', frames: 50, isPlain: true, subject, radius: 0.3, codec });
    const { ref } = await ready('woven.mkv', bytes);
    expect(ref.footage).toMatchObject({ frames: 25, frameRate: { num: 25, den: 1 } });
    const decode = ['-v', 'error', '-i', join(dir, 'woven.mkv'), '-f', 'rawvideo', '-pix_fmt', 'rgba', '-'];
    const plain = execFileSync('ffmpeg', decode, { maxBuffer: 1e9 });
    const size = 320 * 180 * 4;
    for (const i of [5, 10, 20]) {
      const woven = new ImageData(new Uint8ClampedArray(plain.subarray(i * size, (i + 1) * size)), 320, 180);
      expect(combing(woven)).toBeGreaterThan(15);
      expect(combing(await frameOf(ref, i))).toBe(0);
    }
  });
});

describe('what is seen of footage', () => {
  it('begins where it is said, goes as fast as it is said, again and there and back, and ends', async () => {
    const { ref } = await ready('plain.mp4', film('plain.mp4', { frames: 50 }));
    const at = [0.02, 0.5, 1, 1.5, 1.9];
    expect(await seenAt(pieceWith(ref, { from: 1 }), at)).toEqual([25, 37, 49, null, null]);
    const time = { speed: 2, repeat: null, turns: false, freeze: null };
    expect(await seenAt(pieceWith(ref, { time }), at)).toEqual([1, 25, 49, null, null]);
    const back = { speed: 1, repeat: { unit: 'seconds', value: 1 }, turns: true, freeze: null };
    const seen = await seenAt(pieceWith(ref, { time: back }), [0.5, 1.5, 1.98, 2.5]);
    expect(seen[0]).toBe(12);
    expect(seen[1]).toBe(12);
    expect(seen[2]).toBeLessThanOrEqual(1);
    expect(seen[3]).toBe(12);
  });
});

describe('a film both ways', () => {
  it('is a song where a song is wanted, and footage as well, one beside the other', async () => {
    const bytes = film('both.mp4', {
      codec: ['-f', 'lavfi', '-i', 'sine=440:d=2', '-c:a', 'aac', '-shortest', ...H264],
    });
    const song = await upload('both.mp4', bytes, 'audio');
    expect(song).toMatchObject({ status: 201, body: { media: { kind: 'audio' } } });
    const seen = await ready('both.mp4', bytes);
    expect(seen.ref.hash).not.toBe((song.body.media as unknown as MediaRef).hash);
    expect(seen.ref.footage!.frames).toBe(50);
    // Again: each is known.
    expect((await upload('both.mp4', bytes, 'audio')).body.media).toMatchObject({ kind: 'audio' });
    expect((await upload('both.mp4', bytes)).body.media).toMatchObject({ kind: 'footage', hash: seen.ref.hash });
  });
  it('without sound is no song, and sound without a picture no footage', async () => {
    const mute = film('mute.mp4', { frames: 3 });
    expect(await upload('mute.mp4', mute, 'audio')).toMatchObject({ status: 422 });
    for (const name of ['sound.m4a', 'sound.mp4']) {
      const file = join(dir, name);
      execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', 'sine=440:d=1', '-c:a', 'aac', file]);
      expect(await upload(name, readFileSync(file))).toMatchObject({ body: { media: { kind: 'audio' } } });
    }
    const sound = readFileSync(join(dir, 'sound.mp4'));
    const refused = { status: 422, body: { error: { code: 'FOOTAGE_UNREADABLE' } } };
    expect(await upload('sound.mp4', sound, 'footage')).toMatchObject(refused);
  });
  it('is refused where it is too long, and its frames where they are not there', async () => {
    const file = join(dir, 'long.mp4');
    execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', 'color=s=16x16:r=1:d=700', ...H264, file]);
    const long = await upload('long.mp4', readFileSync(file), 'footage');
    expect(long).toMatchObject({ status: 422, body: { error: { code: 'FOOTAGE_TOO_LONG' } } });
    const { ref } = await ready('few.mp4', film('few.mp4', { frames: 4 }));
    for (const address of ['full/4', 'small/-1', 'huge/0', 'full/x'])
      expect(
        (await server.app.fetch(new Request(`${HOST}/api/media/${ref.hash}/frames/${address}`))).status,
      ).toBeGreaterThanOrEqual(400);
  });
});
