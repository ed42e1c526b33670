import { WORDS } from './words';
/** Keys by what they do, in the words of the control that does the same; told by whoever has the keyboard. */
let keysOf: ReadonlyMap<string, string> = new Map();

export function setKeyHints(hints: ReadonlyMap<string, string>): void {
  keysOf = hints;
}

/** The key of a control by its name; undefined if it has none. */
export const keyHint = (label: string): string | undefined => keysOf.get(label);

const NAMES: Readonly<Record<string, string>> = {
  mod: WORDS.ctrl,
  shift: 'Shift',
  alt: 'Alt',
  arrowleft: '←',
  arrowright: '→',
  arrowup: '↑',
  arrowdown: '↓',
  space: 'Space',
  escape: WORDS.esc,
  delete: WORDS.del,
  pageup: WORDS.pageUp,
  pagedown: WORDS.pageDown,
};

/** The parts of a key as they stand on a keyboard: "mod+z" is Ctrl and Z. */
export const keyParts = (key: string): string[] =>
  key
    .split('+')
    .map((part) => NAMES[part] ?? (part.length === 1 ? part.toUpperCase() : part[0]!.toUpperCase() + part.slice(1)));
