import { LAYER_KINDS } from './layer-kinds';
import type { Layer } from './layer-schema';

/** The file that a layer shows: its id in the piece; null for none. */
export function mediaIdOf(layer: Pick<Layer, 'kind' | 'content'>): string | null {
  // The row of the layer's own kind, so its content fits.
  const { mediaOf } = LAYER_KINDS[layer.kind] as { mediaOf: (content: Layer['content']) => string | null };
  return mediaOf(layer.content);
}
