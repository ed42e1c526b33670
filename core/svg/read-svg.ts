import { cssColour, withAlpha } from '../colour';
import { IDENTITY, multiply, scaleOf, transformBox } from '../geometry';
import type { Box, Matrix } from '../geometry';
import { BLEND_MODES } from '../piece';
import type { BlendMode, FillRule } from '../piece';
import { gradientPaint } from './gradients';
import type { PaintPlace } from './gradients';
import { geometryBox, staysWithin } from './node-boxes';
import type { SvgClip, SvgDrawing, SvgGroup, SvgNode, SvgPaint, SvgShape } from './nodes';
import type { Outliner } from './outliner';
import { plainPath, tightBox } from './path-data';
import { SHAPE_NAMES, shapeData } from './shapes';
import { strokeOf } from './strokes';
import { INITIAL_STYLE, readSheet, styleOf } from './styles';
import type { Sheet, Style } from './styles';
import { runsOf } from './text-runs';
import { lengthOf, shareOf, transformOf, viewMatrix } from './values';
import type { Measures } from './values';
import { childElements, readXml, referenceOf, textOf } from './xml';
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

/** Where an element is drawn. */
interface Place {
  /** From its user units to pixels. */
  readonly matrix: Matrix;
  readonly style: Style;
  /** The viewport around it. */
  readonly measures: Measures;
  /** Ids that are being used, clipped or masked with: none does so with itself. */
  readonly under: readonly string[];
}

interface Reader {
  readonly byId: ReadonlyMap<string, SvgElement>;
  readonly sheet: Sheet;
  readonly outliner: Outliner;
  readonly left: Set<string>;
  nodes: number;
}

const rectanglePath = ([l, t, r, b]: Box, matrix: Matrix): string =>
  plainPath(`M${l} ${t}H${r}V${b}H${l}Z`, matrix) ?? '';

function nameOf(element: SvgElement): string {
  const title = childElements(element).find((child) => child.name === 'title');
  const own = element.attributes['inkscape:label'] ?? (title ? textOf(title) : undefined) ?? element.attributes.id;
  return (own ?? '').trim().slice(0, 80);
}

function paintOf(reader: Reader, value: string, place: PaintPlace): SvgPaint | null {
  const { style, opacity } = place;
  const solid = (text: string): SvgPaint | null => {
    const colour = cssColour(text.toLowerCase() === 'currentcolor' ? (style.color ?? '') : text);
    return colour === null ? null : { type: 'colour', colour: withAlpha(colour, opacity) };
  };
  if (value === 'none') return null;
  const url = /^url\(\s*["']?([^"')]*)["']?\s*\)\s*(.*)$/.exec(value);
  if (!url) return solid(value);
  const target = reader.byId.get(referenceOf(url[1]) ?? '');
  if (target?.name === 'linearGradient' || target?.name === 'radialGradient') return gradientPaint(target, place);
  if (target?.name === 'pattern') reader.left.add('patterns');
  // Otherwise what is written behind the reference; without it nothing.
  return url[2] ? solid(url[2]) : null;
}

const measuresIn = ({ measures, style }: Place): Measures => ({
  ...measures,
  em: lengthOf(style['font-size'], 'y', { ...measures, em: measures.em }) ?? measures.em,
});

/** The box of what an element draws, in its own user units, without strokes; null for nothing. */
function boxOf(reader: Reader, element: SvgElement, place: Place): Box | null {
  // At the size in which it is drawn, so that rounding does not matter.
  const k = Math.max(1e-3, scaleOf(place.matrix));
  const style: Style = { ...place.style, 'clip-path': 'none', mask: 'none', filter: 'none', transform: '' };
  const bare: SvgElement = { ...element, attributes: { ...element.attributes, transform: '', mask: 'none' } };
  const before = reader.nodes;
  const node = drawn(reader, bare, { ...place, style, matrix: [k, 0, 0, k, 0, 0] }, style);
  reader.nodes = before;
  const box = node && geometryBox(node);
  return box && [box[0] / k, box[1] / k, box[2] / k, box[3] / k];
}

/** From shares of an element's box to its user units. */
const boxMatrix = ([l, t, r, b]: Box): Matrix => [r - l, 0, 0, b - t, l, t];

