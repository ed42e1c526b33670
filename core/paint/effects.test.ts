import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { createPainter } from '@core/paint';
import { BLEND_MODES, EFFECT_KINDS, createLayer, createPiece, resolveTimes } from '@core/piece';
import type { Effect, Layer, Mask } from '@core/piece';
import { prepareScene, sceneAt } from '@core/scene';
import { FRAME_RATES, freeMoment } from '@core/time';
import { createSkiaHost, createSkiaSurface } from '../../server/render/skia-host';
import { readFileSync } from 'node:fs';
import { countingIds } from '../../tests/helpers/documents';
import { runKernel } from './kernels';
import { PIXEL_EFFECTS } from './pixel-effects';

const SIDE = 96;
const noLayout = (): never => {
  throw new Error('no words here');
};
const flag = (id: string, fill: string, more: object = {}, values: object = {}): Layer => ({
  ...createLayer(
    'rectangle',
    { name: id, start: freeMoment(0), end: freeMoment(4), values: { dimensions: [40, 40], fill, ...values } },
    () => id,
  ),
  ...more,
});
const effect = (kind: Effect['kind'], values: Record<string, number | string> = {}, seed = 1): Effect => ({
  id: kind,
  kind,
  isOn: true,
  seed,
  parameters: Object.fromEntries(Object.entries(values).map(([id, value]) => [id, { value, keyframes: [] }])),
});
const mask = (mode: Mask['mode'], x: number, more: Partial<Mask> = {}): Mask => ({
  id: `${mode}${x}`,
  name: 'Mask',
  mode,
  inverted: false,
  d: 'M0 0L20 0L20 40L0 40Z',
  box: [20, 40],
  rule: 'nonzero',
  forms: [],
  tracks: { position: { value: [x, 0], keyframes: [] } },
  ...more,
});

/** Paints layers on black at a time; the red, green and blue of a pixel. */
function painted(layers: Layer[], seconds = 1): (x: number, y: number) => number[] {
  const base = createPiece(
    { name: 'p', formats: [{ id: 'f', name: 'F', width: SIDE, height: SIDE }], frameRate: FRAME_RATES['30'] },
    countingIds(),
  );
  const piece = { ...base, background: { value: '#000000', keyframes: [] }, layers };
  const surface = createSkiaSurface(SIDE, SIDE);
  createPainter(createSkiaHost()).paint(
    surface.context,
    sceneAt(prepareScene(piece, resolveTimes(piece, null), 'f'), seconds, noLayout),
  );
  const data = surface.canvas.data();
  return (x, y) => [...data.subarray((y * SIDE + x) * 4, (y * SIDE + x) * 4 + 3)];
}
const MIDDLE = [48, 48] as const;

