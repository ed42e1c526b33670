import { contentBox, leadFormat } from '@core/piece';
import type { GroupLayer, Layer } from '@core/piece';
import type { SvgDrawing } from '@core/svg';
import { browserFonts } from '../../platform/browser-host';
import { newId } from '../../platform/ids';
import { edit, openDocument, selectLayers, setView } from '../../store/desk-store';
import { newSpan } from '../layers/add-layers';
import { setLogoReport } from './logo-store';
import { WORDS } from './words';

/** SVG files as layers of the piece. The file is read here and never sent anywhere. */

export const isSvg = (file: File): boolean => file.type === 'image/svg+xml' || /\.svg$/i.test(file.name);

/** A new logo takes this share of the frame's sides at most. */
const SHARE = 0.5;
/** Fonts that a file asks for are loaded, and it is read again. */
const MOST_READS = 3;

const plainName = (file: File): string => file.name.replace(/\.svg$/i, '').slice(0, 120) || WORDS.logo;

/** Reads a file to fit into a size; tells what is wrong and gives null. */
async function read(
  file: File,
  fit: { width: number; height: number },
): Promise<(SvgDrawing & { text: string }) | null> {
  const { MAX_SVG_LENGTH, SVG_PROBLEMS, createOutliner, readSvg } = await import('@core/svg');
  if (file.size > MAX_SVG_LENGTH) {
    setView({ notice: WORDS.tooLarge });
    return null;
  }
  const [text, fonts] = [await file.text(), await browserFonts()];
  for (let i = 0; ; i++) {
    const waits: Promise<void>[] = [];
    const outliner = createOutliner(fonts, (family, italic, words) => waits.push(fonts.load(family, italic, words)));
    const drawing = readSvg(text, { outliner, fit });
    if (waits.length > 0 && i < MOST_READS) {
      await Promise.allSettled(waits);
      continue;
    }
    if (!('problem' in drawing)) return { ...drawing, text };
    setView({ notice: WORDS.cannotBeRead(file.name, SVG_PROBLEMS[drawing.problem]) });
    return null;
  }
}

async function layersOf(
  drawing: SvgDrawing,
  options: {
    name: string;
    parentId?: string | null;
    offset?: [number, number];
    start: Layer['start'];
    end: Layer['end'];
  },
): Promise<Layer[]> {
  const { svgLayers } = await import('@core/svg');
  try {
    return svgLayers(drawing, { ...options, newId });
  } catch {
    setView({ notice: WORDS.tooManyLayers });
    return [];
  }
}

/** Puts a file up as a logo: one group, about the middle of the frame. */
export async function takeLogo(file: File): Promise<void> {
  const o = openDocument();
  if (!o) return;
  const lead = leadFormat(o.piece);
  const drawing = await read(file, { width: lead.width * SHARE, height: lead.height * SHARE });
  if (!drawing) return;
  const layers = await layersOf(drawing, { name: plainName(file), ...newSpan() });
  const group = layers.at(-1);
  if (!group || !edit([{ type: 'layer.add', layers }])) return;
  selectLayers([group.id]);
  setView({ notice: WORDS.isIn(group.name, layers.length - 1) });
  const { left, text } = drawing;
  setLogoReport(left.length > 0 ? { name: group.name, groupId: group.id, left, text } : null);
}

/** Puts another logo into a group, where and as large as what it held; the group keeps its time, gestures and effects. */
export async function replaceLogo(group: GroupLayer, file: File): Promise<void> {
  const o = openDocument();
  if (!o) return;
  const [l, t, r, b] = contentBox(o.piece, group.id) ?? [-100, -100, 100, 100];
  const drawing = await read(file, { width: Math.max(1, r - l), height: Math.max(1, b - t) });
  if (!drawing) return;
  const made = await layersOf(drawing, {
    name: plainName(file),
    parentId: group.id,
    offset: [(l + r) / 2, (t + b) / 2],
    start: group.start,
    end: group.end,
  });
  const root = made.at(-1);
  if (!root) return;
  // The new group about it is only needed if it does something by itself.
  const isPlain = root.masks.length === 0 && !root.matte && Object.keys(root.tracks).length === 0;
  const layers = isPlain
    ? made.slice(0, -1).map((layer) => (layer.parentId === root.id ? { ...layer, parentId: group.id } : layer))
    : made;
  const old = o.piece.layers.filter((layer) => layer.parentId === group.id).map((layer) => layer.id);
  const done = edit([
    { type: 'layer.remove', ids: old },
    { type: 'layer.add', layers, at: o.piece.layers.findIndex((layer) => old.includes(layer.id)) },
    { type: 'layer.rename', id: group.id, name: plainName(file) },
  ]);
  if (!done) return;
  selectLayers([group.id]);
  setView({ notice: WORDS.isReplaced(plainName(file)) });
  const { left, text } = drawing;
  setLogoReport(left.length > 0 ? { name: plainName(file), groupId: group.id, left, text } : null);
}
