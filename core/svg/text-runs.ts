import { noteWords } from './left-out';
import type { Style } from './styles';
import { lengthOf, numbersOf } from './values';
import type { Measures } from './values';
import { isElement } from './xml';
import type { SvgElement } from './xml';

/** Words of a text element that look alike, and where they stand (SVG 2, chapter 11). */
export interface TextRun {
  readonly text: string;
  readonly style: Style;
  readonly element: SvgElement;
  /** Where its line begins anew, user units; null goes on from the run before. */
  readonly x: number | null;
  readonly y: number | null;
  readonly dx: number;
  readonly dy: number;
}

/** What of a text cannot be had, beside its runs. */
export interface TextRuns {
  readonly runs: readonly TextRun[];
  readonly left: readonly string[];
}

const SPACES = /[ \t\r\n]+/g;

/** Words in the case that is asked for (CSS Text 3, section 2.1). */
function inCaseOf(words: string, transform: string | undefined): string {
  switch (transform) {
    case 'uppercase':
      return words.toLocaleUpperCase('en');
    case 'lowercase':
      return words.toLocaleLowerCase('en');
    case 'capitalize':
      return words.replace(
        /(^|\s)(\p{L})/gu,
        (_, space: string, letter: string) => space + letter.toLocaleUpperCase('en'),
      );
    default:
      return words;
  }
}

export function runsOf(
  text: SvgElement,
  style: Style,
  styleOf: (element: SvgElement, above: Style) => Style,
  measuresOf: (style: Style) => Measures,
): TextRuns {
  const runs: TextRun[] = [];
  const left = new Set<string>();
  let waiting: { x: number | null; y: number | null; dx: number; dy: number } = { x: null, y: null, dx: 0, dy: 0 };
  const walk = (element: SvgElement, own: Style): void => {
    const measures = measuresOf(own);
    const { x, y, dx, dy, rotate } = element.attributes;
    for (const list of [x, y, dx, dy]) if (numbersOf(list).length > 1) left.add('places of single letters');
    if (rotate !== undefined) left.add('turned letters');
    if (element.attributes.textLength !== undefined) left.add('words of a given length');
    noteWords(own, left);
    const first = (list: string | undefined): string | undefined => list?.trim().split(/[\s,]+/)[0];
    waiting = {
      x: lengthOf(first(x), 'x', measures) ?? waiting.x,
      y: lengthOf(first(y), 'y', measures) ?? waiting.y,
      dx: waiting.dx + (lengthOf(first(dx), 'x', measures) ?? 0),
      dy: waiting.dy + (lengthOf(first(dy), 'y', measures) ?? 0),
    };
    for (const child of element.children) {
      if (isElement(child)) {
        if (child.name === 'tspan' || child.name === 'a') {
          const inner = styleOf(child, own);
          if (inner.display !== 'none') walk(child, inner);
        } else if (child.name === 'textPath') left.add('text along a path');
        continue;
      }
      const words = inCaseOf(child.replace(SPACES, ' '), own['text-transform']);
      if (words === '' || (words === ' ' && runs.length === 0)) continue;
      runs.push({ text: words, style: own, element, ...waiting });
      waiting = { x: null, y: null, dx: 0, dy: 0 };
    }
  };
  walk(text, style);
  return { runs: trimmed(runs), left: [...left] };
}

/** White space at the ends of the text, and doubled where runs meet, is not there. */
function trimmed(runs: readonly TextRun[]): TextRun[] {
  let isAfterSpace = true;
  const out = runs.map((run) => {
    const text = isAfterSpace ? run.text.replace(/^ /, '') : run.text;
    if (text !== '') isAfterSpace = text.endsWith(' ');
    return { ...run, text };
  });
  for (let i = out.length - 1; i >= 0; i--) {
    const run = out[i]!; // i is within the list
    if (run.text === '') continue;
    out[i] = { ...run, text: run.text.replace(/ $/, '') };
    break;
  }
  return out.filter((run) => run.text !== '');
}
