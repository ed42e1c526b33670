import { converter, formatHex, formatHex8, parse } from 'culori/fn';
import { modeLrgb, modeOklab, modeRgb, useMode } from 'culori/fn';
import * as z from 'zod';
import { createMemo } from '../time';

/**
 * Colours in the document are sRGB-encoded hex text with straight alpha ("#rrggbb" or "#rrggbbaa"). Between two
 * keyframes they blend in Oklab (B. Ottosson 2020) with premultiplied alpha, so that a fade of hue stays even in
 * lightness.
 */
useMode(modeRgb);
useMode(modeLrgb);
useMode(modeOklab);
const toOklab = converter('oklab');
const toRgb = converter('rgb');

export const literalColourSchema = z
  .string()
  .regex(/^#([0-9a-fA-F]{6}|[0-9a-fA-F]{8})$/, 'a colour is written #rrggbb or #rrggbbaa');
/** As documents hold it: a colour, or a role of the piece's wardrobe (`@accent`) that stands for one. */
export const colourSchema = z
  .string()
  .regex(
    /^(#([0-9a-fA-F]{6}|[0-9a-fA-F]{8})|@[a-z][a-z0-9-]{0,39})$/,
    'a colour is written #rrggbb or #rrggbbaa, or @ and its role',
  );
export type Colour = string;

/** Oklab L, a, b and straight alpha. */
export type Oklab = readonly [number, number, number, number];

const remembered = createMemo<Oklab>(4096);

/** @throws RangeError if the text is no colour. */
export function colourToOklab(colour: Colour): Oklab {
  return remembered(colour, () => {
    const parsed = parse(colour);
    if (!parsed) throw new RangeError(`not a colour: ${colour}`);
    const lab = toOklab(parsed);
    return [lab.l, lab.a, lab.b, parsed.alpha ?? 1];
  });
}

export function oklabToColour([l, a, b, alpha]: Oklab): Colour {
  const rgb = toRgb({ mode: 'oklab', l, a, b, alpha });
  return alpha >= 1 ? formatHex(rgb) : formatHex8({ ...rgb, alpha: Math.max(0, alpha) });
}

/** Blend from `a` to `b`; `t` outside [0, 1] extrapolates and is clipped to the gamut. Alpha is premultiplied. */
export function mixColours(a: Colour, b: Colour, t: number): Colour {
  if (t === 0 || a === b) return a;
  if (t === 1) return b;
  const p = colourToOklab(a);
  const q = colourToOklab(b);
  const alpha = Math.min(1, Math.max(0, p[3] + (q[3] - p[3]) * t));
  if (alpha === 0) return '#00000000';
  const mix = (i: 0 | 1 | 2) => (p[i] * p[3] + (q[i] * q[3] - p[i] * p[3]) * t) / alpha;
  return oklabToColour([mix(0), mix(1), mix(2), alpha]);
}

/** True if the text is a colour the document accepts. */
export const isColour = (text: string): boolean => literalColourSchema.safeParse(text).success;
