import type { Box, Matrix } from '../geometry';
import type { SvgNode } from './nodes';
import type { Outliner } from './outliner';
import { plainPath } from './path-data';
import type { Sheet, Style } from './styles';
import { lengthOf } from './values';
import type { Measures } from './values';
import { childElements, textOf } from './xml';
import type { SvgElement } from './xml';

/** What all that read a drawing share: where they are, and what the file has. */

/** Where an element is drawn. */
export interface Place {
  /** From its user units to pixels. */
  readonly matrix: Matrix;
  readonly style: Style;
  /** The viewport around it. */
  readonly measures: Measures;
  /** Ids that are being used, clipped or masked with: none does so with itself. */
  readonly under: readonly string[];
}

export interface Reader {
  readonly byId: ReadonlyMap<string, SvgElement>;
  readonly sheet: Sheet;
  readonly outliner: Outliner;
  readonly left: Set<string>;
  nodes: number;
  /** How elements are drawn: handed on, so that clips and masks can draw what is in them. */
  readonly draw: {
    /** An element with a style, without looking at whether it is displayed. */
    readonly drawn: (reader: Reader, element: SvgElement, around: Place, style: Style) => SvgNode | null;
    readonly nodesOf: (reader: Reader, elements: readonly SvgElement[], place: Place) => SvgNode[];
  };
}

export const rectanglePath = ([l, t, r, b]: Box, matrix: Matrix): string =>
  plainPath(`M${l} ${t}H${r}V${b}H${l}Z`, matrix) ?? '';

export function nameOf(element: SvgElement): string {
  const title = childElements(element).find((child) => child.name === 'title');
  const own = element.attributes['inkscape:label'] ?? (title ? textOf(title) : undefined) ?? element.attributes.id;
  return (own ?? '').trim().slice(0, 80);
}

export const measuresIn = ({ measures, style }: Place): Measures => ({
  ...measures,
  em: lengthOf(style['font-size'], 'y', { ...measures, em: measures.em }) ?? measures.em,
});

export const plainNode = (name: string) =>
  ({
    name,
    opacity: 1,
    blend: 'normal',
    blur: 0,
    shadows: [],
    clips: [],
    matte: null,
  }) as const satisfies Partial<SvgNode>;
