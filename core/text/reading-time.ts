import type { Seconds } from '../time';

/**
 * How long a text must stand to be read once without hurry.
 *
 * - Noticing: a glance takes about 0.2 s to set out and a fixation about 0.23 s (K. Rayner, Psychological Bulletin 124,
 * 1998).
 * - Words: silent reading of English runs at 238 words a minute (M. Brysbaert, Journal of Memory and Language 109,
 * 2019).
 * - Characters: viewers keep up with 20 characters a second (A. Szarkowska and O. Gerber-Morón, PLOS ONE 13(6), 2018),
 * which counts
 *   where words are long, and for scripts without spaces, in which a character says about three times as much.
 * - Long words are fixated twice: every letter beyond eight costs extra (Rayner 1998 gives 30 ms a letter for words
 * above eight).
 */
const NOTICE: Seconds = 0.43;
const WORDS_A_SECOND = 238 / 60;
const CHARACTERS_A_SECOND = 20;
const LONG_WORD = 8;
const EXTRA_A_LETTER: Seconds = 0.03;
const DENSE = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}\p{Script=Thai}]/gu;
const DENSE_WEIGHT = 3;

/** How much time to leave: a factor on the reading itself, not on noticing. */
export const READING_PACES = {
  calm: { label: 'Calm', factor: 1.4 },
  even: { label: 'Even', factor: 1 },
  quick: { label: 'Quick', factor: 0.75 },
} as const;
export type ReadingPace = keyof typeof READING_PACES;

/** @returns Seconds; 0 for a text without letters. */
export function readingTime(text: string, pace: ReadingPace = 'even'): Seconds {
  const words = text.match(/[\p{L}\p{N}][\p{L}\p{M}\p{N}'’-]*/gu) ?? [];
  if (words.length === 0) return 0;
  const dense = (text.match(DENSE) ?? []).length;
  const characters =
    words.reduce((sum, w) => sum + [...w].length, 0) + Math.max(0, words.length - 1) + dense * (DENSE_WEIGHT - 1);
  const extra = words.reduce(
    (sum, w) => sum + (w.search(DENSE) >= 0 ? 0 : Math.max(0, [...w].length - LONG_WORD) * EXTRA_A_LETTER),
    0,
  );
  const reading = Math.max(words.length / WORDS_A_SECOND, characters / CHARACTERS_A_SECOND) + extra;
  return NOTICE + reading * READING_PACES[pace].factor;
}

/** Seconds an average word costs at a pace: what a shortage of time is in words. */
export const secondsAWord = (pace: ReadingPace): Seconds => READING_PACES[pace].factor / WORDS_A_SECOND;
