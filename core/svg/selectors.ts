import type { CssNode } from 'css-tree';
import { childElements } from './xml';
import type { SvgElement } from './xml';

/** Selectors of CSS as far as files of drawings use them: names, classes, ids, attributes, within and right within. */

type Test = (element: SvgElement) => boolean;
interface Compound {
  readonly tests: readonly Test[];
  /** How it hangs on the one before it: within, right within, right behind, or somewhere behind. */
  readonly within: 'any' | 'child' | 'next' | 'later';
}

export interface Selector {
  readonly compounds: readonly Compound[];
  /** Ids, then classes and attributes, then names (Selectors 4, section 17). */
  readonly specificity: number;
  /** What an element must have for the last compound to mean it: `#id`, `.class`, a name, or `*` for anything. */
  readonly key: string;
}

/** More compounds than this no drawing has. */
const MAX_COMPOUNDS = 40;

const classes = new WeakMap<SvgElement['attributes'], ReadonlySet<string>>();
export function classesOf({ attributes }: SvgElement): ReadonlySet<string> {
  let own = classes.get(attributes);
  if (!own) classes.set(attributes, (own = new Set((attributes.class ?? '').split(/\s+/).filter(Boolean))));
  return own;
}

const MATCHERS: Readonly<Record<string, (value: string, wanted: string) => boolean>> = {
  '=': (value, wanted) => value === wanted,
  '~=': (value, wanted) => value.split(/\s+/).includes(wanted),
  '|=': (value, wanted) => value === wanted || value.startsWith(`${wanted}-`),
  '^=': (value, wanted) => wanted !== '' && value.startsWith(wanted),
  '$=': (value, wanted) => wanted !== '' && value.endsWith(wanted),
  '*=': (value, wanted) => wanted !== '' && value.includes(wanted),
};

const SPECIFICITY = { id: 10_000, class: 100, type: 1 } as const;

interface Siblings {
  readonly list: readonly SvgElement[];
  readonly places: ReadonlyMap<SvgElement, number>;
}
const known = new WeakMap<SvgElement, Siblings>();
function siblingsIn(parent: SvgElement): Siblings {
  let siblings = known.get(parent);
  if (!siblings) {
    const list = childElements(parent);
    known.set(parent, (siblings = { list, places: new Map(list.map((child, i) => [child, i])) }));
  }
  return siblings;
}
/** Where an element stands among the elements beside it, from 0, and how many those are. */
function placeAmong(element: SvgElement): { index: number; count: number } {
  const { parent } = element;
  if (!parent) return { index: 0, count: 1 };
  const { list, places } = siblingsIn(parent);
  return { index: places.get(element) ?? 0, count: list.length };
}
function before(element: SvgElement): SvgElement | null {
  const { parent } = element;
  if (!parent) return null;
  return siblingsIn(parent).list[placeAmong(element).index - 1] ?? null;
}

/** Whether the nth of what stands beside one another is meant by an+b (CSS Syntax 3, section 6). */
const isNth = (a: number, b: number, nth: number): boolean =>
  a === 0 ? nth === b : (nth - b) / a >= 0 && Number.isInteger((nth - b) / a);

/** Classes that say where an element stands, or what it is not; null for those that are not known. */
function pseudoClass(node: Extract<CssNode, { type: 'PseudoClassSelector' }>): { test: Test; weight: number } | null {
  const weight = SPECIFICITY.class;
  const of = (test: (place: { index: number; count: number }) => boolean) => ({
    test: (element: SvgElement) => test(placeAmong(element)),
    weight,
  });
  const argument = node.children?.toArray()[0];
  switch (node.name) {
    case 'root':
      return { test: ({ parent }) => parent === null, weight };
    case 'first-child':
      return of(({ index }) => index === 0);
    case 'last-child':
      return of(({ index, count }) => index === count - 1);
    case 'only-child':
      return of(({ count }) => count === 1);
    case 'nth-child':
    case 'nth-last-child': {
      if (argument?.type !== 'Nth' || argument.selector) return null;
      const { nth } = argument;
      const isEven = nth.type === 'Identifier' ? nth.name === 'even' : null;
      const a = nth.type === 'Identifier' ? 2 : Number(nth.a ?? 0);
      const b = nth.type === 'Identifier' ? (isEven ? 0 : 1) : Number(nth.b ?? 0);
      if (!Number.isFinite(a) || !Number.isFinite(b)) return null;
      const isLast = node.name === 'nth-last-child';
      return of(({ index, count }) => isNth(a, b, isLast ? count - index : index + 1));
    }
    case 'not': {
      if (argument?.type !== 'SelectorList') return null;
      const inner = argument.children.toArray().map((one) => readSelector(one));
      const simple = inner.filter((one) => one !== null && one.compounds.length === 1);
      if (simple.length !== inner.length) return null;
      return {
        test: (element) => !simple.some((one) => fits(one!.compounds[0]!, element)), // told apart just now
        weight: Math.max(...simple.map((one) => one!.specificity)),
      };
    }
    default:
      return null;
  }
}

