import type { Seconds } from '../../time';
import type { Layer, LayerOf } from './layer-schema';
import type { FootageRef, MediaRef } from './media-schema';

/** The file of a layer that shows footage; null for layers that show none. */
export function footageOf(
  media: readonly MediaRef[],
  layer: Layer,
): { readonly layer: LayerOf<'picture'>; readonly ref: MediaRef & { readonly footage: FootageRef } } | null {
  if (layer.kind !== 'picture') return null;
  const ref = media.find(({ id }) => id === layer.content.mediaId);
  return ref?.footage ? { layer, ref: { ...ref, footage: ref.footage } } : null;
}

export const footageSeconds = ({ frameRate, frames }: FootageRef): Seconds => (frames * frameRate.den) / frameRate.num;

/** Seconds of footage that pass in a second of the piece; 0 where its time does not simply go on. */
export function footageSpeed({ content: { time } }: LayerOf<'picture'>): number {
  return time ? (time.repeat || time.freeze ? 0 : time.speed) : 1;
}
