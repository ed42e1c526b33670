import { IDENTITY, multiply, transformBox } from '../geometry';
import type { Box, Matrix } from '../geometry';
import { staysWithin } from './node-boxes';
import { noteShape } from './left-out';
import type { SvgClip, SvgDrawing, SvgGroup, SvgNode } from './nodes';
import type { Outliner } from './outliner';
import { measuresIn, rectanglePath } from './reader';
import type { Place, Reader } from './reader';
import { shapeNode } from './shape-node';
import { SHAPE_NAMES, shapeData } from './shapes';
import { INITIAL_STYLE, isSheetTooCostly, readSheet, styleOf, withGeometry } from './styles';
import type { Style } from './styles';
import { textNode } from './text-node';
import { cssTransformOf, lengthOf, originOf, transformOf, viewMatrix } from './values';
import type { Measures } from './values';
import { baseOf, boxOf } from './whole';
import { childElements, readXml, referenceOf } from './xml';
import type { SvgElement, SvgProblem } from './xml';

/**
 * Reads the static part of SVG (SVG 1.1 shapes, clips, masks, gradients, text) into shapes and groups in pixels. Nothing of
 * the file is kept but numbers, colours and names; what cannot be had is told by name.
 */

/** Most things a file draws, with all that is used several times. */
const MAX_NODES = 4000;
/** How deep what is used may use others. */
const MAX_USES = 24;
const DEFAULT_SIZE = [300, 150] as const;

/** Elements that draw nothing where they stand. */
const SILENT = new Set([
  ...['defs', 'symbol', 'clipPath', 'mask', 'linearGradient', 'radialGradient', 'stop', 'style', 'title', 'desc'],
  ...['metadata', 'marker', 'pattern', 'filter', 'view', 'cursor'],
]);
/** Elements that would draw or do something that is not had here, and what people call them. */
const LEFT: Readonly<Record<string, string>> = {
  image: 'embedded pictures',
  foreignObject: 'foreign content',
  script: 'scripts',
  animate: 'animation',
  animateTransform: 'animation',
  animateMotion: 'animation',
  set: 'animation',
  textPath: 'text along a path',
  audio: 'sound',
  video: 'footage',
  iframe: 'foreign content',
};
const GROUPS = new Set(['g', 'a', 'svg', 'switch']);

/** What a viewport shows: its own coordinates, cut at its edges unless it says otherwise. */
function viewportNode(reader: Reader, element: SvgElement, place: Place, box: Box): SvgGroup | null {
  const { viewBox, preserveAspectRatio } = element.attributes;
  const view = viewMatrix(viewBox, preserveAspectRatio, box);
  if (!view || box[0] >= box[2] || box[1] >= box[3]) return null;
  const measures: Measures = {
    ...place.measures,
    width: (box[2] - box[0]) / (view[0] || 1),
    height: (box[3] - box[1]) / (view[3] || 1),
  };
  const inner: Place = { ...place, matrix: multiply(place.matrix, view), measures };
  const base = baseOf(reader, element, place);
  const whole: SvgGroup = { ...base, type: 'group', children: nodesOf(reader, childElements(element), inner) };
  const isOpen = place.style.overflow === 'visible' || place.style.overflow === 'auto';
  const isStraight = place.matrix[1] === 0 && place.matrix[2] === 0;
  if (isOpen || (isStraight && staysWithin(whole, transformBox(place.matrix, box)))) return whole;
  const edge: SvgClip = { paths: [{ d: rectanglePath(box, place.matrix), rule: 'nonzero' }] };
  return { ...whole, clips: [edge, ...base.clips] };
}

