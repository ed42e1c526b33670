import type { CssNode } from 'css-tree';
import type { SvgElement } from './xml';

/** Selectors of CSS as far as files of drawings use them: names, classes, ids, attributes, within and right within. */

interface Compound {
  readonly tests: readonly ((element: SvgElement) => boolean)[];
  /** How it hangs on the one before it. */
  readonly within: 'any' | 'child';
}

export interface Selector {
  readonly compounds: readonly Compound[];
  /** Ids, then classes and attributes, then names (Selectors 4, section 17). */
  readonly specificity: number;
}

const classesOf = (element: SvgElement): string[] => (element.attributes.class ?? '').split(/\s+/);

const MATCHERS: Readonly<Record<string, (value: string, wanted: string) => boolean>> = {
  '=': (value, wanted) => value === wanted,
  '~=': (value, wanted) => value.split(/\s+/).includes(wanted),
  '|=': (value, wanted) => value === wanted || value.startsWith(`${wanted}-`),
  '^=': (value, wanted) => wanted !== '' && value.startsWith(wanted),
  '$=': (value, wanted) => wanted !== '' && value.endsWith(wanted),
  '*=': (value, wanted) => wanted !== '' && value.includes(wanted),
};

const SPECIFICITY = { id: 10_000, class: 100, type: 1 } as const;

function testOf(node: CssNode): { test: (element: SvgElement) => boolean; weight: number } | null {
  switch (node.type) {
    case 'TypeSelector':
      return node.name === '*'
        ? { test: () => true, weight: 0 }
        : { test: ({ name }) => name === node.name, weight: SPECIFICITY.type };
    case 'ClassSelector':
      return { test: (element) => classesOf(element).includes(node.name), weight: SPECIFICITY.class };
    case 'IdSelector':
      return { test: ({ attributes }) => attributes.id === node.name, weight: SPECIFICITY.id };
    case 'AttributeSelector': {
      const { name } = node.name;
      const wanted = node.value ? (node.value.type === 'String' ? node.value.value : node.value.name) : null;
      const matches = node.matcher === null ? null : MATCHERS[node.matcher];
      if (node.matcher !== null && (!matches || wanted === null)) return null;
      return {
        test: ({ attributes }) => {
          const value = attributes[name];
          return value !== undefined && (matches && wanted !== null ? matches(value, wanted) : true);
        },
        weight: SPECIFICITY.class,
      };
    }
    case 'PseudoClassSelector':
      return node.name === 'root' ? { test: ({ parent }) => parent === null, weight: SPECIFICITY.class } : null;
    default:
      return null;
  }
}

/** A selector ready to be tried; null if it asks for what is not known here. */
export function readSelector(node: CssNode): Selector | null {
  if (node.type !== 'Selector') return null;
  const compounds: Compound[] = [];
  let tests: ((element: SvgElement) => boolean)[] = [];
  let within: Compound['within'] = 'any';
  let specificity = 0;
  for (const part of node.children.toArray()) {
    if (part.type === 'Combinator') {
      if (part.name !== ' ' && part.name !== '>') return null;
      compounds.push({ tests, within });
      within = part.name === '>' ? 'child' : 'any';
      tests = [];
      continue;
    }
    const one = testOf(part);
    if (!one) return null;
    tests.push(one.test);
    specificity += one.weight;
  }
  compounds.push({ tests, within });
  return { compounds, specificity };
}

const fits = (compound: Compound, element: SvgElement): boolean => compound.tests.every((test) => test(element));

/** Whether an element is meant by a selector. */
export function matches({ compounds }: Selector, element: SvgElement): boolean {
  const from = (index: number, at: SvgElement): boolean => {
    const compound = compounds[index]!; // index is within the list
    if (!fits(compound, at)) return false;
    if (index === 0) return true;
    for (let above = at.parent; above; above = above.parent) {
      if (from(index - 1, above)) return true;
      if (compound.within === 'child') return false;
    }
    return false;
  };
  return from(compounds.length - 1, element);
}
