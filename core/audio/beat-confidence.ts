import type { FoundBeats } from './find-beats';
import type { SongFeatures } from './song-features';
import { timeFrame } from './spectral-flux';

/**
 * How sure each beat is: the chance that a listener would tap there. A logistic regression of a few plain facts, fitted
 * by `npm run fit:confidence` to music with known beats and to sounds without any; docs/BEATS.md has how well it is
 * calibrated.
 */
export const CONFIDENCE_FACTS = [
  'one',
  /** Something sets in on the beat. */
  'onset',
  /** Its neighbours are as far away as one another. */
  'even',
  /** The same of the beats around. */
  'onsetsAround',
  'evenAround',
  /** More sets in on the beats around than half-way between them. */
  'contrastAround',
  /** What sets in on the beats around is more than the ripple of steady tones. */
  'riseAround',
  /** Log-odds of the readings with these beats. */
  'reading',
  /** Correlation of the onsets of neighbouring beats and bars. */
  'beats',
  'bars',
] as const;

export const CONFIDENCE_WEIGHTS: Readonly<Record<(typeof CONFIDENCE_FACTS)[number], number>> = {
  one: -6.829,
  onset: 1.329,
  even: 1.062,
  onsetsAround: -0.993,
  evenAround: 4.492,
  contrastAround: 0.01,
  riseAround: 0.303,
  reading: 0.778,
  beats: 1.257,
  bars: 2.181,
};

/** Below this mean a song has no steady beat: it lies between sounds without beats and music (docs/BEATS.md). */
export const NO_BEAT_BELOW = 0.3;

/** Beats to each side that count as around. */
const AROUND = 8;
const MOST_ODDS = 4;

const mean = (values: readonly number[], i: number): number => {
  const [from, to] = [Math.max(0, i - AROUND), Math.min(values.length, i + AROUND + 1)];
  let sum = 0;
  for (let k = from; k < to; k++) sum += values[k]!;
  return sum / (to - from);
};

/** @returns For each beat a value for each of {@link CONFIDENCE_FACTS}. */
export function confidenceFacts({ beats, evidence }: FoundBeats, { onsets, bands }: SongFeatures): number[][] {
  const peakAt = (curve: Float32Array, seconds: number, half: number): number => {
    const frame = Math.round(timeFrame(seconds));
    let peak = 0;
    for (let k = -3; k <= 3; k++) peak = Math.max(peak, curve[frame + k] ?? 0);
    return peak / (peak + half);
  };
  const strengthAt = (seconds: number): number => peakAt(onsets, seconds, 0.6);
  const onset = beats.map(strengthAt);
  const rise = beats.map((t) => peakAt(bands.all, t, 1));
  const between = beats.map((t, i) => strengthAt((t + (beats[i + 1] ?? t)) / 2));
  const even = beats.map((t, i) => {
    const [before, after] = [t - (beats[i - 1] ?? NaN), (beats[i + 1] ?? NaN) - t];
    return before > 0 && after > 0 ? Math.exp(-12 * Math.abs(Math.log(after / before))) : 1;
  });
  const share = Math.min(1 - 1e-6, Math.max(1e-6, evidence.reading));
  const odds = Math.max(-MOST_ODDS, Math.min(MOST_ODDS, Math.log(share / (1 - share))));
  return beats.map((_, i) => [
    1,
    onset[i]!,
    even[i]!,
    mean(onset, i),
    mean(even, i),
    mean(onset, i) - mean(between, i),
    mean(rise, i),
    odds,
    evidence.beats,
    evidence.bars,
  ]);
}

/** One a beat, in [0, 1]. */
export const beatConfidence = (found: FoundBeats, features: SongFeatures): number[] =>
  confidenceFacts(found, features).map((facts) => {
    const sum = facts.reduce((all, fact, k) => all + fact * CONFIDENCE_WEIGHTS[CONFIDENCE_FACTS[k]!], 0);
    return Math.round(100 / (1 + Math.exp(-sum))) / 100;
  });
