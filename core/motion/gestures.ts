import { ownEntry } from '../time';
import { trackThrough } from './actor';
import type { ActorTracks, Point } from './actor';
import type { CurveName, Easing } from './easing';
import type { GestureRole, GestureUse, OwnGesture, UnitKind } from './gesture-use';
import { DEFAULT_STAGGER } from './stagger';
import { idsOf } from './table-ids';
import type { StaggerOrder } from './stagger';
import type { Vector } from './track';

/**
 * Ready-made animations, named after the sky. Each is data over the same tracks that hand-made keyframes use: a
 * function from a few parameters to tracks of an actor's state over progress. Entrances end at rest, so an exit is an
 * entrance run backwards, and a finished entrance costs nothing. Accents begin and end at rest.
 */
export interface GestureParameter {
  readonly label: string;
  readonly min: number;
  readonly max: number;
  readonly default: number;
  readonly unit: '' | '%' | '°' | 'em';
}

/** Which of the units a track is made for; `random` gives numbers in [0, 1) of its own, the same each time. */
export interface UnitContext {
  readonly index: number;
  readonly count: number;
  readonly random: (k: number) => number;
}

export interface GestureDefinition {
  readonly label: string;
  /** Plain words to find it by. */
  readonly feel: string;
  readonly roles: readonly GestureRole[];
  readonly unit: UnitKind;
  /** Beats the whole takes. */
  readonly beats: number;
  readonly order: StaggerOrder;
  readonly overlap: number;
  readonly parameters: Readonly<Record<string, GestureParameter>>;
  /** Accents that come again: every so many beats. `stay` lasts as long as the layer. */
  readonly every?: number | 'stay';
  /** What it does to the letters themselves. */
  readonly does?: 'types' | 'counts';
  readonly tracks: (p: Readonly<Record<string, number>>, unit: UnitContext) => ActorTracks;
}

const e = (name: CurveName): Easing => ({ type: 'named', name });
const OUT = e('quint-out');
const SOFT = e('sine-in-out');
const HOLD: Easing = { type: 'hold' };
const t = trackThrough;
const fade = (until: number): ReturnType<typeof t> => t([0, 0, e('sine-out')], [until, 1]);

const DISTANCE = { label: 'Distance', min: 0, max: 12, default: 1, unit: 'em' } as const;
const DIRECTION = { label: 'Comes from', min: -180, max: 180, default: 90, unit: '°' } as const;
const OVERSHOOT = { label: 'Overshoot', min: 0, max: 1, default: 0.3, unit: '%' } as const;
const SOFTNESS = { label: 'Softness', min: 0, max: 1, default: 0.4, unit: '%' } as const;
const AMOUNT = { label: 'Amount', min: 0, max: 1, default: 0.5, unit: '%' } as const;
const ANGLE = { label: 'Turn', min: -360, max: 360, default: 90, unit: '°' } as const;

/** The place a length away at an angle: 0° is to the right, 90° below (y runs down). */
const away = (distance: number, degrees: number): Vector => {
  const a = (degrees * Math.PI) / 180;
  return [Math.cos(a) * distance, Math.sin(a) * distance];
};
/** A spring that shoots past by about `overshoot` of the way; none is a plain arrival. */
const springy = (overshoot: number): Easing =>
  overshoot < 0.02
    ? OUT
    : { type: 'spring', oscillations: 1.6, damping: Math.min(0.95, Math.max(0.12, 0.85 - overshoot * 0.7)) };

const IN_OUT: readonly GestureRole[] = ['entrance', 'exit'];
const ACCENT: readonly GestureRole[] = ['accent'];
const letters = { unit: 'letter', order: 'forward', overlap: 0.8 } as const;
const words = { unit: 'word', order: 'forward', overlap: 0.6 } as const;
const whole = { unit: 'whole', order: 'forward', overlap: 1 } as const;

