import type { UnitKind } from '../../motion';
import { wordRanges } from '../../piece';
import type { PlacedGlyph, TextLayout } from '../../text';
import type { Box } from '../../geometry';

/** A letter, word or line of a laid-out text: which glyphs, and where it rests. Coordinates are the layout's units. */
export interface TextUnit {
  readonly glyphs: readonly PlacedGlyph[];
  readonly index: number;
  readonly line: number;
  /** Advance box from ascender to descender. */
  readonly box: Box;
  /** What it turns and grows about: the middle of its letters. */
  readonly pivot: readonly [number, number];
}

export interface TextUnits {
  readonly kind: UnitKind;
  readonly units: readonly TextUnit[];
  /** Index of the unit each glyph belongs to; -1 for spaces between words. */
  readonly unitOf: ReadonlyMap<PlacedGlyph, number>;
}

function toUnit(layout: TextLayout, glyphs: readonly PlacedGlyph[], index: number): TextUnit {
  const line = glyphs[0]!.line; // a unit has at least one glyph
  const left = Math.min(...glyphs.map((g) => g.x));
  const right = Math.max(...glyphs.map((g) => g.x + g.advance));
  const top = Math.min(...glyphs.map((g) => g.y));
  const bottom = Math.max(...glyphs.map((g) => g.y));
  return {
    glyphs,
    index,
    line,
    box: [left, top - layout.capHeight * 1.35, right, bottom + layout.capHeight * 0.45],
    pivot: [(left + right) / 2, (top + bottom - layout.capHeight) / 2],
  };
}

/**
 * Splits a layout. Letters are clusters (a base with its marks, a ligature); words are runs without white space; both
 * count in reading order. Spaces belong to no word and are no letters; in `whole` and `line` they belong to what holds
 * them.
 */
export function textUnits(text: string, layout: TextLayout, kind: UnitKind): TextUnits {
  const groups = new Map<number, PlacedGlyph[]>();
  const words = kind === 'word' ? wordRanges(text) : [];
  let word = 0;
  for (const glyph of [...layout.glyphs].sort((a, b) => a.index - b.index)) {
    const isSpace = /\s/.test(text[glyph.index] ?? ' ');
    let key: number;
    if (kind === 'whole') key = 0;
    else if (kind === 'line') key = glyph.line;
    else if (isSpace) continue;
    else if (kind === 'letter') key = glyph.index;
    else {
      while (word + 1 < words.length && glyph.index >= words[word + 1]!.start) word++;
      key = word;
    }
    const group = groups.get(key);
    if (group) group.push(glyph);
    else groups.set(key, [glyph]);
  }
  const units = [...groups.entries()]
    .sort((a, b) => a[0] - b[0])
    .map(([, glyphs], index) => toUnit(layout, glyphs, index));
  const unitOf = new Map<PlacedGlyph, number>();
  for (const unit of units) for (const glyph of unit.glyphs) unitOf.set(glyph, unit.index);
  return { kind, units, unitOf };
}
