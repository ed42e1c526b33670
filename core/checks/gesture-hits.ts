import type { UnitKind } from '../motion';
import { inCase, shownLayers, wordRanges } from '../piece';
import type { Layer, Piece, ResolvedTimes } from '../piece';
import { castGesture, prepareGesture } from '../scene';
import type { Moved } from './visible-hits';

/**
 * Words of the units of a layer, by the text alone: where lines break by width is not known here, and typed lines are
 * counted.
 */
function unitWords(layer: Layer, unit: UnitKind): number[] {
  if (layer.kind !== 'text' || unit === 'whole') return [0];
  const text = inCase(layer.content.text, layer.content.letterCase);
  const words = wordRanges(text);
  if (unit === 'word') return words.map((_, i) => i);
  if (unit === 'line') return text.split('\n').map((_, i) => i);
  const out: number[] = [];
  words.forEach(({ start, end }, word) => {
    // A letter with its marks is one.
    for (const _letter of text.slice(start, end).matchAll(/\P{M}\p{M}*/gu)) out.push(word);
  });
  return out;
}

/**
 * Where gestures hit: the first unit's movement, the last one's where the end is what lands, every unit's on a rhythm,
 * every return of an accent.
 */
export function gestureHits(piece: Piece, times: ResolvedTimes): Moved[] {
  const out: Moved[] = [];
  for (const layer of shownLayers(piece.layers)) {
    for (const use of layer.gestures) {
      if (use.duration.unit === 'stay') continue;
      const prepared = prepareGesture(use, layer, piece.gestures, times);
      const words = unitWords(layer, use.unit);
      if (words.length === 0) continue;
      const cast = castGesture(
        prepared,
        words.map((_, x) => ({ x, y: 0 })),
        (i) => words[i] ?? -1,
      );
      const playing = words
        .map((_, i) => i)
        .filter((i) => cast.plays[i])
        .sort((a, b) => cast.starts[a]! - cast.starts[b]!);
      const chosen =
        use.stagger.rhythm && !cast.returns
          ? playing
          : prepared.landing === 'end'
            ? playing.slice(-1)
            : playing.slice(0, 1);
      const anchor = use.at ?? (use.role === 'exit' ? layer.end : layer.start);
      for (const unit of chosen) {
        const hit = cast.hitOf(unit);
        if (!hit) continue;
        for (const from of cast.returns ?? [0]) {
          const at = from + cast.starts[unit]! + hit.share * cast.each;
          if (at < prepared.layerStart - 1e-6 || at > prepared.layerEnd + 1e-6) continue;
          out.push({
            layerId: layer.id,
            properties: [],
            keys: [],
            useId: use.id,
            kind: hit.kind,
            at,
            isPinned: anchor.kind === 'pinned' || use.every !== null,
          });
        }
      }
    }
  }
  return out;
}
