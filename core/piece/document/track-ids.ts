import * as z from 'zod';
import type { Keyframe, Track, TrackValue } from '../../motion';
import { EFFECT_KINDS, effectParameters, isEffectColour, parameterValue } from './effect-kinds';
import type { EffectParameter } from './effect-kinds';
import type { Layer } from './layer-schema';
import { MASK_VALUES, maskValue } from './mask-values';
import type { MaskValueId } from './mask-values';
import { PROPERTIES, PROPERTY_IDS, isValueOf, propertyDefinition } from './properties';
import type { PropertyId } from './properties';
import { ownTrack, hasProperty } from './tracks';

/** Everything of a layer that has keyframes: a property of its own, a parameter of an effect, a value of a mask. */
export type TrackId = PropertyId | `effect/${string}/${string}` | `mask/${string}/${MaskValueId}`;

export const effectTrackId = (effectId: string, parameter: string): TrackId => `effect/${effectId}/${parameter}`;
export const maskTrackId = (maskId: string, value: MaskValueId): TrackId => `mask/${maskId}/${value}`;

export const isPropertyId = (id: string): id is PropertyId => Object.hasOwn(PROPERTIES, id);

/** What an id of a track of an effect or a mask names; null for a property. */
export function partOf(
  id: string,
): { readonly of: 'effect' | 'mask'; readonly id: string; readonly value: string } | null {
  const of = id.startsWith('effect/') ? 'effect' : id.startsWith('mask/') ? 'mask' : null;
  const last = id.lastIndexOf('/');
  return of && last > of.length + 1 && last < id.length - 1
    ? { of, id: id.slice(of.length + 1, last), value: id.slice(last + 1) }
    : null;
}

export const trackIdSchema = z
  .string()
  .max(200)
  .refine((id) => isPropertyId(id) || partOf(id) !== null, 'this is no property of a layer, an effect or a mask')
  .transform((id) => id as TrackId); // refined

type Tracked = Pick<Layer, 'kind' | 'tracks' | 'effects' | 'masks'>;

/** The track that a layer holds under an id; undefined where it stands as it began. */
export function heldTrack(layer: Tracked, id: TrackId): Track | undefined {
  if (isPropertyId(id)) return layer.tracks[id];
  const part = partOf(id);
  if (!part) return undefined;
  if (part.of === 'mask') return layer.masks.find((mask) => mask.id === part.id)?.tracks[part.value as MaskValueId]; // of none, if it is none
  const effect = layer.effects.find((other) => other.id === part.id);
  return effect && Object.hasOwn(effect.parameters, part.value) ? effect.parameters[part.value] : undefined;
}

const sameKind = (a: TrackValue, b: TrackValue): boolean =>
  typeof a === typeof b && Array.isArray(a) === Array.isArray(b);

/** The track of an id in a draft, made if a property has none of its own; undefined if it cannot take the value. */
export function trackFor(layer: Layer, id: TrackId, value: TrackValue): Track | undefined {
  if (isPropertyId(id)) return hasProperty(layer.kind, id) && isValueOf(id, value) ? ownTrack(layer, id) : undefined;
  const track = heldTrack(layer, id);
  return track && sameKind(track.value, value) ? track : undefined;
}

/** What people call what a track moves. */
export function trackLabel(layer: Tracked, id: TrackId): string {
  if (isPropertyId(id)) return propertyDefinition(id).label;
  const part = partOf(id);
  const mask = part?.of === 'mask' ? layer.masks.find((other) => other.id === part.id) : undefined;
  if (part && mask) return `${mask.name}: ${MASK_VALUES[part.value as MaskValueId].label}`;
  const effect = layer.effects.find((other) => other.id === part?.id);
  if (!part || !effect) return id;
  return `${EFFECT_KINDS[effect.kind].label}: ${effectParameters(effect.kind)[part.value]?.label ?? part.value}`;
}

