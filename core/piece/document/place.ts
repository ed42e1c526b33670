import { IDENTITY, multiply } from '../../geometry';
import type { Matrix } from '../../geometry';
import type { Vector } from '../../motion';
import type { Layer } from './layer-schema';
import type { PropertyId } from './properties';
import { safeBox } from './safe-area';
import type { Format, Piece } from './schema';
import { trackOf } from './tracks';
import { ancestorsOf, byId } from './tree';

/**
 * Where a layer lies: the one module that turns position, scale, rotation, slant and anchor point into a matrix, in every
 * format. Painting, handles and edits that keep a place all come here.
 *
 * Formats other than the lead show the lead's arrangement scaled to fit about the centre; what covers the lead's frame is
 * scaled to cover; what has constraints is held by them; then the layer's own override applies. A group moves the pixels
 * of the frame: what is in it lies as it would without the group, and is then moved with it. So grouping changes no look in
 * any format.
 */

/** A layer's values at one time. */
export interface PlaceReader {
  number(property: PropertyId): number;
  vector(property: PropertyId): Vector;
}

/** How a layer stands in a format. */
export interface Fit {
  /** Pixels of the format a pixel of the lead makes, before the layer's own override. */
  readonly base: number;
  /** The same with the override. */
  readonly factor: number;
  /** Pixels of the format, of constraints and of the override. */
  readonly move: Readonly<Vector>;
  /** Pixels of the format that a pixel of the layer's position makes, across and down. */
  readonly along: Readonly<Vector>;
  /** Pixels of the lead format by which a layer that is held on both sides is wider and taller. */
  readonly stretch: Readonly<Vector>;
  /** The frame's centre, pixels of the format. */
  readonly centre: Readonly<Vector>;
}

const fillsArea = (layer: Layer): boolean => layer.kind === 'text' && layer.content.area !== null;

/** A layer counts as covering the frame if its box spans this share of both sides. */
const COVERING = 0.98;

/** Whether a layer's box covers the frame of the lead format. */
export function coversFrame(layer: Layer, lead: Format): boolean {
  // Tracks of vectors.
  const dimensions = trackOf(layer, 'dimensions')?.value as Vector | undefined;
  const scale = (trackOf(layer, 'scale')?.value as Vector | undefined) ?? [1, 1];
  return (
    dimensions !== undefined &&
    dimensions[0] * scale[0] >= lead.width * COVERING &&
    dimensions[1] * scale[1] >= lead.height * COVERING
  );
}

/** How far the sides of the frame are apart, of a layer's scaling. */
const SCALING = {
  fit: (x: number, y: number) => Math.min(x, y),
  width: (x: number) => x,
  height: (_x: number, y: number) => y,
  not: () => 1,
} as const;

/** How many times as long the shorter side is: what is read from the same distance in both formats. */
const shorterSides = (lead: Format, format: Format): number =>
  Math.min(format.width, format.height) / Math.min(lead.width, lead.height);

/** Pixels of the format a pixel of the lead makes, where nothing else is said. */
function plainScale(layer: Layer, lead: Format, format: Format): number {
  // Words that fill a place of the frame keep their measure against its shorter side.
  if (fillsArea(layer)) return shorterSides(lead, format);
  const sides = [format.width / lead.width, format.height / lead.height] as const;
  return coversFrame(layer, lead) ? Math.max(...sides) : Math.min(...sides);
}

interface Held {
  readonly scale: number;
  readonly move: Vector;
  readonly along: Vector;
  readonly stretch: Vector;
}

/** Along one axis: what the layer's position is measured from, in both formats, and how long the room is in each. */
function heldAlong(
  hold: 'start' | 'middle' | 'end' | 'both' | 'share',
  [from, to, side]: readonly [number, number, number],
  [fromF, toF, sideF]: readonly [number, number, number],
  scale: number,
): { move: number; along: number; stretch: number } {
  const place = { start: [from, fromF], end: [to, toF], middle: [(from + to) / 2, (fromF + toF) / 2] } as const;
  const [at, atF] = hold === 'start' || hold === 'end' ? place[hold] : place.middle;
  // Positions are measured from the centre.
  const [own, ownF] = [at - side / 2, atF - sideF / 2];
  const along = hold === 'share' ? (toF - fromF) / Math.max(1, to - from) : scale;
  return { move: ownF - own * along, along, stretch: hold === 'both' ? (toF - fromF) / scale - (to - from) : 0 };
}

