import { channelsOf } from '../colour';
import type { Colour } from '../colour';
import type { ItemEffect } from '../scene';
import { runKernel } from './kernels';
import type { Pixels } from './kernels';

/** Where pixels stand in the frame, and how large a pixel of the format is among them. */
export interface PixelPlace {
  readonly x: number;
  readonly y: number;
  readonly scale: number;
  /** The middle of the layer, in pixels of these pixels. */
  readonly middle: readonly [number, number];
}

type Numbers = (id: string) => number;
type Colours = (id: string) => Colour;
export type PixelEffect = (
  pixels: Pixels,
  place: PixelPlace,
  read: { readonly number: Numbers; readonly colour: Colours; readonly seed: number },
) => void;

const radians = (degrees: number): number => (degrees * Math.PI) / 180;
const share256 = (percent: number): number => Math.round(256 * Math.min(1, Math.max(0, percent / 100)));

/** A table for each channel alike. */
const sameForAll = (of: (level: number) => number): Uint8Array => {
  const table = new Uint8Array(768);
  for (let i = 0; i < 768; i++) table[i] = Math.max(0, Math.min(255, Math.round(of(i & 255))));
  return table;
};

/** A table from black's colour to white's. */
function rampTable(dark: Colour, light: Colour): Uint8Array {
  const table = new Uint8Array(768);
  const [start, end] = [channelsOf(dark), channelsOf(light)];
  for (let c = 0; c < 3; c++) {
    const [from, to] = [start[c]!, end[c]!]; // three of four
    for (let i = 0; i < 256; i++) table[c * 256 + i] = Math.round(from + ((to - from) * i) / 255);
  }
  return table;
}

const ramped = (pixels: Pixels, table: Uint8Array, percent: number): void =>
  runKernel(pixels, (k, at) => k.ramp(at.src, at.pixels, at.table, share256(percent)), { table });

/** Effects that look at pixels, by kind. Lengths are pixels of the format. */
export const PIXEL_EFFECTS = {
  grain(pixels, { x, y, scale }, { number, seed }) {
    const cell = Math.max(0.25, number('size') * scale);
    const amount = (number('amount') / 100) * 255;
    runKernel(pixels, (k, at) =>
      k.grain(at.src, pixels.width, pixels.height, x, y, cell, seed, amount, number('coloured') >= 0.5 ? 1 : 0),
    );
  },
  pixelate(pixels, { x, y, scale }, { number }) {
    const cell = Math.max(1, Math.round(number('size') * scale));
    runKernel(pixels, (k, at) => k.pixelate(at.src, pixels.width, pixels.height, x, y, cell));
  },
  posterise(pixels, _place, { number }) {
    const steps = Math.max(1, Math.round(number('levels')) - 1);
    const table = sameForAll((level) => (Math.round((level / 255) * steps) / steps) * 255);
    runKernel(pixels, (k, at) => k.channels(at.src, at.pixels, at.table), { table });
  },
  halftone(pixels, { x, y, scale }, { number }) {
    const turn = radians(number('angle'));
    const cell = Math.max(2, number('size') * scale);
    runKernel(
      pixels,
      (k, at) => k.halftone(at.src, at.dst, pixels.width, pixels.height, x, y, cell, Math.cos(turn), Math.sin(turn)),
      { from: 'dst' },
    );
  },
  tear(pixels, { x, y, scale }, { number, seed }) {
    const [amount, size] = [number('amount') * scale, Math.max(1, number('size') * scale)];
    runKernel(pixels, (k, at) => k.tear(at.src, at.dst, pixels.width, pixels.height, x, y, amount, size, seed), {
      from: 'dst',
    });
  },
  wave(pixels, { x, y, scale }, { number }) {
    const turn = radians(number('angle'));
    const [amount, length] = [number('amount') * scale, Math.max(1, number('length') * scale)];
    runKernel(
      pixels,
      (k, at) =>
        k.wave(
          at.src,
          at.dst,
          pixels.width,
          pixels.height,
          x,
          y,
          amount,
          length,
          radians(number('phase')),
          Math.cos(turn),
          Math.sin(turn),
        ),
      { from: 'dst' },
    );
  },
  ripple(pixels, { scale, middle }, { number }) {
    const [amount, length] = [number('amount') * scale, Math.max(1, number('length') * scale)];
    runKernel(
      pixels,
      (k, at) =>
        k.ripple(at.src, at.dst, pixels.width, pixels.height, ...middle, amount, length, radians(number('phase'))),
      { from: 'dst' },
    );
  },
  chromatic(pixels, { scale }, { number }) {
    const [distance, turn] = [number('distance') * scale, radians(number('angle'))];
    runKernel(
      pixels,
      (k, at) =>
        k.chromatic(
          at.src,
          at.dst,
          at.table,
          pixels.width,
          pixels.height,
          distance * Math.cos(turn),
          distance * Math.sin(turn),
        ),
      { from: 'dst' },
    );
  },
  tint(pixels, _place, { number, colour }) {
    // Black stays black and white becomes the colour: what is between keeps its shading.
    ramped(pixels, rampTable('#000000', colour('colour')), number('amount'));
  },
  duotone(pixels, _place, { number, colour }) {
    ramped(pixels, rampTable(colour('dark'), colour('light')), number('amount'));
  },
  grey(pixels, _place, { number }) {
    ramped(pixels, rampTable('#000000', '#FFFFFF'), number('amount'));
  },
  invert(pixels, _place, { number }) {
    const share = number('amount') / 100;
    const table = sameForAll((level) => level + (255 - 2 * level) * share);
    runKernel(pixels, (k, at) => k.channels(at.src, at.pixels, at.table), { table });
  },
  levels(pixels, _place, { number }) {
    const [brightness, contrast] = [number('brightness') / 100, number('contrast') / 100];
    // Contrast turns the line about middle grey: flat at −1, steep without end at 1.
    const slope = Math.tan(((Math.min(0.99, contrast) + 1) * Math.PI) / 4);
    const table = sameForAll((level) => 255 * ((level / 255 - 0.5) * slope + 0.5 + brightness));
    runKernel(pixels, (k, at) => k.channels(at.src, at.pixels, at.table), { table });
  },
} as const satisfies Partial<Record<ItemEffect['kind'], PixelEffect>>;

/** Makes opacity of brightness, for mattes that are seen by their luminance. */
export const lumaToAlpha = (pixels: Pixels): void => runKernel(pixels, (k, at) => k.lumaToAlpha(at.src, at.pixels));
