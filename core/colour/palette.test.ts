import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { colourDistance, cssColour, paletteOf, withAlpha } from '.';

const channel = (colour: string, at: number): number => parseInt(colour.slice(at, at + 2), 16);
/** A picture of colours, each so many pixels. */
const picture = (...parts: readonly (readonly [string, number])[]): Uint8ClampedArray =>
  Uint8ClampedArray.from(
    parts.flatMap(([colour, count]) =>
      Array.from({ length: count }, () => [channel(colour, 1), channel(colour, 3), channel(colour, 5), 255]).flat(),
    ),
  );

describe('a palette from a picture', () => {
  it('finds the colours that are there, the most frequent first, with their shares', () => {
    const found = paletteOf(picture(['#143749', 500], ['#ffb74a', 300], ['#54c6c0', 200]));
    expect(found.map(({ colour }) => colour)).toEqual(['#143749', '#ffb74a', '#54c6c0']);
    expect(found.map(({ share }) => share)).toEqual([0.5, 0.3, 0.2]);
  });
  it('is the same for the same picture and seed', () => {
    const noise = Uint8ClampedArray.from({ length: 4000 }, (_, i) => (i % 4 === 3 ? 255 : (i * 7919) % 256));
    expect(paletteOf(noise, 5, 3)).toEqual(paletteOf(noise, 5, 3));
    expect(paletteOf(noise)).toHaveLength(5);
  });
  it('has every centre near some pixel, and shares that make a whole', () => {
    const colour = fc.tuple(fc.nat(255), fc.nat(255), fc.nat(255));
    fc.assert(
      fc.property(
        fc.array(colour, { minLength: 1, maxLength: 40 }),
        fc.integer({ min: 1, max: 6 }),
        (pixels, count) => {
          const found = paletteOf(Uint8ClampedArray.from(pixels.flatMap((p) => [...p, 255])), count);
          expect(found.length).toBeLessThanOrEqual(count);
          expect(found.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1);
        },
      ),
      { numRuns: 60 },
    );
  });
  it('gives nothing for a picture that is see-through or empty', () => {
    expect(paletteOf(new Uint8ClampedArray(400))).toEqual([]);
    expect(paletteOf(new Uint8ClampedArray(0))).toEqual([]);
  });
  it('distances are as they look: none to itself, the same both ways', () => {
    expect(colourDistance('#54c6c0', '#54c6c0')).toBe(0);
    expect(colourDistance('#54c6c0', '#ffb74a')).toBeCloseTo(colourDistance('#ffb74a', '#54c6c0'));
    expect(colourDistance('#ff0000', '#fe0000')).toBeLessThan(0.02);
  });
});

describe('colours of CSS', () => {
  it.each([
    ['tomato', '#ff6347'],
    ['#FB4', '#ffbb44'],
    ['rgb(10% 20% 30%)', '#1a334d'],
    ['rgba(255,0,0,.5)', '#ff000080'],
    ['hsl(120, 100%, 25%)', '#008000'],
    ['hwb(194 0% 0%)', '#00c3ff'],
    ['nothing', null],
    ['url(#a)', null],
  ])('%s', (text, colour) => expect(cssColour(text)).toBe(colour));
  it('are made more see-through by a share of what they are', () => {
    expect(withAlpha('#ffffff', 0.5)).toBe('#ffffff80');
    expect(withAlpha('#ffffff80', 0.5)).toBe('#ffffff40');
    expect(withAlpha('#ffffff', 1)).toBe('#ffffff');
  });
});
