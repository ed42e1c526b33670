import bidiFactory from 'bidi-js';
import { hanFamilyFor } from './font-choice';
import type { FontLibrary } from './font-library';
import { letterClusters, seenPoints } from './letter-clusters';
import type { LetterCluster } from './letter-clusters';
import { NO_LETTER_FACE } from './no-letter-face';
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
const JOINING = /[\p{Script=Arabic}\p{Script=Devanagari}\p{Script=Bengali}\p{Script=Gurmukhi}]/u;
export const isJoiningScript = (text: string): boolean => JOINING.test(text);

/** Characters that take the face of their neighbour where it has them: spaces, marks, joiners, punctuation. */
const NEUTRAL = /\p{M}|\p{Z}|\p{P}|\p{S}|\u200C|\u200D/u;

export interface Itemised {
  readonly runs: readonly TextRun[];
  readonly levels: Uint8Array;
  readonly rtl: boolean;
  /** Indices of letters that no loaded font has, of those that are to be seen. */
  readonly missing: readonly number[];
}

/**
 * Splits a paragraph by bidirectional level (UAX #9), by style span and by the font file that has its letters. Letters
 * that no font has become boxes; those whose font is not loaded yet are left out of every run.
 */
export function itemise(text: string, fonts: FontLibrary, choiceAt: (index: number) => FaceChoice): Itemised {
  const embedding = bidi.getEmbeddingLevels(text);
  const { levels } = embedding;
  const han = hanFamilyFor(fonts.manifest, text);
  const runs: (TextRun & { end: number; isEmoji: boolean })[] = [];
  const missing: number[] = [];

  const take = ({ start, end, text: letter, isEmoji }: LetterCluster): void => {
    const choice = choiceAt(start);
    const { span } = choice;
    const previous = runs[runs.length - 1];
    const adjacent = previous && previous.end === start && previous.span === span ? previous : undefined;
    const level = levels[start] ?? 0;
    // A space between two Arabic words stays with them if their font has a space.
    const stays =
      !isEmoji &&
      adjacent &&
      !adjacent.isEmoji &&
      NEUTRAL.test(letter) &&
      adjacent.face !== NO_LETTER_FACE &&
      [...letter].every((char) => adjacent.face.has(char.codePointAt(0) ?? 32));
    const own = stays ? adjacent.face : fonts.faceFor(choice, { text: letter, isEmoji }, han);
    if (own === 'none' && letter.length > String.fromCodePoint(letter.codePointAt(0) ?? 32).length) {
      for (const part of letterParts(letter, start)) take(part);
      return;
    }
    const isSeen = seenPoints(letter).length > 0;
    if (isSeen && (own === 'none' || own === null)) missing.push(start);
    const face = own === 'none' ? (isSeen ? NO_LETTER_FACE : null) : own;
    if (!face) return;
    if (adjacent && adjacent.face === face && adjacent.level === level && adjacent.isEmoji === isEmoji)
      adjacent.end = end;
    else runs.push({ start, end, face, level, span, isEmoji });
  };
  for (const cluster of letterClusters(text)) take(cluster);
  return { runs, levels, rtl: (embedding.paragraphs[0]?.level ?? 0) % 2 === 1, missing };
}

/** The code points of a cluster that no font draws as a whole, each by itself. */
function* letterParts(letter: string, start: number): Generator<LetterCluster> {
  let at = start;
  for (const char of letter) {
    yield { start: at, end: at + char.length, text: char, isEmoji: false };
    at += char.length;
  }
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
