import { ownFontFile } from '@core/piece';
import type { MediaRef } from '@core/piece';
import type { FontFile } from '@core/text';
import { browserFonts } from './browser-host';

const registered = new Set<string>();

/** The name CSS knows a family by. */
export const cssFamily = (family: string): string => `estrella ${family}`;

/** As CSS writes inclusive code point ranges. */
function unicodeRange(ranges: readonly number[]): string {
  const out = [];
  for (let i = 0; i < ranges.length; i += 2) out.push(`U+${ranges[i]!.toString(16)}-${ranges[i + 1]!.toString(16)}`);
  return out.join(',');
}

/**
 * Makes a family known to CSS under its own name, from the very files the shaper reads. @param own - where fonts that
 * were brought in are looked for.
 */
export async function registerCssFamily(family: string, own: readonly MediaRef[]): Promise<void> {
  const add = (url: string, file: FontFile) => {
    if (file.family !== family || registered.has(url)) return;
    registered.add(url);
    document.fonts.add(
      new FontFace(cssFamily(family), `url(${url})`, {
        weight: `${file.weights[0]} ${file.weights[1]}`,
        style: file.italic ? 'italic' : 'normal',
        unicodeRange: unicodeRange(file.ranges),
      }),
    );
  };
  for (const ref of own) {
    const file = ownFontFile(ref);
    if (file) add(`/api/media/${ref.hash}/font`, file);
  }
  for (const file of (await browserFonts()).manifest.files) add(`/fonts/${file.path}`, file);
}
