import * as z from 'zod';
import { PATH_OPERATIONS } from '../../geometry';
import { idsOf, trackSchema } from '../../motion';
import type { Track, TrackValue } from '../../motion';
import { idSchema, secondsSchema } from '../../time';
import { effectSchema, listenSchema, maskSchema } from '../document/composition-schema';
import { effectParameters, parameterValue } from '../document/effect-kinds';
import type { EffectParameter } from '../document/effect-kinds';
import { groupTimeSchema } from '../document/group-time';
import { layerFields } from '../document/layer-schema';
import type { Layer } from '../document/layer-schema';
import { mediaRefSchema } from '../document/media-schema';
import { MAX_MEDIA } from '../document/schema';
import type { Piece } from '../document/schema';
import { canListen, isPartOf } from '../document/track-ids';
import { ancestorsOf, byId } from '../document/tree';
import { defineEdit, findLayer } from './define';
import { moveItem, putItem, removeItem } from './list-items';

const open = (draft: Piece, id: string): Layer | undefined => {
  const layer = findLayer(draft, id);
  return layer?.locked ? undefined : layer;
};

/** Values of a track within what a parameter allows; null where one is of another kind. */
function withinBounds(track: Track, parameter: EffectParameter): Track | null {
  const one = (value: TrackValue) => parameterValue(parameter, value);
  const value = one(track.value);
  const keyframes = track.keyframes.map((key) => ({ ...key, value: one(key.value) }));
  if (value === null || keyframes.some((key) => key.value === null)) return null;
  return { value, keyframes: keyframes as Track['keyframes'] }; // none is null
}

/** Takes away what formats have of their own of an effect or a mask that goes. */
function leaveParts(layer: Layer, of: 'effect' | 'mask', id: string): void {
  for (const { parts = {} } of Object.values(layer.overrides))
    for (const name of Object.keys(parts)) if (isPartOf(name, of, id)) delete parts[name];
}

/** What a layer may name another layer for. */
type Tie = 'matte' | 'follow' | 'hug';

/** Whether a layer would come back to itself by a chain of ties. */
function comesRound(draft: Piece, tie: Tie, id: string, nextId: string): boolean {
  const layers = byId(draft.layers);
  for (let at: string | undefined = nextId, steps = 0; at !== undefined && steps <= layers.size; steps++) {
    if (at === id) return true;
    at = layers.get(at)?.[tie]?.layerId;
  }
  return false;
}

/** The layer, if it may be tied to another: that is there, is not itself, and does not lead back to it. */
function tied(draft: Piece, tie: Tie, id: string, to: { layerId: string } | null | undefined): Layer | undefined {
  const layer = open(draft, id);
  if (!to) return layer;
  return findLayer(draft, to.layerId) && !comesRound(draft, tie, id, to.layerId) ? layer : undefined;
}

