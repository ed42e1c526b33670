import type { IdSource } from './create';
import type { Layer } from './schema';

/** Copies of layers with new ids for them and their keyframes, in the same order. */
export function copyLayers(layers: readonly Layer[], newId: IdSource): Layer[] {
  return layers.map((layer) => {
    const copy = JSON.parse(JSON.stringify(layer)) as Layer; // documents are plain JSON
    copy.id = newId();
    copy.name = `${layer.name} copy`;
    copy.locked = false;
    for (const track of Object.values(copy.tracks)) for (const key of track?.keyframes ?? []) key.id = newId();
    for (const use of copy.gestures) use.id = newId();
    return copy;
  });
}
