import type { Seconds } from '../time';
import { PROFILE_SIZE, timeProfile } from './pitch-profile';
import { timeFrame } from './spectral-flux';
import type { SongFeatures } from './song-features';

/** What sounds from each beat to the next; the last beat takes the length of the one before. */
export interface BeatSound {
  /** Mean power. */
  readonly power: Float64Array;
  /** Mean magnitude below 160 Hz. */
  readonly bass: Float64Array;
  /** Mean onset strength above 300 Hz. */
  readonly busy: Float64Array;
  /** [beat × PROFILE_SIZE] mean pitch profile. */
  readonly profile: Float64Array;
}

export function beatSound(beats: readonly Seconds[], { bands, sums }: SongFeatures): BeatSound {
  const n = beats.length;
  const out = {
    power: new Float64Array(n),
    bass: new Float64Array(n),
    busy: new Float64Array(n),
    profile: new Float64Array(n * PROFILE_SIZE),
  };
  for (let i = 0; i < n; i++) {
    const end = beats[i + 1] ?? beats[i]! + (beats[i]! - (beats[i - 1] ?? beats[i]! - 0.5));
    const from = Math.max(0, Math.min(bands.frameCount - 1, Math.round(timeFrame(beats[i]!))));
    const to = Math.max(from + 1, Math.min(bands.frameCount, Math.round(timeFrame(end))));
    for (let f = from; f < to; f++) {
      out.power[i]! += bands.power[f]! / (to - from);
      out.bass[i]! += bands.bass[f]! / (to - from);
      out.busy[i]! += (bands.mid[f]! + bands.snap[f]! + bands.high[f]!) / (to - from);
    }
    const a = Math.max(0, Math.min(sums.rows, Math.round(timeProfile(beats[i]!))));
    const b = Math.max(a, Math.min(sums.rows, Math.round(timeProfile(end))));
    for (let p = 0; p < PROFILE_SIZE; p++)
      out.profile[i * PROFILE_SIZE + p] =
        (sums.profiles[b * PROFILE_SIZE + p]! - sums.profiles[a * PROFILE_SIZE + p]!) / Math.max(1, b - a);
  }
  return out;
}

/** Loudness of each beat in [0, 1]: decibels, from 30 below the 95th percentile up to it. */
export function beatEnergy(sound: BeatSound): number[] {
  const decibels = Array.from(sound.power, (p) => 10 * Math.log10(p + 1e-10));
  const top = [...decibels].sort((a, b) => a - b)[Math.floor(decibels.length * 0.95)] ?? 0;
  return decibels.map((d) => Math.round(1000 * Math.max(0, Math.min(1, 1 + (d - top) / 30))) / 1000);
}
