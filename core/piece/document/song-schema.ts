import * as z from 'zod';
import { trackSchema } from '../../motion';
import { idSchema, lengthSchema, momentSchema, secondsSchema, textSchema } from '../../time';

/** The music, which is the clock of the piece, and the other sounds. */

const songStretch = z.strictObject({ start: secondsSchema, end: secondsSchema });
const beatsPerBar = z.number().int().min(1).max(16);
/** How the beats of a bar group, such as 3 + 2; empty for none. What does not add up to the bar counts as none. */
const groups = z.array(beatsPerBar).max(8);

const correctionFields = {
  /** Constant tempo in place of the found beats; null follows the analysis. */
  bpm: z.number().min(20).max(400).nullable(),
  /** 2 doubles the beats found, 0.5 keeps every second one. */
  factor: z.union([z.literal(0.5), z.literal(1), z.literal(2)]),
  /** Moves the whole grid. */
  shift: secondsSchema,
  /** Where "one" is; null follows the analysis. */
  firstDownbeat: secondsSchema.nullable(),
  beatsPerBar: beatsPerBar.nullable(),
};
const laterCorrectionFields = {
  /** Of the bars of `beatsPerBar`; null follows the analysis. */
  groups: groups.nullable(),
  /** Beats tapped along, in place of the found ones. */
  tapped: z.array(secondsSchema).max(20000).nullable(),
  /** Beats dragged from one time to another; their neighbours follow (see grid-corrections.ts). */
  moves: z.array(z.strictObject({ at: secondsSchema, to: secondsSchema })).max(2000),
  /** "This is one": a bar begins here, and bars have this many beats from here on. */
  bars: z.array(z.strictObject({ at: secondsSchema, beatsPerBar, groups: groups.default([]) })).max(500),
  /** Stretches with a known number of beats between two anchored times; the beats between are looked for. */
  spans: z.array(songStretch.extend({ beats: z.number().int().min(1).max(4000) })).max(200),
  /** Stretches without a pulse: no lattice, no snapping to beats. */
  free: z.array(songStretch).max(200),
};
/** A change of some corrections. */
export const correctionChangeSchema = z.strictObject({ ...correctionFields, ...laterCorrectionFields }).partial();

/**
 * Corrections by hand, kept apart from the analysis so that analysing anew never loses them. Times are seconds of the
 * song.
 */
export const gridCorrectionSchema = z.strictObject({
  ...correctionFields,
  groups: laterCorrectionFields.groups.default(null),
  tapped: laterCorrectionFields.tapped.default(null),
  moves: laterCorrectionFields.moves.default([]),
  bars: laterCorrectionFields.bars.default([]),
  spans: laterCorrectionFields.spans.default([]),
  free: laterCorrectionFields.free.default([]),
});
export type GridCorrection = z.infer<typeof gridCorrectionSchema>;

/** How a fade runs: evenly in amplitude, evenly in power, or with soft ends. */
export const FADE_CURVES = ['even', 'power', 'soft'] as const;
export type FadeCurve = (typeof FADE_CURVES)[number];

/**
 * Where the song jumps: having played up to `at`, it goes on from `to`. Later than `at` leaves a stretch out, earlier
 * repeats one. Seconds of the song.
 */
export const songCutSchema = z.strictObject({ at: secondsSchema, to: secondsSchema });
export type SongCut = z.infer<typeof songCutSchema>;

/** Loudest a sound is made: four times its own level, 12 dB. */
export const MAX_VOLUME = 4;
/** A track of numbers within bounds. */
const numberTrack = (min: number, max: number) =>
  trackSchema.refine(
    (t) => [t.value, ...t.keyframes.map((k) => k.value)].every((v) => typeof v === 'number' && v >= min && v <= max),
    `takes numbers from ${min} to ${max}`,
  );
/** Linear factor, keyframed in the time of the piece. */
export const volumeSchema = numberTrack(0, MAX_VOLUME);

const fades = {
  fadeIn: lengthSchema,
  fadeOut: lengthSchema,
  fadeInCurve: z.enum(FADE_CURVES).default('even'),
  fadeOutCurve: z.enum(FADE_CURVES).default('even'),
  /** In the order in which they are played. */
  cuts: z.array(songCutSchema).max(200).default([]),
};

/** Of a method of analysis. */
export const analysisVersionSchema = z.number().int().min(1).max(1000);

export const musicSchema = z.strictObject({
  mediaId: idSchema,
  /** The method of analysis that the piece is timed by; null for the one its song was first heard by. */
  analysisVersion: analysisVersionSchema.nullable().default(null),
  /** Seconds of the piece at which the song, cut by `trimStart`, begins. */
  start: secondsSchema,
  trimStart: lengthSchema,
  /** Seconds of the song at which it ends; null plays it to its end. */
  trimEnd: lengthSchema.positive().nullable(),
  volume: volumeSchema,
  ...fades,
  correction: gridCorrectionSchema,
});
export type Music = z.infer<typeof musicSchema>;

/** What a sound is there for; others give way to it by its role. */
export const SOUND_ROLES = {
  music: 'Music',
  voice: 'Voice',
  effect: 'Sound effect',
  footage: 'Sound of footage',
} as const;
const soundRole = z.enum(['music', 'voice', 'effect', 'footage']);

/** A sound beside the music. Nothing is timed by it: the music stays the clock. */
export const soundSchema = z.strictObject({
  id: idSchema,
  name: textSchema(200),
  mediaId: idSchema,
  role: soundRole,
  muted: z.boolean().default(false),
  /** When it begins. */
  start: momentSchema,
  /** Seconds of the file. */
  trimStart: lengthSchema,
  trimEnd: lengthSchema.positive().nullable(),
  /** Factor of its speed; its pitch stays. */
  speed: z.number().min(0.1).max(10).default(1),
  volume: volumeSchema,
  /** −1 left, 1 right. */
  pan: numberTrack(-1, 1),
  ...fades,
  /** It gives way while sounds of a role are heard: by so many decibels, in and out in so many seconds. */
  ducks: z
    .array(
      z.strictObject({
        by: soundRole,
        depth: z.number().min(0).max(60),
        attack: z.number().min(0).max(5),
        release: z.number().min(0).max(10),
      }),
    )
    .max(8)
    .default([]),
});
export type Sound = z.infer<typeof soundSchema>;

/** The beat grid of a piece without music. */
export const typedTempoSchema = z.strictObject({
  bpm: z.number().min(20).max(400),
  beatsPerBar,
  groups: groups.default([]),
  firstDownbeat: secondsSchema,
});
export type TypedTempo = z.infer<typeof typedTempoSchema>;