describe('effects', () => {
  it('are compiled from the kernels as they stand', async () => {
    const script = '../../scripts/build-kernels.mjs';
    const { pixelKernelsText } = (await import(script)) as { pixelKernelsText: () => string };
    expect(readFileSync('core/paint/pixels-wasm.ts', 'utf8')).toBe(pixelKernelsText());
  });

  it('change colours as they say', () => {
    const middle = (...effects: Effect[]) => painted([flag('a', '#804020', { effects })])(...MIDDLE);
    const luma = Math.round(0.2126 * 128 + 0.7152 * 64 + 0.0722 * 32);
    expect(middle(effect('invert'))).toEqual([127, 191, 223]);
    expect(middle(effect('invert'), effect('invert'))).toEqual([128, 64, 32]);
    for (const c of middle(effect('grey'))) expect(Math.abs(c - luma)).toBeLessThanOrEqual(1);
    expect(middle(effect('grey', { amount: 0 }))).toEqual([128, 64, 32]);
    const half = middle(effect('duotone', { dark: '#000000', light: '#FF0000' }));
    expect(Math.abs(half[0]! - luma)).toBeLessThanOrEqual(1);
    expect(half.slice(1)).toEqual([0, 0]);
    expect(middle(effect('posterise', { levels: 2 }))).toEqual([255, 0, 0]);
    expect(middle(effect('levels', { brightness: 20 }))).toEqual([179, 115, 83]);
    expect(painted([flag('a', '#FFFFFF', { effects: [effect('tint', { colour: '#FFB74A' })] })])(...MIDDLE)).toEqual([
      255, 183, 74,
    ]);
  });

  it('stand around a layer: shadow, long shadow, outline, glow', () => {
    const at = (e: Effect) => painted([flag('a', '#FFFFFF', { effects: [e] })]);
    const shadow = at(effect('shadow', { colour: '#FF0000', x: 10, y: 0, blur: 0 }));
    expect([shadow(70, 48), shadow(80, 48), shadow(40, 48)]).toEqual([
      [255, 0, 0],
      [0, 0, 0],
      [255, 255, 255],
    ]);
    const outline = at(effect('outline', { colour: '#00FF00', width: 6 }));
    expect([outline(71, 48), outline(48, 72), outline(77, 48)]).toEqual([
      [0, 255, 0],
      [0, 255, 0],
      [0, 0, 0],
    ]);
    const long = at(effect('long', { colour: '#0000FF', angle: 90, length: 16 }));
    expect([long(48, 80), long(48, 90), long(80, 48)]).toEqual([
      [0, 0, 255],
      [0, 0, 0],
      [0, 0, 0],
    ]);
    const glow = at(effect('glow', { radius: 6 }));
    expect(glow(71, 48)[0]).toBeGreaterThan(40);
    expect(glow(71, 48)[0]).toBeGreaterThan(glow(76, 48)[0]!);
  });

  it('soften within and along a direction', () => {
    const at = (e: Effect) => painted([flag('a', '#FFFFFF', { effects: [e] })]);
    const feather = at(effect('feather', { radius: 12 }));
    expect(feather(...MIDDLE)[0]).toBeGreaterThan(230);
    expect(feather(67, 48)[0]).toBeGreaterThan(90);
    expect(feather(67, 48)[0]).toBeLessThan(165);
    const blurred = at(effect('directional', { length: 20, angle: 0 }));
    expect(blurred(68, 48)[0]).toBeGreaterThan(90);
    expect(blurred(68, 48)[0]).toBeLessThan(165);
    expect(blurred(48, 70)[0]).toBe(0);
    const inner = at(effect('inner', { colour: '#000000', x: 8, y: 0, blur: 0 }));
    expect([inner(30, 48)[0], inner(48, 48)[0], inner(90, 48)[0]]).toEqual([0, 255, 0]);
  });

  it('move pixels: what is moved by nothing stays, red and blue part, pixels become squares', () => {
    const at = (e: Effect) => painted([flag('a', '#FFFFFF', { effects: [e] })]);
    for (const kind of ['wave', 'ripple', 'tear'] as const) {
      const still = at(effect(kind, { amount: 0 }));
      for (const [x, y] of [
        [48, 48],
        [30, 30],
        [67, 67],
        [70, 48],
      ] as const)
        expect([kind, still(x, y)]).toEqual([kind, x < 68 ? [255, 255, 255] : [0, 0, 0]]);
      const moved = at(effect(kind, { amount: 8 }));
      const places = Array.from({ length: SIDE * SIDE }, (_, i) => [i % SIDE, Math.floor(i / SIDE)] as const);
      expect([kind, places.some(([x, y]) => moved(x, y)[0] !== still(x, y)[0])]).toEqual([kind, true]);
    }
    const parted = at(effect('chromatic', { distance: 6, angle: 0 }));
    expect(parted(26, 48)).toEqual([255, 0, 0]);
    expect(parted(70, 48)).toEqual([0, 0, 255]);
    const squares = at(effect('pixelate', { size: 16 }));
    expect(squares(20, 48)).toEqual(squares(30, 60));
    expect(squares(20, 48)[0]).toBeGreaterThan(30);
    expect(squares(20, 48)[0]).toBeLessThan(90);
  });

  it('are the same for the same seed, and another frame has another grain only where it moves', () => {
    const noise = (seed: number, values: object, seconds: number) => {
      const at = painted(
        [flag('a', '#808080', { effects: [effect('grain', { amount: 50, ...values }, seed)] })],
        seconds,
      );
      return Array.from({ length: 30 }, (_, i) => at(32 + i, 48)[0]!);
    };
    expect(noise(1, {}, 1)).toEqual(noise(1, {}, 1));
    expect(noise(1, {}, 1)).not.toEqual(noise(2, {}, 1));
    expect(noise(1, {}, 1)).not.toEqual(noise(1, {}, 1.1));
    expect(noise(1, { moves: 0 }, 1)).toEqual(noise(1, { moves: 0 }, 1.1));
    expect(noise(1, { amount: 0 }, 1).every((v) => v === 128)).toBe(true);
  });

  it('go by the time: a strobe shows and hides on the beat, a shake dies away', () => {
    const strobe = (seconds: number) =>
      painted([flag('a', '#FFFFFF', { effects: [effect('strobe', { rate: 1, shown: 50 })] })], seconds)(...MIDDLE)[0];
    // 120 beats a minute: a beat is half a second.
    expect([strobe(1.1), strobe(1.4), strobe(1.6)]).toEqual([255, 0, 255]);
    const shaken = (seconds: number) =>
      painted([flag('a', '#FFFFFF', { effects: [effect('shake', { distance: 12, turn: 0, decay: 2 })] })], seconds);
    const places = Array.from({ length: 12 }, (_, i) => shaken(0.05 + i * 0.07)(69, 48)[0]!);
    expect(new Set(places).size).toBeGreaterThan(1);
    expect(shaken(3)(67, 48)[0]).toBe(255);
    expect(shaken(3)(69, 48)[0]).toBe(0);
  });

  it('do one after another what their order says, and nothing while they are off', () => {
    const order = (...effects: Effect[]) => painted([flag('a', '#FFFFFF', { effects })])(71, 48);
    expect(order(effect('outline', { colour: '#FFFFFF', width: 6 }), effect('invert'))).toEqual([0, 0, 0]);
    expect(order(effect('invert'), effect('outline', { colour: '#FFFFFF', width: 6 }))).toEqual([255, 255, 255]);
    expect(order({ ...effect('outline', { width: 6 }), isOn: false })).toEqual([0, 0, 0]);
  });

  it('work on no more pixels than the layer’s box and their reach', () => {
    let pixels = 0;
    const host = createSkiaHost();
    const counting = {
      ...host,
      createSurface(width: number, height: number) {
        const surface = host.createSurface(width, height);
        const { context } = surface;
        const get = context.getImageData.bind(context);
        context.getImageData = (x, y, w, h) => {
          pixels += w * h;
          return get(x, y, w, h);
        };
        return surface;
      },
    };
    const base = createPiece(
      { name: 'p', formats: [{ id: 'f', name: 'F', width: 1920, height: 1080 }], frameRate: FRAME_RATES['30'] },
      countingIds(),
    );
    const piece = { ...base, layers: [flag('a', '#FFFFFF', { effects: [effect('invert')] })] };
    const list = sceneAt(prepareScene(piece, resolveTimes(piece, null), 'f'), 1, noLayout);
    createPainter(counting).paint(createSkiaSurface(1920, 1080).context, list);
    expect(pixels).toBeGreaterThan(0);
    expect(pixels).toBeLessThan(44 * 44);
  });

  it('all kinds paint, at their beginnings, on a group', () => {
    for (const kind of Object.keys(EFFECT_KINDS) as Effect['kind'][]) {
      const group = createLayer('group', { name: 'g', start: freeMoment(0), end: freeMoment(4) }, () => 'g');
      const at = painted([{ ...group, effects: [effect(kind)] }, flag('a', '#FFB74A', { parentId: 'g' })]);
      const seen = Array.from({ length: SIDE }, (_, i) => at(i, 48)).some((p) => p.some((c) => c > 20));
      expect([kind, seen]).toEqual([kind, true]);
    }
  });
});