export const GESTURES = {
  dawn: {
    label: 'Dawn',
    feel: 'soft fade up, gentle, calm',
    roles: IN_OUT,
    ...words,
    beats: 2,
    parameters: { distance: { ...DISTANCE, default: 0.25 }, softness: { ...SOFTNESS, default: 0.3 } },
    tracks: (p) => ({
      opacity: fade(1),
      move: t([0, [0, p.distance!], e('sine-out')], [1, [0, 0]]),
      blur: t([0, p.softness! * 0.5, e('sine-out')], [1, 0]),
    }),
  },
  meteor: {
    label: 'Meteor',
    feel: 'fast slide with a streak, quick, energetic',
    roles: IN_OUT,
    ...words,
    beats: 1,
    parameters: {
      direction: { ...DIRECTION, default: 180 },
      distance: { ...DISTANCE, default: 6 },
      streak: { ...AMOUNT, label: 'Streak', default: 0.6 },
    },
    tracks: (p) => {
      const stretch = 1 + Math.abs(Math.cos((p.direction! * Math.PI) / 180)) * p.streak! * 1.6;
      return {
        move: t([0, away(p.distance!, p.direction!), e('expo-out')], [1, [0, 0]]),
        scale: t([0, [stretch, 1], e('expo-out')], [1, [1, 1]]),
        skew: t([0, p.streak! * 30 * Math.sign(Math.cos((p.direction! * Math.PI) / 180) || 0), e('expo-out')], [1, 0]),
        blur: t([0, p.streak! * 0.12, e('expo-out')], [0.6, 0]),
        opacity: fade(0.2),
      };
    },
  },
  horizon: {
    label: 'Horizon',
    feel: 'rises from behind its own baseline, clean',
    roles: IN_OUT,
    ...words,
    beats: 1.5,
    parameters: { overshoot: { ...OVERSHOOT, default: 0 } },
    tracks: (p) => ({ move: t([0, [0, 1.15], springy(p.overshoot!)], [1, [0, 0]]), cover: t([0, 1, HOLD], [1, 0]) }),
  },
  zenith: {
    label: 'Zenith',
    feel: 'drops into its line from above, clean',
    roles: IN_OUT,
    ...words,
    beats: 1.5,
    parameters: { overshoot: { ...OVERSHOOT, default: 0 } },
    tracks: (p) => ({ move: t([0, [0, -1.15], springy(p.overshoot!)], [1, [0, 0]]), cover: t([0, 1, HOLD], [1, 0]) }),
  },
  nova: {
    label: 'Nova',
    feel: 'bursts past its size and settles, pop, punch',
    roles: IN_OUT,
    unit: 'word',
    order: 'forward',
    overlap: 0.5,
    beats: 1,
    parameters: { overshoot: { ...OVERSHOOT, default: 0.5 } },
    tracks: (p) => ({ scale: t([0, [0, 0], springy(p.overshoot!)], [1, [1, 1]]), opacity: fade(0.15) }),
  },
  orbit: {
    label: 'Orbit',
    feel: 'swings round into place, turning',
    roles: IN_OUT,
    ...letters,
    beats: 2,
    parameters: { turn: { ...ANGLE, default: -120 }, distance: { ...DISTANCE, default: 2 } },
    tracks: (p) => {
      const steps = 8;
      const path: Point[] = Array.from({ length: steps + 1 }, (_, i) => {
        const left = (1 - i / steps) ** 2;
        return [i / steps, away(p.distance! * left, 90 + p.turn! * left)];
      });
      return { move: t(...path), rotation: t([0, p.turn!, OUT], [1, 0]), opacity: fade(0.4) };
    },
  },
  eclipse: {
    label: 'Eclipse',
    feel: 'a soft edge wipes across, reveal',
    roles: IN_OUT,
    unit: 'line',
    order: 'forward',
    overlap: 0.5,
    beats: 2,
    parameters: {},
    tracks: () => ({ wipe: t([0, 0, SOFT], [1, 1]) }),
  },
  filament: {
    label: 'Filament',
    feel: 'outline draws itself, then fills, neon, line',
    roles: IN_OUT,
    unit: 'letter',
    order: 'forward',
    overlap: 0.85,
    beats: 4,
    parameters: { fill: { ...AMOUNT, label: 'Fills from', default: 0.6 } },
    tracks: (p) => ({
      draw: t([0, 0, SOFT], [Math.max(0.1, p.fill!), 1 - 1e-3, HOLD], [1, 1]),
      ink: t([0, 0, HOLD], [Math.min(0.95, p.fill!), 0, SOFT], [1, 1]),
    }),
  },
  gravity: {
    label: 'Gravity',
    feel: 'falls and bounces, heavy, playful',
    roles: IN_OUT,
    ...letters,
    overlap: 0.85,
    beats: 2,
    parameters: { distance: { ...DISTANCE, default: 4 }, bounce: { ...AMOUNT, label: 'Bounce', default: 0.5 } },
    tracks: (p) => ({
      move: t([0, [0, -p.distance!], { type: 'bounce', bounces: 3, restitution: 0.2 + 0.5 * p.bounce! }], [1, [0, 0]]),
      opacity: fade(0.15),
    }),
  },
  constellation: {
    label: 'Constellation',
    feel: 'scattered letters gather, particles',
    roles: IN_OUT,
    ...letters,
    order: 'random',
    overlap: 0.9,
    beats: 3,
    parameters: { distance: { ...DISTANCE, default: 4 }, turn: { ...ANGLE, default: 180 } },
    tracks: (p, u) => ({
      move: t([0, away(p.distance! * (0.4 + u.random(0)), u.random(1) * 360), e('cubic-in-out')], [1, [0, 0]]),
      rotation: t([0, (u.random(2) - 0.5) * 2 * p.turn!, e('cubic-in-out')], [1, 0]),
      opacity: fade(0.5),
      scale: t([0, [0.3 + u.random(3), 0.3 + u.random(3)], e('cubic-in-out')], [1, [1, 1]]),
    }),
  },
  telescope: {
    label: 'Telescope',
    feel: 'tracking closes or opens, cinematic, wide',
    roles: IN_OUT,
    ...whole,
    unit: 'letter',
    beats: 4,
    parameters: { tracking: { label: 'Letter spacing', min: -0.5, max: 3, default: 0.6, unit: 'em' } },
    tracks: (p) => ({ spread: t([0, p.tracking!, OUT], [1, 0]), opacity: fade(0.5) }),
  },
  twinkle: {
    label: 'Twinkle',
    feel: 'letters flicker on in random order, electric',
    roles: IN_OUT,
    ...letters,
    order: 'random',
    overlap: 0.7,
    beats: 2,
    parameters: { flicker: { ...AMOUNT, label: 'Flicker', default: 0.6 } },
    tracks: (p, u) => ({
      opacity: t(
        [0, 0, HOLD],
        [0.15, 1, HOLD],
        [0.15 + 0.2 * p.flicker!, 0.1, HOLD],
        [0.4 + 0.2 * u.random(0), 0.9, HOLD],
        [0.62 + 0.2 * p.flicker! * u.random(1), 0.25, HOLD],
        [0.9, 1],
      ),
    }),
  },
  tide: {
    label: 'Tide',
    feel: 'letters ride in on a wave, fluid',
    roles: IN_OUT,
    ...letters,
    overlap: 0.85,
    beats: 3,
    parameters: { distance: { ...DISTANCE, default: 0.7 } },
    tracks: (p) => ({
      move: t(
        [0, [0, p.distance!], SOFT],
        [0.4, [0, -p.distance! * 0.35], SOFT],
        [0.7, [0, p.distance! * 0.14], SOFT],
        [1, [0, 0]],
      ),
      opacity: fade(0.35),
    }),
  },
  comet: {
    label: 'Comet',
    feel: 'comes from far away, grows near, deep',
    roles: IN_OUT,
    ...words,
    beats: 2,
    parameters: {
      size: { label: 'Size far off', min: 0, max: 0.9, default: 0.1, unit: '%' },
      direction: { ...DIRECTION, default: -60 },
      distance: { ...DISTANCE, default: 2 },
    },
    tracks: (p) => ({
      scale: t([0, [p.size!, p.size!], OUT], [1, [1, 1]]),
      move: t([0, away(p.distance!, p.direction!), OUT], [1, [0, 0]]),
      opacity: fade(0.4),
      blur: t([0, 0.15, OUT], [1, 0]),
    }),
  },
  thunder: {
    label: 'Thunder',
    feel: 'slams down from large, impact, hard',
    roles: IN_OUT,
    ...words,
    overlap: 0.3,
    beats: 1,
    parameters: {
      size: { label: 'Size above', min: 1.2, max: 8, default: 3, unit: '%' },
      shake: { ...AMOUNT, label: 'Shake', default: 0.4 },
    },
    tracks: (p) => ({
      scale: t([0, [p.size!, p.size!], e('cubic-in')], [0.45, [1, 1]], [1, [1, 1]]),
      opacity: t([0, 0], [0.35, 1], [1, 1]),
      rotation: t(
        [0, 0, HOLD],
        [0.45, p.shake! * 6],
        [0.58, -p.shake! * 4.5],
        [0.7, p.shake! * 2.6],
        [0.84, -p.shake! * 1.2],
        [1, 0],
      ),
    }),
  },
  mist: {
    label: 'Mist',
    feel: 'blurred to sharp, dreamy, focus',
    roles: IN_OUT,
    ...whole,
    beats: 2,
    parameters: {
      softness: { ...SOFTNESS, default: 0.7 },
      grow: { label: 'Grows', min: -0.5, max: 0.5, default: 0.08, unit: '%' },
    },
    tracks: (p) => ({
      blur: t([0, p.softness! * 0.8, e('sine-out')], [1, 0]),
      opacity: fade(0.7),
      scale: t([0, [1 - p.grow!, 1 - p.grow!], e('sine-out')], [1, [1, 1]]),
    }),
  },
  shutter: {
    label: 'Night Shutter',
    feel: 'unfolds upwards, flat, graphic',
    roles: IN_OUT,
    ...letters,
    beats: 1.5,
    parameters: { overshoot: OVERSHOOT },
    tracks: (p) => ({ scale: t([0, [1, 0], springy(p.overshoot!)], [1, [1, 1]]) }),
  },
  crescent: {
    label: 'Crescent',
    feel: 'turns open like a page, thin to full',
    roles: IN_OUT,
    ...letters,
    beats: 2,
    parameters: { slant: { ...ANGLE, label: 'Slant', min: -60, max: 60, default: 20 } },
    tracks: (p) => ({ scale: t([0, [0, 1], OUT], [1, [1, 1]]), skew: t([0, p.slant!, OUT], [1, 0]) }),
  },
  compass: {
    label: 'Compass',
    feel: 'letters turn upright from lying, needle',
    roles: IN_OUT,
    ...letters,
    beats: 2,
    parameters: { turn: { ...ANGLE, default: -90 }, overshoot: { ...OVERSHOOT, default: 0.4 } },
    tracks: (p) => ({ rotation: t([0, p.turn!, springy(p.overshoot!)], [1, 0]), opacity: fade(0.25) }),
  },
  ember: {
    label: 'Ember',
    feel: 'glows in another colour and cools, warm',
    roles: IN_OUT,
    ...letters,
    beats: 3,
    parameters: { softness: SOFTNESS },
    tracks: (p) => ({
      opacity: fade(0.3),
      tint: t([0, 1, HOLD], [0.35, 1, SOFT], [1, 0]),
      blur: t([0, p.softness! * 0.3, e('sine-out')], [0.4, 0]),
    }),
  },
  gust: {
    label: 'Gust',
    feel: 'blown in and straightens, leaning, wind',
    roles: IN_OUT,
    ...words,
    beats: 1.5,
    parameters: {
      slant: { ...ANGLE, label: 'Slant', min: -70, max: 70, default: -40 },
      distance: { ...DISTANCE, default: 1.5 },
    },
    tracks: (p) => ({
      skew: t([0, p.slant!, { type: 'spring', oscillations: 1.8, damping: 0.35 }], [1, 0]),
      move: t([0, [-Math.sign(p.slant! || 1) * -p.distance!, 0], OUT], [0.7, [0, 0]]),
      opacity: fade(0.25),
    }),
  },
  beacon: {
    label: 'Beacon',
    feel: 'typed letter by letter with a caret, typewriter',
    roles: IN_OUT,
    ...letters,
    overlap: 0,
    beats: 4,
    parameters: {},
    does: 'types',
    tracks: () => ({ opacity: t([0, 0, HOLD], [0.001, 1]) }),
  },
  static: {
    label: 'Static',
    feel: 'scrambled letters settle, code, glitch',
    roles: IN_OUT,
    ...letters,
    overlap: 0.6,
    beats: 3,
    parameters: {},
    tracks: () => ({ scramble: t([0, 1, HOLD], [1, 0]), opacity: t([0, 0, HOLD], [0.08, 1]) }),
  },
  altimeter: {
    label: 'Altimeter',
    feel: 'numbers count up, counter, score',
    roles: ['entrance'],
    ...whole,
    beats: 4,
    parameters: { from: { label: 'Counts from', min: -1e6, max: 1e6, default: 0, unit: '' } },
    does: 'counts',
    tracks: () => ({}),
  },
  waxing: {
    label: 'Waxing',
    feel: 'grows from thin to bold, weight',
    roles: IN_OUT,
    ...letters,
    beats: 3,
    parameters: { weight: { label: 'Lighter by', min: 0, max: 900, default: 500, unit: '' } },
    tracks: (p) => ({ weight: t([0, -p.weight!, e('cubic-out')], [1, 0]), opacity: fade(0.4) }),
  },
  sirocco: {
    label: 'Sirocco',
    feel: 'letters blow away with the wind, dust',
    roles: IN_OUT,
    ...letters,
    order: 'across',
    overlap: 0.85,
    beats: 3,
    parameters: { distance: { ...DISTANCE, default: 5 }, direction: { ...DIRECTION, default: -20 } },
    tracks: (p, u) => ({
      move: t(
        [0, away(p.distance! * (0.6 + 0.8 * u.random(0)), p.direction! + (u.random(1) - 0.5) * 50), e('cubic-out')],
        [1, [0, 0]],
      ),
      rotation: t([0, (u.random(2) - 0.5) * 240, e('cubic-out')], [1, 0]),
      blur: t([0, 0.2], [1, 0]),
      opacity: t([0, 0], [1, 1]),
    }),
  },
  dusk: {
    label: 'Dusk',
    feel: 'fades away, quiet',
    roles: ['exit', 'entrance'],
    ...whole,
    beats: 1,
    parameters: {},
    tracks: () => ({ opacity: t([0, 0, e('sine-out')], [1, 1]) }),
  },
  pulsar: {
    label: 'Pulsar',
    feel: 'swells on each beat, heartbeat',
    roles: ACCENT,
    ...whole,
    beats: 0.9,
    parameters: { amount: { ...AMOUNT, label: 'Swells by', default: 0.12 } },
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
    parameters: { amount: { ...AMOUNT, label: 'Swells by', default: 0.08 } },
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
    parameters: { grow: { label: 'Grows', min: -0.5, max: 0.5, default: 0.06, unit: '%' } },
    every: 'stay',
    tracks: (p) => ({ scale: t([0, [1, 1]], [1, [1 + p.grow!, 1 + p.grow!]]) }),
  },
} as const satisfies Record<string, GestureDefinition>;
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
