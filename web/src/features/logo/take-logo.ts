import { contentBox, leadFormat } from '@core/piece';
import type { GroupLayer, Layer } from '@core/piece';
import { readSvgFile } from '../../platform/svg-client';
import type { ToSvg } from '../../platform/svg-protocol';
import { edit, openDocument, selectLayers, setView } from '../../store/desk-store';
import { addPicture, newSpan } from '../layers/add-layers';
import { pictureOf } from './as-picture';
import { setLogoReport } from './logo-store';
import { WORDS } from './words';

/** SVG files as layers of the piece. The file is read here and never sent anywhere. */

export const isSvg = (file: File): boolean => file.type === 'image/svg+xml' || /\.svg$/i.test(file.name);

/** A new logo takes this share of the frame's sides at most. */
const SHARE = 0.5;

const plainName = (file: File): string => file.name.replace(/\.svg$/i, '').slice(0, 120) || WORDS.logo;

interface TakenLogo {
  /** Their group last. */
  readonly layers: readonly Layer[];
  readonly left: readonly string[];
  readonly text: string;
}

/**
 * Reads a file into layers that fit into a size. What is wrong is told, and gives null; so does a file of too many parts,
 * which `onTooMuch` may take in another way.
 */
async function read(
  file: File,
  fit: { width: number; height: number },
  as: ToSvg['as'],
  onTooMuch: (text: string) => Promise<void> | void,
): Promise<TakenLogo | null> {
  const { MAX_SVG_LENGTH, SVG_PROBLEMS } = await import('@core/svg');
  const told = (notice: string): null => {
    setView({ notice });
    return null;
  };
  if (file.size > MAX_SVG_LENGTH) return told(WORDS.tooLarge);
  const text = await file.text();
  const answer = await readSvgFile({ text, fit, as }).catch(() => null);
  if (!answer) return told(WORDS.readerFailed(file.name));
  if (answer.type === 'layers') return { layers: answer.layers, left: answer.left, text };
  if (answer.type === 'problem') return told(WORDS.cannotBeRead(file.name, SVG_PROBLEMS[answer.problem]));
  await onTooMuch(text);
  return null;
}

/** A drawing of too many parts comes in as one picture. */
async function takeAsPicture(name: string, text: string): Promise<void> {
  setView({ notice: WORDS.comesAsPicture(name) });
  try {
    addPicture(await pictureOf(name, text));
    setView({ notice: WORDS.cameAsPicture(name) });
  } catch {
    setView({ notice: WORDS.tooManyLayers });
  }
}

/** Puts a file up as a logo: one group, about the middle of the frame. */
export async function takeLogo(file: File): Promise<void> {
  const o = openDocument();
  if (!o) return;
  const lead = leadFormat(o.piece);
  const fit = { width: lead.width * SHARE, height: lead.height * SHARE };
  const name = plainName(file);
  const taken = await read(file, fit, { name, ...newSpan() }, (text) => takeAsPicture(name, text));
  if (!taken) return;
  const { layers, left, text } = taken;
  const group = layers.at(-1);
  if (!group || !edit([{ type: 'layer.add', layers: [...layers] }])) return;
  selectLayers([group.id]);
  setView({ notice: WORDS.isIn(group.name, layers.length - 1) });
  setLogoReport(left.length > 0 ? { name: group.name, groupId: group.id, left, text } : null);
}

/** Puts another logo into a group, where and as large as what it held; the group keeps its time, gestures and effects. */
export async function replaceLogo(group: GroupLayer, file: File): Promise<void> {
  const o = openDocument();
  if (!o) return;
  const [l, t, r, b] = contentBox(o.piece, group.id) ?? [-100, -100, 100, 100];
  const as = {
    name: plainName(file),
    parentId: group.id,
    offset: [(l + r) / 2, (t + b) / 2] as const,
    start: group.start,
    end: group.end,
  };
  const fit = { width: Math.max(1, r - l), height: Math.max(1, b - t) };
  const taken = await read(file, fit, as, () => setView({ notice: WORDS.tooManyLayers }));
  if (!taken) return;
  const { layers: made, left, text } = taken;
  const root = made.at(-1);
  if (!root) return;
  // The new group about it is only needed if it does something by itself.
  const isPlain = root.masks.length === 0 && !root.matte && Object.keys(root.tracks).length === 0;
  const layers = isPlain
    ? made.slice(0, -1).map((layer) => (layer.parentId === root.id ? { ...layer, parentId: group.id } : layer))
    : [...made];
  const old = o.piece.layers.filter((layer) => layer.parentId === group.id).map((layer) => layer.id);
  const done = edit([
    { type: 'layer.remove', ids: old },
    { type: 'layer.add', layers, at: o.piece.layers.findIndex((layer) => old.includes(layer.id)) },
    { type: 'layer.rename', id: group.id, name: plainName(file) },
  ]);
  if (!done) return;
  selectLayers([group.id]);
  setView({ notice: WORDS.isReplaced(plainName(file)) });
  setLogoReport(left.length > 0 ? { name: plainName(file), groupId: group.id, left, text } : null);
}
