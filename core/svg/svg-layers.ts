import {
  IDENTITY,
  applyMatrix,
  invert,
  isFlat,
  multiply,
  tightBox,
  transformBox,
  unionBox,
  unionBoxes,
} from '../geometry';
import type { Box, Matrix } from '../geometry';
import type { TrackValue } from '../motion';
import { constantTrack, createLayer } from '../piece';
import type { Gradient, IdSource, Layer, Mask, NewLayer, PropertyId } from '../piece';
import { MAX_NUMBER } from '../time';
import type { Moment } from '../time';
import type { PlacedGradient, SvgClip, SvgDrawing, SvgGroup, SvgNode, SvgPaint, SvgShape } from './nodes';
import { plainPath } from './path-data';
import { plainNode } from './reader';

/** What an SVG file draws, as layers of a piece. */

export interface SvgLayerOptions {
  readonly name: string;
  readonly start: Moment;
  readonly end: Moment;
  readonly parentId?: string | null;
  /** Where its middle is put, pixels of the lead format from the frame's centre. */
  readonly position?: readonly [number, number];
  /** Where the middle of what is drawn lies in the group. */
  readonly offset?: readonly [number, number];
  readonly newId: IdSource;
}

/** Narrowest side of a shape's box: what is a line has one too. */
const LEAST_SIDE = 0.01;
/** Most masks of a layer. */
const MAX_MASKS = 24;
/** Most layers a file makes. */
export const MAX_SVG_LAYERS = 1500;

type Values = Partial<Record<PropertyId, TrackValue>>;

const isPlain = (node: SvgNode): boolean =>
  node.opacity === 1 &&
  node.blend === 'normal' &&
  node.blur === 0 &&
  node.shadows.length === 0 &&
  node.clips.length === 0 &&
  !node.matte;

/**
 * Groups that do nothing are left out where they hold one thing, or something that blends with what lies behind them.
 */
function simplified(node: SvgNode): SvgNode[] {
  if (node.type === 'shape') return [node];
  const children = node.children.flatMap(simplified);
  if (!isPlain(node)) return children.length > 0 || node.matte ? [{ ...node, children }] : [];
  const [only] = children;
  if (only && children.length === 1) return [{ ...only, name: node.name || only.name }];
  return children.some((child) => child.blend !== 'normal') ? children : [{ ...node, children }];
}

/**
 * SVG blurs, then clips, then masks, then fades; a layer masks before it blurs, and has one list of masks. What does not
 * fit one layer gets a group around it.
 */
function nested(node: SvgNode): SvgNode {
  const around = (inner: SvgNode, changes: Partial<SvgGroup>): SvgGroup => ({
    ...plainNode(node.name),
    type: 'group',
    children: [inner],
    ...changes,
  });
  const { clips, matte, blur, shadows, opacity, blend } = node;
  const isFiltered = blur > 0 || shadows.length > 0;
  const isSlanted = node.type === 'shape' && node.matrix !== IDENTITY;
  const isApart = isSlanted && (clips.length > 0 || shadows.length > 0);
  const fits = clips.length <= 1 && !(isFiltered && (clips.length > 0 || matte)) && !isApart;
  if (fits) return node;
  // A shadow falls as the place has it, however its shape is turned.
  const bare: SvgNode = { ...node, clips: [], matte: null, opacity: 1, blend: 'normal' };
  let whole: SvgNode = isSlanted && shadows.length > 0 ? around({ ...bare, shadows: [] }, { shadows }) : bare;
  clips.forEach((clip, i) => {
    const isLast = i === clips.length - 1;
    whole = around(whole, { clips: [clip], ...(isLast ? { matte, opacity, blend } : {}) });
  });
  return clips.length > 0 ? whole : around(whole, { matte, opacity, blend });
}

/** Layers of a node, the lowest first, and the box they take as the scene measures it; pixels of the place. */
interface Made {
  readonly layers: Layer[];
  readonly id: string;
  readonly box: Box;
}

interface Maker extends SvgLayerOptions {
  /** The middle of the place, pixels. */
  readonly middle: readonly [number, number];
}

