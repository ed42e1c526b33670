import generate from 'css-tree/generator';
import parse from 'css-tree/parser';
import type { CssNode } from 'css-tree';
import { matches, readSelector } from './selectors';
import type { Selector } from './selectors';
import { childElements, textOf } from './xml';
import type { SvgElement } from './xml';

/** What elements look like: presentation attributes, style sheets and style attributes, cascaded and inherited. */

export type Style = Readonly<Record<string, string>>;

interface Rule {
  readonly selector: Selector;
  readonly declarations: readonly Declaration[];
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
};
/** Properties that belong to an element alone. */
const OWN: Style = {
  opacity: '1',
  display: 'inline',
  'clip-path': 'none',
  mask: 'none',
  'mask-type': 'luminance',
  filter: 'none',
  'mix-blend-mode': 'normal',
  'stop-color': '#000000',
  'stop-opacity': '1',
  overflow: '',
  transform: '',
  'vector-effect': 'none',
  'marker-start': 'none',
  'marker-mid': 'none',
  'marker-end': 'none',
};
const isKnown = (property: string): boolean => property in INHERITED || property in OWN;

export const INITIAL_STYLE: Style = { ...INHERITED, ...OWN };

function declarationsOf(block: CssNode): Declaration[] {
  if (!('children' in block) || !block.children) return [];
  return (block.children.toArray() as CssNode[]).flatMap((node) =>
    node.type === 'Declaration' && isKnown(node.property)
      ? [{ property: node.property, value: generate(node.value).trim(), isImportant: node.important !== false }]
      : [],
  );
}

export interface Sheet {
  readonly rules: readonly Rule[];
  /** What of the style sheets is passed over. */
  readonly unknown: readonly string[];
}

/** All style sheets of a file. */
export function readSheet(root: SvgElement): Sheet {
  const rules: Rule[] = [];
  const unknown = new Set<string>();
  const texts: string[] = [];
  const collect = (element: SvgElement): void => {
    if (element.name === 'style') texts.push(textOf(element));
    else childElements(element).forEach(collect);
  };
  collect(root);
  const text = texts.join('\n');
  if (text.length > MAX_SHEET) return { rules, unknown: ['style sheets of such length'] };
  const sheet = parse(text, { parseValue: true, onParseError: () => undefined });
  const nodes = sheet.type === 'StyleSheet' ? sheet.children.toArray() : [];
  for (const node of nodes) {
    if (node.type === 'Atrule') unknown.add(`@${node.name}`);
    if (node.type !== 'Rule' || node.prelude.type !== 'SelectorList') continue;
    const declarations = declarationsOf(node.block);
    for (const one of node.prelude.children.toArray()) {
      const selector = readSelector(one);
      if (!selector) unknown.add(`the style of ${generate(one)}`);
      else if (rules.length < MAX_RULES) rules.push({ selector, declarations });
    }
  }
  return { rules, unknown: [...unknown] };
}

/** Whether a stylesheet's rule says anything is decided in this order: attributes, sheets, the element's own style. */
export function styleOf(element: SvgElement, above: Style, sheet: Sheet): Style {
  const found: { declaration: Declaration; weight: number }[] = [];
  for (const [property, value] of Object.entries(element.attributes))
    if (isKnown(property)) found.push({ declaration: { property, value, isImportant: false }, weight: -1 });
  for (const { selector, declarations } of sheet.rules)
    if (matches(selector, element))
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
  for (const { declaration } of found) {
    const { property, value } = declaration;
    if (value === 'inherit') out[property] = above[property]!;
    else if (value === 'initial' || value === 'unset') out[property] = INITIAL_STYLE[property]!;
    else out[property] = value;
  }
  return out;
}
