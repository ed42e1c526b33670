import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { createCanvas } from '@napi-rs/canvas';
import { idsOf } from '@core/motion';
import { templateAlone } from '@core/piece';
import type { Piece } from '@core/piece';
import { SAMPLE_CONTENTS, SHIPPED_TEMPLATES, sampleValues } from '@core/templates';
import type { SampleContent } from '@core/templates';
import { assets } from '../server/platform/config';
import { createFrameSource } from '../server/render/frame-source';
import { createServerFonts } from '../server/render/skia-host';

/**
 * Contact sheets of the templates that come with the program: every frame size, with short, long, accented and
 * right-to-left words, and moments on the way in and out.
 *   node dist/server/template-sheets.js FOLDER [id …]
 */
/** Shares of the time of a template at which it is shown with its own words. */
const MOMENTS = [0.06, 0.13, 0.5, 0.94];
const TILE = 320;

/** A piece in which nothing but the template stands. */
function pieceOf(template: Piece, content: SampleContent): Piece {
  const alone = templateAlone(template, template, sampleValues(content, template.template?.slots ?? []));
  if (!alone) throw new Error(`${template.name} is no template`);
  return alone;
}

async function sheet(template: Piece, folder: string): Promise<void> {
  const fonts = createServerFonts(assets.fontsDir);
  const tiles: { picture: Awaited<ReturnType<typeof tile>>; column: number; row: number }[] = [];
  const tile = async (piece: Piece, formatId: string, share: number) => {
    const source = await createFrameSource({ piece, analysis: null, formatId, files: {} }, fonts);
    const scale = Math.min(TILE / source.width, (1.25 * TILE) / source.height);
    const { canvas } = await source.paint(source.duration * share, scale);
    // Of lower thirds the lower half says all.
    const cut = template.template?.use === 'lower-third' ? 0.5 : 0;
    const [width, height] = [Math.round(source.width * scale), Math.round(source.height * scale)];
    const copy = createCanvas(width, Math.round(height * (1 - cut)));
    copy.getContext('2d').drawImage(canvas, 0, -height * cut);
    return copy;
  };
  let row = 0;
  for (const content of idsOf(SAMPLE_CONTENTS)) {
    const piece = pieceOf(template, content);
    let column = 0;
    if (content === 'sample')
      for (const share of MOMENTS)
        tiles.push({ picture: await tile(piece, 'wide', share), column: column++, row: row });
    if (content === 'sample') row++;
    column = 0;
    for (const format of piece.formats)
      tiles.push({ picture: await tile(piece, format.id, 0.5), column: column++, row });
    row++;
  }
  const heights = Array.from({ length: row }, (_, i) =>
    Math.max(...tiles.map((one) => (one.row === i ? one.picture.height : 0))),
  );
  const top = (i: number): number => heights.slice(0, i).reduce((sum, height) => sum + height + 8, 0);
  const sheetCanvas = createCanvas(4 * (TILE + 8), top(row));
  const context = sheetCanvas.getContext('2d');
  context.fillStyle = '#777777';
  context.fillRect(0, 0, sheetCanvas.width, sheetCanvas.height);
  for (const one of tiles) context.drawImage(one.picture, one.column * (TILE + 8), top(one.row));
  await writeFile(join(folder, `${template.id}.png`), sheetCanvas.toBuffer('image/png'));
}

const [folder, ...wanted] = process.argv.slice(2);
if (!folder) throw new Error('say where to');
await mkdir(folder, { recursive: true });
for (const template of SHIPPED_TEMPLATES)
  if (wanted.length === 0 || wanted.some((id) => template.id.endsWith(id))) await sheet(template, folder);
