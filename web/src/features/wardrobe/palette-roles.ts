import { channelsOf, colourToOklab } from '@core/colour';
import type { Colour, PaletteEntry } from '@core/colour';
import { contrastRatio, luminance } from '@core/checks';

/** Which colour of a picture takes which role. */

const light = (colour: Colour): number => {
  const [r, g, b] = channelsOf(colour);
  return luminance(r, g, b);
};

/** WCAG contrast of two colours, 1 to 21. */
export const contrastOf = (a: Colour, b: Colour): number => contrastRatio(light(a), light(b));

/** Words on the ground need at least so much (WCAG 1.4.3 for small text). */
export const READABLE = 4.5;

const chroma = (colour: Colour): number => {
  const [, a, b] = colourToOklab(colour);
  return Math.hypot(a, b);
};

/** The nearest colour to white or black that can be read on a ground. */
const readableOn = (ground: Colour): Colour => (contrastOf(ground, '#f6f2ea') >= READABLE ? '#f6f2ea' : '#11151b');

/**
 * Ground is the darkest of the frequent ones, text what reads best on it (one of our own where none reads well), accent the
 * strongest of the rest, the second accent the next, surface the one nearest to the ground.
 */
export function rolesFor(palette: readonly PaletteEntry[]): Record<string, Colour> {
  const [...rest] = palette.map(({ colour }) => colour);
  const take = (rank: (colour: Colour) => number): Colour | undefined => {
    const best = rest.reduce<Colour | undefined>((a, b) => (a === undefined || rank(b) > rank(a) ? b : a), undefined);
    if (best !== undefined) rest.splice(rest.indexOf(best), 1);
    return best;
  };
  const ground = take((colour) => -light(colour));
  if (ground === undefined) return {};
  const found = take((colour) => contrastOf(colour, ground));
  const text = found !== undefined && contrastOf(found, ground) >= READABLE ? found : readableOn(ground);
  if (found !== undefined && found !== text) rest.push(found);
  const accent = take(chroma);
  const second = take(chroma);
  const surface = take((colour) => -contrastOf(colour, ground));
  const roles = { ground, text, accent, second, surface };
  return Object.fromEntries(Object.entries(roles).filter((entry): entry is [string, Colour] => entry[1] !== undefined));
}
