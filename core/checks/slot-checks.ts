import { prepareScene, textsTooLong } from '../scene';
import { shownLayers, slotValue } from '../piece';
import { finding } from './finding';
import type { CheckContext, Finding } from './finding';

/** Words that have too little room in a format, although they were set small, on more lines and shortened. */
export function wordsWithoutRoom({ piece, times, layoutText }: CheckContext): Finding[] {
  return piece.formats.flatMap((format) =>
    textsTooLong(prepareScene(piece, times, format.id), layoutText).map((layerId) => {
      const layer = piece.layers.find((one) => one.id === layerId);
      return finding('error', `${layer?.name ?? 'A text'} has too little room in ${format.name}.`, {
        layerId,
        formatId: format.id,
        at: layer ? (times.timeOf(layer.start) + times.timeOf(layer.end)) / 2 : null,
      });
    }),
  );
}

/** Slots that must be filled and still show their sample, or nothing. */
export function slotsLeft({ piece, times }: CheckContext): Finding[] {
  return shownLayers(piece.layers).flatMap((layer) => {
    const { madeFrom } = layer;
    if (!madeFrom) return [];
    return madeFrom.slots
      .filter((slot) => slot.isNeeded)
      .flatMap((slot) => {
        const value = slotValue(madeFrom, slot.id).trim();
        const of = { layerId: layer.id, at: times.timeOf(layer.start) };
        if (value === '') return [finding('error', `${slot.name} of ${layer.name} is empty.`, of)];
        return value === slot.sample.trim()
          ? [finding('warning', `${slot.name} of ${layer.name} still says “${slot.sample}”.`, of)]
          : [];
      });
  });
}
