import { z } from 'zod';

/** Classes of onsets: low is kick-like, mid snare- or clap-like, high hat-like. */
export const HIT_CLASSES = ['low', 'mid', 'high'] as const;
export type HitClass = (typeof HIT_CLASSES)[number];

/** Raised when the method changes enough that stored results should be made anew. */
export const ANALYSIS_VERSION = 1;

/** What the analysis of a song found. Times are seconds of the song. Never edited: corrections are stored in the piece. */
export const songAnalysisSchema = z.object({
  version: z.number().int(),
  duration: z.number(),
  bpm: z.number(),
  beats: z.array(z.number()),
  downbeats: z.array(z.number()),
  beatsPerBar: z.number().int(),
  /** One a beat, in [0, 1]. */
  confidence: z.array(z.number()),
  hits: z.array(z.object({ time: z.number(), class: z.enum(HIT_CLASSES), strength: z.number() })),
  /** Waveform: peak magnitude of each 1/`peakRate` s in [0, 255], and its RMS. */
  peakRate: z.number(),
  peaks: z.array(z.number()),
  rms: z.array(z.number()),
});
export type SongAnalysis = z.infer<typeof songAnalysisSchema>;
export type Hit = SongAnalysis['hits'][number];

/** Name of a hit to pin to. It carries the song, so that a pin never silently moves to a hit of another song. */
export const hitId = (songHash: string, index: number): string => `${songHash.slice(0, 8)}:${index}`;
