import { FIGURES, coveringBox, ellipsePath, multiply, roundedRectanglePath } from '../../geometry';
import type { Box, Corners, FigureNumbers, Matrix } from '../../geometry';
import type { Vector } from '../../motion';
import type { LayerKind, LayerOf } from '../../piece';
import { createMemo } from '../../time';
import type { Seconds } from '../../time';
import type { Fill, PictureItem, ShapeItem, Source, StillItem } from '../list/display-list';
import { NO_ACT, wipeEdge } from '../movement/act';
import { textItem } from '../text/text-item';
import { actOfWhole } from './act-of-whole';
import { composed } from './composed';
import type { Drawn } from './composed';
import { drawnOn } from './drawn-on';
import { blurOf } from './effects';
import { formAt } from './form-at';
import type { FrameContext } from './frame-context';
import { groupItem } from './group-item';
import { layerAt } from './layer-at';
import type { LayerAt } from './layer-at';
import { matrixOf } from './matrix-of';
import { LayerReader, printFill, tinted, withBlur } from './layer-reader';
import type { Outline } from './layer-reader';
import { outerAt } from './outer';
import { pieceItem } from './piece-item';
import type { PreparedLayer } from './prepare';
import { repeatedItem } from './repeated';
import { paintedShape } from './shape-paints';
import { sourceOf } from './source-of';

/** Path data by its short name: most shapes keep their form from frame to frame, and copies of one have the same. */
const pathOf = createMemo<string>(4000);

/** How each kind of layer is drawn: its item at a time, without what is smeared; null draws nothing. */
export const LAYER_ITEMS: { readonly [K in LayerKind]: (at: LayerAt, layer: LayerOf<K>) => StillItem | null } = {
  text: (at, layer) => textItem(at, layer),
  rectangle(at, layer) {
    const [w, h] = at.read.vector('dimensions');
    const radius = at.read.number('cornerRadius');
    const radii = layer.content.corners.map((share) => share * radius) as unknown as Corners; // as many
    const key = `q${w},${h},${radii.join()}`;
    const path = pathOf(key, () => roundedRectanglePath(w, h, radii));
    const outline = centred([w, h], path, key, matrixOf(at));
    return acted(at, paintedShape(at.prepared, at.read, outline, layer.content, at.opacity));
  },
  ellipse(at, layer) {
    const [w, h] = at.read.vector('dimensions');
    const key = `e${w},${h}`;
    const path = pathOf(key, () => ellipsePath(w, h));
    const outline = centred([w, h], path, key, matrixOf(at));
    return acted(at, paintedShape(at.prepared, at.read, outline, layer.content, at.opacity));
  },
  path(at, layer) {
    const { box, d: first, forms } = layer.content;
    const d = formAt(first, forms, at.read.number('form'));
    const outline = stretched(at.read.vector('dimensions'), d, box, matrixOf(at));
    return acted(at, paintedShape(at.prepared, at.read, outline, layer.content, at.opacity));
  },
  figure(at, layer) {
    const { read } = at;
    const [width, height] = read.vector('dimensions');
    const numbers: FigureNumbers = {
      width,
      height,
      points: read.number('points'),
      inner: read.number('inner'),
      radius: read.number('cornerRadius'),
      from: read.number('sweepFrom'),
      sweep: read.number('sweep'),
      head: read.number('head'),
    };
    const { figure } = layer.content;
    const key = `f${figure}${Object.values(numbers).join()}`;
    const path = pathOf(key, () => FIGURES[figure].path(numbers));
    const outline = centred([width, height], path, key, matrixOf(at));
    // A ring is two outlines, the inner one a hole.
    const content = { ...layer.content, rule: 'evenodd' as const };
    return acted(at, paintedShape(at.prepared, read, outline, content, at.opacity));
  },
  picture(at, layer) {
    const source = sourceOf(at.prepared, at.seconds);
    if (!source) return null;
    const [w, h] = at.read.vector('dimensions');
    const cornerRadius = at.read.number('cornerRadius');
    const matrix = matrixOf(at);
    if (layer.content.fit === 'fill') return acted(at, filledWithPicture(at, source, [w, h], cornerRadius));
    return acted(at, {
      kind: 'picture',
      layerId: layer.id,
      source,
      cornerRadius,
      box: centredBox([w, h]),
      matrix,
      opacity: at.opacity,
      blend: layer.blend,
      fingerprint: `i${source.hash}:${source.frame}|${w},${h},${cornerRadius}|${matrix.join()}|${at.opacity}|${layer.blend}`,
    });
  },
  group: groupItem,
  piece: pieceItem,
  // Drawn by what it lies over (stack.ts).
  look: () => null,
};

/** A picture that fills its frame: a shape that the picture is seen through. */
function filledWithPicture(at: LayerAt, source: Source, [w, h]: Vector, radius: number): ShapeItem {
  const { prepared, read } = at;
  const frame = centredBox([w, h]);
  const sides = prepared.mediaSides ?? [w, h];
  const box = coveringBox(frame, sides, read.vector('focus'), read.number('pictureZoom'));
  const fill: Fill = { type: 'picture', source, box, fallback: '#00000000' };
  const { id, blend } = prepared.layer;
  const matrix = matrixOf(at);
  const pathKey = `r${w},${h},${radius}`;
  return {
    kind: 'shape',
    layerId: id,
    path: pathOf(pathKey, () => roundedRectanglePath(w, h, [radius, radius, radius, radius])),
    pathKey,
    box: frame,
    matrix,
    fill,
    stroke: null,
    opacity: at.opacity,
    blend,
    fingerprint: `${pathKey}${printFill(fill)}|${matrix.join()}|${at.opacity}|${blend}`,
  };
}

