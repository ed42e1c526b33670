import { z } from 'zod';
import { colourSchema } from '../../colour';
import { trackSchema } from '../../motion';
import type { Track, TrackValue } from '../../motion';
import { idSchema } from '../../time';
import { effectSchema, maskSchema } from '../document/composition-schema';
import { effectParameters, isEffectColour } from '../document/effect-kinds';
import type { EffectParameter } from '../document/effect-kinds';
import { layerFields } from '../document/layer-schema';
import type { Layer } from '../document/layer-schema';
import type { Piece } from '../document/schema';
import { byId } from '../document/tree';
import { defineEdit, findLayer } from './define';
import { moveItem, putItem, removeItem } from './list-items';

const open = (draft: Piece, id: string): Layer | undefined => {
  const layer = findLayer(draft, id);
  return layer?.locked ? undefined : layer;
};

/** Values of a track within what a parameter allows; null where one is of another kind. */
function withinBounds(track: Track, parameter: EffectParameter): Track | null {
  const one = (value: TrackValue): TrackValue | null => {
    if (isEffectColour(parameter)) return colourSchema.safeParse(value).success ? value : null;
    return typeof value === 'number' ? Math.min(parameter.max, Math.max(parameter.min, value)) : null;
  };
  const value = one(track.value);
  const keyframes = track.keyframes.map((key) => ({ ...key, value: one(key.value) }));
  if (value === null || keyframes.some((key) => key.value === null)) return null;
  return { value, keyframes: keyframes as Track['keyframes'] }; // none is null
}

/** Whether a layer would be seen by itself, over other layers. */
function seesItself(draft: Piece, id: string, matteId: string): boolean {
  const layers = byId(draft.layers);
  for (let at: string | undefined = matteId, steps = 0; at !== undefined && steps <= layers.size; steps++) {
    if (at === id) return true;
    at = layers.get(at)?.matte?.layerId;
  }
  return false;
}

/** Edits of what is done to a layer as a whole: effects, masks, and the layer it is seen by. */
export const COMPOSITION_EDITS = {
  'effect.put': defineEdit(
    'Change an effect',
    z.object({ layerId: z.string(), effect: effectSchema, at: z.number().int().min(0).optional() }),
    (draft, { layerId, effect, at }) => {
      const layer = open(draft, layerId);
      if (layer) putItem(layer.effects, effect, at);
    },
  ),
  'effect.remove': defineEdit(
    'Take an effect away',
    z.object({ layerId: z.string(), id: z.string() }),
    (draft, { layerId, id }) => {
      const layer = open(draft, layerId);
      if (layer) removeItem(layer.effects, id);
    },
  ),
  'effect.order': defineEdit(
    'Change the order of effects',
    z.object({ layerId: z.string(), id: z.string(), to: z.number().int().min(0) }),
    (draft, { layerId, id, to }) => {
      const layer = open(draft, layerId);
      if (layer) moveItem(layer.effects, id, to);
    },
  ),
  /** Gives a parameter of an effect its values, within its bounds. */
  'effect.setTrack': defineEdit(
    'Change an effect',
    z.object({ layerId: z.string(), id: z.string(), parameter: idSchema, track: trackSchema }),
    (draft, { layerId, id, parameter, track }) => {
      const effect = open(draft, layerId)?.effects.find((other) => other.id === id);
      if (!effect || !Object.hasOwn(effectParameters(effect.kind), parameter)) return;
      const within = withinBounds(track, effectParameters(effect.kind)[parameter]!); // it has one
      if (within) effect.parameters[parameter] = within;
    },
  ),
  'mask.put': defineEdit(
    'Change a mask',
    z.object({ layerId: z.string(), mask: maskSchema, at: z.number().int().min(0).optional() }),
    (draft, { layerId, mask, at }) => {
      const layer = open(draft, layerId);
      if (layer) putItem(layer.masks, mask, at);
    },
  ),
  'mask.remove': defineEdit(
    'Take a mask away',
    z.object({ layerId: z.string(), id: z.string() }),
    (draft, { layerId, id }) => {
      const layer = open(draft, layerId);
      if (layer) removeItem(layer.masks, id);
    },
  ),
  /** Lets a layer be seen by another one, which is then not seen itself; never by itself, however far around. */
  'layer.setMatte': defineEdit(
    'Change the matte',
    z.object({ id: z.string(), matte: layerFields.matte }),
    (draft, { id, matte }) => {
      const layer = open(draft, id);
      if (!layer || (matte && (!findLayer(draft, matte.layerId) || seesItself(draft, id, matte.layerId)))) return;
      layer.matte = matte ?? null;
    },
  ),
} as const;
