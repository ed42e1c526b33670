import { familyOf, safeBox, shownLayers, wordRanges } from '../piece';
import type { Piece, ResolvedTimes, TextLayer } from '../piece';
import { scaleOf, transformBox } from '../geometry';
import { findItem, lettersWithoutGlyph, plainStyle, prepareScene, sceneAt } from '../scene';
import type { Box } from '../geometry';
import type { LayoutText } from '../scene';
import { readingTime } from '../text';
import type { Seconds } from '../time';

/** What is wrong with the words of a piece as far as it can be told without painting. */
export type ReadingFinding =
  | { readonly code: 'TOO_SHORT'; readonly layerId: string; readonly has: Seconds; readonly needs: Seconds }
  | {
      readonly code: 'OUTSIDE';
      readonly layerId: string;
      readonly formatId: string;
      readonly at: Seconds;
      readonly isCut: boolean;
    }
  | { readonly code: 'TOO_SMALL'; readonly layerId: string; readonly formatId: string; readonly at: Seconds }
  | { readonly code: 'NO_GLYPH'; readonly layerId: string; readonly letters: string }
  | { readonly code: 'MANY_FAMILIES'; readonly families: readonly string[] };

/** Words whose capitals are lower than this share of the frame's shorter side (13 of 1080 pixels) are not read on a phone. */
const LEAST_CAPITALS = 0.0125;
/** More families than this in one piece look like an accident. */
const MOST_FAMILIES = 3;

const isText = (layer: Piece['layers'][number]): layer is TextLayer =>
  layer.kind === 'text' && wordRanges(layer.content.text).length > 0;

/** Seconds a layer stands within the piece. */
const stay = (layer: TextLayer, times: ResolvedTimes): readonly [Seconds, Seconds] => [
  Math.max(0, times.timeOf(layer.start)),
  Math.min(times.end, times.timeOf(layer.end)),
];

/** The middle of the time in which a layer is there and at rest, as near as one moment can tell. */
export const restingTime = (layer: TextLayer, times: ResolvedTimes): Seconds => {
  const [from, to] = stay(layer, times);
  return from + (to - from) * 0.6;
};

/**
 * Words that stand too short to be read at the piece's pace, words outside the safe area or cut off in a format, and
 * too many families. Layers that are never seen are another check's matter.
 */
export function checkReading(piece: Piece, times: ResolvedTimes, layoutText: LayoutText): ReadingFinding[] {
  const findings: ReadingFinding[] = [];
  const texts = shownLayers(piece.layers).filter(isText);
  for (const layer of texts) {
    const [from, to] = stay(layer, times);
    const needs = readingTime(layer.content.text, piece.sheet.pace);
    if (to > from && to - from < needs - 0.01)
      findings.push({ code: 'TOO_SHORT', layerId: layer.id, has: to - from, needs });
  }
  for (const layer of texts) {
    const letters = lettersWithoutGlyph(layer, piece, layoutText);
    if (letters) findings.push({ code: 'NO_GLYPH', layerId: layer.id, letters });
  }
  for (const format of piece.formats) {
    const scene = prepareScene(piece, times, format.id);
    for (const layer of texts) {
      const at = restingTime(layer, times);
      const item = findItem(sceneAt(scene, at, layoutText), layer.id);
      if (!item) continue;
      const [l, t, r, b]: Box = transformBox(item.matrix, inked(item.box));
      const safe = safeBox(format);
      const isCut = l < -1 || t < -1 || r > format.width + 1 || b > format.height + 1;
      if (isCut || l < safe[0] - 1 || t < safe[1] - 1 || r > safe[2] + 1 || b > safe[3] + 1)
        findings.push({ code: 'OUTSIDE', layerId: layer.id, formatId: format.id, at, isCut });
      const capitals = capHeightOf(layer, piece, layoutText) * scaleOf(item.matrix);
      if (capitals < Math.min(format.width, format.height) * LEAST_CAPITALS)
        findings.push({ code: 'TOO_SMALL', layerId: layer.id, formatId: format.id, at });
    }
  }
  const families = [
    ...new Set(
      texts.flatMap((layer) => [
        familyOf(piece.wardrobe, layer.content.family),
        ...layer.content.spans.flatMap((s) => (s.family ? [familyOf(piece.wardrobe, s.family)] : [])),
      ]),
    ),
  ];
  if (families.length > MOST_FAMILIES) findings.push({ code: 'MANY_FAMILIES', families });
  return findings;
}

/** A layout's box runs from ascender to descender; letters themselves begin lower and end higher. */
function inked([l, t, r, b]: Box): Box {
  const line = b - t;
  const slack = Math.min(220, line * 0.2);
  return [l, t + slack, r, b - slack * 0.5];
}

/** Height of capitals, layout units. */
const capHeightOf = (layer: TextLayer, piece: Piece, layoutText: LayoutText): number =>
  layoutText('x', plainStyle(layer, piece)).layout.capHeight;