const centredBox = ([w, h]: Vector): Box => [-w / 2, -h / 2, w / 2, h / 2];

const centred = (sides: Vector, path: string, pathKey: string, matrix: Matrix): Outline => ({
  path,
  pathKey,
  box: centredBox(sides),
  matrix,
  unitsPerPixel: 1,
});

/** A path drawn in a box of its own, stretched to the layer's sides. */
function stretched([w, h]: Vector, d: string, [bw, bh]: Vector, matrix: Matrix): Outline {
  const [kx, ky] = [w / bw, h / bh];
  const own: Matrix = [
    matrix[0] * kx,
    matrix[1] * kx,
    matrix[2] * ky,
    matrix[3] * ky,
    matrix[4] - (matrix[0] * w) / 2 - (matrix[2] * h) / 2,
    matrix[5] - (matrix[1] * w) / 2 - (matrix[3] * h) / 2,
  ];
  const unitsPerPixel = 1 / Math.sqrt(Math.max(1e-9, Math.abs(kx * ky)));
  return { path: d, pathKey: `p${d}`, box: [0, 0, bw, bh], matrix: own, unitsPerPixel };
}

/** What gestures and blur make of a layer that is one thing: a shape or a picture. */
function acted(at: LayerAt, item: ShapeItem | PictureItem): StillItem {
  const { prepared, read, seconds, outer, context } = at;
  const blur = blurOf(at) * outer.scale;
  if (prepared.gestures.length === 0 || context.isAtRest) return withBlur(item, blur);
  const [w, h] = read.vector('dimensions');
  const { act, em } = actOfWhole(prepared, [-w / 2, -h / 2, w / 2, h / 2], seconds);
  if (act === NO_ACT) return withBlur(item, blur);
  const matrix = matrixOf(at);
  // From the layer's pixels to the item's own coordinates, which differ for stretched paths only.
  const [l, t, r, b] = item.box;
  const toItem: Matrix = [
    w / Math.max(1e-6, r - l),
    0,
    0,
    h / Math.max(1e-6, b - t),
    -w / 2 - (l * w) / Math.max(1e-6, r - l),
    -h / 2 - (t * h) / Math.max(1e-6, b - t),
  ];
  const own = multiply(multiply(matrix, act.matrix), toItem);
  const edge = act.wipe ? wipeEdge({ share: act.wipe.share, box: item.box }) : null;
  const clip = act.clip ? { matrix: multiply(matrix, act.clip.matrix), box: act.clip.box } : null;
  let changed: ShapeItem | PictureItem = { ...item, matrix: own, opacity: item.opacity * act.opacity };
  if (changed.kind === 'shape') {
    const fill = changed.fill && tinted(changed.fill, act.tint);
    changed = { ...changed, fill };
  }
  const drawn = {
    ...changed,
    ...(edge ? { wipe: edge } : {}),
    ...(clip ? { clip } : {}),
    fingerprint:
      `${item.fingerprint}a${own.join()}|${act.opacity}|${act.tint('#808080')}|${act.ink}|` +
      `${edge?.to[0] ?? ''}|${clip ? clip.matrix.join() : ''}`,
  };
  const { draw, ink } = act;
  const shown =
    drawn.kind === 'shape' && (draw < 1 || ink < 1)
      ? drawnOn(drawn, draw, ink, em * Math.sqrt(((r - l) * (b - t)) / Math.max(1e-6, w * h)))
      : drawn;
  return withBlur(withBlur(shown, act.blur * em * prepared.fit * outer.scale), blur);
}

function itemOf(at: LayerAt): StillItem | null {
  const { layer } = at.prepared;
  // The row of the layer's own kind takes this layer; TypeScript cannot follow the pair through the lookup.
  const make = LAYER_ITEMS[layer.kind] as (at: LayerAt, layer: PreparedLayer['layer']) => StillItem | null;
  return make(at, layer);
}

/** The layer as one thing at one time, without what is smeared. */
export function stillItem(prepared: PreparedLayer, seconds: Seconds, context: FrameContext): StillItem | null {
  const one = (then: Seconds, own: FrameContext): Drawn | null => {
    const at = layerAt(prepared, then, own);
    const item = at && itemOf(at);
    return item && { at, item };
  };
  const { repeat } = prepared.layer;
  const drawnAt = (then: Seconds): Drawn | null => {
    if (!repeat) return one(then, context);
    const read = new LayerReader(prepared, then);
    const copyAt = (at: Seconds, own: FrameContext) => one(at, own)?.item ?? null;
    const item = repeatedItem(prepared, read, repeat, then, context, copyAt);
    const outer = outerAt(prepared, then, context);
    return item && { at: { prepared, read, seconds: then, opacity: 1, outer, context }, item };
  };
  const drawn = drawnAt(seconds);
  return drawn && composed(drawn.at, drawn.item, drawnAt);
}
