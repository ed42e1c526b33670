import { ownFontFile } from '@core/piece';
import type { MediaRef } from '@core/piece';
import { familyFiles } from '@core/text';
import { browserFonts } from './browser-host';

const registered = new Set<string>();

/** The name CSS knows a family by. */
export const cssFamily = (family: string): string => `estrella ${family}`;

/** Makes a family known to CSS under its own name, from the very files the shaper reads. @param own - where fonts that were brought in are looked for. */
export async function registerCssFamily(family: string, own: readonly MediaRef[]): Promise<void> {
  const add = (path: string, weights: readonly [number, number], italic: boolean, unicodeRange: string) => {
    if (registered.has(path)) return;
    registered.add(path);
    document.fonts.add(new FontFace(cssFamily(family), `url(${path})`, { weight: `${weights[0]} ${weights[1]}`, style: italic ? 'italic' : 'normal', unicodeRange }));
  };
  for (const ref of own) {
    const file = ownFontFile(ref);
    if (file?.family === family) add(`/api/media/${ref.hash}/font`, file.weights, file.italic, 'U+0-10FFFF');
  }
  const { manifest } = await browserFonts();
  for (const italic of [false, true]) {
    for (const file of familyFiles(manifest, family, italic)) {
      if (file.italic !== italic) continue;
      const ranges = [];
      for (let i = 0; i < file.ranges.length; i += 2) ranges.push(`U+${file.ranges[i]!.toString(16)}-${file.ranges[i + 1]!.toString(16)}`);
      add(`/fonts/${file.path}`, file.weights, italic, ranges.join(','));
    }
  }
}
