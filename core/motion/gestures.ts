import { ownEntry } from '../time';
import type { ActorTracks } from './actor';
import type { GestureDefinition } from './gesture-definition';
import type { GestureRole, GestureUse, OwnGesture } from './gesture-use';
import { ACCENT_GESTURES } from './gestures-accent';
import { IN_OUT_GESTURES } from './gestures-in-out';
import { DEFAULT_STAGGER } from './stagger';
import { idsOf } from './table-ids';

/**
 * Ready-made animations, named after the sky. Each is data over the same tracks that hand-made keyframes use: a
 * function from a few parameters to tracks of an actor's state over progress. Entrances end at rest, so an exit is an
 * entrance run backwards, and a finished entrance costs nothing. Accents begin and end at rest.
 */
export const GESTURES = { ...IN_OUT_GESTURES, ...ACCENT_GESTURES } as const satisfies Record<string, GestureDefinition>;
export type GestureId = keyof typeof GESTURES;
export const GESTURE_IDS = idsOf(GESTURES);

export const gestureDefinition = (id: string): GestureDefinition | null =>
  ownEntry<GestureDefinition>(GESTURES, id) ?? null;

/** The parameters of a use, with the table's values where it says nothing. */
export function parametersOf(
  use: Pick<GestureUse, 'parameters'>,
  definition: GestureDefinition,
): Record<string, number> {
  return Object.fromEntries(
    Object.entries(definition.parameters).map(([id, p]) => [
      id,
      Math.min(p.max, Math.max(p.min, use.parameters[id] ?? p.default)),
    ]),
  );
}

/**
 * Tracks that stand in for the table's: those of an opened use, or of a gesture of one's own. Null for a gesture of the
 * table.
 */
export function tracksInPlace(use: GestureUse, own: readonly OwnGesture[]): ActorTracks | null {
  return use.tracks ?? own.find((g) => g.id === use.gesture)?.tracks ?? (gestureDefinition(use.gesture) ? null : {});
}

/**
 * A gesture as a layer first gets it: everything as the table says. A gesture that the table lacks is one's own: it
 * moves the whole.
 */
export function newGestureUse(gesture: string, role: GestureRole, id: string): GestureUse {
  const definition = gestureDefinition(gesture);
  const every = definition?.every;
  return {
    id,
    gesture,
    role,
    unit: definition?.unit ?? 'whole',
    duration: every === 'stay' ? { unit: 'stay', value: 0 } : { unit: 'beats', value: definition?.beats ?? 2 },
    at: null,
    landing: 'peak',
    every: typeof every === 'number' ? every : null,
    stagger: { ...DEFAULT_STAGGER, order: definition?.order ?? 'forward', overlap: definition?.overlap ?? 1 },
    parameters: {},
    colour: '#FFB74A',
    words: null,
    tracks: null,
  };
}
