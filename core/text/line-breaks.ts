import LineBreaker from 'linebreak';

/** Where a line of a text may end (UAX #14, untailored), as indices behind the last character, ascending. */
export function unicodeLineBreaks(text: string): number[] {
  const breaker = new LineBreaker(text);
  const out: number[] = [];
  for (let next = breaker.nextBreak(); next; next = breaker.nextBreak()) out.push(next.position);
  return out;
}

/** Stretches of scripts that write no spaces between words, with the language whose dictionary divides each. */
const UNSPACED: readonly (readonly [RegExp, string])[] = [
  [/\p{Script=Thai}[\p{Script=Thai}\p{M}]*/gu, 'th'],
  [/\p{Script=Lao}[\p{Script=Lao}\p{M}]*/gu, 'lo'],
  [/\p{Script=Khmer}[\p{Script=Khmer}\p{M}]*/gu, 'km'],
  [/\p{Script=Myanmar}[\p{Script=Myanmar}\p{M}]*/gu, 'my'],
];
const HANGUL_BEFORE = /\p{Script=Hangul}$/u;
const HANGUL_AFTER = /^\p{Script=Hangul}/u;

const segmenters = new Map<string, Intl.Segmenter>();
function segmenterFor(language: string, granularity: 'word' | 'grapheme'): Intl.Segmenter {
  const key = `${language}/${granularity}`;
  let segmenter = segmenters.get(key);
  if (!segmenter) segmenters.set(key, (segmenter = new Intl.Segmenter(language, { granularity })));
  return segmenter;
}

/**
 * Where a line of a text may end, as indices behind the last character, ascending; the text's own end is the last. UAX
 * #14, with what it leaves to a language: Thai, Lao, Khmer and Burmese break between the words of a dictionary, Korean
 * between words and not between syllables.
 */
export function lineBreaks(text: string): number[] {
  const breaks = unicodeLineBreaks(text).filter(
    (at) => at === text.length || !(HANGUL_BEFORE.test(text.slice(0, at)) && HANGUL_AFTER.test(text.slice(at))),
  );
  const within: number[] = [];
  for (const [letters, language] of UNSPACED) {
    for (const run of text.matchAll(letters)) {
      for (const { index } of segmenterFor(language, 'word').segment(run[0])) {
        if (index > 0) within.push(run.index + index);
      }
    }
  }
  return within.length === 0 ? breaks : [...new Set([...breaks, ...within])].sort((a, b) => a - b);
}

/** Where a word may be cut if it is longer than its line: between letters as people count them, as indices, ascending. */
export const letterEnds = (text: string): number[] =>
  [...segmenterFor('en', 'grapheme').segment(text)].map(({ index, segment }) => index + segment.length);
