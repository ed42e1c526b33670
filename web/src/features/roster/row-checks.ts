import { loadTexts, prepareTemplate, resolveTimes } from '@core/piece';
import type { Piece, Slot } from '@core/piece';
import type { RowProblem } from '@core/roster';
import { lettersWithoutGlyph, prepareScene, tightTexts } from '@core/scene';
import { createLayoutCache } from '@core/text';
import { browserPieceFonts } from '../../platform/browser-host';
import { WORDS } from './words';

/**
 * What setting the words of rows shows: those with too little room in a format, those that are shortened to fit it, and
 * letters that no font has.
 * @param onRow - is told of each row as it is done.
 * @param signal - ends it.
 */
export async function checkRows(
  template: Piece,
  piece: Piece,
  rows: readonly Readonly<Record<string, string>>[],
  slots: readonly Slot[],
  onRow: (row: number, problems: readonly RowProblem[]) => void,
  signal: AbortSignal,
): Promise<void> {
  const fonts = await browserPieceFonts(piece);
  const layoutText = createLayoutCache(fonts, 4000);
  const nameOf = (slotId: string): string => slots.find((slot) => slot.id === slotId)?.name ?? slotId;
  const fillIn = prepareTemplate(template, { ...piece, tempo: template.tempo });
  for (const [i, values] of rows.entries()) {
    if (signal.aborted) return;
    const alone = fillIn(values);
    if (!alone) continue;
    await loadTexts(alone, fonts);
    const problems = new Map<string, RowProblem>();
    const times = resolveTimes(alone, null);
    for (const format of alone.formats)
      for (const tight of tightTexts(prepareScene(alone, times, format.id), layoutText)) {
        const slotId = alone.layers.find((layer) => layer.id === tight.layerId)?.slot?.slotId ?? null;
        if (!slotId || (problems.has(slotId) && !tight.isTooLong)) continue;
        problems.set(
          slotId,
          tight.isTooLong
            ? { slotId, text: WORDS.isTooLong(nameOf(slotId), format.name) }
            : { slotId, text: WORDS.isShortened(nameOf(slotId), tight.shortened ?? ''), isNote: true },
        );
      }
    for (const layer of alone.layers) {
      if (layer.kind !== 'text' || !layer.slot) continue;
      const letters = lettersWithoutGlyph(layer, alone, layoutText);
      const { slotId } = layer.slot;
      if (letters) problems.set(`${slotId} letters`, { slotId, text: WORDS.noGlyph(nameOf(slotId), letters) });
    }
    onRow(i, [...problems.values()]);
    // The desk has its turn after each row.
    await new Promise((resolve) => setTimeout(resolve));
  }
}