const HOLDS = {
  left: 'start',
  centre: 'middle',
  right: 'end',
  top: 'start',
  middle: 'middle',
  bottom: 'end',
  both: 'both',
  share: 'share',
} as const;

/** How constraints hold a layer in a format: by the edges of the frame or of its safe area. */
function heldBy(constraints: NonNullable<Layer['constraints']>, lead: Format, format: Format): Held {
  const { horizontal, vertical, within, scales } = constraints;
  const scale =
    scales === 'reading'
      ? shorterSides(lead, format)
      : SCALING[scales](format.width / lead.width, format.height / lead.height);
  const room = (f: Format) => (within === 'frame' ? ([0, 0, f.width, f.height] as const) : safeBox(f));
  const [l, t, r, b] = room(lead);
  const [lf, tf, rf, bf] = room(format);
  const x = heldAlong(HOLDS[horizontal], [l, r, lead.width], [lf, rf, format.width], scale);
  const y = heldAlong(HOLDS[vertical], [t, b, lead.height], [tf, bf, format.height], scale);
  return { scale, move: [x.move, y.move], along: [x.along, y.along], stretch: [x.stretch, y.stretch] };
}

export function fitIn(layer: Layer, lead: Format, format: Format): Fit {
  const override = layer.overrides[format.id];
  const base = plainScale(layer, lead, format);
  const held = layer.constraints && !fillsArea(layer) ? heldBy(layer.constraints, lead, format) : null;
  const more = override?.scale ?? 1;
  const [x, y] = override?.move ?? [0, 0];
  const factor = (held?.scale ?? base) * more;
  return {
    base,
    factor,
    along: held ? [held.along[0] * more, held.along[1] * more] : [factor, factor],
    move: held ? [held.move[0] + x, held.move[1] + y] : [x, y],
    stretch: held?.stretch ?? [0, 0],
    centre: [format.width / 2, format.height / 2],
  };
}

/** Where a layer's position lies in the frame, pixels of the format, without the groups around it. */
export const pivotOf = ([px, py]: Readonly<Vector>, fit: Fit, origin: Readonly<Vector> = fit.centre): Vector => [
  origin[0] + px * fit.along[0] + fit.move[0],
  origin[1] + py * fit.along[1] + fit.move[1],
];
/** The position that lies at a place of the frame. */
export const positionAt = (x: number, y: number, fit: Fit): Vector => [
  (x - fit.centre[0] - fit.move[0]) / fit.along[0],
  (y - fit.centre[1] - fit.move[1]) / fit.along[1],
];

/**
 * From the layer's own pixels to pixels of the format.
 * @param origin - where the layer's position is measured from, pixels of the format; the frame's centre if left out.
 */
export function layerMatrix(read: PlaceReader, fit: Fit, origin: Readonly<Vector> = fit.centre): Matrix {
  const [sx, sy] = read.vector('scale');
  const [ax, ay] = read.vector('anchor');
  const angle = (read.number('rotation') * Math.PI) / 180;
  const cos = Math.cos(angle) * fit.factor;
  const sin = Math.sin(angle) * fit.factor;
  // Scale, then slant, then turn.
  const slant = Math.tan((-read.number('skew') * Math.PI) / 180);
  const [a, b, c, d] = [cos * sx, sin * sx, (cos * slant - sin) * sy, (sin * slant + cos) * sy];
  const [e, f] = pivotOf(read.vector('position'), fit, origin);
  return [a, b, c, d, e - a * ax - c * ay, f - b * ax - d * ay];
}

/** What a group makes of the pixels of the format. */
export function groupMatrix(read: PlaceReader, fit: Fit): Matrix {
  const { base, centre } = fit;
  return multiply(layerMatrix(read, fit), [1 / base, 0, 0, 1 / base, -centre[0] / base, -centre[1] / base]);
}

/** What all groups around a layer together make of the pixels of the format. */
export function outerMatrix(
  piece: Pick<Piece, 'layers' | 'formats' | 'leadFormatId'>,
  layerId: string,
  format: Format,
  readerOf: (layer: Layer) => PlaceReader,
): Matrix {
  const lead = piece.formats.find((f) => f.id === piece.leadFormatId) ?? format;
  return ancestorsOf(byId(piece.layers), layerId).reduce<Matrix>(
    (inner, group) => multiply(groupMatrix(readerOf(group), fitIn(group, lead, format)), inner),
    IDENTITY,
  );
}
