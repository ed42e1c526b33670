import { XmlCdata, XmlElement, XmlText, parseXml } from '@rgrove/parse-xml';

/** An SVG file as a tree of elements. Entities, references to other files and everything that runs are left behind. */

export interface SvgElement {
  /** Local name; elements of other languages have theirs with its prefix. */
  readonly name: string;
  /** By name, in small letters but for SVG's own capitals; `xlink:href` is `href`. */
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly (SvgElement | string)[];
  readonly parent: SvgElement | null;
}

/** Largest file in UTF-16 units, most elements, and how deep they may lie in one another. */
export const MAX_SVG_LENGTH = 4_000_000;
const MAX_ELEMENTS = 20_000;
const MAX_DEPTH = 100;

export const SVG_PROBLEMS = {
  'too-large': 'The file is too large: at most 4 MB.',
  'not-xml': 'The file is no valid XML.',
  'not-svg': 'The file is XML, but no SVG.',
  'too-many': `The file has more than ${MAX_ELEMENTS.toLocaleString('en')} elements.`,
  'too-deep': `The file's elements lie more than ${MAX_DEPTH} deep in one another.`,
  empty: 'There is nothing to draw in the file.',
} as const;
export type SvgProblem = keyof typeof SVG_PROBLEMS;

const localName = (name: string): string => (name.startsWith('svg:') ? name.slice(4) : name);
const attributeName = (name: string): string => (name === 'xlink:href' ? 'href' : name);

export const isElement = (node: SvgElement | string): node is SvgElement => typeof node !== 'string';
export const childElements = (element: SvgElement): SvgElement[] => element.children.filter(isElement);

/** All text within an element, as it stands. */
export const textOf = (element: SvgElement): string =>
  element.children.map((child) => (isElement(child) ? textOf(child) : child)).join('');

/** Own references only: `#name` gives the name, everything else nothing. */
export function referenceOf(value: string | undefined): string | null {
  const match = /^\s*(?:url\(\s*["']?#([^"')]+)["']?\s*\)|#(.+?))\s*$/.exec(value ?? '');
  return match ? (match[1] ?? match[2] ?? null) : null;
}

export function readXml(text: string): { readonly root: SvgElement } | { readonly problem: SvgProblem } {
  if (text.length > MAX_SVG_LENGTH) return { problem: 'too-large' };
  let parsed: XmlElement | null;
  try {
    parsed = parseXml(text).root;
  } catch {
    // Broken, with entities of its own, or so deep that the parser's own calls ran out.
    return { problem: 'not-xml' };
  }
  if (!parsed || localName(parsed.name) !== 'svg') return { problem: 'not-svg' };
  let count = 0;
  let deepest = 0;
  const convert = (from: XmlElement, parent: SvgElement | null, depth: number): SvgElement => {
    count++;
    deepest = Math.max(deepest, depth);
    const children: (SvgElement | string)[] = [];
    const attributes: Record<string, string> = Object.create(null) as Record<string, string>; // no inherited names
    for (const [name, value] of Object.entries(from.attributes)) attributes[attributeName(name)] = value;
    const element: SvgElement = { name: localName(from.name), attributes, children, parent };
    if (count > MAX_ELEMENTS || depth > MAX_DEPTH) return element;
    for (const child of from.children)
      if (child instanceof XmlElement) children.push(convert(child, element, depth + 1));
      else if (child instanceof XmlText || child instanceof XmlCdata) children.push(child.text);
    return element;
  };
  const root = convert(parsed, null, 0);
  if (count > MAX_ELEMENTS) return { problem: 'too-many' };
  if (deepest > MAX_DEPTH) return { problem: 'too-deep' };
  return { root };
}