describe('kernels', () => {
  const pixels = fc
    .tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 9 }))
    .chain(([width, height]) =>
      fc
        .uint8Array({ minLength: width * height * 4, maxLength: width * height * 4 })
        .map((bytes) => ({ data: new Uint8ClampedArray(bytes), width, height })),
    );
  const PLACE = { x: 3, y: -5, scale: 1, middle: [2, 2] as const };
  const reading = (values: Record<string, number>) => ({
    number: (id: string) => values[id] ?? 0,
    colour: () => '#FFFFFF',
    seed: 9,
  });

  it('keep the opacity of every pixel where only colours change, and the sum of opacities in squares', () => {
    fc.assert(
      fc.property(pixels, (given) => {
        const alphas = [...given.data].filter((_, i) => i % 4 === 3);
        for (const kind of ['invert', 'grey', 'posterise', 'levels', 'duotone', 'grain'] as const) {
          const copy = { ...given, data: new Uint8ClampedArray(given.data) };
          PIXEL_EFFECTS[kind](copy, PLACE, reading({ amount: 60, levels: 4, size: 2 }));
          expect([...copy.data].filter((_, i) => i % 4 === 3)).toEqual(alphas);
        }
        const squares = { ...given, data: new Uint8ClampedArray(given.data) };
        PIXEL_EFFECTS.pixelate(squares, PLACE, reading({ size: 3 }));
        const sum = (data: Uint8ClampedArray) => [...data].reduce((s, v, i) => s + (i % 4 === 3 ? v : 0), 0);
        expect(Math.abs(sum(squares.data) - sum(given.data))).toBeLessThanOrEqual(given.width * given.height * 0.5);
      }),
      { seed: 71, numRuns: 60 },
    );
  });

  it('moved by nothing give back what is seen of every pixel', () => {
    fc.assert(
      fc.property(pixels, (given) => {
        const copy = { ...given, data: new Uint8ClampedArray(given.data) };
        PIXEL_EFFECTS.wave(copy, PLACE, reading({ amount: 0, length: 50 }));
        for (let i = 0; i < given.data.length; i += 4) {
          expect(copy.data[i + 3]).toBe(given.data[i + 3]);
          if (given.data[i + 3]! > 0) expect(copy.data.slice(i, i + 3)).toEqual(given.data.slice(i, i + 3));
        }
      }),
      { seed: 72, numRuns: 40 },
    );
  });

  it('make room for large pictures and say nothing of where others were', () => {
    const large = { data: new Uint8ClampedArray(600 * 400 * 4).fill(200), width: 600, height: 400 };
    runKernel(large, (k, at) => k.lumaToAlpha(at.src, at.pixels));
    expect([large.data[3], large.data[large.data.length - 1]]).toEqual([157, 157]);
  });
});

