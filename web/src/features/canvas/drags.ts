import { applyMatrix } from '@core/geometry';
import type { Matrix } from '@core/geometry';
import { hasProperty, outermost, trackOf } from '@core/piece';
import type { Edit, Format, Layer, Piece } from '@core/piece';
import type { LayerPlace } from '../../platform/preview-protocol';
import { valueEdit, valueNow } from '../desk/commands';
import { boundsOf } from './geometry';
import type { Bounds, Point } from './geometry';
import { placeNow } from './place-now';
import { linesOf, snapBox, snapToGrid } from './snapping';
import type { Guide } from './snapping';
import { WORDS } from './words';

/** What dragging on the canvas does to layers, as edits. Points and lengths are pixels of the format. */

/** All that a drag is about beside the drag itself. */
export interface DragScene {
  readonly piece: Piece;
  readonly format: Format;
  readonly places: readonly LayerPlace[];
  /** Screen pixels a pixel of the format takes. */
  readonly zoom: number;
  /** Steps of the grid that is snapped to; null for none. */
  readonly gridStep: number | null;
}

export interface DragKeys {
  readonly shift: boolean;
  readonly alt: boolean;
}

export interface DragResult {
  readonly edits: readonly Edit[];
  readonly guides: readonly Guide[];
  /** What the drag has come to, in numbers. */
  readonly readout: string;
}

type Override = Layer['overrides'][string] | undefined;

interface MovedLayer {
  readonly layer: Layer;
  readonly position: readonly [number, number];
  readonly override: Override;
  /** From pixels of the format to those in which the layer's position is given. */
  readonly inward: Matrix;
}

export interface MoveDrag {
  readonly kind: 'move';
  readonly from: Point;
  readonly layers: readonly MovedLayer[];
  readonly box: Bounds;
  readonly gesture: string;
}
export interface ScaleDrag {
  readonly kind: 'scale';
  readonly layer: Layer;
  readonly pivot: Point;
  readonly from: Point;
  readonly scale: readonly [number, number];
  /** Directions of the layer's own axes, of length 1. */
  readonly axes: readonly [Point, Point];
  readonly override: Override;
  readonly gesture: string;
}
/** One side of a layer, whose other side stays where it is if the layer has sides of its own. */
export interface EdgeDrag {
  readonly kind: 'edge';
  readonly layer: Layer;
  readonly axis: 0 | 1;
  /** Which of the two sides. */
  readonly side: 1 | -1;
  readonly pivot: Point;
  readonly from: Point;
  readonly along: Point;
  /** Pixels of the format between the two sides. */
  readonly length: number;
  readonly value: readonly [number, number];
  readonly moved: MovedLayer;
  readonly gesture: string;
}
export interface RotateDrag {
  readonly kind: 'rotate';
  readonly layer: Layer;
  readonly pivot: Point;
  readonly startAngle: number;
  readonly rotation: number;
  readonly gesture: string;
}
/** A box drawn over empty canvas: what it touches is selected. */
export interface MarqueeDrag {
  readonly kind: 'marquee';
  readonly from: Point;
  readonly before: readonly string[];
}
export type Drag = MoveDrag | ScaleDrag | EdgeDrag | RotateDrag | MarqueeDrag;

const SNAP_SCREEN_PX = 6;
const NO_OVERRIDE = { move: [0, 0] as [number, number], scale: 1, hidden: false };
const whole = (n: number): number => Math.round(n);

export const movedLayer = (piece: Piece, format: Format, layer: Layer): MovedLayer => ({
  layer,
  inward: placeNow(piece, layer, format).inward,
  position: valueNow(layer, 'position') as [number, number],
  override: layer.overrides[format.id],
});

/** What can be moved of some layers: what is in a group that is moved goes with it. */
export const movable = (piece: Piece, format: Format, ids: readonly string[]): MovedLayer[] =>
  outermost(piece.layers, ids)
    .filter((layer) => !layer.locked)
    .map((layer) => movedLayer(piece, format, layer));

/** The edit that moves a layer by a way in pixels of the format, which it takes by its group's measure. */
export function moveEdit(
  { piece, format }: Pick<DragScene, 'piece' | 'format'>,
  { layer, position, override, inward }: MovedLayer,
  dx: number,
  dy: number,
): Edit {
  const [ix, iy] = applyMatrix(inward, dx, dy);
  if (format.id === piece.leadFormatId) return valueEdit(layer, 'position', [position[0] + ix, position[1] + iy]);
  const base = override ?? NO_OVERRIDE;
  const move: [number, number] = [base.move[0] + ix, base.move[1] + iy];
  return { type: 'layer.setOverride', id: layer.id, formatId: format.id, override: { ...base, move } };
}