/** The shapes of a clip path; null for nothing to clip with, an empty one for a clip that hides all. */
function clipsOf(reader: Reader, element: SvgElement, place: Place): SvgClip[] {
  const id = referenceOf(place.style['clip-path']);
  const clip = id === null ? undefined : reader.byId.get(id);
  if (id === null || clip?.name !== 'clipPath' || place.under.includes(id)) return [];
  let matrix = multiply(place.matrix, transformOf(clip.attributes.transform));
  if (clip.attributes.clipPathUnits === 'objectBoundingBox') {
    const box = boxOf(reader, element, place);
    if (!box) return [{ paths: [] }];
    matrix = multiply(matrix, boxMatrix(box));
  }
  const style = styleOf(clip, INITIAL_STYLE, reader.sheet);
  const own: Place = { ...place, matrix, style, under: [...place.under, id] };
  const paths: { d: string; rule: FillRule }[] = [];
  const take = (node: SvgNode, rule: FillRule): void => {
    if (node.type === 'group') return node.children.forEach((child) => take(child, rule));
    const d = node.matrix === IDENTITY ? node.d : plainPath(node.d, node.matrix);
    if (d !== null) paths.push({ d, rule });
  };
  for (const child of childElements(clip)) {
    if (!SHAPE_NAMES.has(child.name) && child.name !== 'use' && child.name !== 'text') continue;
    const look = styleOf(child, style, reader.sheet);
    if (look['clip-path'] !== 'none') reader.left.add('clips within clips');
    // A clip looks at shapes, not at what they are painted with.
    const bare: Style = { ...look, fill: '#000000', stroke: 'none', opacity: '1', 'clip-path': 'none', mask: 'none' };
    const node = drawn(reader, child, own, bare);
    if (node) take(node, look['clip-rule'] === 'evenodd' ? 'evenodd' : 'nonzero');
  }
  // A clip path may be clipped itself.
  return [{ paths }, ...clipsOf(reader, element, { ...own, matrix: place.matrix, style })];
}

function matteOf(reader: Reader, element: SvgElement, place: Place): SvgNode['matte'] {
  const id = referenceOf(place.style.mask);
  const mask = id === null ? undefined : reader.byId.get(id);
  if (id === null || mask?.name !== 'mask' || place.under.includes(id)) return null;
  const style = styleOf(mask, INITIAL_STYLE, reader.sheet);
  const { maskUnits, maskContentUnits } = mask.attributes;
  const box = boxOf(reader, element, place);
  const isOfBox = maskUnits !== 'userSpaceOnUse';
  const measures: Measures = isOfBox ? { width: 1, height: 1, em: 0 } : place.measures;
  const length = (name: string, axis: 'x' | 'y', otherwise: string): number =>
    lengthOf(mask.attributes[name] ?? otherwise, axis, measures) ?? 0;
  const [x, y] = [length('x', 'x', '-10%'), length('y', 'y', '-10%')];
  const [w, h] = [length('width', 'x', '120%'), length('height', 'y', '120%')];
  const standing = box && isOfBox ? multiply(place.matrix, boxMatrix(box)) : place.matrix;
  const contents =
    box && maskContentUnits === 'objectBoundingBox' ? multiply(place.matrix, boxMatrix(box)) : place.matrix;
  const own: Place = { ...place, matrix: contents, style, under: [...place.under, id] };
  const cover: SvgGroup = {
    ...plainNode(nameOf(mask) || 'Mask'),
    type: 'group',
    clips: [{ paths: [{ d: rectanglePath([x, y, x + w, y + h], standing), rule: 'nonzero' }] }],
    children: nodesOf(reader, childElements(mask), own),
  };
  return { cover, channel: style['mask-type'] === 'alpha' ? 'alpha' : 'luminance' };
}

const plainNode = (name: string) =>
  ({ name, opacity: 1, blend: 'normal', blur: 0, clips: [], matte: null }) as const satisfies Partial<SvgNode>;

const BLEND_BY_NAME = new Map(
  (Object.entries(BLEND_MODES) as [BlendMode, { operation: string }][]).map(([id, { operation }]) => [
    operation === 'lighter' ? 'plus-lighter' : operation,
    id,
  ]),
);

