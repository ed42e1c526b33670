import { createWriteStream } from 'node:fs';
import { mkdtemp, readFile, rename, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, extname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { randomUUID } from 'node:crypto';
import { DESTINATIONS, PIECE_VERSION, createPiece } from '@core/piece';
import type { Piece } from '@core/piece';
import { MAX_SVG_LENGTH, SVG_PROBLEMS, readSvgWithFonts, svgLayers } from '@core/svg';
import { SHIPPED_TEMPLATES } from '@core/templates';
import { FRAME_RATES, freeMoment } from '@core/time';
import { packPiece, unpackPiece } from '../features/pieces/piece-archive';
import type { PackedPiece } from '../features/pieces/piece-archive';
import { assets } from '../platform/config';
import { createServerFonts } from '../render/skia-host';
import { UsageError } from './usage';

/** Seconds that imported layers last. */
const SVG_SECONDS = 5;
/** Writes a project file; it stands under its name only when it is whole. */
export async function writeProject(packed: PackedPiece, out: string): Promise<void> {
  const temporary = `${out}.part`;
  try {
    await pipeline(await packPiece(packed), createWriteStream(temporary));
    await rename(temporary, out);
  } finally {
    await rm(temporary, { force: true });
  }
}

/** Reads a project file of any earlier version and writes it as the present one. */
export async function convert(file: string, out: string, asJson: boolean): Promise<void> {
  const dir = await mkdtemp(join(tmpdir(), 'estrella-'));
  try {
    const unpacked = await unpackPiece(file, dir);
    await writeProject(unpacked, out);
    const { name, layers } = unpacked.piece;
    const facts = { name, version: PIECE_VERSION, layers: layers.length, out };
    console.log(asJson ? JSON.stringify(facts) : `${name}, version ${PIECE_VERSION}, ${layers.length} layers: ${out}`);
  } finally {
    await rm(dir, { recursive: true, force: true });
  }
}

/** Lists the shipped templates with their slots. */
export function templates(asJson: boolean): void {
  const rows = SHIPPED_TEMPLATES.map(({ id, name, template }) => ({
    id,
    name,
    use: template?.use ?? null,
    mood: template?.mood ?? '',
    slots: (template?.slots ?? []).map((slot) => ({ id: slot.id, name: slot.name, kind: slot.kind })),
  }));
  if (asJson) return console.log(JSON.stringify({ templates: rows }));
  for (const { name, mood, slots } of rows)
    console.log(`${name}: ${mood}. Slots: ${slots.map((slot) => slot.name).join(', ')}`);
}

/** The shipped template of that name or id. @throws UsageError. */
export function templateNamed(name: string): Piece {
  const wanted = name.trim().toLowerCase();
  const found = SHIPPED_TEMPLATES.find((one) => one.id === wanted || one.name.toLowerCase() === wanted);
  if (!found) throw new UsageError(`no template is called ${name}; estrella templates lists them`);
  return found;
}

/** Makes an SVG file a project with its shapes as layers, and names what can't be a layer. */
export async function svg(file: string, out: string | undefined, asJson: boolean): Promise<void> {
  const text = await readFile(file, 'utf8');
  if (text.length > MAX_SVG_LENGTH) throw new Error(`${file} is larger than ${MAX_SVG_LENGTH / 1e6} MB`);
  const { width, height } = DESTINATIONS.wide;
  const fonts = createServerFonts(assets.fontsDir);
  const drawing = await readSvgWithFonts(text, fonts, { width: width / 2, height: height / 2 });
  if ('problem' in drawing) throw new Error(`${file}: ${SVG_PROBLEMS[drawing.problem]}`);
  const name = basename(file, extname(file)).slice(0, 60) || 'SVG';
  const [start, end] = [freeMoment(0), freeMoment(SVG_SECONDS)];
  const layers = svgLayers(drawing, { name, start, end, newId: randomUUID });
  if (out !== undefined) {
    const formats = [{ id: 'wide', name: 'Wide', width, height }];
    const empty = createPiece({ name, formats, frameRate: FRAME_RATES['30'] }, randomUUID);
    await writeProject({ piece: { ...empty, end, layers }, analyses: new Map(), media: new Map() }, out);
  }
  const facts = { name, layers: layers.length, missing: drawing.left, ...(out === undefined ? {} : { out }) };
  if (asJson) return console.log(JSON.stringify(facts));
  console.log(`${name}: ${layers.length} layers${out === undefined ? '' : `: ${out}`}`);
  for (const one of drawing.left) console.log(`missing: ${one}`);
}
