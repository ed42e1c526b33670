import { cropFor } from '../framing';
import type { Crop, Focus } from '../framing';
import type { Vector } from '../motion';
import { coversFrame, fitIn, leadFormat, trackOf } from '../piece';
import type { Edit, Format, Layer, LayerOf, Piece } from '../piece';

/** Pictures that fill their frame, and what of them is seen in each frame size. */

type PictureLayer = LayerOf<'picture'>;

/** Focuses that differ by less look the same. */
const SAME = 0.01;

const vector = (layer: Layer, property: 'dimensions' | 'scale', otherwise: Vector): Vector =>
  (trackOf(layer, property)?.value as Vector | undefined) ?? otherwise; // tracks of vectors

/** Width over height of the frame that a picture has in a format. */
export function frameShapeIn(layer: PictureLayer, lead: Format, format: Format): number {
  const [w, h] = vector(layer, 'dimensions', [1, 1]);
  const [dw, dh] = fitIn(layer, lead, format).stretch;
  return Math.max(1, w + dw) / Math.max(1, h + dh);
}

/** Lets a picture fill the whole frame in every format, unstretched. */
export function fillFrameEdits(piece: Piece, layer: PictureLayer): Edit[] {
  const { width, height } = leadFormat(piece);
  const set = (property: 'dimensions' | 'scale' | 'position', value: Vector): Edit => ({
    type: 'value.set',
    layerId: layer.id,
    property,
    value,
  });
  return [
    { type: 'layer.setContent', id: layer.id, content: { fit: 'fill' } },
    {
      type: 'layer.setConstraints',
      ids: [layer.id],
      constraints: { horizontal: 'both', vertical: 'both', within: 'frame', scales: 'not' },
    },
    set('dimensions', [width, height]),
    set('scale', [1, 1]),
    set('position', [0, 0]),
  ];
}

/**
 * Moves what is seen of a picture to what matters in it, in each format by the shape that its frame has there.
 * @param shape - width over height of the picture itself.
 * @param find - where a window of a size is put on the picture.
 */
export function focusEdits(piece: Piece, layer: PictureLayer, shape: number, find: (crop: Crop) => Focus): Edit[] {
  const lead = leadFormat(piece);
  const zoom = Math.max(1, Number(trackOf(layer, 'pictureZoom')?.value ?? 1));
  const focusIn = (format: Format): Vector => {
    const { width, height } = cropFor(shape, frameShapeIn(layer, lead, format));
    const [x, y] = find({ width: width / zoom, height: height / zoom });
    return [x, y];
  };
  const focus = focusIn(lead);
  return [
    { type: 'value.set', layerId: layer.id, property: 'focus', value: focus },
    ...piece.formats.flatMap((format): Edit[] => {
      if (format.id === lead.id) return [];
      const own = focusIn(format);
      const isSame = own.every((at, axis) => Math.abs(at - focus[axis]!) < SAME);
      if (isSame && !layer.overrides[format.id]?.tracks?.focus) return [];
      const value = isSame ? null : own;
      return [{ type: 'layer.setInFormat', id: layer.id, formatId: format.id, property: 'focus', value }];
    }),
  ];
}

/**
 * Whether a picture can be framed anew for other formats without changing the lead: it covers the frame there in its own
 * shape, and nobody has said how it is held.
 * @param shape - width over height of the picture itself.
 */
export function isReframable(piece: Piece, layer: PictureLayer, shape: number): boolean {
  const lead = leadFormat(piece);
  const [w, h] = vector(layer, 'dimensions', [1, 1]);
  const isOwnShape = layer.content.fit === 'fill' || Math.abs(w / Math.max(1, h) / shape - 1) < SAME;
  return (
    layer.parentId === null && !layer.locked && layer.constraints === null && isOwnShape && coversFrame(layer, lead)
  );
}
