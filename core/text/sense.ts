/**
 * Words that lean on the one behind them: articles, short prepositions, possessives, negations, auxiliaries. English,
 * Spanish, French, German.
 */
const LEANING = new Set(
  (
    'a an the this that these those my your his her its our their no not to of in on at by for from with as into onto upon per is are was were be been am will would can could shall should may might must do does did have has had i you he she it we they very so too ' +
    'el la los las un una unos unas de del al en con por para sin mi tu su y o no se lo que ' +
    'le les une des du au aux et ou ne je tu il elle nous vous ils ce cette mon ma ton ta son sa dans sur ' +
    'der die das den dem des ein eine einen einem einer und zu zum zur im am ich du er sie es wir ihr nicht mit von'
  ).split(' '),
);
/** Words before which a breath falls naturally. */
const OPENING = new Set(
  'and or but nor because when where while if then than that which who whose with without until before after over under through across into like as for from y pero porque cuando donde si sin et mais parce quand si und aber weil wenn wo'.split(
    ' ',
  ),
);

export const bareWord = (word: string): string => word.toLowerCase().replace(/[^\p{L}\p{N}'’]/gu, '');
/** Whether a phrase or a line should not end with this word. */
export const leans = (word: string): boolean => LEANING.has(bareWord(word)) && !/[.,;:!?…]["”’')\]]*$/u.test(word);
/** Whether a phrase or a line begins well with this word. */
export const opens = (word: string): boolean => OPENING.has(bareWord(word));
