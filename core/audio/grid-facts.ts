import { explainedShare } from './explained-share';
import type { SongFeatures } from './song-features';
import { FRAME_RATE } from './spectral-flux';
import { FEATURE_COUNT } from './tatum-features';
import type { TatumGrid } from './tatum-features';

/** What the parameters of all readings of one grid share. */
export interface GridFacts {
  readonly grid: TatumGrid;
  /** Median length of a tatum in seconds. */
  readonly tatum: number;
  /** Onsets a second. */
  readonly onsetRate: number;
  /**
   * Where the first note lies, in tatums from the grid's first (fractional); null if the recording begins in mid-sound.
   */
  readonly start: number | null;
  /** The same of where the song is first as loud as usual. */
  readonly fullStart: number | null;
  /** How much of the onsets lies on the tatums, see {@link explainedShare}. */
  readonly explained: number;
  /** Of each feature, the mean product of values that lie `lag` tatums apart. */
  readonly periodicity: (lag: number) => Float64Array;
  /** The mean of these over all features. */
  readonly likeness: (lag: number) => number;
  /** Sums of the features by tatum index modulo `modulus`: [modulus × FEATURE_COUNT], and how many tatums each has. */
  readonly residues: (modulus: number) => { readonly sums: Float64Array; readonly counts: Float64Array };
}

function memo<T>(compute: (key: number) => T): (key: number) => T {
  const known = new Map<number, T>();
  return (key) => {
    let value = known.get(key);
    if (value === undefined) known.set(key, (value = compute(key)));
    return value;
  };
}

function tatumOfFrame(frames: Float64Array, frame: number): number {
  const last = frames.length - 1;
  if (last < 1) return 0;
  let i = 0;
  while (i < last - 1 && frames[i + 1]! <= frame) i++;
  return i + (frame - frames[i]!) / (frames[i + 1]! - frames[i]!);
}

export function gridFacts(
  grid: TatumGrid,
  song: Pick<SongFeatures, 'onsets' | 'onsetRate' | 'firstFrame' | 'fullFrame'>,
): GridFacts {
  const { frames, features } = grid;
  const { onsets, onsetRate, firstFrame, fullFrame } = song;
  const tatumOf = (frame: number | null) => (frame === null ? null : tatumOfFrame(frames, frame));
  const n = frames.length;
  const periodicity = memo((lag) => {
    const out = new Float64Array(FEATURE_COUNT);
    for (let i = 0; i < n - lag; i++)
      for (let f = 0; f < FEATURE_COUNT; f++)
        out[f]! += features[i * FEATURE_COUNT + f]! * features[(i + lag) * FEATURE_COUNT + f]!;
    return out.map((v) => (n > lag ? v / (n - lag) : 0));
  });
  const likeness = memo((lag) => periodicity(lag).reduce((all, v) => all + v, 0) / FEATURE_COUNT);
  const gaps = Float64Array.from({ length: Math.max(0, n - 1) }, (_, i) => frames[i + 1]! - frames[i]!).sort();
  return {
    grid,
    tatum: (gaps[gaps.length >> 1] ?? 1) / FRAME_RATE,
    onsetRate,
    start: tatumOf(firstFrame),
    fullStart: tatumOf(fullFrame),
    explained: explainedShare(frames, onsets),
    periodicity,
    likeness,
    residues: memo((modulus) => {
      const sums = new Float64Array(modulus * FEATURE_COUNT);
      const counts = new Float64Array(modulus);
      for (let i = 0; i < n; i++) {
        const r = i % modulus;
        counts[r]!++;
        for (let f = 0; f < FEATURE_COUNT; f++) sums[r * FEATURE_COUNT + f]! += features[i * FEATURE_COUNT + f]!;
      }
      return { sums, counts };
    }),
  };
}
