import { trackOf } from '../document/tracks';
import {
  ACTOR_PROPERTY_IDS,
  evaluateTrack,
  gestureDefinition,
  parametersOf,
  prepareTrack,
  reverseEasing,
  trackThrough,
  tracksInPlace,
} from '../../motion';
import type {
  ActorProperty,
  ActorTracks,
  Easing,
  GestureRole,
  GestureUse,
  Keyframe,
  OwnGesture,
  TrackValue,
  Vector,
} from '../../motion';
import type { Moment, Seconds } from '../../time';
import type { IdSource } from '../document/create';
import type { PropertyId } from '../document/properties';
import type { ResolvedTimes } from './resolve-times';
import type { Layer } from '../document/layer-schema';

/** Between gestures and plain keyframes: a gesture is opened up into keyframes, and keyframes are kept as a gesture. */

/**
 * The layer property that an actor's property becomes, and how: `plus` adds to the resting value, `times` multiplies
 * it. Lengths count in em.
 */
const COUNTERPARTS: Partial<Record<ActorProperty, { property: PropertyId; how: 'plus' | 'times'; inEm: boolean }>> = {
  move: { property: 'position', how: 'plus', inEm: true },
  scale: { property: 'scale', how: 'times', inEm: false },
  rotation: { property: 'rotation', how: 'plus', inEm: false },
  skew: { property: 'skew', how: 'plus', inEm: false },
  opacity: { property: 'opacity', how: 'times', inEm: false },
  blur: { property: 'blur', how: 'plus', inEm: true },
  spread: { property: 'tracking', how: 'plus', inEm: false },
  weight: { property: 'weight', how: 'plus', inEm: false },
  draw: { property: 'drawEnd', how: 'times', inEm: false },
};

/** Pixels of an em of a layer: the size of its text, or a quarter of its shorter side. */
export function emOf(layer: Layer): number {
  if (layer.kind === 'text') return trackOf(layer, 'size')?.value as number; // a number track
  return emOfSides((trackOf(layer, 'dimensions')?.value ?? [400, 400]) as Vector); // a vector track
}

/** Pixels of an em of what has no size of letters: a quarter of its shorter side. */
export const emOfSides = ([w, h]: Vector): number => Math.max(1, Math.min(w, h) / 4);

const onNumbers = (a: TrackValue, b: TrackValue, change: (x: number, y: number) => number): TrackValue =>
  Array.isArray(a) && Array.isArray(b)
    ? [change(a[0], b[0]), change(a[1], b[1])]
    : typeof a === 'number' && typeof b === 'number'
      ? change(a, b)
      : a;

/** The tracks of a use, as they are for a single actor. */
export function tracksOf(use: GestureUse, own: readonly OwnGesture[]): ActorTracks {
  const definition = gestureDefinition(use.gesture);
  return (
    tracksInPlace(use, own) ??
    definition?.tracks(parametersOf(use, definition), { index: 0, count: 1, random: () => 0.5 }) ??
    {}
  );
}

interface RunPoint {
  readonly u: number;
  readonly value: TrackValue;
  readonly easing: Easing;
}

/** A run of points the other way round: the segment that led into a point now leaves it. */
const backwards = (points: readonly RunPoint[]): RunPoint[] =>
  points
    .map((p, i) => ({ u: 1 - p.u, value: p.value, easing: i > 0 ? reverseEasing(points[i - 1]!.easing) : p.easing }))
    .reverse();

export interface OpenedKeys {
  readonly keys: { readonly layerId: string; readonly property: PropertyId; readonly key: Keyframe }[];
  /** What has no counterpart among a layer's properties, or whose property has keyframes of its own. */
  readonly left: readonly ActorProperty[];
}

/**
 * Plain keyframes for a gesture that moves the layer as a whole.
 * @param span - seconds between which it runs.
 * @param momentOf - the moment for a time: pinned where that is on the lattice.
 */
export function openUp(
  layer: Layer,
  use: GestureUse,
  own: readonly OwnGesture[],
  span: readonly [Seconds, Seconds],
  momentOf: (seconds: Seconds) => Moment,
  newId: IdSource,
): OpenedKeys {
  const keys: OpenedKeys['keys'] = [];
  const left: ActorProperty[] = [];
  const em = emOf(layer);
  for (const [actorProperty, track] of Object.entries(tracksOf(use, own)) as [
    ActorProperty,
    ActorTracks[ActorProperty],
  ][]) {
    // keys are validated by the schema
    const counterpart = COUNTERPARTS[actorProperty];
    const target = counterpart && trackOf(layer, counterpart.property);
    if (!track || !counterpart || !target || target.keyframes.length > 0) {
      left.push(actorProperty);
      continue;
    }
    const rest = target.value; // values are of the property's kind
    const points = track.keyframes.map((k) => ({
      u: k.at.kind === 'free' ? k.at.seconds : 0,
      value: k.value,
      easing: k.easing,
    }));
    const ordered = use.role === 'exit' ? backwards(points) : points;
    for (const { u, value, easing } of ordered) {
      const scaled = counterpart.inEm ? onNumbers(value, value, (x) => x * em) : value;
      const absolute = onNumbers(rest, scaled, (r, v) => (counterpart.how === 'plus' ? r + v : r * v));
      keys.push({
        layerId: layer.id,
        property: counterpart.property,
        key: { id: newId(), at: momentOf(span[0] + u * (span[1] - span[0])), value: absolute, easing },
      });
    }
  }
  return { keys, left };
}

const round = (n: number): number => Math.round(n * 1e5) / 1e5;

/**
 * A layer's keyframes as a gesture: progress from the first to the last, values relative to where it rests (its last
 * values for an entrance or accent, its first for an exit, which is stored backwards as every exit is). Null if nothing
 * moves.
 */
export function gestureFromKeys(
  layer: Layer,
  times: ResolvedTimes,
  role: GestureRole,
  name: string,
  newId: IdSource,
): OwnGesture | null {
  const moving = ACTOR_PROPERTY_IDS.flatMap((actorProperty) => {
    const counterpart = COUNTERPARTS[actorProperty];
    const track = counterpart && trackOf(layer, counterpart.property);
    return counterpart && track && track.keyframes.length > 1 ? [{ actorProperty, counterpart, track }] : [];
  });
  const all = moving.flatMap(({ track }) => track.keyframes.map((k) => times.timeOf(k.at)));
  if (all.length === 0) return null;
  const [from, to] = [Math.min(...all), Math.max(...all)];
  if (to - from < 0.01) return null;
  const em = emOf(layer);
  const tracks: ActorTracks = {};
  for (const { actorProperty, counterpart, track } of moving) {
    const prepared = prepareTrack(track, times.timeOf);
    const rest = evaluateTrack(prepared, role === 'exit' ? from : to);
    const points = track.keyframes
      .map((k) => ({ u: (times.timeOf(k.at) - from) / (to - from), value: k.value, easing: k.easing }))
      .sort((a, b) => a.u - b.u);
    const ordered = role === 'exit' ? backwards(points) : points;
    tracks[actorProperty] = trackThrough(
      ...ordered.map(({ u, value, easing }) => {
        const relative = onNumbers(value, rest, (v, r) =>
          round((counterpart.how === 'plus' ? v - r : v / (r || 1)) / (counterpart.inEm ? em : 1)),
        );
        return [round(u), relative as number | Vector, easing] as const; // no colours among the counterparts
      }),
    );
  }
  return { id: newId(), name, role, duration: round(to - from), tracks };
}
