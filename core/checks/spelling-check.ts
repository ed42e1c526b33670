import { shownLayers, wordRanges } from '../piece';
import type { TextLayer } from '../piece';
import { finding } from './finding';
import type { CheckContext, Finding, Fix, Spelling } from './finding';

/** Shorter words are too often abbreviations. */
const SHORTEST = 3;
/** A text of so many words, of which more than this share are unknown, is in another language. */
const FOREIGN_WORDS = 4;
const FOREIGN_SHARE = 0.5;
/** A text of fewer words that are all in capitals is a name as often as not. */
const LEAST_IN_CAPITALS = 4;

const LATIN = /^\p{Script=Latin}[\p{Script=Latin}\p{M}'’-]*$/u;
const EDGES = /^[^\p{L}\p{N}@#]+|[^\p{L}\p{N}]+$/gu;
const isCapital = (text: string): boolean => text !== text.toLowerCase() && text === text.toUpperCase();

/** A word as it stands, and as it is looked up. */
interface Word {
  readonly shown: string;
  readonly plain: string;
}

/**
 * Words of a text that a dictionary can judge. Names are left alone, which is what words with a capital first letter are
 * taken for, as are abbreviations, addresses, and what has digits in it.
 */
function wordsOf({ content: { text } }: TextLayer): Word[] {
  const words = wordRanges(text)
    .map(({ start, end }) => text.slice(start, end).replace(EDGES, ''))
    .filter((word) => word.length >= SHORTEST && LATIN.test(word));
  const inCapitals = words.length >= LEAST_IN_CAPITALS && words.every(isCapital);
  return words
    .filter((word) => inCapitals || word === word.toLowerCase())
    .map((shown) => ({ shown, plain: shown.toLowerCase().replace(/’/g, "'") }));
}

function unknownIn(words: readonly Word[], spelling: Spelling, own: ReadonlySet<string>): Word[] {
  const unknown = words.filter(({ plain }) => !own.has(plain) && !spelling.isRight(plain));
  const isForeign = words.length >= FOREIGN_WORDS && unknown.length > words.length * FOREIGN_SHARE;
  return isForeign ? [] : unknown;
}

/** The suggestion in the letters of the word that it replaces. */
const inTheManner = (suggestion: string, { shown }: Word): string =>
  isCapital(shown) ? suggestion.toUpperCase() : suggestion;

const escaped = (word: string): string => word.replace(/[.*+?^${}()|[\]\\-]/g, '\\$&');

function correction(layer: TextLayer, word: Word, suggestion: string | null): Fix[] {
  if (suggestion === null || layer.locked) return [];
  const right = inTheManner(suggestion, word);
  const text = layer.content.text.replace(
    new RegExp(`(?<![\\p{L}\\p{M}])${escaped(word.shown)}(?![\\p{L}\\p{M}])`, 'gu'),
    () => right,
  );
  return [{ label: `Write “${right}”`, edits: [{ type: 'layer.setContent', id: layer.id, content: { text } }] }];
}

/** Words that no dictionary and none of the piece's own words have, each once; nothing without a dictionary. */
export function misspelled({ piece, spelling }: CheckContext): Finding[] {
  if (!spelling) return [];
  const own = new Set(piece.ownWords.map((word) => word.toLowerCase()));
  const told = new Set<string>();
  const texts = shownLayers(piece.layers).filter((layer): layer is TextLayer => layer.kind === 'text');
  return texts.flatMap((layer) =>
    unknownIn(wordsOf(layer), spelling, own).flatMap((word) => {
      if (told.has(word.plain)) return [];
      told.add(word.plain);
      const suggestion = spelling.suggest(word.plain);
      const meant = suggestion === null ? '' : ` Is “${inTheManner(suggestion, word)}” meant?`;
      return [
        finding('warning', `“${word.shown}” isn’t in the dictionary.${meant}`, {
          layerId: layer.id,
          fixes: [
            ...correction(layer, word, suggestion),
            { label: 'Add to dictionary', edits: [{ type: 'words.setOwn', words: [...piece.ownWords, word.plain] }] },
          ],
        }),
      ];
    }),
  );
}