describe('a shadow within', () => {
  it('falls from the edges of the layer, not from those of the frame', () => {
    const inner = effect('inner', { colour: '#000000', x: 0, y: 0, blur: 8 });
    const wide = painted([flag('a', '#FFFFFF', { effects: [inner] }, { dimensions: [300, 300] })]);
    expect([wide(0, 48)[0], wide(SIDE - 1, SIDE - 1)[0]]).toEqual([255, 255]);
    expect(painted([flag('a', '#FFFFFF', { effects: [inner] })])(29, 48)[0]).toBeLessThan(200);
  });
});

describe('masks and mattes', () => {
  it('add, take away and meet', () => {
    const at = (...masks: Mask[]) => {
      const pixel = painted([flag('a', '#FFFFFF', { masks })]);
      return [30, 40, 56, 66].map((x) => (pixel(x, 48)[0]! > 128 ? 1 : 0));
    };
    expect(at(mask('add', -10))).toEqual([1, 1, 0, 0]);
    expect(at(mask('add', -10), mask('add', 10))).toEqual([1, 1, 1, 1]);
    expect(at(mask('subtract', -10))).toEqual([0, 0, 1, 1]);
    expect(at(mask('add', -10), mask('intersect', 0))).toEqual([0, 1, 0, 0]);
    expect(at(mask('add', -10, { inverted: true }))).toEqual([0, 0, 1, 1]);
  });

  it('are feathered, grown and faint as their tracks say', () => {
    const with_ = (tracks: Mask['tracks']) =>
      painted([flag('a', '#FFFFFF', { masks: [mask('add', -10, { tracks })] })]);
    const still = (value: number | [number, number]) => ({ value, keyframes: [] });
    const soft = with_({ position: still([-10, 0]), feather: still(4) });
    expect(soft(48, 48)[0]).toBeGreaterThan(90);
    expect(soft(48, 48)[0]).toBeLessThan(165);
    expect(with_({ position: still([-10, 0]), expansion: still(6) })(52, 48)[0]).toBe(255);
    expect(with_({ position: still([-10, 0]), expansion: still(-6) })(44, 48)[0]).toBe(0);
    const faint = with_({ position: still([-10, 0]), opacity: still(0.5) })(38, 48)[0]!;
    expect(Math.abs(faint - 128)).toBeLessThanOrEqual(1);
  });

  it('are soft at their own edges, and not where the layer or the frame ends', () => {
    const still = (value: number | [number, number]) => ({ value, keyframes: [] });
    const wide: Partial<Mask> = { d: 'M0 0L300 0L300 300L0 300Z', box: [300, 300] };
    const tracks = { position: still([0, 0]), feather: still(8) };
    const within = painted([flag('a', '#FFFFFF', { masks: [mask('add', 0, { ...wide, tracks })] })]);
    for (const [x, y] of [
      [30, 48],
      [48, 66],
      [29, 29],
    ] as const)
      expect(within(x, y)[0]).toBe(255);
    const all = flag('a', '#FFFFFF', { masks: [mask('add', 0, { ...wide, tracks })] }, { dimensions: [200, 200] });
    expect([painted([all])(0, 48)[0], painted([all])(SIDE - 1, SIDE - 1)[0]]).toEqual([255, 255]);
    const away = mask('subtract', 0, { ...wide, inverted: true, tracks });
    expect(painted([flag('a', '#FFFFFF', { masks: [away] })])(29, 29)[0]).toBe(255);
  });

  it('let a layer be seen by another, by opacity or brightness, and that one is not seen itself', () => {
    const matte = (channel: 'alpha' | 'luminance', inverted: boolean, fill = '#808080') => {
      const cover = flag('m', fill, {}, { dimensions: [20, 20] });
      return painted([cover, flag('a', '#FFFFFF', { matte: { layerId: 'm', channel, inverted } })]);
    };
    expect([matte('alpha', false)(48, 48)[0], matte('alpha', false)(62, 48)[0]]).toEqual([255, 0]);
    expect([matte('alpha', true)(48, 48)[0], matte('alpha', true)(62, 48)[0]]).toEqual([0, 255]);
    expect(Math.abs(matte('luminance', false)(48, 48)[0]! - 128)).toBeLessThanOrEqual(1);
    expect(matte('luminance', false, '#000000')(48, 48)[0]).toBe(0);
  });

  it('seen by one another in a ring, layers are still painted', () => {
    const ring = (id: string, by: string) =>
      flag(id, '#FFFFFF', { matte: { layerId: by, channel: 'alpha', inverted: false } });
    expect(() => painted([ring('a', 'b'), ring('b', 'a')])).not.toThrow();
  });
});

