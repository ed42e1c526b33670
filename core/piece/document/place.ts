import { IDENTITY, multiply } from '../../geometry';
import type { Matrix } from '../../geometry';
import type { Vector } from '../../motion';
import type { Layer } from './layer-schema';
import type { PropertyId } from './properties';
import type { Format, Piece } from './schema';
import { trackOf } from './tracks';
import { ancestorsOf, byId } from './tree';

/**
 * Where a layer lies: the one module that turns position, scale, rotation, slant and anchor point into a matrix, in every
 * format. Painting, handles and edits that keep a place all come here.
 *
 * Formats other than the lead show the lead's arrangement scaled to fit about the centre; what covers the lead's frame is
 * scaled to cover; then the layer's own override applies. A group moves the pixels of the frame: what is in it lies as it
 * would without the group, and is then moved with it. So grouping changes no look in any format.
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
  /** Pixels of the format. */
  readonly move: Readonly<Vector>;
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

function baseFit(layer: Layer, lead: Format, format: Format): number {
  // Words that fill a place of the frame keep their measure against its shorter side.
  if (fillsArea(layer)) return Math.min(format.width, format.height) / Math.min(lead.width, lead.height);
  const sides = [format.width / lead.width, format.height / lead.height] as const;
  return coversFrame(layer, lead) ? Math.max(...sides) : Math.min(...sides);
}

export function fitIn(layer: Layer, lead: Format, format: Format): Fit {
  const override = layer.overrides[format.id];
  const base = baseFit(layer, lead, format);
  return {
    base,
    factor: base * (override?.scale ?? 1),
    move: override?.move ?? [0, 0],
    centre: [format.width / 2, format.height / 2],
  };
}

/**
 * From the layer's own pixels to pixels of the format.
 * @param origin - where the layer's position is measured from, pixels of the format; the frame's centre if left out.
 */
export function layerMatrix(read: PlaceReader, fit: Fit, origin: Readonly<Vector> = fit.centre): Matrix {
  const [px, py] = read.vector('position');
  const [sx, sy] = read.vector('scale');
  const [ax, ay] = read.vector('anchor');
  const angle = (read.number('rotation') * Math.PI) / 180;
  const cos = Math.cos(angle) * fit.factor;
  const sin = Math.sin(angle) * fit.factor;
  // Scale, then slant, then turn.
  const slant = Math.tan((-read.number('skew') * Math.PI) / 180);
  const [a, b, c, d] = [cos * sx, sin * sx, (cos * slant - sin) * sy, (sin * slant + cos) * sy];
  const e = origin[0] + px * fit.factor + fit.move[0];
  const f = origin[1] + py * fit.factor + fit.move[1];
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
