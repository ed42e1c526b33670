import type { Spelling } from './finding';

/** The dictionaries that ship, in the order in which they are asked. */
export const DICTIONARIES = ['en', 'en-gb'] as const;

/** What a dictionary can tell, as nspell does. */
export interface Dictionary {
  correct(word: string): boolean;
  suggest(word: string): string[];
}

/** Words remembered; a piece has far fewer. */
const KNOWN = 20_000;

/** A word is right if one of the dictionaries has it: both spellings of English are English. Answers are remembered. */
export function spellingOf(dictionaries: readonly Dictionary[]): Spelling {
  const right = new Map<string, boolean>();
  const suggested = new Map<string, string | null>();
  const remember = <T>(known: Map<string, T>, word: string, look: () => T): T => {
    const found = known.get(word);
    if (found !== undefined) return found;
    if (known.size >= KNOWN) known.clear();
    const answer = look();
    known.set(word, answer);
    return answer;
  };
  return {
    isRight: (word) => remember(right, word, () => dictionaries.some((one) => one.correct(word))),
    suggest: (word) =>
      remember(suggested, word, () => {
        for (const one of dictionaries) {
          const [best] = one.suggest(word);
          if (best !== undefined) return best;
        }
        return null;
      }),
  };
}
