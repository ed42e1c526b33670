import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { unzipSync } from 'fflate';
import { EXPORT_KINDS } from '@core/formats';
import type { ExportKindId } from '@core/formats';
import { createLayer, ownTrack } from '@core/piece';
import type { Effect, Layer, LayerKind, Mask, Piece, PropertyId } from '@core/piece';
import type { TrackValue } from '@core/motion';
import { SHIPPED_TEMPLATES } from '@core/templates';
import { frameMiddle, freeMoment } from '@core/time';
import { EXPORTERS } from '../../server/render/export-kinds';
import { createFrameSource } from '../../server/render/frame-source';
import type { FrameSource } from '../../server/render/frame-source';
import { createServerFonts } from '../../server/render/skia-host';
import { countingIds, newPiece } from '../helpers/documents';
import { BUILT } from '../helpers/server';

/**
 * Pieces without a ground: every frame that is painted from the one before, and every frame of a file, is held against
 * the same frame painted alone. The lowest layers stand still and something above them moves, which is what most lower
 * thirds are.
 */
const [W, H, EACH] = [160, 96, 6];
const ids = countingIds('s');
const dir = mkdtempSync(join(tmpdir(), 'estrella-alpha-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));

type Values = Partial<Record<PropertyId, TrackValue>>;
const still = (value: number | [number, number]) => ({ value, keyframes: [] });
const effect = (kind: Effect['kind']): Effect => ({ id: ids(), kind, isOn: true, seed: 3, parameters: {} });
const mask: Mask = {
  id: 'm',
  name: 'm',
  mode: 'add',
  inverted: false,
  d: 'M0 0L60 0L60 60L0 60Z',
  box: [60, 60],
  rule: 'nonzero',
  forms: [],
  tracks: { feather: still(4) },
};

/** One case as it stands in the film of all cases: layers, the lowest first, within their stretch of time. */
function caseAt(number: number) {
  const [from, to] = [(number * EACH) / 30, ((number + 1) * EACH) / 30];
  const span = { start: freeMoment(from), end: freeMoment(to) };
  const layer = (kind: LayerKind, values: Values, more: Partial<Layer> = {}, content = {}): Layer =>
    ({ ...createLayer(kind, { name: kind, ...span, values, content }, ids), ...more }) as Layer; // fits any kind
  const moving = (property: PropertyId, a: TrackValue, b: TrackValue, one: Layer): Layer => {
    ownTrack(one, property).keyframes = [a, b].map((value, i) => ({
      id: ids(),
      at: freeMoment(i ? to : from),
      value,
      easing: { type: 'linear' },
    }));
    return one;
  };
  return {
    layer,
    moving,
    plate: () => layer('ellipse', { dimensions: [110, 70], fill: '#54c6c0', opacity: 0.6 }),
    bar: (more: Partial<Layer> = {}) =>
      moving('position', [-50, 0], [50, 10], layer('rectangle', { dimensions: [30, 20], fill: '#ff6f59' }, more)),
  };
}

const CASES: readonly (readonly [string, (at: ReturnType<typeof caseAt>) => Layer[]])[] = [
  ['a still ellipse and a bar that moves', (c) => [c.plate(), c.bar()]],
  [
    'a gradient that turns',
    (c) => [
      c.plate(),
      c.moving(
        'gradientAngle',
        0,
        180,
        c.layer(
          'rectangle',
          { dimensions: [60, 40], fill: '#ffb74a80', fillEnd: '#3b6fd400' },
          {},
          { gradient: 'linear' },
        ),
      ),
    ],
  ],
  [
    'a group that fades, of layers that move',
    (c) => [
      c.plate(),
      c.bar({ parentId: 'fading' }),
      c.moving('opacity', 1, 0.2, c.layer('group', {}, { id: 'fading' })),
    ],
  ],
  ['a mask with a soft edge', (c) => [c.plate(), c.bar({ masks: [mask] })]],
  [
    'a matte',
    (c) => [
      c.plate(),
      c.layer('ellipse', { dimensions: [50, 50] }, { id: 'seen' }),
      c.bar({ matte: { layerId: 'seen', channel: 'alpha', inverted: false } }),
    ],
  ],
  [
    'blend modes',
    (c) => [
      c.plate(),
      c.bar({ blend: 'multiply' }),
      c.moving(
        'rotation',
        0,
        90,
        c.layer('rectangle', { dimensions: [40, 40], fill: '#ffb74a', opacity: 0.5 }, { blend: 'screen' }),
      ),
    ],
  ],
  [
    'blur that grows',
    (c) => [c.plate(), c.moving('blur', 0, 6, c.layer('rectangle', { dimensions: [40, 20], fill: '#eee9df' }))],
  ],
  ['effects on what moves', (c) => [c.plate(), c.bar({ effects: [effect('shadow'), effect('outline')] })]],
  ['a trail', (c) => [c.plate(), c.bar({ trail: { copies: 3, spacing: 0.04, fade: 0.5 } })]],
  [
    'words that come and go over it',
    (c) => [
      c.plate(),
      c.moving('opacity', 0, 1, c.layer('text', { size: 24 }, {}, { text: 'Oona', family: 'spline-sans' })),
    ],
  ],
];

const film: Piece = {
  ...newPiece('Cases'),
  formats: [{ id: 'wide', name: 'Wide', width: W, height: H }],
  leadFormatId: 'wide',
  layers: CASES.flatMap(([, make], i) => make(caseAt(i))),
  end: freeMoment((CASES.length * EACH) / 30),
};
const FRAMES = CASES.length * EACH;

const open = (piece: Piece): Promise<FrameSource> =>
  createFrameSource(
    { piece, analysis: null, formatId: piece.leadFormatId, files: {}, isSeeThrough: true },
    createServerFonts(BUILT.fontsDir),
  );
/** Straight RGBA of a frame. */
async function pixelsOf(source: FrameSource, seconds: number, scale = 1): Promise<Uint8Array> {
  const { canvas } = await source.paint(seconds, scale);
  return new Uint8Array(canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height).data);
}
/** How far two pictures are from one another over a ground: the mean and the largest difference of 0 to 255. */
function differenceOver(ground: readonly number[], a: Uint8Array, b: Uint8Array): { mean: number; worst: number } {
  let [sum, worst] = [0, 0];
  const over = (frame: Uint8Array, i: number, c: number): number =>
    (frame[i + c]! * frame[i + 3]! + ground[c]! * (255 - frame[i + 3]!)) / 255;
  for (let i = 0; i < a.length; i += 4)
    for (let c = 0; c < 3; c++) {
      const off = Math.abs(over(a, i, c) - over(b, i, c));
      sum += off;
      worst = Math.max(worst, off);
    }
  return { mean: sum / (a.length * 0.75), worst };
}
/**
 * The frames of a moving WebP, which ffmpeg does not read: each of its parts is laid into the picture as the file says,
 * for as long as it says (WebP container specification, chunk ANMF).
 */
async function decodedWebp(file: Buffer): Promise<Uint8Array[]> {
  const canvas = createCanvas(W, H);
  const context = canvas.getContext('2d');
  const frames: Uint8Array[] = [];
  let ms = 0;
  for (let at = 12; at + 8 <= file.length;) {
    const size = file.readUInt32LE(at + 4);
    const body = file.subarray(at + 8, at + 8 + size);
    if (file.toString('latin1', at, at + 4) === 'ANMF') {
      const [x, y] = [2 * body.readUIntLE(0, 3), 2 * body.readUIntLE(3, 3)];
      const [width, height] = [1 + body.readUIntLE(6, 3), 1 + body.readUIntLE(9, 3)];
      const flags = body.readUInt8(15);
      const head = Buffer.alloc(30);
      head.write('RIFF', 0);
      head.writeUInt32LE(22 + body.length - 16, 4);
      head.write('WEBPVP8X', 8);
      head.writeUInt32LE(10, 16);
      head.writeUInt8(0x10, 20); // has alpha
      head.writeUIntLE(width - 1, 24, 3);
      head.writeUIntLE(height - 1, 27, 3);
      const picture = await loadImage(Buffer.concat([head, body.subarray(16)]));
      if (flags & 2) context.clearRect(x, y, width, height);
      context.drawImage(picture, x, y);
      // Whole milliseconds: a picture that stands for several frames stands for their sum.
      const until = ms + body.readUIntLE(12, 3);
      for (; Math.round((frames.length * 1000) / 30) < until;)
        frames.push(new Uint8Array(context.getImageData(0, 0, W, H).data));
      ms = until;
      if (flags & 1) context.clearRect(x, y, width, height);
    }
    at += 8 + size + (size % 2);
  }
  return frames;
}
const GROUNDS = { black: [0, 0, 0], white: [255, 255, 255], green: [0, 177, 64] } as const;
/** A pixel on a curve that is cut where a change ends may come out otherwise, by the rounding of coverage. */
const CUT_CURVE = 24;

describe('frames without a ground, painted one from the other', () => {
  it.each(CASES.map(([name], i) => [name, i] as const))('are what they are alone: %s', async (_, number) => {
    const [following, alone] = [await open(film), await open(film)];
    for (let frame = number * EACH; frame < (number + 1) * EACH; frame++) {
      const at = frameMiddle(frame, film.frameRate);
      alone.forget();
      const [own, single] = [await pixelsOf(following, at), await pixelsOf(alone, at)];
      for (const ground of Object.values(GROUNDS)) {
        const { mean, worst } = differenceOver(ground, own, single);
        expect({ frame, isNear: mean < 0.05 && worst <= CUT_CURVE }).toEqual({ frame, isNear: true });
      }
    }
  });

  const lowerThirds = SHIPPED_TEMPLATES.filter(({ template }) => template?.use === 'lower-third');
  it.each(lowerThirds.map((piece) => [piece.name, piece] as const))('are what they are alone: %s', async (_, piece) => {
    const [following, alone] = [await open(piece), await open(piece)];
    const count = Math.floor((following.duration * piece.frameRate.num) / piece.frameRate.den);
    // Neighbouring frames, at moments all over the piece.
    for (let first = 0; first < count; first += 15)
      for (const frame of [first, first + 1, first + 2].filter((k) => k < count)) {
        const at = frameMiddle(frame, piece.frameRate);
        alone.forget();
        const [own, single] = [await pixelsOf(following, at, 0.2), await pixelsOf(alone, at, 0.2)];
        const { mean, worst } = differenceOver(GROUNDS.green, own, single);
        expect({ frame, isNear: mean < 0.05 && worst <= 4 * CUT_CURVE }).toEqual({ frame, isNear: true });
      }
  });
});

describe('files that can be seen through', () => {
  const truth: Uint8Array[] = [];
  beforeAll(async () => {
    const source = await open(film);
    for (let frame = 0; frame < FRAMES; frame++) {
      source.forget();
      truth.push(await pixelsOf(source, frameMiddle(frame, film.frameRate)));
    }
  });
  const made = async (kind: ExportKindId): Promise<string> => {
    const out = join(dir, `${kind}.${EXPORT_KINDS[kind].extension}`);
    const input = { piece: film, analysis: null, formatId: 'wide', files: {} };
    await EXPORTERS[kind]({ input, songFile: null, at: 0.2, out, assets: BUILT });
    return out;
  };
  const decoded = (file: string, decoder: readonly string[] = []): Uint8Array[] => {
    const args = ['-v', 'error', ...decoder, '-i', file, '-vf', 'scale=in_color_matrix=bt709:in_range=tv,format=rgba'];
    const raw = execFileSync('ffmpeg', [...args, '-fps_mode', 'passthrough', '-f', 'rawvideo', '-'], {
      maxBuffer: 1 << 27,
    });
    const size = W * H * 4;
    return Array.from({ length: raw.length / size }, (_, i) => new Uint8Array(raw.subarray(i * size, (i + 1) * size)));
  };
  const framesOf = async (kind: ExportKindId, file: string): Promise<Uint8Array[]> => {
    if (kind === 'webp-animated') return decodedWebp(readFileSync(file));
    if (kind !== 'png-sequence') return decoded(file, kind === 'webm-alpha' ? ['-c:v', 'libvpx-vp9'] : []);
    const folder = join(dir, 'frames');
    mkdirSync(folder);
    for (const [name, bytes] of Object.entries(unzipSync(new Uint8Array(readFileSync(file)))))
      writeFileSync(join(folder, name), bytes);
    return decoded(join(folder, '%05d.png'));
  };

  it.each([
    // Without loss but for curves that are cut where a change ends; the other two within what their encoder loses.
    ['png-sequence', 0.05],
    ['apng', 0.05],
    ['prores-alpha', 2],
    ['webm-alpha', 4],
    ['webp-animated', 4],
  ] as [ExportKindId, number][])(
    '%s has every frame as it is alone, over black, white and green',
    async (kind, most) => {
      const frames = await framesOf(kind, await made(kind));
      expect(frames).toHaveLength(FRAMES);
      for (const [name, ground] of Object.entries(GROUNDS))
        for (const [frame, pixels] of frames.entries()) {
          const { mean } = differenceOver(ground, pixels, truth[frame]!);
          expect({ name, frame, isNear: mean <= most, mean }).toEqual({ name, frame, isNear: true, mean });
        }
    },
  );
});