function move(d: MoveDrag, at: Point, keys: DragKeys, scene: DragScene): DragResult {
  let [dx, dy] = [at[0] - d.from[0], at[1] - d.from[1]];
  if (keys.shift) [dx, dy] = Math.abs(dx) > Math.abs(dy) ? [dx, 0] : [0, dy];
  const { places, format, piece, zoom, gridStep } = scene;
  const own = new Set(d.layers.map((l) => l.layer.id));
  const others = places.filter((p) => !own.has(p.layerId)).map((p) => boundsOf(p.corners));
  const box = { left: d.box.left + dx, right: d.box.right + dx, top: d.box.top + dy, bottom: d.box.bottom + dy };
  let guides: readonly Guide[] = [];
  if (!keys.alt) {
    const lines = linesOf(format, piece.guides, others);
    const snapped = snapBox(box, lines, others, SNAP_SCREEN_PX / zoom);
    const grid = gridStep === null ? { dx: 0, dy: 0 } : snapToGrid(box, gridStep);
    dx += snapped.dx || grid.dx;
    dy += snapped.dy || grid.dy;
    guides = snapped.guides;
  }
  return {
    // One change of the document a move, however many layers are dragged.
    edits: d.layers.map((layer) => moveEdit(scene, layer, dx, dy)),
    guides,
    readout: WORDS.movedBy(whole(dx), whole(dy)),
  };
}

const dot = (a: Point, b: Point): number => a[0] * b[0] + a[1] * b[1];
export const less = (a: Point, b: Point): Point => [a[0] - b[0], a[1] - b[1]];

/** How many times as far along a direction a point lies from a pivot as another. */
function stretch(at: Point, from: Point, pivot: Point, along: Point): number {
  const before = dot(less(from, pivot), along);
  return Math.abs(before) < 1 ? 1 : dot(less(at, pivot), along) / before;
}

function scale(d: ScaleDrag, at: Point, keys: DragKeys, { format, piece }: DragScene): DragResult {
  const before = Math.hypot(...less(d.from, d.pivot));
  const factor = before < 1 ? 1 : Math.hypot(...less(at, d.pivot)) / before;
  const guides: Guide[] = [];
  if (format.id !== piece.leadFormatId) {
    const base = d.override ?? NO_OVERRIDE;
    const override = { ...base, scale: Math.max(0.01, base.scale * factor) };
    return {
      edits: [{ type: 'layer.setOverride', id: d.layer.id, formatId: format.id, override }],
      guides,
      readout: WORDS.percent(whole(override.scale * 100)),
    };
  }
  // Its proportions are kept unless Shift is held.
  const [fx, fy] = keys.shift
    ? [stretch(at, d.from, d.pivot, d.axes[0]), stretch(at, d.from, d.pivot, d.axes[1])]
    : [factor, factor];
  const next: [number, number] = [d.scale[0] * fx, d.scale[1] * fy];
  const [w, h] = [whole(next[0] * 100), whole(next[1] * 100)];
  return {
    edits: [valueEdit(d.layer, 'scale', next)],
    guides,
    readout: w === h ? WORDS.percent(w) : WORDS.percents(w, h),
  };
}

const isAnimated = (layer: Layer, property: 'position'): boolean =>
  (trackOf(layer, property)?.keyframes.length ?? 0) > 0;

/** What of a layer a drag of its sides changes. */
export const sidesProperty = (layer: Layer): 'dimensions' | 'scale' =>
  hasProperty(layer.kind, 'dimensions') ? 'dimensions' : 'scale';

function edge(d: EdgeDrag, at: Point, keys: DragKeys, scene: DragScene): DragResult {
  const property = sidesProperty(d.layer);
  const by = dot(less(at, d.from), d.along) * d.side;
  const keepsOther = property === 'dimensions' && !keys.alt && !isAnimated(d.layer, 'position');
  const factor = keepsOther
    ? Math.max(0, d.length + by) / Math.max(1e-6, d.length)
    : Math.max(0, stretch(at, d.from, d.pivot, d.along));
  const next: [number, number] = [...d.value];
  next[d.axis] = d.value[d.axis] * factor;
  const edits: Edit[] = [valueEdit(d.layer, property, next)];
  if (keepsOther) {
    const half = ((factor - 1) * d.length * d.side) / 2;
    edits.push(moveEdit(scene, d.moved, d.along[0] * half, d.along[1] * half));
  }
  const readout =
    property === 'dimensions' ? WORDS.sides(whole(next[0]), whole(next[1])) : WORDS.percent(whole(next[d.axis] * 100));
  return { edits, guides: [], readout };
}

/** Degrees that Shift turns by. */
const TURN_STEP = 15;
export const angleOf = ([x, y]: Point): number => (Math.atan2(y, x) * 180) / Math.PI;

function rotate(d: RotateDrag, at: Point, keys: DragKeys): DragResult {
  const turned = d.rotation + angleOf(less(at, d.pivot)) - d.startAngle;
  const next = keys.shift ? Math.round(turned / TURN_STEP) * TURN_STEP : Math.round(turned * 10) / 10;
  return { edits: [valueEdit(d.layer, 'rotation', next)], guides: [], readout: `${next}°` };
}

/** What a drag comes to with the pointer at a point. */
export function dragged(d: Exclude<Drag, MarqueeDrag>, at: Point, keys: DragKeys, scene: DragScene): DragResult {
  switch (d.kind) {
    case 'move':
      return move(d, at, keys, scene);
    case 'scale':
      return scale(d, at, keys, scene);
    case 'edge':
      return edge(d, at, keys, scene);
    case 'rotate':
      return rotate(d, at, keys);
  }
}
