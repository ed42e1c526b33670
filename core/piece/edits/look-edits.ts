import type { IdSource } from '../document/create';
import type { Layer } from '../document/layer-schema';
import { lookOf } from '../document/text-styles';
import { hasProperty, trackOf } from '../document/tracks';
import type { PropertyId } from '../document/properties';
import type { Edit } from './index';

/** What a layer looks like apart from what it is, where it stands and how it moves. */
const VALUES = [
  'fill',
  'fillEnd',
  'gradientAngle',
  'stroke',
  'strokeWidth',
  'cornerRadius',
] as const satisfies readonly PropertyId[];
const CONTENT = ['gradient', 'fillGradient', 'strokeGradient', 'strokeStyle', 'paints', 'corners'] as const;

/**
 * The edits that make one layer look like another: its paints, effects and blend mode, and the whole look of words if
 * both are words. What only one of them has is left as it is, and so are values that are keyframed.
 */
export function lookEdits(from: Layer, onto: Layer, newId: IdSource): Edit[] {
  const edits: Edit[] = [{ type: 'layer.setBlend', ids: [onto.id], blend: from.blend }];
  if (from.kind === 'text' && onto.kind === 'text')
    edits.push({ type: 'style.dress', ids: [onto.id], look: lookOf(from) });
  else {
    for (const property of VALUES) {
      if (!hasProperty(from.kind, property) || !hasProperty(onto.kind, property)) continue;
      if ((onto.tracks[property]?.keyframes.length ?? 0) > 0) continue;
      edits.push({ type: 'value.set', layerId: onto.id, property, value: trackOf(from, property)!.value }); // it has one
    }
    const content = Object.fromEntries(
      CONTENT.filter((key) => key in from.content && key in onto.content).map((key) => [
        key,
        (from.content as Record<string, unknown>)[key],
      ]),
    );
    if (Object.keys(content).length > 0) edits.push({ type: 'layer.setContent', id: onto.id, content });
  }
  for (const effect of onto.effects) edits.push({ type: 'effect.remove', layerId: onto.id, id: effect.id });
  for (const effect of from.effects)
    edits.push({ type: 'effect.put', layerId: onto.id, effect: { ...effect, id: newId() } });
  return edits;
}
