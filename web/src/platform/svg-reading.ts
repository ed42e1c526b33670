import { createOutliner, readSvg, svgLayers } from '@core/svg';
import type { SvgDrawing } from '@core/svg';
import { browserFonts } from './browser-host';
import { newId } from './ids';
import type { FromSvg, SvgAnswer, ToSvg } from './svg-protocol';

/** Reads SVG files into layers, beside the page: a file can be made so that it takes for ever. */

/** Fonts that a file asks for are loaded, and it is read again. */
const MAX_READS = 3;

async function answer({ text, fit, as }: ToSvg): Promise<SvgAnswer> {
  const fonts = await browserFonts();
  let drawing: ReturnType<typeof readSvg>;
  for (let i = 0; ; i++) {
    const waits: Promise<void>[] = [];
    const outliner = createOutliner(fonts, (family, italic, words) => waits.push(fonts.load(family, italic, words)));
    drawing = readSvg(text, { outliner, fit });
    if (waits.length === 0 || i >= MAX_READS) break;
    await Promise.allSettled(waits);
  }
  if ('problem' in drawing) return { type: 'problem', problem: drawing.problem };
  return layersOf(drawing, as);
}

function layersOf(drawing: SvgDrawing, as: ToSvg['as']): SvgAnswer {
  try {
    return { type: 'layers', layers: svgLayers(drawing, { ...as, newId }), left: drawing.left };
  } catch (error) {
    if (error instanceof RangeError) return { type: 'too-much' };
    throw error;
  }
}

export function receive(data: ToSvg): void {
  answer(data).then(
    (found) => self.postMessage(found satisfies FromSvg),
    (error: unknown) =>
      self.postMessage({
        type: 'failed',
        message: error instanceof Error ? error.message : String(error),
      } satisfies FromSvg),
  );
}