function blurOf(reader: Reader, place: Place): number {
  const id = referenceOf(place.style.filter);
  const filter = id === null ? undefined : reader.byId.get(id);
  if (filter?.name !== 'filter') return 0;
  const [only, ...more] = childElements(filter);
  if (!only || only.name !== 'feGaussianBlur' || more.length > 0) {
    reader.left.add('filters other than a blur');
    return 0;
  }
  return Math.max(0, parseFloat(only.attributes.stdDeviation ?? '0') || 0) * scaleOf(place.matrix);
}

/** What counts for an element as a whole. */
function baseOf(reader: Reader, element: SvgElement, place: Place): Omit<SvgGroup, 'type' | 'children'> {
  const { style } = place;
  return {
    name: nameOf(element),
    opacity: shareOf(style.opacity, 1),
    blend: BLEND_BY_NAME.get(style['mix-blend-mode'] ?? '') ?? 'normal',
    blur: blurOf(reader, place),
    clips: clipsOf(reader, element, place),
    matte: matteOf(reader, element, place),
  };
}

const isSimilar = ([a, b, c, d]: Matrix): boolean => {
  const size = Math.hypot(a, b) + Math.hypot(c, d);
  return (
    Math.min(Math.abs(a - d) + Math.abs(b + c), Math.abs(a + d) + Math.abs(b - c)) < 1e-4 * size ||
    Math.abs(size) < 1e-9
  );
};

/** A shape of path data in user units. */
function shapeNode(reader: Reader, element: SvgElement, data: string, place: Place): SvgNode | null {
  const { style, matrix } = place;
  if (style.visibility !== 'visible') return null;
  const measures = measuresIn(place);
  const k = Math.max(1e-6, scaleOf(matrix));
  // At the size in which it is drawn, so that rounding does not matter.
  const local = plainPath(data, [k, 0, 0, k, 0, 0]);
  if (local === null) {
    reader.left.add('paths of too many points');
    return null;
  }
  const tight = tightBox(local);
  const box: Box | null = tight && [tight[0] / k, tight[1] / k, tight[2] / k, tight[3] / k];
  const paint = (which: 'fill' | 'stroke'): SvgPaint | null =>
    paintOf(reader, style[which] ?? 'none', {
      ...{ byId: reader.byId, sheet: reader.sheet, style, measures, box, matrix },
      opacity: shareOf(style[`${which}-opacity`], 1),
    });
  const fill = paint('fill');
  const stroke = strokeOf(style, measures, paint('stroke'));
  const isFixed = style['vector-effect'] === 'non-scaling-stroke';
  const isBaked = !stroke || isSimilar(matrix) || isFixed;
  const d = isBaked ? plainPath(data, matrix) : local;
  if (d === null || (!fill && !stroke)) return null;
  for (const marker of ['marker-start', 'marker-mid', 'marker-end'])
    if (style[marker] !== 'none') reader.left.add('markers on lines');
  const size = isFixed ? 1 : k;
  const scaled = stroke && {
    ...stroke,
    width: stroke.width * size,
    style: {
      ...stroke.style,
      dash: stroke.style.dash.map((length) => length * size),
      dashShift: stroke.style.dashShift * size,
    },
  };
  const base = baseOf(reader, element, place);
  const shape: SvgShape = {
    ...base,
    type: 'shape',
    name: base.name || element.name,
    d,
    matrix: isBaked ? IDENTITY : multiply(matrix, [1 / k, 0, 0, 1 / k, 0, 0]),
    rule: style['fill-rule'] === 'evenodd' ? 'evenodd' : 'nonzero',
    fill,
    stroke: scaled,
  };
  const strokeFirst = (style['paint-order'] ?? '').trim().startsWith('stroke');
  if (!strokeFirst || !fill || !scaled) return shape;
  const part = (changes: Partial<SvgShape>): SvgShape => ({ ...shape, ...plainNode(shape.name), ...changes });
  return { ...base, type: 'group', children: [part({ fill: null }), part({ stroke: null })] };
}

