import { z } from 'zod';

/** Classes of onsets: low is kick-like, mid snare- or clap-like, high hat-like; tonal ones bring a new pitch without a noisy attack. */
export const HIT_CLASSES = ['low', 'mid', 'high', 'tonal'] as const;
export type HitClass = (typeof HIT_CLASSES)[number];

/** Neutral names of a song's parts. */
export const SECTION_LABELS = ['intro', 'build', 'drop', 'main', 'break', 'outro'] as const;
export type SectionLabel = (typeof SECTION_LABELS)[number];

/** Raised when the method changes enough that stored results should be made anew. */
export const ANALYSIS_VERSION = 2;

const stretch = z.object({ start: z.number(), end: z.number() });

/** What the analysis of a song found. Times are seconds of the song. Never edited: corrections are stored in the piece. */
export const songAnalysisSchema = z.object({
  version: z.number().int(),
  duration: z.number(),
  bpm: z.number(),
  /** Other readings of the tempo and how likely each is, the chosen one first. */
  tempi: z.array(z.object({ bpm: z.number(), likelihood: z.number() })).default([]),
  beats: z.array(z.number()),
  downbeats: z.array(z.number()),
  /** The most frequent number of beats a bar. */
  beatsPerBar: z.number().int(),
  /** Each bar: index of its first beat, and its length in beats. */
  bars: z.array(z.object({ beat: z.number().int(), beatsPerBar: z.number().int(), /** What it sounds like, for comparing bars. */ sound: z.array(z.number()).default([]) })).default([]),
  /** One a beat, in [0, 1]. */
  confidence: z.array(z.number()),
  /** One a beat, in [0, 1]: how loud the music is from this beat to the next, relative to its loudest beat. */
  energy: z.array(z.number()).default([]),
  hits: z.array(z.object({ time: z.number(), class: z.enum(HIT_CLASSES), strength: z.number() })),
  /** Parts of the song, without gaps, each from a downbeat to the next part; energy in [0, 1]. */
  sections: z.array(stretch.extend({ label: z.enum(SECTION_LABELS), energy: z.number() })).default([]),
  /** Where energy and bass jump up after a build or a gap, strongest first; strength in [0, 1]. */
  drops: z.array(z.object({ time: z.number(), strength: z.number() })).default([]),
  fills: z.array(stretch).default([]),
  silences: z.array(stretch).default([]),
  /** ITU-R BS.1770-4: integrated and greatest short-term loudness in LUFS, true peak in dBTP; null where it wasn't measured. */
  loudness: z.object({ integrated: z.number(), shortTerm: z.number(), truePeak: z.number() }).nullable().default(null),
  /** Onset strength in each band, 0…255, `curveRate` values a second. */
  curveRate: z.number().default(0),
  curves: z.object({ low: z.array(z.number()), mid: z.array(z.number()), high: z.array(z.number()) }).default({ low: [], mid: [], high: [] }),
  /** Waveform: peak magnitude of each 1/`peakRate` s in [0, 255], and its RMS. */
  peakRate: z.number(),
  peaks: z.array(z.number()),
  rms: z.array(z.number()),
});
export type SongAnalysis = z.infer<typeof songAnalysisSchema>;
export type Hit = SongAnalysis['hits'][number];
export type Section = SongAnalysis['sections'][number];

/** Name of a hit to pin to. It carries the song, so that a pin never silently moves to a hit of another song. */
export const hitId = (songHash: string, index: number): string => `${songHash.slice(0, 8)}:${index}`;
