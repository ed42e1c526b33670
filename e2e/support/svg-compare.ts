import { readFileSync } from 'node:fs';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import type { Page } from '@playwright/test';
import { createPiece } from '@core/piece';
import { createOutliner, readSvg, svgLayers } from '@core/svg';
import { freeMoment } from '@core/time';
import { createFrameSource } from '../../server/render/frame-source';
import { createServerFonts } from '../../server/render/skia-host';

/** One drawing painted by us and by Chromium. */

const fonts = createServerFonts('dist/fonts');
/** Fonts are told missing while a drawing is read, loaded, and it is read again. */
const MOST_READS = 3;

/** A drawing as layers of a piece of its size, painted by the server's painter on white. */
export async function paintSvg(text: string): Promise<{ png: Buffer; left: readonly string[] }> {
  let n = 0;
  for (let i = 0; i < MOST_READS; i++) {
    const waits: Promise<void>[] = [];
    const outliner = createOutliner(fonts, (family, isItalic, words) =>
      waits.push(fonts.load(family, isItalic, words)),
    );
    const drawing = readSvg(text, { outliner });
    if (waits.length > 0) {
      await Promise.all(waits);
      continue;
    }
    if ('problem' in drawing) throw new Error(drawing.problem);
    const newId = (): string => `n${n++}`;
    const format = { id: 'f', name: 'Own', width: Math.ceil(drawing.width), height: Math.ceil(drawing.height) };
    const piece = createPiece({ name: 'SVG', formats: [format], frameRate: { num: 25, den: 1 } }, newId);
    piece.background = { value: '#ffffff', keyframes: [] };
    piece.layers = svgLayers(drawing, { name: 'SVG', start: freeMoment(0), end: freeMoment(9), newId });
    const source = await createFrameSource({ piece, analysis: null, formatId: piece.leadFormatId, files: {} }, fonts);
    const surface = await source.paint(1);
    return { png: surface.canvas.toBuffer('image/png'), left: drawing.left };
  }
  throw new Error('fonts never came');
}

const FACES = [
  ['Bricolage Grotesque', 'bricolage-grotesque/files/bricolage-grotesque-latin-standard-normal.woff2'],
  ['Literata', 'literata/files/literata-latin-standard-normal.woff2'],
  ['Unbounded', 'unbounded/files/unbounded-latin-wght-normal.woff2'],
] as const;

const css = FACES.map(([family, file]) => {
  const data = readFileSync(`node_modules/@fontsource-variable/${file}`).toString('base64');
  return `@font-face{font-family:"${family}";font-weight:200 900;src:url(data:font/woff2;base64,${data})}`;
}).join('');

/** A page with the fonts that drawings ask for. */
export async function openSvgPage(page: Page): Promise<void> {
  await page.setContent(
    `<style>${css} body{margin:0;background:#fff} text{font-optical-sizing:none}</style><div id="place" style="isolation:isolate"></div>`,
  );
  await page.evaluate(
    async (families) => {
      await Promise.all(families.map((family) => document.fonts.load(`700 20px "${family}"`)));
    },
    FACES.map(([family]) => family),
  );
}

/** The same drawing by Chromium, on white. */
export async function drawnByChromium(page: Page, text: string): Promise<Buffer> {
  const size = await page.evaluate((markup) => {
    const place = document.getElementById('place')!;
    place.innerHTML = markup;
    const root = place.querySelector('svg')!;
    root.style.display = 'block';
    return { width: root.width.baseVal.value, height: root.height.baseVal.value };
  }, text);
  return page.screenshot({ clip: { x: 0, y: 0, ...size } });
}

/** The mean difference of two pictures, 0 to 1. */
export async function difference(a: Buffer, b: Buffer): Promise<number> {
  const [one, two] = await Promise.all([loadImage(a), loadImage(b)]);
  if (one.width !== two.width || one.height !== two.height) return 1;
  const pixels = [one, two].map((image) => {
    const canvas = createCanvas(image.width, image.height);
    canvas.getContext('2d').drawImage(image, 0, 0);
    return canvas.data();
  }) as [Buffer, Buffer];
  const [p, q] = pixels;
  let sum = 0;
  for (let i = 0; i < p.length; i += 4) for (let c = 0; c < 3; c++) sum += Math.abs(p[i + c]! - q[i + c]!);
  return sum / (p.length / 4) / 3 / 255;
}