function useNode(reader: Reader, element: SvgElement, place: Place): SvgNode | null {
  const id = referenceOf(element.attributes.href);
  const target = id === null ? undefined : reader.byId.get(id);
  if (id === null || !target) {
    if (element.attributes.href !== undefined && id === null) reader.left.add('parts of other files');
    return null;
  }
  if (place.under.includes(id) || place.under.length > MAX_USES) {
    reader.left.add('parts that use themselves');
    return null;
  }
  const { measures } = place;
  const length = (name: string, axis: 'x' | 'y'): number | null => lengthOf(element.attributes[name], axis, measures);
  const own: Place = {
    ...place,
    matrix: multiply(place.matrix, [1, 0, 0, 1, length('x', 'x') ?? 0, length('y', 'y') ?? 0]),
    under: [...place.under, id],
  };
  const base = baseOf(reader, element, place);
  if (target.name === 'symbol' || target.name === 'svg') {
    const look = styleOf(target, place.style, reader.sheet);
    const width = length('width', 'x') ?? lengthOf(target.attributes.width, 'x', measures) ?? measures.width;
    const height = length('height', 'y') ?? lengthOf(target.attributes.height, 'y', measures) ?? measures.height;
    const node = viewportNode(reader, target, { ...own, style: look }, [0, 0, width, height]);
    return node && { ...base, type: 'group', children: [node] };
  }
  const node = nodeOf(reader, target, own);
  return node && { ...base, type: 'group', children: [node] };
}

/** An element as it is drawn with a style, without looking at whether it is displayed. */
function drawn(reader: Reader, element: SvgElement, around: Place, style: Style): SvgNode | null {
  if (++reader.nodes > MAX_NODES) {
    reader.left.add('parts beyond a few thousand');
    return null;
  }
  const place: Place = {
    ...around,
    style,
    matrix: multiply(around.matrix, ownTransform(reader, element, around, style)),
  };
  noteShape(style, reader.left);
  if (SHAPE_NAMES.has(element.name)) {
    const data = shapeData(withGeometry(element, style), measuresIn(place));
    return data === null ? null : shapeNode(reader, element, data, place);
  }
  if (element.name === 'use') return useNode(reader, element, place);
  if (element.name === 'text') return textNode(reader, element, place);
  if (element.name === 'svg') {
    const { measures } = place;
    const at = (name: string, axis: 'x' | 'y', otherwise: number): number =>
      lengthOf(element.attributes[name], axis, measures) ?? otherwise;
    const [x, y] = [at('x', 'x', 0), at('y', 'y', 0)];
    const box: Box = [x, y, x + at('width', 'x', measures.width), y + at('height', 'y', measures.height)];
    return viewportNode(reader, element, place, box);
  }
  const children = childElements(element);
  const shown =
    element.name === 'switch'
      ? children.filter((child) => !SILENT.has(child.name) && isRequired(child.attributes)).slice(0, 1)
      : children;
  const nodes = nodesOf(reader, shown, place);
  return nodes.length === 0 ? null : { ...baseOf(reader, element, place), type: 'group', children: nodes };
}

/** Whether what an element asks for is there: its language, no extensions (SVG 2, section 5.8). */
function isRequired({ systemLanguage, requiredExtensions }: SvgElement['attributes']): boolean {
  const languages = systemLanguage?.split(',').map((one) => one.trim().toLowerCase());
  return (!languages || languages.some((one) => /^en\b/.test(one))) && (requiredExtensions ?? '').trim() === '';
}

/** The transform of an element, about the point that it says. */
function ownTransform(reader: Reader, element: SvgElement, around: Place, style: Style): Matrix {
  const asked = style['transform-origin'] ?? '';
  const written = element.attributes.transform;
  // Attributes write numbers, style sheets units; what both may write is read as attributes have it.
  const isCss = style.transform !== '' && style.transform !== written;
  if (style.transform === 'none' || (!isCss && !written)) return IDENTITY;
  const { measures } = around;
  const isOfBox = style['transform-box'] === 'fill-box' || style['transform-box'] === 'content-box';
  const box: Box = (isOfBox && boxOf(reader, element, { ...around, style })) || [0, 0, measures.width, measures.height];
  const within: Measures = { width: box[2] - box[0], height: box[3] - box[1], em: measures.em };
  const own = isCss ? cssTransformOf(style.transform ?? '', within) : transformOf(written);
  if (asked === '') return own;
  const [x, y] = originOf(asked, box, measures.em);
  return multiply(multiply([1, 0, 0, 1, x, y], own), [1, 0, 0, 1, -x, -y]);
}

