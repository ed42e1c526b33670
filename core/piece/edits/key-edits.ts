import { hasProperty, ownTrack, dropStandingTracks } from '../document/tracks';
import * as z from 'zod';
import { easingSchema, keyframeSchema, reverseEasing, trackSchema, vectorSchema } from '../../motion';
import type { Keyframe, Track } from '../../motion';
import { freeMoment, idSchema, latticeMoment, momentSchema, secondsSchema, shiftMoment } from '../../time';
import type { Moment, Seconds } from '../../time';
import { clampValue, isValueOf } from '../document/properties';
import type { PropertyId } from '../document/properties';
import type { Layer } from '../document/layer-schema';
import type { Piece } from '../document/schema';
import { heldTrack, trackFor, trackIdSchema } from '../document/track-ids';
import { defineEdit, findLayer } from './define';
import { propertyIdSchema, valueSchema } from './value-schemas';
import type { EditContext } from './define';

const propertyId = propertyIdSchema;
const value = valueSchema;
/** Names one keyframe: a layer, a property of it or of its effects and masks, the keyframe's id. */
export const keyRefSchema = z.object({ layerId: z.string(), property: trackIdSchema, keyId: z.string() });
export type KeyRef = z.infer<typeof keyRefSchema>;

/** Two keyframes of a track closer than this are one: a tenth of the shortest frame. */
const SAME_TIME: Seconds = 0.0015;

/** The layer, if it may be changed and its kind has the property. */
function layerWith(draft: Piece, layerId: string, property: PropertyId): Layer | undefined {
  const layer = findLayer(draft, layerId);
  return layer && !layer.locked && hasProperty(layer.kind, property) ? layer : undefined;
}

function putKey(track: Track, key: Keyframe, context: EditContext): void {
  const time = context.times.timeOf(key.at);
  const same = track.keyframes.findIndex(
    (other) => other.id !== key.id && Math.abs(context.times.timeOf(other.at) - time) < SAME_TIME,
  );
  const own = track.keyframes.findIndex((other) => other.id === key.id);
  if (own >= 0) track.keyframes[own] = key;
  else track.keyframes.push(key);
  if (same >= 0) track.keyframes.splice(same, 1);
  track.keyframes.sort((a, b) => context.times.timeOf(a.at) - context.times.timeOf(b.at));
}

function selectedKeys(draft: Piece, refs: readonly KeyRef[]): { key: Keyframe; track: Track; ref: KeyRef }[] {
  return refs.flatMap((ref) => {
    const layer = findLayer(draft, ref.layerId);
    const track = layer && !layer.locked ? heldTrack(layer, ref.property) : undefined;
    const key = track?.keyframes.find((k) => k.id === ref.keyId);
    return track && key ? [{ key, track, ref }] : [];
  });
}

function resort(draft: Piece, refs: readonly KeyRef[], context: EditContext): void {
  for (const { track } of selectedKeys(draft, refs))
    track.keyframes.sort((a, b) => context.times.timeOf(a.at) - context.times.timeOf(b.at));
}

/**
 * A pinned moment mirrored or scaled to a new time stays pinned where it lands on a 1/12 beat, else it becomes free.
 */
function retime(moment: Moment, seconds: Seconds, context: EditContext): Moment {
  return moment.kind === 'free' ? freeMoment(seconds) : latticeMoment(seconds, context.times.grid);
}

