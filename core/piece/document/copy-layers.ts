import type { IdSource } from './create';
import { plainCopy } from './plain-copy';
import type { Layer } from './schema';

/** Copies of layers with new ids for them and their keyframes, in the same order. */
export function copyLayers(layers: readonly Layer[], newId: IdSource): Layer[] {
  return layers.map((layer) => {
    const copy = plainCopy(layer);
    copy.id = newId();
    copy.name = `${layer.name} copy`;
    copy.locked = false;
    for (const track of Object.values(copy.tracks)) for (const key of track?.keyframes ?? []) key.id = newId();
    for (const use of copy.gestures) use.id = newId();
    return copy;
  });
}