function nodeOf(reader: Reader, element: SvgElement, around: Place): SvgNode | null {
  const { name } = element;
  const known = LEFT[name];
  if (known !== undefined) reader.left.add(known);
  if (SILENT.has(name) || (!SHAPE_NAMES.has(name) && !GROUPS.has(name) && name !== 'use' && name !== 'text'))
    return null;
  const style = styleOf(element, around.style, reader.sheet);
  return style.display === 'none' ? null : drawn(reader, element, around, style);
}

const nodesOf = (reader: Reader, elements: readonly SvgElement[], place: Place): SvgNode[] =>
  elements.map((element) => nodeOf(reader, element, place)).filter((node) => node !== null);

/** Names of attributes by which files run something. */
const RUNS = /^on[a-z]+$/i;

/** What of a file would run or load, wherever it stands; it is left behind, and told. */
function noteActive(element: SvgElement, left: Set<string>): void {
  const known = LEFT[element.name];
  if (known === 'scripts' || known === 'animation') left.add(known);
  for (const [name, value] of Object.entries(element.attributes)) {
    if (RUNS.test(name)) left.add('scripts');
    if (name === 'href' && element.name !== 'a' && referenceOf(value) === null && value.trim() !== '')
      left.add(element.name === 'image' ? 'embedded pictures' : 'parts of other files');
  }
  childElements(element).forEach((child) => noteActive(child, left));
}

export interface SvgOptions {
  readonly outliner: Outliner;
  /** Pixels that the drawing is made to fit into; its own size if left out. */
  readonly fit?: { readonly width: number; readonly height: number };
}

/**
 * Reads an SVG file.
 * @returns what it draws, or what is wrong with the file.
 */
export function readSvg(text: string, { outliner, fit }: SvgOptions): SvgDrawing | { readonly problem: SvgProblem } {
  const read = readXml(text);
  if ('problem' in read) return read;
  const { root } = read;
  const byId = new Map<string, SvgElement>();
  const index = (element: SvgElement): void => {
    const { id } = element.attributes;
    if (id !== undefined && !byId.has(id)) byId.set(id, element);
    childElements(element).forEach(index);
  };
  index(root);
  const sheet = readSheet(root);
  const reader: Reader = { byId, sheet, outliner, left: new Set(sheet.unknown), nodes: 0, draw: { drawn, nodesOf } };
  noteActive(root, reader.left);
  const [, , boxWidth, boxHeight] = (root.attributes.viewBox ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const measures: Measures = { width: boxWidth || DEFAULT_SIZE[0], height: boxHeight || DEFAULT_SIZE[1], em: 16 };
  const width = lengthOf(root.attributes.width, 'x', measures) ?? measures.width;
  const height = lengthOf(root.attributes.height, 'y', measures) ?? measures.height;
  if (width <= 0 || height <= 0) return { problem: 'empty' };
  const k = fit ? Math.min(fit.width / width, fit.height / height) : 1;
  const style = styleOf(root, INITIAL_STYLE, sheet);
  const place: Place = { matrix: [k, 0, 0, k, 0, 0], style, measures: { ...measures, width, height }, under: [] };
  const node = style.display === 'none' ? null : viewportNode(reader, root, place, [0, 0, width, height]);
  if (isSheetTooCostly(sheet)) reader.left.add('style sheets of such complexity');
  if (!node || node.children.length === 0) return { problem: 'empty' };
  return { width: width * k, height: height * k, root: node, left: [...reader.left].slice(0, 40) };
}
