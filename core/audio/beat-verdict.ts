import type { Bpm } from '../time';
import type { SongAnalysis } from './analysis';
import { NO_BEAT_BELOW } from './beat-confidence';

/** Fewer beats say nothing. */
const LEAST_BEATS = 4;

/** Whether a song has beats that somebody would tap along with. */
export function hasSteadyBeat({ confidence }: Pick<SongAnalysis, 'confidence'>): boolean {
  if (confidence.length < LEAST_BEATS) return false;
  return confidence.reduce((sum, c) => sum + c, 0) / confidence.length >= NO_BEAT_BELOW;
}

/** A tempo half or twice as quick is a rival from this share of the chosen one's likelihood on. */
const RIVAL_SHARE = 0.3;
const SAME_TEMPO = 0.05;

/** The tempo of twice or half as many beats that fits about as well as the one that was chosen; null if none does. */
export function rivalTempo({ tempi }: Pick<SongAnalysis, 'tempi'>): { bpm: Bpm; isDouble: boolean } | null {
  const [chosen, ...others] = tempi;
  if (!chosen) return null;
  for (const { bpm, likelihood } of others) {
    if (likelihood < RIVAL_SHARE * chosen.likelihood) continue;
    const ratio = bpm / chosen.bpm;
    if (Math.abs(ratio / 2 - 1) < SAME_TEMPO) return { bpm, isDouble: true };
    if (Math.abs(ratio * 2 - 1) < SAME_TEMPO) return { bpm, isDouble: false };
  }
  return null;
}
