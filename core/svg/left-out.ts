import type { Style } from './styles';

/** Properties of an element that are not had, what people call them, and the values at which they do nothing. */
const UNHAD: readonly (readonly [property: string, name: string, plain: RegExp])[] = [
  ['isolation', 'isolated blending', /^auto$/],
];
/** The same of words alone. */
const UNHAD_OF_WORDS: typeof UNHAD = [
  ['word-spacing', 'spacing of words', /^(0|normal)(px)?$/],
  ['white-space', 'kept white space', /^(normal|nowrap)$/],
  ['direction', 'direction of words', /^ltr$/],
  ['writing-mode', 'vertical words', /^(horizontal-tb|lr(-tb)?)$/],
  ['dominant-baseline', 'other baselines', /^(auto|alphabetic)$/],
  ['baseline-shift', 'raised and lowered words', /^(baseline|0(px|%)?)$/],
  ['text-decoration', 'underlines', /^none/],
];
function note(style: Style, left: Set<string>, rows: typeof UNHAD): void {
  for (const [property, name, plain] of rows) if (!plain.test(style[property] ?? '')) left.add(name);
}
/** Names what of the look of an element is not had. */
export const noteShape = (style: Style, left: Set<string>): void => note(style, left, UNHAD);
/** Names what of the look of words is not had. */
export const noteWords = (style: Style, left: Set<string>): void => note(style, left, UNHAD_OF_WORDS);
