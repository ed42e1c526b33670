import { pitchProfiles } from './pitch-profile';
import { ANALYSIS_RATE, HOP, onsetBands } from './spectral-flux';
import type { OnsetBands } from './spectral-flux';
import { runningSums } from './tatum-features';
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
  return {
    bands,
    sums,
    onsets,
    onsetRate: (peaks * ANALYSIS_RATE) / HOP / Math.max(1, bands.frameCount),
    firstFrame: firstNote(samples, onsets),
  };
}
