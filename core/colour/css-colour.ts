import { channelsOf, colourFrom } from './channels';
import {
  formatHex,
  formatHex8,
  modeHsl,
  modeHwb,
  modeLab,
  modeLch,
  modeOklab,
  modeOklch,
  parse,
  useMode,
} from 'culori/fn';
import type { Colour } from './colour';

useMode(modeHsl);
useMode(modeHwb);
for (const mode of [modeLab, modeLch, modeOklab, modeOklch]) useMode(mode);

/** A colour as CSS Colour 4 writes it (names, hex, rgb, hsl, hwb, lab, lch, oklab, oklch) as documents hold it; null for what is none. */
export function cssColour(text: string): Colour | null {
  const parsed = parse(text.trim().toLowerCase());
  if (!parsed) return null;
  return parsed.alpha === undefined || parsed.alpha >= 1 ? formatHex(parsed) : formatHex8(parsed);
}

/** The colour, made more transparent. @param alpha - 0 to 1, times what it has. */
export function withAlpha(colour: Colour, alpha: number): Colour {
  if (alpha >= 1) return colour;
  const [r, g, b, a] = channelsOf(colour);
  return colourFrom([r, g, b, Math.max(0, alpha) * a]);
}
