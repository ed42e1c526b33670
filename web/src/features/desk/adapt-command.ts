import { adaptTo, fillFrameEdits, focusEdits, isReframable } from '@core/adapt';
import { applyEdits, formatOf, loadTexts } from '@core/piece';
import type { Edit, Piece, ResolvedTimes } from '@core/piece';
import { createLayoutCache } from '@core/text';
import { browserPieceFonts } from '../../platform/browser-host';
import { edit, openDocument, setView, useDesk } from '../../store/desk-store';
import { lookAtPicture } from '../framing/find-subject';
import type { Looked } from '../framing/find-subject';
import { WORDS } from './words';

/** Layouts of words that are kept while one layout is worked out. */
const KEPT = 400;

/** What is in the pictures that fill the frame; those that cannot be read stay as they are. */
async function lookAtPictures(piece: Piece): Promise<Map<string, Looked>> {
  const out = new Map<string, Looked>();
  for (const layer of piece.layers) {
    const ref = layer.kind === 'picture' ? piece.media.find(({ id }) => id === layer.content.mediaId) : undefined;
    if (layer.kind !== 'picture' || !ref) continue;
    // By the facts of the file first: most pictures need not be read.
    if (ref.width && ref.height && !isReframable(piece, layer, ref.width / ref.height)) continue;
    setView({ notice: WORDS.looksAtPictures });
    const looked = await lookAtPicture(ref).catch(() => null);
    if (looked) out.set(layer.id, looked);
  }
  return out;
}

/** Pictures that fill the frame do so in every format, with what matters in them in it. */
function reframed(piece: Piece, times: ResolvedTimes, looked: ReadonlyMap<string, Looked>): Edit[] {
  return piece.layers.flatMap((layer): Edit[] => {
    const picture = looked.get(layer.id);
    if (layer.kind !== 'picture' || !picture || !isReframable(piece, layer, picture.shape)) return [];
    const fill = fillFrameEdits(piece, layer);
    const filled = applyEdits(piece, fill, times).piece;
    const next = filled.layers.find((one) => one.id === layer.id);
    return next?.kind === 'picture' ? [...fill, ...focusEdits(filled, next, picture.shape, picture.find)] : [];
  });
}

/** Proposes a layout for the format that is shown, and makes it: one step, which can be undone. */
export async function adaptShown(): Promise<void> {
  const opened = openDocument();
  if (!opened) return;
  const fonts = await browserPieceFonts(opened.piece);
  await loadTexts(opened.piece, fonts);
  const looked = await lookAtPictures(opened.piece);
  // What was changed while the fonts were on their way counts.
  const now = openDocument();
  const { formatId } = useDesk.getState();
  if (now?.piece.id !== opened.piece.id) return;
  const { name } = formatOf(now.piece, formatId);
  if (formatId === now.piece.leadFormatId) return setView({ notice: WORDS.leadNeedsNoAdapting(name) });
  const edits = [
    ...adaptTo(now.piece, formatId, now.times, createLayoutCache(fonts, KEPT)),
    ...reframed(now.piece, now.times, looked),
  ];
  const isDone = edits.length > 0 && edit(edits);
  setView({ notice: isDone ? WORDS.isAdapted(name) : WORDS.nothingToAdapt(name) });
}
