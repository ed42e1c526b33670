import { channelsOf, colourFrom } from '../colour';
import type { Colour } from '../colour';
import type { ItemEffect } from '../scene';
import { PIXEL_EFFECTS } from './pixel-effects';
import type { PixelEffect } from './pixel-effects';

/** Effects that make of each pixel what its own colour says, wherever it is. */
const BY_COLOUR: Readonly<Partial<Record<ItemEffect['kind'], PixelEffect>>> = {
  posterise: PIXEL_EFFECTS.posterise,
  tint: PIXEL_EFFECTS.tint,
  duotone: PIXEL_EFFECTS.duotone,
  grey: PIXEL_EFFECTS.grey,
  invert: PIXEL_EFFECTS.invert,
  levels: PIXEL_EFFECTS.levels,
};

/** What an effect makes of a colour; null if that depends on more than the colour. */
export function colourAfter({ kind, values, seed }: ItemEffect): ((colour: Colour) => Colour) | null {
  const change = BY_COLOUR[kind];
  if (!change) return null;
  const read = {
    number: (id: string) => Number(values[id]) || 0,
    colour: (id: string) => String(values[id] ?? '#000000'),
    seed,
  };
  return (colour) => {
    const [r, g, b, a] = channelsOf(colour);
    const pixels = { width: 1, height: 1, data: new Uint8ClampedArray([r, g, b, 255]) };
    change(pixels, { x: 0, y: 0, scale: 1, middle: [0, 0] }, read);
    return colourFrom([pixels.data[0]!, pixels.data[1]!, pixels.data[2]!, a]); // of one pixel
  };
}
