import { IDENTITY, multiply, scaleOf } from '../geometry';
import type { Box, Matrix } from '../geometry';
import { BLEND_MODES } from '../piece';
import type { BlendMode, FillRule } from '../piece';
import { askedShape, clipShape } from './clip-shapes';
import type { AskedShape } from './clip-shapes';
import { filterOf } from './filters';
import { geometryBox } from './node-boxes';
import type { SvgClip, SvgGroup, SvgNode } from './nodes';
import { plainPath } from './path-data';
import { measuresIn, nameOf, plainNode, rectanglePath } from './reader';
import type { Place, Reader } from './reader';
import { SHAPE_NAMES } from './shapes';
import { INITIAL_STYLE, styleOf } from './styles';
import type { Style } from './styles';
import { lengthOf, shareOf, transformOf } from './values';
import type { Measures } from './values';
import { childElements, referenceOf } from './xml';
import type { SvgElement } from './xml';

/** What counts for an element as a whole: opacity, blending, a blur, shadows, clips and a mask. */

/** The box of what an element draws, in its own user units, without strokes; null for nothing. */
export function boxOf(reader: Reader, element: SvgElement, place: Place): Box | null {
  // At the size in which it is drawn, so that rounding does not matter.
  const k = Math.max(1e-3, scaleOf(place.matrix));
  const style: Style = { ...place.style, 'clip-path': 'none', mask: 'none', filter: 'none', transform: '' };
  const bare: SvgElement = { ...element, attributes: { ...element.attributes, transform: '', mask: 'none' } };
  const before = reader.nodes;
  const node = reader.draw.drawn(reader, bare, { ...place, style, matrix: [k, 0, 0, k, 0, 0] }, style);
  reader.nodes = before;
  const box = node && geometryBox(node);
  return box && [box[0] / k, box[1] / k, box[2] / k, box[3] / k];
}

/** From shares of an element's box to its user units. */
const boxMatrix = ([l, t, r, b]: Box): Matrix => [r - l, 0, 0, b - t, l, t];

/** A clip that is written as a basic shape; none where that is not had, which is told. */
function shapeClip(reader: Reader, element: SvgElement, place: Place, asked: AskedShape): SvgClip[] {
  const { measures, style } = place;
  const own = asked.box === 'view' ? ([0, 0, measures.width, measures.height] as const) : boxOf(reader, element, place);
  if (!own) return [{ paths: [] }];
  // The box with the stroke is half its width larger, for shapes.
  const isStroked = asked.box === 'stroke' && SHAPE_NAMES.has(element.name) && style.stroke !== 'none';
  const by = isStroked ? (lengthOf(style['stroke-width'], 'both', measures) ?? 0) / 2 : 0;
  const box: Box = [own[0] - by, own[1] - by, own[2] + by, own[3] + by];
  const shape = clipShape(asked, box, measuresIn(place).em);
  const d = shape && (shape.d === '' ? '' : plainPath(shape.d, place.matrix));
  if (shape && d !== null) return [{ paths: d === '' ? [] : [{ d, rule: shape.rule }] }];
  reader.left.add('clips made of some shapes');
  return [];
}

/** The shapes of a clip path; null for nothing to clip with, an empty one for a clip that hides all. */
function clipsOf(reader: Reader, element: SvgElement, place: Place): SvgClip[] {
  const written = place.style['clip-path'] ?? 'none';
  const asked = askedShape(written);
  if (asked) return shapeClip(reader, element, place, asked);
  const id = referenceOf(written);
  if (id === null && written !== 'none') reader.left.add('clips made of some shapes');
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
    const node = reader.draw.drawn(reader, child, own, bare);
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
    children: reader.draw.nodesOf(reader, childElements(mask), own),
  };
  return { cover, channel: style['mask-type'] === 'alpha' ? 'alpha' : 'luminance' };
}

const BLEND_BY_NAME = new Map(
  (Object.entries(BLEND_MODES) as [BlendMode, { operation: string }][]).map(([id, { operation }]) => [
    operation === 'lighter' ? 'plus-lighter' : operation,
    id,
  ]),
);

/** What counts for an element as a whole. */
export function baseOf(reader: Reader, element: SvgElement, place: Place): Omit<SvgGroup, 'type' | 'children'> {
  const { style } = place;
  return {
    name: nameOf(element),
    opacity: shareOf(style.opacity, 1),
    blend: BLEND_BY_NAME.get(style['mix-blend-mode'] ?? '') ?? 'normal',
    ...filterOf(reader, place),
    clips: clipsOf(reader, element, place),
    matte: matteOf(reader, element, place),
  };
}
