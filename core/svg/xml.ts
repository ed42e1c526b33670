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

const SVG_NAMESPACE = 'http://www.w3.org/2000/svg';
/** Prefixes that stand for SVG in a file. */
const prefixesOf = (attributes: Readonly<Record<string, string>>): ReadonlySet<string> =>
  new Set([
    'svg',
    ...Object.entries(attributes).flatMap(([name, value]) =>
      name.startsWith('xmlns:') && value === SVG_NAMESPACE ? [name.slice(6)] : [],
    ),
  ]);

/** Most entities of a file, and the longest text of one: what drawing programs give names to are addresses of namespaces. */
const MAX_ENTITIES = 64;
const MAX_ENTITY = 200;
const DOCTYPE = /<!DOCTYPE\s+[^[>]*\[([^\]]*)\]\s*>/;
const PLAIN_ENTITY = /<!ENTITY\s+([A-Za-z_][\w.-]*)\s+(?:"([^"&<%]*)"|'([^'&<%]*)')\s*>/g;

/**
 * A file with its entities put in, where they are no more than short texts; as it is where they are anything else, which
 * the parser then refuses. No entity names another, so nothing grows beyond what is counted.
 */
function withoutEntities(text: string): string {
  const doctype = DOCTYPE.exec(text);
  const subset = doctype?.[1] ?? '';
  if (!doctype || !subset.includes('<!ENTITY')) return text;
  const entities = new Map<string, string>();
  const rest = subset.replace(PLAIN_ENTITY, (_, name: string, a?: string, b?: string) => {
    entities.set(name, a ?? b ?? '');
    return '';
  });
  const isPlain =
    rest.trim() === '' &&
    entities.size <= MAX_ENTITIES &&
    [...entities.values()].every((value) => value.length <= MAX_ENTITY);
  if (!isPlain) return text;
  let length = text.length;
  const body = text.slice(doctype.index + doctype[0].length).replace(/&([A-Za-z_][\w.-]*);/g, (whole, name: string) => {
    const value = entities.get(name);
    length += value?.length ?? 0;
    return length > MAX_SVG_LENGTH ? whole : (value ?? whole);
  });
  return text.slice(0, doctype.index) + body;
}

export function readXml(text: string): { readonly root: SvgElement } | { readonly problem: SvgProblem } {
  if (text.length > MAX_SVG_LENGTH) return { problem: 'too-large' };
  let parsed: XmlElement | null;
  try {
    parsed = parseXml(withoutEntities(text)).root;
  } catch {
    // Broken, with entities of its own, or so deep that the parser's own calls ran out.
    return { problem: 'not-xml' };
  }
  if (!parsed) return { problem: 'not-svg' };
  const prefixes = prefixesOf(parsed.attributes);
  const localName = (name: string): string => {
    const [prefix, local] = name.split(':');
    return local !== undefined && prefixes.has(prefix!) ? local : name; // split gives at least one
  };
  if (localName(parsed.name) !== 'svg') return { problem: 'not-svg' };
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
