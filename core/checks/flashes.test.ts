import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { FlashMeter } from '@core/checks';
import type { Flashing } from '@core/checks';

const [W, H, RATE] = [96, 54, 60];
type Rgb = readonly [number, number, number];
const BLACK: Rgb = [0, 0, 0];
const WHITE: Rgb = [255, 255, 255];
const grey = (luminance: number): Rgb => {
  const c = luminance <= 0.0031308 ? luminance * 12.92 : 1.055 * luminance ** (1 / 2.4) - 0.055;
  const v = Math.round(c * 255);
  return [v, v, v];
};

/** Frames in which a part of the frame goes from one colour to another. @param at - the colour at a moment. */
function measured(seconds: number, at: (t: number) => Rgb, share: readonly [number, number] = [1, 1]): Flashing[] {
  const meter = new FlashMeter(W, H);
  const pixels = new Uint8ClampedArray(W * H * 4);
  const [w, h] = [Math.round(W * share[0]), Math.round(H * share[1])];
  for (let frame = 0; frame < seconds * RATE; frame++) {
    const [r, g, b] = at(frame / RATE);
    for (let y = 0; y < h; y++) for (let x = 0; x < w; x++) pixels.set([r, g, b, 255], 4 * (y * W + x));
    meter.add(pixels, frame / RATE);
  }
  return meter.found();
}
/** Between two colours, so many times a second. */
const blinking =
  (hertz: number, a: Rgb = BLACK, b: Rgb = WHITE) =>
  (t: number): Rgb =>
    Math.floor(t * hertz * 2 + 1e-9) % 2 === 0 ? a : b;

describe('flashes', () => {
  it('three a second are borne, four are not', () => {
    expect(measured(3, blinking(3))).toEqual([]);
    const [found, ...more] = measured(3, blinking(4));
    expect(found).toMatchObject({ kind: 'general', flashes: 4 });
    expect(found!.to - found!.from).toBeGreaterThan(2);
    expect(more).toEqual([]);
  });
  it('count by the tenth of the greatest luminance, with the darker below four fifths', () => {
    expect(measured(2, blinking(8, grey(0.3), grey(0.39)))).toEqual([]);
    expect(measured(2, blinking(8, grey(0.3), grey(0.42)))).toHaveLength(1);
    expect(measured(2, blinking(8, grey(0.82), grey(0.99)))).toEqual([]);
    expect(measured(2, blinking(8, grey(0.78), grey(0.99)))).toHaveLength(1);
  });
  it('count by the area: a quarter of a field of a third by a third', () => {
    expect(measured(2, blinking(8), [0.16, 0.16])).toEqual([]);
    expect(measured(2, blinking(8), [0.18, 0.18])).toHaveLength(1);
  });
  it('of saturated red count by themselves, whatever their luminance', () => {
    // Red of luminance 0.2126 and a grey of the same: no general flash.
    const found = measured(2, blinking(8, [255, 0, 0], grey(0.2126)));
    expect(found.map(({ kind }) => kind)).toEqual(['red']);
    expect(measured(2, blinking(3, [255, 0, 0], grey(0.2126)))).toEqual([]);
    expect(measured(2, blinking(8, [150, 140, 140], grey(0.27)))).toEqual([]);
  });
  it('are pairs: one light that comes and stays is none, nor is a fade to and fro', () => {
    expect(measured(3, (t) => (t < 1 ? BLACK : WHITE))).toEqual([]);
    expect(measured(4, (t) => grey(0.5 - 0.5 * Math.cos(2 * Math.PI * t)))).toEqual([]);
    expect(measured(3, (t) => grey(0.5 - 0.5 * Math.cos(2 * Math.PI * 5 * t)))).toHaveLength(1);
  });
  it('in a short burst are found where they are', () => {
    const [found] = measured(4, (t) => (t >= 2 && t < 2.6 ? blinking(10)(t - 2) : BLACK));
    expect(found!.from).toBeGreaterThanOrEqual(2);
    expect(found!.to).toBeLessThanOrEqual(2.62);
  });
  it('never come of a picture that stands still, and never of up to three a second', () => {
    const channel = fc.integer({ min: 0, max: 255 });
    const colour = fc.tuple(channel, channel, channel);
    fc.assert(
      fc.property(colour, colour, fc.constantFrom(0, 0.5, 1, 2, 3), (a, b, hertz) => {
        expect(measured(2, hertz === 0 ? () => a : blinking(hertz, a, b))).toEqual([]);
      }),
      { numRuns: 12 },
    );
  });
});
