import type { IdSource } from './create';
import { visitLayerTracks } from './layer-moments';
import type { Layer } from './layer-schema';
import { plainCopy } from './plain-copy';
import { renamedTrack } from './track-ids';
import type { TrackId } from './track-ids';

/**
 * Copies of layers with new ids for them and all within them, in the same order. What they say of one another (the
 * group, the matte, whom they follow) is said of the copies; what they say of layers that are not copied stays.
 */
export function copyLayers(layers: readonly Layer[], newId: IdSource): Layer[] {
  const names = new Map(layers.map((layer) => [layer.id, newId()]));
  const renamed = (id: string) => names.get(id) ?? id;
  return layers.map((layer) => {
    const copy = plainCopy(layer);
    copy.id = renamed(layer.id);
    if (copy.parentId !== null) copy.parentId = renamed(copy.parentId);
    if (copy.matte) copy.matte.layerId = renamed(copy.matte.layerId);
    if (copy.hug) copy.hug.layerId = renamed(copy.hug.layerId);
    if (copy.follow) copy.follow.layerId = renamed(copy.follow.layerId);
    // What is inside a copied group keeps its name: the group's says that it is a copy.
    if (layer.parentId === null || !names.has(layer.parentId)) copy.name = `${layer.name} copy`;
    copy.locked = false;
    visitLayerTracks(copy, (track) => track.keyframes.forEach((key) => (key.id = newId())));
    const inside = new Map<string, string>();
    for (const inner of [...copy.gestures, ...copy.effects, ...copy.masks, ...copy.listens]) {
      const id = newId();
      inside.set(inner.id, id);
      inner.id = id;
    }
    for (const listen of copy.listens) listen.property = renamedTrack(listen.property, inside);
    for (const override of Object.values(copy.overrides))
      if (override.parts)
        override.parts = Object.fromEntries(
          Object.entries(override.parts).map(([id, track]) => [renamedTrack(id as TrackId, inside), track]), // keys of the schema
        );
    return copy;
  });
}
