import generate from 'css-tree/generator';
import parse from 'css-tree/parser';
import type { CssNode } from 'css-tree';
import { cssColour } from '../colour';
import { classesOf, createMatcher, isSpent, readSelector } from './selectors';
import type { Effort, Selector } from './selectors';
import { lengthOf } from './values';
import { childElements, textOf } from './xml';
import type { SvgElement } from './xml';

/** What elements look like: presentation attributes, style sheets and style attributes, cascaded and inherited. */

export type Style = Readonly<Record<string, string>>;

interface Rule {
  readonly selector: Selector;
  readonly isMet: (element: SvgElement) => boolean;
  readonly declarations: readonly Declaration[];
  /** Its place among all rules. */
  readonly order: number;
}
interface Declaration {
  readonly property: string;
  readonly value: string;
  readonly isImportant: boolean;
}

/** Longest text of style sheets, UTF-16 units, and most rules. */
const MAX_SHEET = 400_000;
const MAX_RULES = 4000;

/** Properties that elements take over from what they lie in, with what they begin as. */
const INHERITED: Style = {
  fill: '#000000',
  'fill-opacity': '1',
  'fill-rule': 'nonzero',
  'clip-rule': 'nonzero',
  stroke: 'none',
  'stroke-opacity': '1',
  'stroke-width': '1',
  'stroke-linecap': 'butt',
  'stroke-linejoin': 'miter',
  'stroke-miterlimit': '4',
  'stroke-dasharray': 'none',
  'stroke-dashoffset': '0',
  'paint-order': 'normal',
  color: '#000000',
  visibility: 'visible',
  'font-family': '',
  'font-size': '16',
  'font-weight': '400',
  'font-style': 'normal',
  'letter-spacing': '0',
  'text-anchor': 'start',
  'text-transform': 'none',
  // What is not had is known, so that it is told.
  'word-spacing': '0',
  'white-space': 'normal',
  direction: 'ltr',
  'writing-mode': 'horizontal-tb',
  'dominant-baseline': 'auto',
  'color-interpolation-filters': 'linearRGB',
};
/** Properties that belong to an element alone. */
const OWN: Style = {
  opacity: '1',
  display: 'inline',
  'clip-path': 'none',
  mask: 'none',
  'mask-type': 'luminance',
  filter: 'none',
  'flood-color': '#000000',
  'flood-opacity': '1',
  'mix-blend-mode': 'normal',
  'stop-color': '#000000',
  'stop-opacity': '1',
  overflow: '',
  transform: '',
  'transform-origin': '',
  'transform-box': 'view-box',
  isolation: 'auto',
  'text-decoration': 'none',
  'baseline-shift': 'baseline',
  'vector-effect': 'none',
  'marker-start': 'none',
  'marker-mid': 'none',
  'marker-end': 'none',
};
/** Where and how large shapes are, as style sheets can say it too (SVG 2, section 8.1): kept under this prefix. */
export const GEOMETRY_PREFIX = 'geometry-';
const GEOMETRY = new Set(['x', 'y', 'width', 'height', 'cx', 'cy', 'r', 'rx', 'ry', 'd']);
const CUSTOM = '--';

const isKnown = (property: string): boolean =>
  property in INHERITED || property in OWN || property.startsWith(CUSTOM) || property === 'font';

export const INITIAL_STYLE: Style = { ...INHERITED, ...OWN };

function declarationsOf(block: CssNode): Declaration[] {
  if (!('children' in block) || !block.children) return [];
  return (block.children.toArray() as CssNode[]).flatMap((node) =>
    node.type === 'Declaration' && (isKnown(node.property) || GEOMETRY.has(node.property))
      ? [{ property: node.property, value: generate(node.value).trim(), isImportant: node.important !== false }]
      : [],
  );
}

export interface Sheet {
  /** By what an element must have: an id, a class, a name, or nothing. */
  readonly rules: ReadonlyMap<string, readonly Rule[]>;
  readonly effort: Effort;
  /** What of the style sheets is passed over. */
  readonly unknown: readonly string[];
}

/** Media that a drawing is seen in as it is here: any screen, without conditions. */
const isForScreens = (prelude: string): boolean =>
  prelude.split(',').some((medium) => /^(all|(only )?screen)$/i.test(medium.trim()));

