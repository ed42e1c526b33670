import { hasSteadyBeat, rivalTempo } from '@core/audio';
import type { SongAnalysis } from '@core/audio';
import type { GridCorrection } from '@core/piece';
import type { Bpm } from '@core/time';

export interface BeatsHeard {
  readonly isSteady: boolean;
  /** The slower and the quicker of two tempi that fit about as well; null where one is clear. */
  readonly tempi: readonly [Bpm, Bpm] | null;
}

/** What is to be said of the beats as they were heard; null once a tempo was typed or beats were tapped. */
export function beatsHeard(analysis: SongAnalysis | null, correction: GridCorrection): BeatsHeard | null {
  if (!analysis || correction.bpm !== null || correction.tapped) return null;
  const isSteady = hasSteadyBeat(analysis);
  const rival = isSteady ? rivalTempo(analysis) : null;
  if (!rival) return { isSteady, tempi: null };
  const chosen = analysis.tempi[0]!.bpm;
  return { isSteady, tempi: rival.isDouble ? [chosen, rival.bpm] : [rival.bpm, chosen] };
}
