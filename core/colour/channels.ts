import type { Colour } from './colour';

/** Red, green, blue and alpha of a colour as bytes, 0 to 255. Takes literal colours only, no roles. */
export type Channels = readonly [number, number, number, number];

const byte = (colour: Colour, at: number): number => parseInt(colour.slice(at, at + 2), 16);

export const channelsOf = (colour: Colour): Channels => [
  byte(colour, 1),
  byte(colour, 3),
  byte(colour, 5),
  colour.length > 7 ? byte(colour, 7) : 255,
];

/** How opaque a colour is, 0 to 1. */
export const alphaOf = (colour: Colour): number => channelsOf(colour)[3] / 255;

const hex = (value: number): string =>
  Math.min(255, Math.max(0, Math.round(value)))
    .toString(16)
    .padStart(2, '0');

/** Eight digits only where it can be seen through. */
export function colourFrom([r, g, b, a]: Channels): Colour {
  const rgb = `#${hex(r)}${hex(g)}${hex(b)}`;
  return Math.round(a) >= 255 ? rgb : rgb + hex(a);
}

/** The colour between two in sRGB with straight alpha, as gradients of SVG 2 mix (section 14.2.4). */
export function mixStraight(a: Colour, b: Colour, t: number): Colour {
  const [p, q] = [channelsOf(a), channelsOf(b)];
  const mix = (i: 0 | 1 | 2 | 3) => p[i] + (q[i] - p[i]) * t;
  return colourFrom([mix(0), mix(1), mix(2), mix(3)]);
}
