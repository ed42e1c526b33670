import { adaptTo } from '@core/adapt';
import { formatOf, loadTexts } from '@core/piece';
import { createLayoutCache } from '@core/text';
import { browserPieceFonts } from '../../platform/browser-host';
import { edit, openDocument, setView, useDesk } from '../../store/desk-store';
import { WORDS } from './words';

/** Layouts of words that are kept while one layout is worked out. */
const KEPT = 400;

/** Proposes a layout for the format that is shown, and makes it: one step, which can be undone. */
export async function adaptShown(): Promise<void> {
  const opened = openDocument();
  if (!opened) return;
  const fonts = await browserPieceFonts(opened.piece);
  await loadTexts(opened.piece, fonts);
  // What was changed while the fonts were on their way counts.
  const now = openDocument();
  const { formatId } = useDesk.getState();
  if (now?.piece.id !== opened.piece.id) return;
  const { name } = formatOf(now.piece, formatId);
  if (formatId === now.piece.leadFormatId) return setView({ notice: WORDS.leadNeedsNoAdapting(name) });
  const edits = adaptTo(now.piece, formatId, now.times, createLayoutCache(fonts, KEPT));
  const isDone = edits.length > 0 && edit(edits);
  setView({ notice: isDone ? WORDS.isAdapted(name) : WORDS.nothingToAdapt(name) });
}
