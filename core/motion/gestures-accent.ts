import type { Point } from './actor';
import type { GestureDefinition } from './gesture-definition';
import { AMOUNT, ANGLE, DISTANCE, SOFT, away, e, letters, t, whole, words } from './gesture-parts';
import type { GestureRole } from './gesture-use';

const ACCENT: readonly GestureRole[] = ['accent'];

/** Gestures of things that stand. */
export const ACCENT_GESTURES = {
  pulsar: {
    label: 'Pulsar',
    feel: 'swells on each beat, heartbeat',
    roles: ACCENT,
    ...whole,
    beats: 0.9,
    parameters: { amount: { ...AMOUNT, label: 'Swell', default: 0.12 } },
    every: 1,
    tracks: (p) => ({
      scale: t([0, [1, 1], e('cubic-out')], [0.12, [1 + p.amount!, 1 + p.amount!], e('cubic-out')], [1, [1, 1]]),
    }),
  },
  aurora: {
    label: 'Aurora',
    feel: 'a colour wave runs through',
    roles: ACCENT,
    ...letters,
    overlap: 0.7,
    beats: 2,
    parameters: { amount: { ...AMOUNT, default: 1 } },
    every: 4,
    tracks: (p) => ({ tint: t([0, 0, SOFT], [0.5, p.amount!, SOFT], [1, 0]) }),
  },
  flare: {
    label: 'Flare',
    feel: 'flashes in another colour, hit',
    roles: ACCENT,
    ...whole,
    unit: 'word',
    beats: 1,
    parameters: { amount: { ...AMOUNT, label: 'Swell', default: 0.08 } },
    tracks: (p) => ({
      tint: t([0, 0], [0.06, 1, e('cubic-out')], [1, 0]),
      scale: t([0, [1, 1]], [0.06, [1 + p.amount!, 1 + p.amount!], e('cubic-out')], [1, [1, 1]]),
    }),
  },
  swell: {
    label: 'Swell',
    feel: 'letters bob like boats, wave',
    roles: ACCENT,
    ...letters,
    overlap: 0.7,
    beats: 4,
    parameters: { distance: { ...DISTANCE, max: 2, default: 0.12 } },
    every: 2,
    tracks: (p) => ({
      move: t([0, [0, 0], SOFT], [0.25, [0, -p.distance!], SOFT], [0.75, [0, p.distance! * 0.5], SOFT], [1, [0, 0]]),
    }),
  },
  tremor: {
    label: 'Tremor',
    feel: 'shakes on the beat, impact',
    roles: ACCENT,
    ...whole,
    beats: 0.8,
    parameters: { distance: { ...DISTANCE, max: 2, default: 0.1 }, turn: { ...ANGLE, min: 0, max: 45, default: 2 } },
    every: 1,
    tracks: (p, u) => {
      const shakes: Point[] = Array.from({ length: 9 }, (_, i) => [
        i / 9 + 0.02,
        away(p.distance! * (1 - i / 9) ** 1.5, u.random(i) * 360),
      ]);
      return {
        move: t([0, [0, 0]], ...shakes, [1, [0, 0]]),
        rotation: t([0, 0], [0.05, p.turn!], [0.2, -p.turn! * 0.7], [0.45, p.turn! * 0.4], [1, 0]),
      };
    },
  },
  nod: {
    label: 'Nod',
    feel: 'tips to one side on the beat, groove',
    roles: ACCENT,
    ...words,
    overlap: 1,
    beats: 1,
    parameters: { turn: { ...ANGLE, min: -45, max: 45, default: 5 } },
    every: 1,
    tracks: (p, u) => ({
      rotation: t([0, 0, e('cubic-out')], [0.15, p.turn! * (u.index % 2 ? -1 : 1), e('sine-in-out')], [1, 0]),
    }),
  },
  drift: {
    label: 'Drift',
    feel: 'slowly grows as long as it is shown, push',
    roles: ACCENT,
    ...whole,
    beats: 8,
    parameters: { grow: { label: 'Growth', min: -0.5, max: 0.5, default: 0.06, unit: '%' } },
    every: 'stay',
    tracks: (p) => ({ scale: t([0, [1, 1]], [1, [1 + p.grow!, 1 + p.grow!]]) }),
  },
} as const satisfies Record<string, GestureDefinition>;