/** Edits of what is done to a layer as a whole: effects, masks, and the layer it is seen by. */
export const COMPOSITION_EDITS = {
  'effect.put': defineEdit(
    'Change effect',
    z.object({ layerId: z.string(), effect: effectSchema, at: z.number().int().min(0).optional() }),
    (draft, { layerId, effect, at }) => {
      const layer = open(draft, layerId);
      if (layer) putItem(layer.effects, effect, at);
    },
  ),
  'effect.remove': defineEdit(
    'Remove effect',
    z.object({ layerId: z.string(), id: z.string() }),
    (draft, { layerId, id }) => {
      const layer = open(draft, layerId);
      if (!layer) return;
      removeItem(layer.effects, id);
      leaveParts(layer, 'effect', id);
      const listens = layer.listens.filter((listen) => !isPartOf(listen.property, 'effect', id));
      if (listens.length < layer.listens.length) layer.listens = listens;
    },
  ),
  'effect.order': defineEdit(
    'Reorder effects',
    z.object({ layerId: z.string(), id: z.string(), to: z.number().int().min(0) }),
    (draft, { layerId, id, to }) => {
      const layer = open(draft, layerId);
      if (layer) moveItem(layer.effects, id, to);
    },
  ),
  /** Gives a parameter of an effect its values, within its bounds. */
  'effect.setTrack': defineEdit(
    'Change effect',
    z.object({ layerId: z.string(), id: z.string(), parameter: idSchema, track: trackSchema }),
    (draft, { layerId, id, parameter, track }) => {
      const effect = open(draft, layerId)?.effects.find((other) => other.id === id);
      if (!effect || !Object.hasOwn(effectParameters(effect.kind), parameter)) return;
      const within = withinBounds(track, effectParameters(effect.kind)[parameter]!); // it has one
      if (within) effect.parameters[parameter] = within;
    },
  ),
  'mask.put': defineEdit(
    'Change mask',
    z.object({ layerId: z.string(), mask: maskSchema, at: z.number().int().min(0).optional() }),
    (draft, { layerId, mask, at }) => {
      const layer = open(draft, layerId);
      if (layer) putItem(layer.masks, mask, at);
    },
  ),
  'mask.remove': defineEdit(
    'Remove mask',
    z.object({ layerId: z.string(), id: z.string() }),
    (draft, { layerId, id }) => {
      const layer = open(draft, layerId);
      if (!layer) return;
      removeItem(layer.masks, id);
      leaveParts(layer, 'mask', id);
    },
  ),
  /** Lets a layer be seen by another one, which is then not seen itself; never by itself, however far around. */
  'layer.setMatte': defineEdit(
    'Change track matte',
    z.object({ id: z.string(), matte: layerFields.matte }),
    (draft, { id, matte }) => {
      const layer = tied(draft, 'matte', id, matte);
      if (layer) layer.matte = matte ?? null;
    },
  ),
  /** Lets a layer take values over from another one; never from itself, however far around. */
  'layer.setFollow': defineEdit(
    'Change parent',
    z.object({ id: z.string(), follow: layerFields.follow }),
    (draft, { id, follow }) => {
      const layer = tied(draft, 'follow', id, follow);
      if (layer) layer.follow = follow ?? null;
    },
  ),
  /** Lays a shape about another layer; never about one that is laid about it. */
  'layer.setHug': defineEdit(
    'Change fit around',
    z.object({ id: z.string(), hug: layerFields.hug }),
    (draft, { id, hug }) => {
      const layer = tied(draft, 'hug', id, hug);
      const isInside = hug ? ancestorsOf(byId(draft.layers), id).some((group) => group.id === hug.layerId) : false;
      if (layer && !isInside) layer.hug = hug ?? null;
    },
  ),
  'layer.setRepeat': defineEdit(
    'Change copies',
    z.object({ id: z.string(), repeat: layerFields.repeat }),
    (draft, { id, repeat }) => {
      const layer = open(draft, id);
      if (layer) layer.repeat = repeat ?? null;
    },
  ),
  'listen.put': defineEdit(
    'Change audio-driven property',
    z.object({ layerId: z.string(), listen: listenSchema, at: z.number().int().min(0).optional() }),
    (draft, { layerId, listen, at }) => {
      const layer = open(draft, layerId);
      if (layer && canListen(layer, listen.property)) putItem(layer.listens, listen, at);
    },
  ),
  /** Lets time go its own way within a group, or a piece that stands within this one. */
  'group.setTime': defineEdit(
    'Change group time',
    z.object({ id: z.string(), time: groupTimeSchema.nullable() }),
    (draft, { id, time }) => {
      const layer = open(draft, id);
      if (layer && 'time' in layer.content) layer.content.time = time;
    },
  ),
  /** Makes one shape of what is in a group, or leaves it as it is. */
  'group.setCombine': defineEdit(
    'Combine shapes',
    z.object({ id: z.string(), combine: z.enum(idsOf(PATH_OPERATIONS)).nullable() }),
    (draft, { id, combine }) => {
      const layer = open(draft, id);
      if (layer?.kind === 'group') layer.content.combine = combine;
    },
  ),
  /** What is seen of a piece within this one. */
  'within.set': defineEdit(
    'Change nested piece',
    z.object({ id: z.string(), from: secondsSchema, showsGround: z.boolean() }),
    (draft, { id, from, showsGround }) => {
      const layer = open(draft, id);
      if (layer?.kind === 'piece') Object.assign(layer.content, { from, showsGround });
    },
  ),
  /** Shows a piece within this one as it is now: its new file, and what it is made with. */
  'within.renew': defineEdit(
    'Update nested piece',
    z.object({ pieceId: z.string(), media: mediaRefSchema, more: z.array(mediaRefSchema).max(MAX_MEDIA) }),
    (draft, { pieceId, media, more }) => {
      const layers = draft.layers.filter((layer) => layer.kind === 'piece' && layer.content.pieceId === pieceId);
      if (layers.length === 0 || media.kind !== 'piece') return;
      const own = draft.media.find(({ hash }) => hash === media.hash) ?? media;
      const before = new Set(layers.map((layer) => (layer.kind === 'piece' ? layer.content.mediaId : '')));
      for (const ref of [own, ...more])
        if (!draft.media.some(({ id, hash }) => id === ref.id || hash === ref.hash)) draft.media.push(ref);
      for (const layer of layers) if (layer.kind === 'piece') layer.content.mediaId = own.id;
      // What it was before is not wanted any more.
      draft.media = draft.media.filter(({ id, kind }) => kind !== 'piece' || id === own.id || !before.has(id));
    },
  ),
  /** How a layer goes along the way of its position; null takes it as it is keyframed. */
  'layer.setTravel': defineEdit(
    'Change motion path',
    z.object({ id: z.string(), travel: layerFields.travel.unwrap() }),
    (draft, { id, travel }) => {
      const layer = open(draft, id);
      if (layer) layer.travel = travel;
    },
  ),
  'listen.remove': defineEdit(
    'Remove audio-driven property',
    z.object({ layerId: z.string(), id: z.string() }),
    (draft, { layerId, id }) => {
      const layer = open(draft, layerId);
      if (layer) removeItem(layer.listens, id);
    },
  ),
} as const;
