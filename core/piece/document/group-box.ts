import { IDENTITY, multiply, transformBox, unionBox } from '../../geometry';
import type { Box, Matrix } from '../../geometry';
import type { Vector } from '../../motion';
import type { Layer } from './layer-schema';
import { fitIn, groupMatrix, layerMatrix } from './place';
import type { PlaceReader } from './place';
import type { Piece } from './schema';
import { trackOf } from './tracks';
import { childrenByParent } from './tree';

/** The values of a layer's tracks, without keyframes. */
const resting = (layer: Layer): PlaceReader => ({
  // The schema binds each property to its kind of value.
  number: (property) => (trackOf(layer, property)?.value ?? 0) as number,
  vector: (property) => (trackOf(layer, property)?.value ?? [0, 0]) as Vector,
});

/**
 * The box of the shapes and pictures in a group as they lie without the group, in pixels of the lead format from the frame's
 * centre; null for none. Words are not measured.
 */
export function contentBox(piece: Pick<Piece, 'layers' | 'formats' | 'leadFormatId'>, groupId: string): Box | null {
  const lead = piece.formats.find((format) => format.id === piece.leadFormatId);
  if (!lead) return null;
  const inside = childrenByParent(piece.layers);
  const boxOf = (parent: string, outer: Matrix): Box | null =>
    (inside.get(parent) ?? []).reduce<Box | null>((all, layer) => {
      const read = resting(layer);
      const fit = fitIn(layer, lead, lead);
      let box: Box | null = null;
      if (layer.kind === 'group') box = boxOf(layer.id, multiply(outer, groupMatrix(read, fit)));
      else if (trackOf(layer, 'dimensions')) {
        const [w, h] = read.vector('dimensions');
        box = transformBox(multiply(outer, layerMatrix(read, fit)), [-w / 2, -h / 2, w / 2, h / 2]);
      }
      return all && box ? unionBox(all, box) : (all ?? box);
    }, null);
  const box = boxOf(groupId, IDENTITY);
  const [x, y] = [lead.width / 2, lead.height / 2];
  return box && [box[0] - x, box[1] - y, box[2] - x, box[3] - y];
}
