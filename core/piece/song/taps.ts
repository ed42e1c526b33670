import type { Hit } from '../../audio';
import { nearestIndex } from '../../time';
import type { Seconds } from '../../time';
import { followHits } from './grid-corrections';

/** Taps needed before they mean anything. */
export const FEWEST_TAPS = 4;
/** People tap a little before or behind the beat, the same amount for a while: what they mean is the hits near by. */
const NEAR_HITS: Seconds = 0.09;

/** Median of the values; NaN for none. */
function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted.length ? (sorted[(sorted.length - 1) >> 1]! + sorted[sorted.length >> 1]!) / 2 : NaN;
}

/**
 * Beats of a whole song from taps along with a stretch of it. A missed or doubled tap does no harm: intervals are
 * counted in periods. The line through the taps gives tempo and phase; the phase is drawn to the onsets that were
 * really played, and the beats then follow the hits to both ends of the song.
 * @param taps - seconds of the song, in any order.
 * @returns Null for fewer than {@link FEWEST_TAPS}, or if they are too uneven to have a tempo.
 */
export function beatsFromTaps(taps: readonly Seconds[], hits: readonly Hit[], duration: Seconds): Seconds[] | null {
  const sorted = [...taps].sort((a, b) => a - b).filter((t, i, all) => i === 0 || t - all[i - 1]! > 0.12);
  if (sorted.length < FEWEST_TAPS) return null;
  const gaps = sorted.slice(1).map((t, i) => t - sorted[i]!);
  const rough = median(gaps);
  const uneven = gaps.filter((g) => Math.abs(g / rough - Math.round(g / rough)) > 0.3 || g < 0.5 * rough).length;
  if (!(rough > 0.15 && rough < 3) || uneven > gaps.length / 2) return null;
  const index: number[] = [0];
  for (const gap of gaps) index.push(index[index.length - 1]! + Math.max(1, Math.round(gap / rough)));
  const n = sorted.length;
  const meanX = index.reduce((a, b) => a + b, 0) / n;
  const meanY = sorted.reduce((a, b) => a + b, 0) / n;
  const slope =
    index.reduce((a, x, i) => a + (x - meanX) * (sorted[i]! - meanY), 0) /
    index.reduce((a, x) => a + (x - meanX) ** 2, 0);
  const line = (x: number) => meanY + slope * (x - meanX);
  // Strong hits near the tapped line say where the beat really is.
  const strong = hits.filter((h) => h.strength > 0.3);
  const starts = strong.map((h) => h.time);
  const offsets =
    strong.length === 0
      ? []
      : index
          .map((x) => starts[nearestIndex(starts, line(x))]! - line(x))
          .filter((d) => Math.abs(d) <= Math.min(NEAR_HITS, slope / 4));
  const shift = offsets.length >= n / 2 ? median(offsets) : 0;
  const middle = line(Math.round(meanX)) + shift;
  return [...followHits(middle, 0, slope, hits).slice(0, -1), ...followHits(middle, duration, slope, hits)];
}
