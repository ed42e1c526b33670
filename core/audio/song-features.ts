import { pitchProfiles } from './pitch-profile';
import { ANALYSIS_RATE, HOP, onsetBands } from './spectral-flux';
import type { OnsetBands } from './spectral-flux';
import { meanPower, runningSums } from './tatum-features';
import type { RunningSums } from './tatum-features';
import { normaliseOnsets } from './tempo';

/** All curves that the search for beats looks at. */
export interface SongFeatures {
  readonly bands: OnsetBands;
  readonly sums: RunningSums;
  /** Onset strength over all bands, less its moving mean, of unit deviation. */
  readonly onsets: Float32Array;
  /** Onsets a second. */
  readonly onsetRate: number;
  /**
   * Frame of the first note; null if the recording begins in mid-sound, where the first note says nothing about the
   * bar.
   */
  readonly firstFrame: number | null;
  /**
   * Frame of the onset with which the sound is first about as loud as it is for most of the song: behind an intro, where
   * everyone comes in. Null if there is none, or the recording begins so in mid-sound.
   */
  readonly fullFrame: number | null;
}

/** A recording whose first 30 ms are louder than this share of its mean power was cut out of something. */
const CUT_SHARE = 0.02;
const QUIET_SAMPLES = Math.round(0.03 * ANALYSIS_RATE);

function firstNote(samples: Float32Array, onsets: Float32Array): number | null {
  let power = 0;
  for (let i = 0; i < samples.length; i++) power += samples[i]! * samples[i]!;
  let head = 0;
  for (let i = 0; i < Math.min(QUIET_SAMPLES, samples.length); i++) head += samples[i]! * samples[i]!;
  if (head / QUIET_SAMPLES > (CUT_SHARE * power) / samples.length) return null;
  for (let i = 0; i + 1 < onsets.length; i++) if (onsets[i]! > 0.8 && onsets[i]! >= onsets[i + 1]!) return i;
  return null;
}

/** Frames over which loudness is taken, and in which the onset that begins it is looked for. */
const FULL_SPAN = 50;
/** Frames before it that are looked at as well. */
const FULL_LEAD = 10;
/** Share of the median power that is as loud as the song usually is. */
const FULL_SHARE = 0.6;
/** Full from these first frames on: then the first note is the one. */
const FULL_FROM_START = 5;

/**
 * @param onsets - normalised onset strength, one value a frame.
 * @returns The frame of {@link SongFeatures.fullFrame}.
 */
export function fullStart(
  sums: Pick<RunningSums, 'power'>,
  onsets: Float32Array,
  firstFrame: number | null,
): number | null {
  const means = Float64Array.from({ length: Math.max(0, onsets.length - FULL_SPAN) }, (_, i) =>
    meanPower(sums, i, i + FULL_SPAN),
  );
  const usual = Float64Array.from(means).sort()[means.length >> 1] ?? 0;
  const from = means.findIndex((mean) => mean >= FULL_SHARE * usual);
  if (from < 0) return null;
  if (from < FULL_FROM_START) return firstFrame;
  let strongest = from;
  for (let i = Math.max(0, from - FULL_LEAD); i < from + FULL_SPAN; i++)
    if (onsets[i]! > onsets[strongest]!) strongest = i;
  return strongest;
}

/** @param samples - mono PCM at ANALYSIS_RATE. Not modified. */
export function songFeatures(samples: Float32Array, onProgress: (share: number) => void = () => {}): SongFeatures {
  const bands = onsetBands(samples, (share) => onProgress(share * 0.7));
  const sums = runningSums(
    bands,
    pitchProfiles(samples, (share) => onProgress(0.7 + share * 0.3)),
  );
  const onsets = normaliseOnsets(bands.all);
  let peaks = 0;
  for (let i = 1; i + 1 < onsets.length; i++)
    if (onsets[i]! > 1 && onsets[i]! >= onsets[i - 1]! && onsets[i]! > onsets[i + 1]!) peaks++;
  const firstFrame = firstNote(samples, onsets);
  return {
    bands,
    sums,
    onsets,
    onsetRate: (peaks * ANALYSIS_RATE) / HOP / Math.max(1, bands.frameCount),
    firstFrame,
    fullFrame: fullStart(sums, onsets, firstFrame),
  };
}
