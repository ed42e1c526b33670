import { IDENTITY, applyMatrix, invert, isFlat } from '@core/geometry';
import type { Matrix } from '@core/geometry';
import { fitIn, leadFormat, outerMatrix, pivotOf } from '@core/piece';
import type { Format, Layer, Piece, PlaceReader } from '@core/piece';
import { valueNow } from '../desk/commands';

/** Values of a layer at the playhead; the schema binds each property to its kind of value. */
const readNow = (layer: Layer): PlaceReader => ({
  number: (property) => valueNow(layer, property) as number,
  vector: (property) => valueNow(layer, property) as [number, number],
});

export interface PlaceNow {
  /** Where the layer's position lies, pixels of the format. */
  readonly pivot: [number, number];
  /** Pixels of the format a pixel of the lead makes, without the groups around it. */
  readonly fit: number;
  /** What the groups around the layer make of the pixels of the format. */
  readonly outer: Matrix;
  /** From a way in pixels of the format to the same way in those of the layer's position. */
  readonly inward: Matrix;
}

/** How a layer stands in a format at the playhead. */
export function placeNow(piece: Piece, layer: Layer, format: Format): PlaceNow {
  const fit = fitIn(layer, leadFormat(piece), format);
  const outer = layer.parentId === null ? IDENTITY : outerMatrix(piece, layer.id, format, readNow);
  const inFrame = pivotOf(readNow(layer).vector('position'), fit);
  const back = isFlat(outer) ? IDENTITY : invert(outer);
  return {
    pivot: applyMatrix(outer, ...inFrame),
    fit: fit.factor,
    outer,
    inward: [back[0], back[1], back[2], back[3], 0, 0],
  };
}