/** The tracks of a layer that have keyframes: its properties in the order of the table, then effects, then masks. */
export function animatedTracks(layer: Tracked): [TrackId, Track][] {
  const all: [TrackId, Track | undefined][] = [
    ...PROPERTY_IDS.map((id): [TrackId, Track | undefined] => [id, layer.tracks[id]]),
    ...layer.effects.flatMap((effect) =>
      Object.entries(effect.parameters).map(([id, track]): [TrackId, Track] => [effectTrackId(effect.id, id), track]),
    ),
    ...layer.masks.flatMap((mask) =>
      Object.entries(mask.tracks).map(([id, track]): [TrackId, Track | undefined] => [
        maskTrackId(mask.id, id as MaskValueId), // keys of its schema
        track,
      ]),
    ),
  ];
  return all.filter((entry): entry is [TrackId, Track] => (entry[1]?.keyframes.length ?? 0) > 0);
}

/** Whether keyframes of a track can be put on a layer. */
export const takesKeyframes = (layer: Tracked, id: TrackId): boolean =>
  isPropertyId(id) ? hasProperty(layer.kind, id) : heldTrack(layer, id) !== undefined;

/** The id of a track whose effect or mask has got another id. @param names - new ids by the old ones. */
export function renamedTrack(id: TrackId, names: ReadonlyMap<string, string>): TrackId {
  const part = isPropertyId(id) ? null : partOf(id);
  const next = part ? names.get(part.id) : undefined;
  return part && next !== undefined ? (`${part.of}/${next}/${part.value}` as TrackId) : id; // of the same part and value
}

/** Whether a track belongs to an effect or a mask. @param id - of the track. @param owner - of the effect or the mask. */
export function isPartOf(id: string, of: 'effect' | 'mask', owner: string): boolean {
  const part = partOf(id);
  return part?.of === of && part.id === owner;
}

/** The parameter of an effect that an id names; null for all else. */
export function effectParameterOf(
  layer: Tracked,
  id: TrackId,
): { readonly effectId: string; readonly id: string; readonly is: EffectParameter } | null {
  const part = isPropertyId(id) ? null : partOf(id);
  const effect = part?.of === 'effect' ? layer.effects.find((other) => other.id === part.id) : undefined;
  if (!part || !effect || !Object.hasOwn(effectParameters(effect.kind), part.value)) return null;
  return { effectId: effect.id, id: part.value, is: effectParameters(effect.kind)[part.value]! }; // it has one
}

/** A value as a track of an effect or a mask can hold it, within its bounds; null if there is no such track, or none for it. */
export function partValue(layer: Tracked, id: TrackId, value: TrackValue): TrackValue | null {
  const parameter = effectParameterOf(layer, id);
  if (parameter) return parameterValue(parameter.is, value);
  const part = isPropertyId(id) ? null : partOf(id);
  if (part?.of !== 'mask' || !layer.masks.some((mask) => mask.id === part.id)) return null;
  if (!Object.hasOwn(MASK_VALUES, part.value)) return null;
  const { begins, min = -Infinity, max = Infinity } = maskValue(part.value as MaskValueId); // it is one of them
  if (!sameKind(begins, value)) return null;
  return typeof value === 'number' ? Math.min(max, Math.max(min, value)) : value;
}

/** The values of one effect or mask among those that a format has of its own, by their names. */
export const partsOf = (
  parts: Readonly<Record<string, Track>> | undefined,
  of: 'effect' | 'mask',
  id: string,
): Record<string, Track> =>
  Object.fromEntries(
    Object.entries(parts ?? {}).flatMap(
      ([name, track]): [string, Track][] => (isPartOf(name, of, id) ? [[partOf(name)!.value, track]] : []), // it is a part of something
    ),
  );

/** Whether a value can listen to the music: numbers and vectors of the layer, numbers of its effects. */
export function canListen(layer: Tracked, id: TrackId): boolean {
  if (isPropertyId(id)) return hasProperty(layer.kind, id) && PROPERTIES[id].kind !== 'colour';
  const parameter = effectParameterOf(layer, id);
  return parameter !== null && !isEffectColour(parameter.is);
}

/** The keyframe of a layer by the id of its track and its own; undefined if there is none. */
export const keyframeOf = (layer: Tracked | undefined, track: TrackId, keyId: string): Keyframe | undefined =>
  layer && heldTrack(layer, track)?.keyframes.find((key) => key.id === keyId);
