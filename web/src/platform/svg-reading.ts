import { readSvgWithFonts, svgLayers } from '@core/svg';
import type { SvgDrawing } from '@core/svg';
import { browserFonts } from './browser-host';
import { newId } from './ids';
import type { FromSvg, SvgAnswer, ToSvg } from './svg-protocol';

/** Reads SVG files into layers, beside the page: a file can be made so that it takes for ever. */

async function answer({ text, fit, as }: ToSvg): Promise<SvgAnswer> {
  const fonts = await browserFonts();
  const drawing = await readSvgWithFonts(text, fonts, fit);
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
