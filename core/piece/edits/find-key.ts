import type { Keyframe } from '../../motion';
import { keyframeOf } from '../document/track-ids';
import type { Piece } from '../document/schema';
import type { KeyRef } from './key-edits';

/** The keyframe that a reference names; undefined if it is gone. */
export const findKey = (piece: Pick<Piece, 'layers'>, ref: KeyRef): Keyframe | undefined =>
  keyframeOf(
    piece.layers.find((layer) => layer.id === ref.layerId),
    ref.property,
    ref.keyId,
  );
