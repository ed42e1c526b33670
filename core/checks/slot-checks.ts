import { prepareScene, tightTexts } from '../scene';
import { isFilled, shownLayers, slotValues } from '../piece';
import { finding } from './finding';
import type { CheckContext, Finding } from './finding';

/** Words that have too little room in a format although they were set small and on more lines, and those that were shortened. */
export function wordsWithoutRoom({ piece, times, layoutText }: CheckContext): Finding[] {
  return piece.formats.flatMap((format) =>
    tightTexts(prepareScene(piece, times, format.id), layoutText).map(({ layerId, isTooLong, shortened }) => {
      const layer = piece.layers.find((one) => one.id === layerId);
      const name = layer?.name ?? 'A text';
      const of = {
        layerId,
        formatId: format.id,
        at: layer ? (times.timeOf(layer.start) + times.timeOf(layer.end)) / 2 : null,
      };
      return isTooLong
        ? finding('error', `${name} doesn’t fit in ${format.name}.`, of)
        : finding('warning', `${name} is shortened to “${shortened ?? ''}” in ${format.name}.`, of);
    }),
  );
}

/** Slots that must be filled and still show their sample, or nothing. */
export function slotsLeft({ piece, times }: CheckContext): Finding[] {
  return shownLayers(piece.layers).flatMap((layer) => {
    const { madeFrom } = layer;
    if (!madeFrom) return [];
    const values = slotValues(piece.layers, layer);
    return madeFrom.slots
      .filter((slot) => slot.isNeeded)
      .flatMap((slot) => {
        const value = (values[slot.id] ?? '').trim();
        const of = { layerId: layer.id, at: times.timeOf(layer.start) };
        if (value === '') return [finding('error', `${slot.name} of ${layer.name} is empty.`, of)];
        return !isFilled(slot, value)
          ? [finding('warning', `${slot.name} of ${layer.name} still says “${slot.sample}”.`, of)]
          : [];
      });
  });
}
