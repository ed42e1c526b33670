import * as z from 'zod';
import { freeMoment } from '../time';
import type { Easing } from './easing';
import { idsOf } from './table-ids';
import { evaluateTrack, prepareTrack, trackSchema } from './track';
import type { PreparedTrack, Track, TrackValue, Vector } from './track';

/**
 * An actor is whatever a gesture moves: a whole layer, or a line, word or letter of a text. Its state says how it
 * differs from where it rests, so states of several gestures combine, and the same gesture fits any layer. Lengths are
 * em: the size of the text, or for other layers a quarter of the shorter side, so that a gesture looks alike on all.
 */
export const ACTOR_PROPERTIES = {
  move: { label: 'Position', rest: [0, 0] },
  scale: { label: 'Scale', rest: [1, 1] },
  rotation: { label: 'Rotation', rest: 0 },
  skew: { label: 'Skew', rest: 0 },
  opacity: { label: 'Opacity', rest: 1 },
  blur: { label: 'Blur', rest: 0 },
  /** Share of the gesture's colour in the fill. */
  tint: { label: 'Tint', rest: 0 },
  /** Tracking added about the middle of the line, em. */
  spread: { label: 'Letter spacing', rest: 0 },
  /** Added to the weight axis. */
  weight: { label: 'Weight', rest: 0 },
  /** Share of the outline that is drawn; less than 1 also draws an outline where there is none. */
  draw: { label: 'Stroke trim', rest: 1 },
  /** Opacity of the fill alone. */
  ink: { label: 'Fill', rest: 1 },
  /** How far a soft edge has come across, 0 to 1. */
  wipe: { label: 'Wipe', rest: 1 },
  /** From half on, only what lies within the actor's own resting box is seen. */
  cover: { label: 'Edge mask', rest: 0 },
  /** From half on, another letter stands in. */
  scramble: { label: 'Scrambled', rest: 0 },
} as const satisfies Record<string, { label: string; rest: number | readonly [number, number] }>;
export type ActorProperty = keyof typeof ACTOR_PROPERTIES;
export const ACTOR_PROPERTY_IDS = idsOf(ACTOR_PROPERTIES);

/** Tracks whose times are progress: 0 where the gesture begins, 1 where it ends. */
export const actorTracksSchema = z.partialRecord(z.enum(ACTOR_PROPERTY_IDS), trackSchema).refine(
  (tracks) =>
    (Object.entries(tracks) as [ActorProperty, Track][]).every(([property, track]) => {
      // keys of the table
      const isVector = Array.isArray(ACTOR_PROPERTIES[property].rest);
      const isKind = (value: unknown) => (isVector ? Array.isArray(value) : typeof value === 'number');
      return isKind(track.value) && track.keyframes.every((k) => isKind(k.value) && k.at.kind === 'free');
    }),
  'a gesture runs on progress from 0 to 1, each property with values of its own kind',
);
export type ActorTracks = z.infer<typeof actorTracksSchema>;

export type ActorState = {
  [P in ActorProperty]: (typeof ACTOR_PROPERTIES)[P]['rest'] extends number ? number : Vector;
};

export const atRest = (): ActorState => ({
  move: [0, 0],
  scale: [1, 1],
  rotation: 0,
  skew: 0,
  opacity: 1,
  blur: 0,
  tint: 0,
  spread: 0,
  weight: 0,
  draw: 1,
  ink: 1,
  wipe: 1,
  cover: 0,
  scramble: 0,
});

/** One point of a track: progress, value, and the easing of the segment that begins there (linear if none is given). */
export type Point = readonly [progress: number, value: number | Vector, easing?: Easing];

/** A track through points, as a hand-made one would be. */
export function trackThrough(...points: readonly Point[]): Track {
  const keyframes = points.map(([u, value, easing], i) => ({
    id: `g${i}`,
    at: freeMoment(u),
    value,
    easing: easing ?? ({ type: 'linear' } as const),
  }));
  return { value: points[points.length - 1]![1], keyframes }; // a track has at least one point
}

export type PreparedActor = readonly (readonly [ActorProperty, PreparedTrack])[];

/** @throws RangeError if a key is pinned to music: progress has no beats. */
export function prepareActor(tracks: ActorTracks): PreparedActor {
  return (Object.entries(tracks) as [ActorProperty, Track | undefined][]).flatMap(([property, track]) =>
    // keys are validated by the schema
    track
      ? [
          [
            property,
            prepareTrack(track, (moment) => {
              if (moment.kind !== 'free') throw new RangeError('a gesture runs on progress from 0 to 1, not on beats');
              return moment.seconds;
            }),
          ] as const,
        ]
      : [],
  );
}

/** The state at a progress; values outside [0, 1] hold the ends. */
export function actorAt(actor: PreparedActor, progress: number): ActorState {
  const state = atRest() as Record<ActorProperty, TrackValue>;
  for (const [property, track] of actor) state[property] = evaluateTrack(track, progress);
  return state as ActorState; // the tracks hold values of the property's own kind
}