/** Compositing and Blending Level 1, sections 10.1 and 10.2, for opaque colours. */
describe('blend modes', () => {
  const SEPARABLE: Record<string, (b: number, s: number) => number> = {
    normal: (_b, s) => s,
    multiply: (b, s) => b * s,
    screen: (b, s) => b + s - b * s,
    overlay: (b, s) => SEPARABLE['hard-light']!(s, b),
    darken: Math.min,
    lighten: Math.max,
    'color-dodge': (b, s) => (b === 0 ? 0 : s === 1 ? 1 : Math.min(1, b / (1 - s))),
    'color-burn': (b, s) => (b === 1 ? 1 : s === 0 ? 0 : 1 - Math.min(1, (1 - b) / s)),
    'hard-light': (b, s) => (s <= 0.5 ? b * 2 * s : b + (2 * s - 1) - b * (2 * s - 1)),
    'soft-light': (b, s) => {
      const d = b <= 0.25 ? ((16 * b - 12) * b + 4) * b : Math.sqrt(b);
      return s <= 0.5 ? b - (1 - 2 * s) * b * (1 - b) : b + (2 * s - 1) * (d - b);
    },
    difference: (b, s) => Math.abs(b - s),
    exclusion: (b, s) => b + s - 2 * b * s,
  };
  type Rgb = [number, number, number];
  const lum = ([r, g, b]: Rgb) => 0.3 * r + 0.59 * g + 0.11 * b;
  const clip = (c: Rgb): Rgb => {
    const l = lum(c);
    const [n, x] = [Math.min(...c), Math.max(...c)];
    let out = c;
    if (n < 0) out = out.map((v) => l + ((v - l) * l) / (l - n)) as Rgb;
    if (x > 1) out = out.map((v) => l + ((v - l) * (1 - l)) / (x - l)) as Rgb;
    return out;
  };
  const setLum = (c: Rgb, l: number): Rgb => clip(c.map((v) => v + l - lum(c)) as Rgb);
  const sat = (c: Rgb) => Math.max(...c) - Math.min(...c);
  const setSat = (c: Rgb, s: number): Rgb => {
    const [n, x] = [Math.min(...c), Math.max(...c)];
    return c.map((v) => (x === n ? 0 : ((v - n) * s) / (x - n))) as Rgb;
  };
  const WHOLE: Record<string, (b: Rgb, s: Rgb) => Rgb> = {
    hue: (b, s) => setLum(setSat(s, sat(b)), lum(b)),
    saturation: (b, s) => setLum(setSat(b, sat(s)), lum(b)),
    color: (b, s) => setLum(s, lum(b)),
    luminosity: (b, s) => setLum(b, lum(s)),
  };
  const COLOURS: [string, string][] = [
    ['#804020', '#3070C0'],
    ['#E0E010', '#204080'],
    ['#FFFFFF', '#7F3FBF'],
    ['#102030', '#F0A050'],
  ];

  it.each(Object.keys(BLEND_MODES) as Layer['blend'][])('%s is as its formula', (blend) => {
    const operation = BLEND_MODES[blend].operation === 'source-over' ? 'normal' : BLEND_MODES[blend].operation;
    for (const [below, above] of COLOURS) {
      const at = painted([flag('b', below), flag('s', above, { blend })]);
      const rgb = (colour: string) => [1, 3, 5].map((i) => parseInt(colour.slice(i, i + 2), 16) / 255) as Rgb;
      const [b, s] = [rgb(below), rgb(above)];
      const one = SEPARABLE[operation];
      const expected = one
        ? b.map((v, i) => one(v, s[i]!))
        : WHOLE[operation]
          ? WHOLE[operation](b, s)
          : b.map((v, i) => Math.min(1, v + s[i]!));
      at(...MIDDLE).forEach((v, i) =>
        expect([blend, below, above, Math.abs(v - expected[i]! * 255) <= 2]).toEqual([blend, below, above, true]),
      );
    }
  });
});