function textNode(reader: Reader, element: SvgElement, place: Place): SvgNode | null {
  const { runs, left } = runsOf(
    element,
    place.style,
    (child, above) => styleOf(child, above, reader.sheet),
    (style) => measuresIn({ ...place, style }),
  );
  left.forEach((one) => reader.left.add(one));
  const set = runs.map((run) => {
    const names = (run.style['font-family'] ?? '')
      .split(',')
      .map((name) => name.trim().replace(/^["']|["']$/g, ''))
      .filter(Boolean);
    const { family, isKnown } = reader.outliner.familyFor(names);
    if (!isKnown) reader.left.add(`the font ${names[0]!.slice(0, 60)}`); // not known, so there is a name
    const measures = measuresIn({ ...place, style: run.style });
    const size = measures.em;
    const weight = { normal: 400, bold: 700, lighter: 300, bolder: 700 }[run.style['font-weight'] ?? ''];
    const look = {
      family,
      size: Math.max(1e-3, size),
      weight: weight ?? Math.max(1, Math.min(1000, parseFloat(run.style['font-weight'] ?? '400') || 400)),
      isItalic: run.style['font-style'] !== 'normal',
      spacing: lengthOf(run.style['letter-spacing'], 'x', measures) ?? 0,
    };
    // Outlines are rounded: large, then made small.
    const enlarged = 1000 / look.size;
    const large = reader.outliner.outline(run.text, { ...look, size: 1000, spacing: look.spacing * enlarged });
    return { run, d: large.d, k: look.size / 1000, width: large.width / enlarged };
  });
  let [x, y] = [0, 0];
  const children: SvgNode[] = [];
  set.forEach(({ run, d, k, width }, i) => {
    const isChunk = i === 0 || run.x !== null || run.y !== null;
    [x, y] = [(run.x ?? x) + run.dx, (run.y ?? y) + run.dy];
    if (isChunk) {
      let whole = width;
      for (let j = i + 1; j < set.length && set[j]!.run.x === null && set[j]!.run.y === null; j++)
        whole += set[j]!.width + set[j]!.run.dx;
      const anchor = run.style['text-anchor'];
      x -= anchor === 'middle' ? whole / 2 : anchor === 'end' ? whole : 0;
    }
    // Children of the text have no place of their own: what is done to the whole is done once.
    const style = { ...run.style, opacity: '1', 'clip-path': 'none', mask: 'none', filter: 'none' };
    const moved = multiply(place.matrix, [1, 0, 0, 1, x, y]);
    const data = plainPath(d, [k, 0, 0, k, 0, 0]) === null ? null : d;
    const node =
      data === null
        ? null
        : shapeNode(reader, run.element, data, {
            ...place,
            style: scaledStyle(style, k),
            matrix: multiply(moved, [k, 0, 0, k, 0, 0]),
          });
    if (node) children.push({ ...node, name: run.text.trim().slice(0, 40) });
    x += width;
  });
  if (children.length === 0) return null;
  return { ...baseOf(reader, element, place), type: 'group', children };
}

/** Lengths of strokes in coordinates that are made larger. */
function scaledStyle(style: Style, k: number): Style {
  const out: Record<string, string> = { ...style };
  for (const property of ['stroke-width', 'stroke-dashoffset'])
    out[property] = String((parseFloat(style[property] ?? '0') || 0) / k);
  out['stroke-dasharray'] = (style['stroke-dasharray'] ?? 'none').replace(/[\d.]+/g, (n) => String(Number(n) / k));
  return out;
}

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
  const own = style.transform === '' ? transformOf(element.attributes.transform) : transformOf(style.transform);
  const place: Place = { ...around, style, matrix: multiply(around.matrix, own) };
  if (SHAPE_NAMES.has(element.name)) {
    const data = shapeData(element, measuresIn(place));
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
  const shown = element.name === 'switch' ? children.filter((child) => !SILENT.has(child.name)).slice(0, 1) : children;
  const nodes = nodesOf(reader, shown, place);
  return nodes.length === 0 ? null : { ...baseOf(reader, element, place), type: 'group', children: nodes };
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
  const reader: Reader = { byId, sheet, outliner, left: new Set(sheet.unknown), nodes: 0 };
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
  if (!node || node.children.length === 0) return { problem: 'empty' };
  return { width: width * k, height: height * k, root: node, left: [...reader.left].slice(0, 40) };
}