/** Edits of values and keyframes. */
export const KEY_EDITS = {
  /** Moves keyframes by seconds of their own; each is moved once, however often it is named. */
  'keys.shift': defineEdit(
    'Snap keyframes to beats',
    z.object({ shifts: z.array(z.object({ ref: keyRefSchema, seconds: secondsSchema })).max(5000) }),
    (draft, { shifts }, context) => {
      const done = new Set<string>();
      for (const { ref, seconds } of shifts) {
        for (const { key } of selectedKeys(draft, [ref])) {
          if (done.has(key.id)) continue;
          done.add(key.id);
          key.at = shiftMoment(key.at, seconds, context.times.targets);
        }
      }
      resort(
        draft,
        shifts.map((s) => s.ref),
        context,
      );
    },
  ),
  /** Sets a property: its standing value, or, with `at`, a keyframe there (replacing one at the same time). */
  'value.set': defineEdit(
    'Change value',
    z.object({
      layerId: z.string(),
      property: propertyId,
      value,
      at: momentSchema.optional(),
      keyId: idSchema.optional(),
      easing: easingSchema.optional(),
    }),
    (draft, payload, context) => {
      const layer = layerWith(draft, payload.layerId, payload.property);
      if (!layer || !isValueOf(payload.property, payload.value)) return;
      const next = clampValue(payload.property, payload.value);
      const track = ownTrack(layer, payload.property);
      if (!payload.at) {
        track.value = next;
        return dropStandingTracks(layer);
      }
      const time = context.times.timeOf(payload.at);
      const existing = track.keyframes.find((key) => Math.abs(context.times.timeOf(key.at) - time) < SAME_TIME);
      if (existing) existing.value = next;
      else
        putKey(
          track,
          {
            id: payload.keyId ?? `k${track.keyframes.length}-${Math.round(time * 1e6)}`,
            at: payload.at,
            value: next,
            easing: payload.easing ?? track.keyframes[0]?.easing ?? { type: 'linear' },
          },
          context,
        );
    },
  ),
  /** Gives a property all of its keyframes anew. */
  'track.set': defineEdit(
    'Set keyframes',
    z.object({ layerId: z.string(), property: propertyId, track: trackSchema }),
    (draft, { layerId, property, track }, context) => {
      const layer = layerWith(draft, layerId, property);
      if (!layer || ![track.value, ...track.keyframes.map((key) => key.value)].every((v) => isValueOf(property, v)))
        return;
      const timeOf = (key: Keyframe): Seconds => context.times.timeOf(key.at);
      const keyframes = [...track.keyframes].sort((a, b) => timeOf(a) - timeOf(b));
      layer.tracks[property] = { value: track.value, keyframes };
      dropStandingTracks(layer);
    },
  ),
  'keys.add': defineEdit(
    'Add keyframes',
    z.object({ keys: z.array(z.object({ layerId: z.string(), property: trackIdSchema, key: keyframeSchema })) }),
    (draft, { keys }, context) => {
      for (const { layerId, property, key } of keys) {
        const layer = findLayer(draft, layerId);
        const track = layer && !layer.locked ? trackFor(layer, property, key.value) : undefined;
        if (track) putKey(track, key, context);
      }
    },
  ),
  /** Removing a track's last keyframe keeps its value as the standing value. */
  'keys.remove': defineEdit('Delete keyframes', z.object({ refs: z.array(keyRefSchema) }), (draft, { refs }) => {
    for (const { key, track } of selectedKeys(draft, refs)) {
      track.keyframes = track.keyframes.filter((k) => k.id !== key.id);
      if (track.keyframes.length === 0) track.value = key.value;
    }
  }),
  'keys.place': defineEdit(
    'Move keyframes',
    z.object({ moves: z.array(z.object({ ref: keyRefSchema, at: momentSchema })) }),
    (draft, { moves }, context) => {
      for (const { ref, at } of moves) for (const { key } of selectedKeys(draft, [ref])) key.at = at;
      resort(
        draft,
        moves.map((m) => m.ref),
        context,
      );
    },
  ),
  'keys.setEasing': defineEdit(
    'Change easing',
    z.object({ refs: z.array(keyRefSchema), easing: easingSchema }),
    (draft, { refs, easing }) => {
      for (const { key } of selectedKeys(draft, refs)) key.easing = easing;
    },
  ),
  'keys.setTangents': defineEdit(
    'Change motion path',
    z.object({
      ref: keyRefSchema,
      tangentIn: vectorSchema.nullable().optional(),
      tangentOut: vectorSchema.nullable().optional(),
    }),
    (draft, { ref, tangentIn, tangentOut }) => {
      for (const { key } of selectedKeys(draft, [ref])) {
        if (tangentIn === null) delete key.tangentIn;
        else if (tangentIn) key.tangentIn = tangentIn;
        if (tangentOut === null) delete key.tangentOut;
        else if (tangentOut) key.tangentOut = tangentOut;
      }
    },
  ),
  /** Scales the times of a selection about `pivot` seconds. */
  'keys.scaleTime': defineEdit(
    'Stretch keyframes',
    z.object({ refs: z.array(keyRefSchema), pivot: secondsSchema, factor: z.number().min(1e-6).max(1e6) }),
    (draft, { refs, pivot, factor }, context) => {
      for (const { key } of selectedKeys(draft, refs))
        key.at = retime(key.at, pivot + (context.times.timeOf(key.at) - pivot) * factor, context);
      resort(draft, refs, context);
    },
  ),
  /** Plays a selection backwards between its own first and last time; each segment's easing is reversed with it. */
  'keys.reverse': defineEdit(
    'Reverse keyframes',
    z.object({ refs: z.array(keyRefSchema) }),
    (draft, { refs }, context) => {
      const selection = selectedKeys(draft, refs);
      const spans = selection.map(({ key }) => context.times.timeOf(key.at));
      const from = Math.min(...spans);
      const to = Math.max(...spans);
      const tracks = new Map<Track, Keyframe[]>();
      for (const { key, track } of selection) tracks.set(track, [...(tracks.get(track) ?? []), key]);
      for (const keys of tracks.values()) {
        const sorted = [...keys].sort((a, b) => context.times.timeOf(a.at) - context.times.timeOf(b.at));
        const easings = sorted.map((key) => key.easing);
        sorted.forEach((key, i) => {
          // The segment that led into this keyframe now leaves it.
          key.easing = i > 0 ? reverseEasing(easings[i - 1]!) : easings[easings.length - 1]!;
          const { tangentIn, tangentOut } = key;
          delete key.tangentIn;
          delete key.tangentOut;
          if (tangentIn) key.tangentOut = tangentIn;
          if (tangentOut) key.tangentIn = tangentOut;
          key.at = retime(key.at, from + to - context.times.timeOf(key.at), context);
        });
      }
      resort(draft, refs, context);
    },
  ),
} as const;
