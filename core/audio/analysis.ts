import * as z from 'zod';
import { lengthSchema, numberSchema, secondsSchema } from '../time';

/**
 * Classes of onsets: low is kick-like, mid snare- or clap-like, high hat-like; tonal ones bring a new pitch without a
 * noisy attack.
 */
export const HIT_CLASSES = ['low', 'mid', 'high', 'tonal'] as const;
export type HitClass = (typeof HIT_CLASSES)[number];

/** Neutral names of a song's parts. */
export const SECTION_LABELS = ['intro', 'build', 'drop', 'main', 'break', 'outro'] as const;
export type SectionLabel = (typeof SECTION_LABELS)[number];

/** Raised when the method changes enough that stored results should be made anew. */
export const ANALYSIS_VERSION = 7;

/** An hour at four hundred beats a minute, and at the densest of hits and finest of curves. */
const MOST_BEATS = 40_000;
const MOST_HITS = 400_000;
const MOST_POINTS = 1_000_000;
const stretch = z.object({ start: secondsSchema, end: secondsSchema });
const times = z.array(secondsSchema).max(MOST_BEATS);
const shares = z.array(numberSchema).max(MOST_BEATS);
const points = z.array(numberSchema).max(MOST_POINTS);

/**
 * What the analysis of a song found. Times are seconds of the song. Never edited: corrections are stored in the piece.
 */
export const songAnalysisSchema = z.object({
  version: z.number().int(),
  duration: lengthSchema,
  bpm: numberSchema,
  /** Other readings of the tempo and how likely each is, the chosen one first. */
  tempi: z
    .array(z.object({ bpm: numberSchema, likelihood: numberSchema }))
    .max(100)
    .default([]),
  beats: times,
  downbeats: times,
  /** The most frequent number of beats a bar. */
  beatsPerBar: z.number().int().min(1).max(64),
  /** Each bar: index of its first beat, and its length in beats. */
  bars: z
    .array(
      z.object({
        beat: z.number().int().min(0).max(MOST_BEATS),
        beatsPerBar: z.number().int().min(1).max(64),
        /** How its beats group, such as 3 + 2; empty for none. */ groups: z
          .array(z.number().int().min(1).max(64))
          .max(16)
          .default([]),
        /** What it sounds like, for comparing bars. */ sound: z.array(numberSchema).max(256).default([]),
      }),
    )
    .max(MOST_BEATS)
    .default([]),
  /** One a beat, in [0, 1]: the chance that it is right. */
  confidence: shares,
  /** One a beat, in [0, 1]: how loud the music is from this beat to the next, relative to its loudest beat. */
  energy: shares.default([]),
  hits: z.array(z.object({ time: secondsSchema, class: z.enum(HIT_CLASSES), strength: numberSchema })).max(MOST_HITS),
  /** Parts of the song, without gaps, each from a downbeat to the next part; energy in [0, 1]. */
  sections: z
    .array(stretch.extend({ label: z.enum(SECTION_LABELS), energy: numberSchema }))
    .max(MOST_BEATS)
    .default([]),
  /** Where energy and bass jump up after a build or a gap, strongest first; strength in [0, 1]. */
  drops: z
    .array(z.object({ time: secondsSchema, strength: numberSchema }))
    .max(MOST_BEATS)
    .default([]),
  fills: z.array(stretch).max(MOST_BEATS).default([]),
  silences: z.array(stretch).max(MOST_BEATS).default([]),
  /**
   * ITU-R BS.1770-4: integrated and greatest short-term loudness in LUFS, true peak in dBTP; null where it wasn't
   * measured.
   */
  loudness: z
    .object({ integrated: numberSchema, shortTerm: numberSchema, truePeak: numberSchema })
    .nullable()
    .default(null),
  /** Onset strength in each band, 0…255, `curveRate` values a second. */
  curveRate: z.number().min(0).max(1000).default(0),
  curves: z.object({ low: points, mid: points, high: points }).default({ low: [], mid: [], high: [] }),
  /** Waveform: peak magnitude of each 1/`peakRate` s in [0, 255], and its RMS. */
  peakRate: z.number().min(0).max(1000),
  peaks: points,
  rms: points,
});
export type SongAnalysis = z.infer<typeof songAnalysisSchema>;
export type Hit = SongAnalysis['hits'][number];
export type Section = SongAnalysis['sections'][number];

/** Name of a hit to pin to. It carries the song, so that a pin never silently moves to a hit of another song. */
export const hitId = (songHash: string, index: number): string => `${songHash.slice(0, 8)}:${index}`;