function placedGradient(gradient: PlacedGradient, toPlace: Matrix): Gradient | null {
  if (isFlat(toPlace)) return null;
  const matrix = multiply(invert(toPlace), gradient.matrix);
  if (matrix.some((value) => !(Math.abs(value) <= MAX_NUMBER))) return null;
  return {
    ...gradient,
    matrix: [...matrix],
    stops: gradient.stops.map((stop) => ({ ...stop })),
    focus: [...gradient.focus],
  };
}

const colourOf = (paint: SvgPaint): string =>
  paint.type === 'colour' ? paint.colour : paint.gradient.stops[0]!.colour; // a gradient has stops

/** Position, scale, rotation and slant that make a matrix, as `layerMatrix` puts them together. */
function transformValues([a, b, c, d]: Matrix): Values {
  const sx = Math.hypot(a, b);
  const angle = Math.atan2(b, a);
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const sy = -c * sin + d * cos;
  const slant = (c * cos + d * sin) / sy;
  return { scale: [sx, sy], rotation: (angle * 180) / Math.PI, skew: (-Math.atan(slant) * 180) / Math.PI };
}

/** Masks of a clip about the middle of a layer; null for one that hides all. */
function masksOf({ paths }: SvgClip, [l, t, r, b]: Box, newId: IdSource): Mask[] | null {
  if (paths.length === 0) return null;
  const [cx, cy] = [(l + r) / 2, (t + b) / 2];
  const fitting = paths.slice(0, MAX_MASKS - 1);
  const rest = paths.slice(MAX_MASKS - 1);
  // More than a layer may have are taken as one.
  if (rest.length > 0) fitting.push({ d: rest.map(({ d }) => d).join(''), rule: 'nonzero' });
  return fitting.flatMap(({ d, rule }, i): Mask[] => {
    const box = tightBox(d);
    if (!box) return [];
    const [w, h] = [Math.max(LEAST_SIDE, box[2] - box[0]), Math.max(LEAST_SIDE, box[3] - box[1])];
    const own = plainPath(d, [1, 0, 0, 1, -box[0], -box[1]]);
    if (own === null) return [];
    return [
      {
        id: newId(),
        name: `Clip ${i + 1}`,
        mode: 'add',
        inverted: false,
        d: own,
        box: [w, h],
        rule,
        forms: [],
        tracks: { position: { value: [box[0] + w / 2 - cx, box[1] + h / 2 - cy], keyframes: [] } },
      },
    ];
  });
}

const wholeValues = (node: SvgNode): Values => ({
  ...(node.opacity < 1 ? { opacity: node.opacity } : {}),
  ...(node.blur > 0 ? { blur: Math.min(200, node.blur) } : {}),
});

const MAX_REACH = 400;
const reach = (value: number): number => Math.min(MAX_REACH, Math.max(-MAX_REACH, value));

/** Shadows as effects of a layer. */
const effectsOf = ({ shadows }: SvgNode, newId: IdSource): Layer['effects'] =>
  shadows.map(({ x, y, blur, colour }) => ({
    ...{ id: newId(), kind: 'shadow', isOn: true, seed: 0 },
    parameters: {
      colour: constantTrack(colour),
      x: constantTrack(reach(x)),
      y: constantTrack(reach(y)),
      blur: constantTrack(Math.min(200, blur)),
    },
  }));

const span = ({ start, end }: Maker): Pick<NewLayer, 'start' | 'end'> => ({ start, end });

