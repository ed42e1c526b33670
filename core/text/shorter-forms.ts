/**
 * Shorter and shorter forms of words that have no room, each only as short as it must be: of a name the middle names
 * become initials, then the first name, then the middle ones go; all else, and names after that, end in an ellipsis at
 * the end of a word, and at last within one.
 */
export function* shorterForms(text: string): Generator<string> {
  const plain = text.replace(/\s+/gu, ' ').trim();
  yield* namesShortened(plain);
  yield* cutShort(plain);
}

/** A word of a name: begins with a capital, goes on in small letters, hyphens allowed. */
const NAME_WORD = /^\p{Lu}[\p{L}\p{M}'’.-]*$/u;
/** Small words that stand within family names and stay with what follows them. */
const PARTICLE = /^(?:d[aeiou]s?|del|della|den|der|di|du|la|le|van|von|y|zu|ter|ten|bin|ibn|al|el)$/iu;

/** "Anne-Marie" is shortened to "A.-M.", as names are. */
const initials = (word: string): string =>
  word
    .split('-')
    .map((part) => (part.length > 2 ? `${[...part][0]}.` : part))
    .join('-');

function* namesShortened(plain: string): Generator<string> {
  const words = plain.split(' ');
  const isName =
    words.length >= 2 &&
    words.length <= 7 &&
    words.every((word, i) => NAME_WORD.test(word) || (i > 0 && PARTICLE.test(word)));
  if (!isName) return;
  const given = words.findIndex((word, i) => i > 0 && PARTICLE.test(word));
  // What follows a particle is the family name; otherwise the last word is.
  const last = given > 0 ? given : words.length - 1;
  const family = words.slice(last);
  const middle = words.slice(1, last);
  const first = words[0]!; // there are two
  const forms: string[][] = [];
  for (let n = 1; n <= middle.length; n++)
    forms.push([first, ...middle.map((word, i) => (i >= middle.length - n ? initials(word) : word)), ...family]);
  if (middle.length > 0) forms.push([initials(first), ...middle.map(initials), ...family], [first, ...family]);
  forms.push([initials(first), ...family]);
  const seen = new Set([plain]);
  for (const form of forms) {
    const short = form.join(' ');
    if (seen.has(short)) continue;
    seen.add(short);
    yield short;
  }
}

/** Ends that look wrong before an ellipsis. */
const LOOSE_END = /[\s,;:·–—-]+$/u;
const ELLIPSIS = '…';

function* cutShort(plain: string): Generator<string> {
  const words = plain.split(' ');
  for (let n = words.length - 1; n >= 1; n--) yield words.slice(0, n).join(' ').replace(LOOSE_END, '') + ELLIPSIS;
  const letters = [...new Intl.Segmenter(undefined, { granularity: 'grapheme' }).segment(words[0] ?? '')].map(
    ({ segment }) => segment,
  );
  for (let n = letters.length - 1; n >= 1; n--) yield letters.slice(0, n).join('') + ELLIPSIS;
}

/** Whether words run from right to left: what their first strong letter says (Unicode UAX #9, P2 and P3). */
export function runsRightToLeft(text: string): boolean {
  const strong = /[\p{L}\p{Nl}]/u.exec(text)?.[0];
  return (
    strong !== undefined &&
    /[\p{Script=Hebrew}\p{Script=Arabic}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}\p{Script=Adlam}]/u.test(strong)
  );
}
