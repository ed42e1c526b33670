import type { FontLibrary } from '../text';
import { createOutliner } from './outliner';
import { readSvg } from './read-svg';

/** Fonts that a file asks for are loaded, and it is read again. */
const MAX_READS = 3;

/** Reads a drawing with the fonts that its words ask for; one that can't be loaded is stood in for. */
export async function readSvgWithFonts(
  text: string,
  fonts: FontLibrary,
  fit: { readonly width: number; readonly height: number },
): Promise<ReturnType<typeof readSvg>> {
  for (let i = 0; ; i++) {
    const waits: Promise<void>[] = [];
    const outliner = createOutliner(fonts, (family, italic, words) => waits.push(fonts.load(family, italic, words)));
    const drawing = readSvg(text, { outliner, fit });
    if (waits.length === 0 || i >= MAX_READS) return drawing;
    await Promise.allSettled(waits);
  }
}
