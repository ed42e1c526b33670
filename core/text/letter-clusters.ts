/** A letter with the marks on it, or an emoji with everything that joins it: what one font file has to draw. */
export interface LetterCluster {
  readonly start: number;
  /** Exclusive, UTF-16. */
  readonly end: number;
  readonly text: string;
  /** Whether it is shown as a picture in colour: by itself, by a selector, a skin tone, a flag or a joiner (UTS #51). */
  readonly isEmoji: boolean;
}

const TAIL = String.raw`(?:\uFE0F|\p{EMod})*[\u{E0020}-\u{E007F}]*`;
const EMOJI = new RegExp(
  String.raw`(?:\p{RI}\p{RI}|[0-9#*]\uFE0F?\u20E3|(?:\p{EPres}|\p{ExtPict}(?=\uFE0F|\p{EMod}|\u200D\p{ExtPict}))(?!\uFE0E)${TAIL}(?:\u200D\p{ExtPict}${TAIL})*)`,
  'uy',
);
const LETTER = /[^]\p{M}*/uy;

/** Splits a text; the clusters follow each other without gaps. */
export function letterClusters(text: string): LetterCluster[] {
  const out: LetterCluster[] = [];
  for (let start = 0; start < text.length;) {
    EMOJI.lastIndex = start;
    LETTER.lastIndex = start;
    const emoji = EMOJI.exec(text)?.[0];
    const found = emoji ?? LETTER.exec(text)?.[0] ?? text[start]!;
    out.push({ start, end: start + found.length, text: found, isEmoji: emoji !== undefined });
    start += found.length;
  }
  return out;
}

/** Controls, marks of direction and joining, selectors of forms, spaces: nothing is drawn for them. */
const UNSEEN = /[\p{Cc}\p{Cf}\p{Z}\u{FE00}-\u{FE0F}\u{E0100}-\u{E01EF}]/u;

/** Whether nothing is drawn for a character. @param char - one code point. */
export const isUnseen = (char: string): boolean => UNSEEN.test(char);

/** The code points of a text that something is drawn for. */
export const seenPoints = (text: string): number[] =>
  [...text].filter((char) => !isUnseen(char)).map((char) => char.codePointAt(0) ?? 32);
