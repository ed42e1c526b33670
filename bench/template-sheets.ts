import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { createCanvas } from '@napi-rs/canvas';
import { applyEdits, createPiece, putIn, resolveTimes } from '@core/piece';
import type { Format, Piece } from '@core/piece';
import { SHIPPED_TEMPLATES, beat } from '@core/templates';
import { FRAME_RATES } from '@core/time';
import { assets } from '../server/platform/config';
import { createFrameSource } from '../server/render/frame-source';
import { createServerFonts } from '../server/render/skia-host';

/**
 * Contact sheets of the templates that come with the program: every frame size, with short, long, accented and
 * right-to-left words, and moments on the way in and out.
 *   node dist/server/template-sheets.js FOLDER [id …]
 */
const CONTENTS: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  sample: {},
  short: { name: 'Bo Li', line: 'Pilot', name2: 'Al Wu', line2: 'Cook', title: 'Up', quote: 'Let go.', by: 'Bo' },
  long: {
    name: 'Maximiliana Josefina Echeverría-Castellanos',
    line: 'Head of the workshop for indoor and night kites of the harbour',
    name2: 'Bartholomäus Freiherr von Hohenstein',
    line2: 'Wind and weather, deputy head',
    title: 'The very long evening of the slowly rising lanterns',
    quote:
      'You do not fly a kite. You hold one end of a long conversation between the ground and the wind, and try not to say too much.',
    by: 'Maximiliana Josefina Echeverría-Castellanos',
  },
  accents: {
    name: 'Žofie Ångström-Łęcka',
    line: 'Créatrice d’été, Đà Nẵng',
    name2: 'Ïñigo Ÿşıl',
    line2: 'Œuvre à façon',
    title: 'Ñandú y Ångström',
    quote: 'Ça va où ça veut, Žofie: l’été s’élève.',
    by: 'Žofie Ångström',
  },
  rtl: {
    name: 'نور الهاشمي',
    line: 'صانعة طائرات ورقية',
    name2: 'תמר לוי',
    line2: 'טייסת לילה',
    title: 'أسبوع الريح',
    quote: 'الريح لا تُمسك، بل تُصاحَب.',
    by: 'نور الهاشمي',
  },
};
/** Shares of the time of a template at which it is shown with its own words. */
const MOMENTS = [0.06, 0.13, 0.5, 0.94];
const TILE = 300;

/** A piece in which nothing but the template stands. */
export function pieceOf(template: Piece, formats: readonly Format[], values: Readonly<Record<string, string>>): Piece {
  let ids = 0;
  const newId = (): string => `sheet-${++ids}`;
  const empty: Piece = {
    ...createPiece({ name: 'sheet', formats: [...formats], frameRate: FRAME_RATES['30'] }, newId),
    tempo: template.tempo,
    background: template.background,
    wardrobe: template.wardrobe,
  };
  const made = putIn(template, empty, newId);
  if (!made) throw new Error(`${template.name} is no template`);
  const done = applyEdits(
    empty,
    [
      { type: 'layer.add', layers: made.layers },
      { type: 'layer.place', places: [{ id: made.group.id, at: beat(0) }] },
      { type: 'slots.fill', id: made.group.id, values: { ...values } },
    ],
    resolveTimes(empty, null),
  );
  if (done.refused !== null) throw new Error(`${template.name}: ${done.refused}`);
  const end = done.piece.layers.find((layer) => layer.id === made.group.id)!.end; // put in just now
  return { ...done.piece, end };
}

async function sheet(template: Piece, folder: string): Promise<void> {
  const fonts = await createServerFonts(assets.fonts);
  const tiles: { picture: Awaited<ReturnType<typeof tile>>; column: number; row: number }[] = [];
  const tile = async (piece: Piece, formatId: string, share: number) => {
    const source = await createFrameSource({ piece, analysis: null, formatId, files: {} }, fonts);
    const scale = TILE / Math.max(source.width, source.height);
    const { canvas } = await source.paint(source.duration * share, scale);
    const copy = createCanvas(Math.round(source.width * scale), Math.round(source.height * scale));
    copy.getContext('2d').drawImage(canvas, 0, 0);
    return copy;
  };
  let row = 0;
  for (const [content, values] of Object.entries(CONTENTS)) {
    const piece = pieceOf(template, template.formats, values);
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
  const sheetCanvas = createCanvas(4 * (TILE + 8), row * (TILE + 8));
  const context = sheetCanvas.getContext('2d');
  context.fillStyle = '#777777';
  context.fillRect(0, 0, sheetCanvas.width, sheetCanvas.height);
  for (const one of tiles) context.drawImage(one.picture, one.column * (TILE + 8), one.row * (TILE + 8));
  await writeFile(join(folder, `${template.id}.png`), sheetCanvas.toBuffer('image/png'));
}

const [folder, ...wanted] = process.argv.slice(2);
if (!folder) throw new Error('say where to');
await mkdir(folder, { recursive: true });
for (const template of SHIPPED_TEMPLATES)
  if (wanted.length === 0 || wanted.some((id) => template.id.endsWith(id))) await sheet(template, folder);
