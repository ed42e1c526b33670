import bidiFactory from 'bidi-js';
import type { FontLibrary } from './font-library';
import type { ShapingFace } from './shaper';

const bidi = bidiFactory();

/** A stretch of a paragraph with one face and one direction. */
export interface TextRun {
  readonly start: number;
  readonly end: number;
  readonly face: ShapingFace;
  readonly level: number;
  /** Index of the style span it stands in; -1 outside of any. */
  readonly span: number;
}

/** What the choice of a font file depends on at a character. */
export interface FaceChoice {
  readonly family: string;
  readonly italic: boolean;
  readonly weight: number;
  readonly span: number;
}

/** Scripts whose letters join: letter-spacing would tear them apart. */
const JOINING = /\p{Script=Arabic}|\p{Script=Devanagari}/u;
export const isJoiningScript = (text: string): boolean => JOINING.test(text);

/** Characters that take the face of their neighbour where it has them: spaces, marks, joiners, punctuation. */
const NEUTRAL = /\p{M}|\p{Z}|\p{P}|\p{S}|\u200C|\u200D/u;

export interface Itemised {
  readonly runs: readonly TextRun[];
  readonly levels: Uint8Array;
  readonly rtl: boolean;
  /** Indices of characters that no loaded font has, of those that are to be seen. */
  readonly missing: readonly number[];
}

/** Controls, marks of direction and joining, selectors of forms, spaces: nothing is drawn for them. */
const UNSEEN = /[\p{Cc}\p{Cf}\p{Z}\u{FE00}-\u{FE0F}]/u;

/**
 * Splits a paragraph by bidirectional level (UAX #9), by style span and by the font file that has its letters.
 * Characters that no loaded font has are left out of every run.
 */
export function itemise(text: string, fonts: FontLibrary, choiceAt: (index: number) => FaceChoice): Itemised {
  const embedding = bidi.getEmbeddingLevels(text);
  const { levels } = embedding;
  const runs: { start: number; end: number; face: ShapingFace; level: number; span: number }[] = [];
  const missing: number[] = [];
  for (let i = 0; i < text.length;) {
    const codePoint = text.codePointAt(i) ?? 0;
    const length = codePoint > 0xffff ? 2 : 1;
    const previous = runs[runs.length - 1];
    const { family, italic, weight, span } = choiceAt(i);
    const own = fonts.faceFor(family, italic, weight, codePoint);
    const adjacent = previous && previous.end === i && previous.span === span ? previous : undefined;
    const level = levels[i] ?? 0;
    // A space between two Arabic words stays with them if their font has a space; a mark must stay with its letter.
    const keep = adjacent && NEUTRAL.test(String.fromCodePoint(codePoint)) && adjacent.face.has(codePoint);
    const face = keep ? adjacent.face : own;
    if (face) {
      if (adjacent && adjacent.face === face && adjacent.level === level) adjacent.end = i + length;
      else runs.push({ start: i, end: i + length, face, level, span });
    } else if (!UNSEEN.test(String.fromCodePoint(codePoint))) missing.push(i);
    i += length;
  }
  return { runs, levels, rtl: (embedding.paragraphs[0]?.level ?? 0) % 2 === 1, missing };
}

/** Runs of [start, end) in visual order, each cut to the line (UAX #9, rule L2). */
export function visualRuns(item: Itemised, start: number, end: number): TextRun[] {
  const cut = item.runs
    .filter((r) => r.end > start && r.start < end)
    .map((r) => ({ ...r, start: Math.max(start, r.start), end: Math.min(end, r.end) }));
  const highest = Math.max(0, ...cut.map((r) => r.level));
  for (let level = highest; level >= 1; level--) {
    for (let i = 0; i < cut.length; i++) {
      if (cut[i]!.level < level) continue;
      let j = i;
      while (j + 1 < cut.length && cut[j + 1]!.level >= level) j++;
      cut.splice(i, j - i + 1, ...cut.slice(i, j + 1).reverse());
      i = j;
    }
  }
  return cut;
}