function testOf(node: CssNode): { test: Test; weight: number } | null {
  switch (node.type) {
    case 'TypeSelector':
      return node.name === '*'
        ? { test: () => true, weight: 0 }
        : { test: ({ name }) => name === node.name, weight: SPECIFICITY.type };
    case 'ClassSelector':
      return { test: (element) => classesOf(element).has(node.name), weight: SPECIFICITY.class };
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
      return pseudoClass(node);
    default:
      return null;
  }
}

const COMBINATORS: Readonly<Record<string, Compound['within']>> = {
  ' ': 'any',
  '>': 'child',
  '+': 'next',
  '~': 'later',
};

/** A selector ready to be tried; null if it asks for what is not known here. */
export function readSelector(node: CssNode): Selector | null {
  if (node.type !== 'Selector') return null;
  const compounds: Compound[] = [];
  let tests: Test[] = [];
  let within: Compound['within'] = 'any';
  let specificity = 0;
  let key = '*';
  for (const part of node.children.toArray()) {
    if (part.type === 'Combinator') {
      const next = COMBINATORS[part.name];
      if (!next || compounds.length >= MAX_COMPOUNDS) return null;
      compounds.push({ tests, within });
      [within, tests, key] = [next, [], '*'];
      continue;
    }
    const one = testOf(part);
    if (!one) return null;
    tests.push(one.test);
    specificity += one.weight;
    if (part.type === 'IdSelector') key = `#${part.name}`;
    else if (part.type === 'ClassSelector' && !key.startsWith('#')) key = `.${part.name}`;
    else if (part.type === 'TypeSelector' && key === '*') key = part.name;
  }
  compounds.push({ tests, within });
  return { compounds, specificity, key };
}

/** Tests that are made of a file's elements in all; more would keep a page busy for seconds. */
const MAX_TESTS = 1_000_000;
/** How much of {@link MAX_TESTS} is spent. */
export interface Effort {
  tests: number;
}
export const isSpent = ({ tests }: Effort): boolean => tests > MAX_TESTS;

const fits = (compound: Compound, element: SvgElement): boolean => compound.tests.every((test) => test(element));

/**
 * What tells whether elements are meant by a selector. What was found of an element, and of those above it, is kept, so
 * that the time grows with elements times compounds and never by trying combinations.
 */
export function createMatcher({ compounds }: Selector, effort: Effort): Test {
  const found = compounds.map(() => ({
    at: new WeakMap<SvgElement, boolean>(),
    above: new WeakMap<SvgElement, boolean>(),
  }));
  const remembered = (of: WeakMap<SvgElement, boolean>, element: SvgElement, find: () => boolean): boolean => {
    let answer = of.get(element);
    if (answer === undefined) of.set(element, (answer = find()));
    return answer;
  };
  const endsAt = (k: number, element: SvgElement): boolean =>
    remembered(found[k]!.at, element, () => {
      if (isSpent(effort)) return false;
      effort.tests += compounds[k]!.tests.length + 1;
      return fits(compounds[k]!, element) && (k === 0 || isReached(k, element));
    });
  /** Whether the compounds before one are met from an element that it fits. */
  const isReached = (k: number, element: SvgElement): boolean => {
    switch (compounds[k]!.within) {
      case 'any':
        return element.parent !== null && endsAbove(k - 1, element.parent);
      case 'child':
        return element.parent !== null && endsAt(k - 1, element.parent);
      case 'next': {
        const one = before(element);
        return one !== null && endsAt(k - 1, one);
      }
      case 'later':
        for (const one of element.parent ? siblingsIn(element.parent).list : []) {
          effort.tests++;
          if (one === element) return false;
          if (endsAt(k - 1, one)) return true;
        }
        return false;
    }
  };
  const endsAbove = (k: number, element: SvgElement): boolean =>
    remembered(
      found[k]!.above,
      element,
      () => endsAt(k, element) || (element.parent !== null && endsAbove(k, element.parent)),
    );
  const [only] = compounds;
  if (only && compounds.length === 1)
    return (element) => {
      effort.tests += only.tests.length;
      return !isSpent(effort) && fits(only, element);
    };
  const last = compounds.length - 1;
  return (element) => {
    // Most elements are not meant: that is told before anything is remembered of them.
    effort.tests += compounds[last]!.tests.length;
    return !isSpent(effort) && fits(compounds[last]!, element) && isReached(last, element);
  };
}