function shapeLayer(shape: SvgShape, parentId: string | null, maker: Maker): { layer: Layer; box: Box } | null {
  const tight = tightBox(shape.d);
  if (!tight) return null;
  const [l, t] = tight;
  const [w, h] = [Math.max(LEAST_SIDE, tight[2] - l), Math.max(LEAST_SIDE, tight[3] - t)];
  const d = plainPath(shape.d, [1, 0, 0, 1, -l, -t]);
  if (d === null || isFlat(shape.matrix)) return null;
  const middle = applyMatrix(shape.matrix, l + w / 2, t + h / 2);
  const toPlace = multiply(shape.matrix, [w, 0, 0, h, l, t]);
  const { fill, stroke } = shape;
  const fillGradient = fill?.type === 'gradient' ? placedGradient(fill.gradient, toPlace) : null;
  const strokeGradient = stroke?.paint.type === 'gradient' ? placedGradient(stroke.paint.gradient, toPlace) : null;
  const layer = createLayer(
    'path',
    {
      name: shape.name || 'Shape',
      parentId,
      ...span(maker),
      content: {
        d,
        box: [w, h],
        rule: shape.rule,
        fillGradient,
        strokeGradient,
        ...(stroke ? { strokeStyle: stroke.style } : {}),
      },
      values: {
        ...wholeValues(shape),
        ...(shape.matrix === IDENTITY ? {} : transformValues(shape.matrix)),
        position: [middle[0] - maker.middle[0], middle[1] - maker.middle[1]],
        dimensions: [w, h],
        fill: fill ? colourOf(fill) : '#00000000',
        ...(stroke ? { stroke: colourOf(stroke.paint), strokeWidth: Math.min(1000, stroke.width) } : {}),
      },
    },
    maker.newId,
  );
  return { layer: { ...layer, blend: shape.blend }, box: transformBox(shape.matrix, [l, t, l + w, t + h]) };
}

/** The layers of a node within a group; null for nothing that would be seen. */
function make(given: SvgNode, parentId: string | null, maker: Maker): Made | null {
  const node = nested(given);
  const cover = node.matte ? make({ ...node.matte.cover, name: node.matte.cover.name }, parentId, maker) : null;
  if (node.matte && !cover) return null;
  const matte = node.matte && cover ? { layerId: cover.id, channel: node.matte.channel, inverted: false } : null;
  let own: Layer;
  let box: Box;
  const inside: Layer[] = [];
  if (node.type === 'shape') {
    const made = shapeLayer(node, parentId, maker);
    if (!made) return null;
    [own, box] = [made.layer, made.box];
  } else {
    const group = createLayer(
      'group',
      { name: node.name || 'Group', parentId, ...span(maker), values: wholeValues(node) },
      maker.newId,
    );
    const boxes: Box[] = [];
    for (const child of node.children) {
      const made = make(child, group.id, maker);
      if (!made) continue;
      inside.push(...made.layers);
      boxes.push(made.box);
    }
    const all = unionBoxes(boxes);
    if (!all) return null;
    [own, box] = [{ ...group, blend: node.blend }, all];
  }
  const [clip] = node.clips;
  const masks = clip ? masksOf(clip, box, maker.newId) : [];
  if (!masks) return null;
  return {
    layers: [...(cover?.layers ?? []), ...inside, { ...own, masks, matte, effects: effectsOf(node, maker.newId) }],
    id: own.id,
    box: cover ? unionBox(box, cover.box) : box,
  };
}

/**
 * The layers of a drawing in one group, the lowest first, the group last. Empty if nothing of it is seen.
 * @throws RangeError if it makes more layers than {@link MAX_SVG_LAYERS}.
 */
export function svgLayers(drawing: SvgDrawing, options: SvgLayerOptions): Layer[] {
  const [dx, dy] = options.offset ?? [0, 0];
  const maker: Maker = { ...options, middle: [drawing.width / 2 - dx, drawing.height / 2 - dy] };
  const [only, ...more] = simplified(drawing.root);
  if (!only) return [];
  // There is always a group about all of it, which is what is moved and animated.
  const isGroup = only.type === 'group' && more.length === 0 && !only.matte;
  const root: SvgNode = isGroup
    ? { ...only, name: options.name }
    : { ...plainNode(options.name), type: 'group', children: [only, ...more] };
  const made = make(root, options.parentId ?? null, maker);
  if (!made) return [];
  if (made.layers.length > MAX_SVG_LAYERS)
    throw new RangeError(`the file makes ${made.layers.length} layers; at most ${MAX_SVG_LAYERS} are taken`);
  const [x, y] = options.position ?? [0, 0];
  return made.layers.map((layer) =>
    layer.id === made.id && (x !== 0 || y !== 0)
      ? { ...layer, tracks: { ...layer.tracks, position: { value: [x, y], keyframes: [] } } }
      : layer,
  );
}