/** All style sheets of a file. */
export function readSheet(root: SvgElement): Sheet {
  const rules = new Map<string, Rule[]>();
  const effort: Effort = { tests: 0 };
  let count = 0;
  const unknown = new Set<string>();
  const texts: string[] = [];
  const collect = (element: SvgElement): void => {
    if (element.name === 'style') texts.push(textOf(element));
    else childElements(element).forEach(collect);
  };
  collect(root);
  const text = texts.join('\n');
  if (text.length > MAX_SHEET) return { rules, effort, unknown: ['style sheets of such length'] };
  const sheet = parse(text, { parseValue: true, onParseError: () => undefined });
  const read = (node: CssNode): void => {
    if (node.type === 'Atrule') {
      if (node.name === 'media' && node.block && node.prelude && isForScreens(generate(node.prelude)))
        node.block.children.toArray().forEach(read);
      else unknown.add(`@${node.name}`);
    }
    if (node.type !== 'Rule' || node.prelude.type !== 'SelectorList') return;
    const declarations = declarationsOf(node.block);
    for (const one of node.prelude.children.toArray()) {
      const selector = readSelector(one);
      if (!selector) unknown.add(`the style of ${generate(one).slice(0, 60)}`);
      else if (count < MAX_RULES) {
        const list = rules.get(selector.key) ?? [];
        list.push({ selector, isMet: createMatcher(selector, effort), declarations, order: count++ });
        rules.set(selector.key, list);
      } else unknown.add('style sheets of so many rules');
    }
  };
  if (sheet.type === 'StyleSheet') sheet.children.toArray().forEach(read);
  return { rules, effort, unknown: [...unknown] };
}

/** The rules that mean an element, in the order in which they stand. */
function rulesFor(element: SvgElement, { rules, effort }: Sheet): Rule[] {
  if (isSpent(effort)) return [];
  const { id } = element.attributes;
  const keys = new Set([
    '*',
    element.name,
    ...(id === undefined ? [] : [`#${id}`]),
    ...(element.attributes.class === undefined ? [] : [...classesOf(element)].map((name) => `.${name}`)),
  ]);
  return [...keys]
    .flatMap((key) => rules.get(key) ?? [])
    .filter(({ isMet }) => isMet(element))
    .sort((a, b) => a.order - b.order);
}

/** Whether the style sheets of a file ask for more than they are given. */
export const isSheetTooCostly = ({ effort }: Sheet): boolean => isSpent(effort);

const MAX_VALUE = 20_000;
/** How often variables are looked up within variables. */
const MAX_LOOKUPS = 8;

/** A value with its variables put in (CSS Variables 1); null where one is missing and nothing stands in for it. */
function withVariables(value: string, of: (name: string) => string | undefined): string | null {
  let text = value;
  for (let i = 0; text.includes('var('); i++) {
    if (i >= MAX_LOOKUPS || text.length > MAX_VALUE) return null;
    let isMissing = false;
    // The innermost first: what stands in for a variable may name another.
    text = text.replace(
      /var\(\s*(--[^\s,()]+)\s*(?:,([^()]*(?:\([^()]*\)[^()]*)*))?\)/g,
      (_, name: string, other?: string) => {
        const found = of(name) ?? other;
        isMissing ||= found === undefined;
        return found?.trim() ?? '';
      },
    );
    if (isMissing) return null;
  }
  return text;
}

