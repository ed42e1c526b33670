import { IDENTITY, multiply } from '../../geometry';
import type { Matrix } from '../../geometry';
import { layerMatrix } from '../../piece';
import type { LayerAt } from './layer-at';

/** From a layer's own pixels, about its position, to pixels of the format. */
export const matrixOf = ({ prepared, read, outer }: LayerAt): Matrix =>
  outer.matrix === IDENTITY
    ? layerMatrix(read, prepared.place)
    : multiply(outer.matrix, layerMatrix(read, prepared.place));
