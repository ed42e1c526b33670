import { paletteOf } from '@core/colour';
import type { PaletteEntry } from '@core/colour';
import { nearestRoles } from '@core/piece';
import type { Wardrobe } from '@core/piece';
import { save } from '../../platform/save-file';
import { edit, openDocument, setView } from '../../store/desk-store';
import { WORDS } from './words';

export function setWardrobe(change: Partial<Wardrobe>, gesture: string | null = null): boolean {
  const o = openDocument();
  return o ? edit([{ type: 'wardrobe.set', wardrobe: { ...o.piece.wardrobe, ...change } }], gesture) : false;
}

/** Puts roles in the place of the colours that are written out, each the one that looks most like it. */
export function recolourPiece(): void {
  const o = openDocument();
  if (!o) return;
  const changes = [...nearestRoles(o.piece)].map(([from, to]) => ({ from, to }));
  if (changes.length === 0) return setView({ notice: WORDS.nothingToRecolour });
  if (edit([{ type: 'piece.recolour', changes }])) setView({ notice: WORDS.recoloured(changes.length) });
}

/** Pixels of the longer side at which a picture is looked at for its colours. */
const LOOK_SIDE = 240;

/** The colours of a picture; it stays in the browser. */
export async function paletteOfFile(file: File): Promise<readonly PaletteEntry[] | null> {
  try {
    const image = await createImageBitmap(file);
    const scale = Math.min(1, LOOK_SIDE / Math.max(image.width, image.height));
    const [w, h] = [Math.max(1, Math.round(image.width * scale)), Math.max(1, Math.round(image.height * scale))];
    const context = new OffscreenCanvas(w, h).getContext('2d');
    if (!context) return null;
    context.drawImage(image, 0, 0, w, h);
    image.close();
    const palette = paletteOf(context.getImageData(0, 0, w, h).data);
    return palette.length > 0 ? palette : null;
  } catch {
    return null;
  }
}

/** Takes the colours and fonts of a file of design tokens into the wardrobe. */
export async function takeTokens(file: File): Promise<void> {
  const { MAX_TOKENS_LENGTH, readTokens } = await import('@core/formats');
  if (file.size > MAX_TOKENS_LENGTH) return setView({ notice: WORDS.fileProblems['too-large'] });
  const read = readTokens(await file.text());
  if ('problem' in read) return setView({ notice: WORDS.fileProblems[read.problem] });
  const { wardrobe } = openDocument()?.piece ?? {};
  if (!wardrobe) return;
  const done = setWardrobe({
    colours: { ...wardrobe.colours, ...read.colours },
    fonts: { ...wardrobe.fonts, ...read.fonts },
  });
  if (done) setView({ notice: WORDS.fileIsIn(Object.keys(read.colours).length, Object.keys(read.fonts).length) });
}

/** Saves the wardrobe as a file of design tokens. */
export async function saveTokens(): Promise<void> {
  const o = openDocument();
  if (!o) return;
  const { writeTokens } = await import('@core/formats');
  save(`${o.piece.name || 'wardrobe'}.tokens.json`, writeTokens(o.piece.wardrobe), 'application/json');
}