const COLOURS = new Set(['fill', 'stroke', 'color', 'stop-color']);
/** A colour that is none is as if it were not written. */
const isColourLike = (value: string): boolean =>
  /^(none|currentcolor|context-(fill|stroke)|url\(.*)$/i.test(value) || cssColour(value) !== null;

const FONT =
  /^(?:(.*?)\s+)?(\d[\d.]*(?:px|pt|pc|em|rem|ex|%|in|cm|mm)?|(?:xx?-)?(?:small|large)|medium|smaller|larger)(?:\s*\/\s*\S+)?\s+(\S.*)$/i;
/** What `font` says at once: size and family, and how upright and heavy (CSS Fonts 4, section 6). */
function fontParts(value: string): Record<string, string> | null {
  const match = FONT.exec(value);
  if (!match) return null;
  const words = (match[1] ?? '').toLowerCase().split(/\s+/);
  const style = words.find((word) => word === 'italic' || word === 'oblique');
  const weight = words.find((word) => /^(bold|bolder|lighter|\d{3})$/.test(word));
  return {
    'font-style': style ?? 'normal',
    'font-weight': weight ?? '400',
    'font-size': match[2]!,
    'font-family': match[3]!,
  };
}

/** Sizes that have names, pixels (CSS Fonts 4, section 2.5). */
const SIZES: Readonly<Record<string, number>> = {
  'xx-small': 9,
  'x-small': 10,
  small: 13,
  medium: 16,
  large: 18,
  'x-large': 24,
  'xx-large': 32,
};
const LARGER = 1.2;

/** A font size as pixels: shares and ems are of the size around. */
function fontSize(value: string, above: string): string | null {
  const around = parseFloat(above) || 16;
  const named =
    SIZES[value.toLowerCase()] ?? { larger: around * LARGER, smaller: around / LARGER }[value.toLowerCase()];
  const size = named ?? lengthOf(value, 'y', { width: around, height: around, em: around });
  return size !== null && size >= 0 ? String(size) : null;
}

/** Whether a stylesheet's rule says anything is decided in this order: attributes, sheets, the element's own style. */
export function styleOf(element: SvgElement, above: Style, sheet: Sheet): Style {
  const found: { declaration: Declaration; weight: number }[] = [];
  for (const [property, value] of Object.entries(element.attributes))
    if (isKnown(property) && !property.startsWith(CUSTOM) && property !== 'font')
      found.push({ declaration: { property, value, isImportant: false }, weight: -1 });
  for (const { selector, declarations } of rulesFor(element, sheet))
    declarations.forEach((declaration) => found.push({ declaration, weight: selector.specificity }));
  const { style } = element.attributes;
  if (style !== undefined && style.length <= MAX_SHEET) {
    const own = parse(style, { context: 'declarationList', parseValue: true, onParseError: () => undefined });
    declarationsOf(own).forEach((declaration) => found.push({ declaration, weight: Infinity }));
  }
  const rank = ({ declaration, weight }: (typeof found)[number]): number =>
    (declaration.isImportant ? 1 : 0) * 2 + (weight === Infinity ? 1 : 0);
  found.sort((a, b) => rank(a) - rank(b) || (a.weight === b.weight ? 0 : a.weight - b.weight));
  const out: Record<string, string> = { ...OWN };
  for (const property of Object.keys(INHERITED)) out[property] = above[property]!; // every style has all
  for (const [property, value] of Object.entries(above)) if (property.startsWith(CUSTOM)) out[property] = value;
  for (const { declaration } of found)
    if (declaration.property.startsWith(CUSTOM)) out[declaration.property] = declaration.value;
  // The strongest first: what it says of a property, if that is a value of it, is said.
  const isSaid = new Set<string>();
  for (let i = found.length - 1; i >= 0; i--) {
    const { property, value: written } = found[i]!.declaration; // i is within the list
    if (property.startsWith(CUSTOM) || isSaid.has(property)) continue;
    const value = withVariables(written, (name) => (Object.hasOwn(out, name) ? out[name] : undefined));
    if (value === null) continue;
    const parts = property === 'font' ? fontParts(value) : { [property]: value };
    for (const [one, said] of Object.entries(parts ?? {})) {
      if (isSaid.has(one)) continue;
      const taken = valueOf(one, said, above);
      if (taken === null) continue;
      out[GEOMETRY.has(one) ? `${GEOMETRY_PREFIX}${one}` : one] = taken;
      isSaid.add(one);
    }
  }
  return out;
}

/** A value of a property as it is kept; null for what is none, which is passed over as if it were not there. */
function valueOf(property: string, value: string, above: Style): string | null {
  if (GEOMETRY.has(property)) return value;
  const keyword = value.toLowerCase();
  if (keyword === 'inherit') return above[property] ?? null;
  if (keyword === 'initial') return INITIAL_STYLE[property] ?? null;
  if (keyword === 'unset' || keyword === 'revert')
    return (property in INHERITED ? above : INITIAL_STYLE)[property] ?? null;
  if (COLOURS.has(property) && !isColourLike(value)) return null;
  return property === 'font-size' ? fontSize(value, above['font-size'] ?? '16') : value;
}

/** An element with what style sheets say of its geometry in place of its attributes. */
export function withGeometry(element: SvgElement, style: Style): SvgElement {
  const said = Object.entries(style).filter(([property]) => property.startsWith(GEOMETRY_PREFIX));
  if (said.length === 0) return element;
  const attributes: Record<string, string> = Object.assign(
    Object.create(null) as Record<string, string>,
    element.attributes,
  );
  for (const [property, value] of said) {
    const path = /^path\(\s*(["'])(.*)\1\s*\)$/s.exec(value);
    if (value !== 'auto') attributes[property.slice(GEOMETRY_PREFIX.length)] = path ? path[2]! : value;
  }
  return { ...element, attributes };
}
