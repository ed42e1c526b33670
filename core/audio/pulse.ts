import type { Bpm, Hertz } from '../time';
import { FRAME_RATE } from './spectral-flux';

/**
 * A pulse: a steady but flexible row of times, found for one hypothesis of the tempo. It may be the beat or the
 * off-beat; which of them is decided later (meter.ts), from what happens at its quarters and thirds.
 *
 * Decoded by Viterbi over (time, interval), the semi-Markov form of the bar pointer model: a state is entered on a
 * pulse and left one interval later, so only pulses cost anything and a drift of tempo is a change of interval.
 * @see F. Krebs, S. Böck, G. Widmer, "An Efficient State-Space Model for Joint Tempo and Meter Tracking", ISMIR 2015
 */

/** Intervals that are tried, as a factor of the hypothesis. Wider would meet the next metrical level. */
const SPREAD = 1.35;
/** Standard deviation of the log-ratio of neighbouring intervals, and its weight against the onset strength. */
const DRIFT = 0.035;
const DRIFT_WEIGHT = 1.2;
/** Cost of a jump to any interval (a change of tempo, a fermata). */
const JUMP_COST = 14;
/**
 * Intervals of this many frames and more are tracked at half the frame rate, an eighth of the work: they are found to
 * 20 ms, which the tatums' windows and the refinement cover.
 */
const COARSE_FROM = 58;
/** Weights of the onsets at the quarters of an interval: they keep a pulse in step when nothing sounds on it. */
const QUARTERS = [1, 0.35, 0.6, 0.35] as const;

/**
 * The curve averaged with its neighbours (binomial over ±2 frames), so that hits a little off the pulse still support
 * it.
 */
function blurred(curve: Float32Array): Float32Array {
  const n = curve.length;
  const out = new Float32Array(n);
  const at = (i: number) => curve[i < 0 ? 0 : i >= n ? n - 1 : i]!;
  for (let i = 0; i < n; i++) out[i] = (at(i - 2) + 4 * at(i - 1) + 6 * at(i) + 4 * at(i + 1) + at(i + 2)) / 16;
  return out;
}

/**
 * @param onsets - normalised onset strength, one value a frame.
 * @returns Frame indices of the pulses, ascending, from the first frames to the last ones; empty if the curve is
 * shorter than four intervals.
 */
export function trackPulse(onsets: Float32Array, bpm: Bpm): Int32Array {
  if ((60 * FRAME_RATE) / bpm < COARSE_FROM) return trackAt(onsets, bpm, FRAME_RATE);
  const halved = new Float32Array(onsets.length >> 1);
  for (let i = 0; i < halved.length; i++) halved[i] = Math.max(onsets[2 * i]!, onsets[2 * i + 1]!);
  return trackAt(halved, bpm, FRAME_RATE / 2).map((frame) => 2 * frame);
}

function trackAt(onsets: Float32Array, bpm: Bpm, rate: Hertz): Int32Array {
  const period = (60 * rate) / bpm;
  const n = onsets.length;
  const shortest = Math.max(8, Math.round(period / SPREAD));
  const longest = Math.round(period * SPREAD);
  if (n < period * 4) return new Int32Array(0);
  const smooth = blurred(onsets);
  let mean = 0;
  for (let i = 0; i < n; i++) mean += smooth[i]! / n;
  const count = longest - shortest + 1;
  // Neighbouring intervals within three deviations; farther ones share the jump.
  const reach = Math.ceil(longest * DRIFT * 3);
  const width = 2 * reach + 1;
  const step = new Float64Array(count * width).fill(Infinity);
  for (let from = 0; from < count; from++) {
    for (let to = Math.max(0, from - reach); to <= Math.min(count - 1, from + reach); to++) {
      const ratio = Math.log((to + shortest) / (from + shortest)) / DRIFT;
      const cost = DRIFT_WEIGHT * 0.5 * ratio * ratio;
      if (cost < JUMP_COST) step[from * width + to - from + reach] = cost;
    }
  }
  // Row t % rows, column k: the best sum of everything up to a pulse at frame t that ends an interval of shortest + k. No
  // row is written farther ahead than the longest interval.
  const rows = longest + 1;
  const score = new Float32Array(rows * count).fill(-Infinity);
  // Intervals are fewer than 128: the slowest tempo has 37 (at half the frame rate).
  const back = new Int8Array(n * count).fill(-1);
  const best = new Float32Array(n).fill(-Infinity);
  const bestAt = new Int8Array(n);
  // Frames from the begin of each interval to its quarters.
  const quarters = Int16Array.from({ length: 4 * count }, (_, i) => Math.round(((i & 3) * ((i >> 2) + shortest)) / 4));
  // One column of its own for transitions out of frame t.
  const leave = new Float64Array(count);
  const leaveFrom = new Int8Array(count);
  for (let t = 0; t < n; t++) {
    const row = (t % rows) * count;
    const jump = best[t]! - JUMP_COST;
    const start = t < longest ? 0 : -Infinity;
    leave.fill(Math.max(start, jump));
    leaveFrom.fill(jump > start ? bestAt[t]! : -1);
    // An interval that is worse than a jump from the best one leads nowhere: few are left to be drawn on.
    for (let from = 0; from < count; from++) {
      const value = score[row + from]!;
      if (!(value > jump)) continue;
      const lo = Math.max(0, from - reach);
      const hi = Math.min(count - 1, from + reach);
      for (let to = lo, at = from * width + lo - from + reach; to <= hi; to++, at++) {
        const candidate = value - step[at]!;
        if (candidate > leave[to]!) {
          leave[to] = candidate;
          leaveFrom[to] = from;
        }
      }
    }
    score.fill(-Infinity, row, row + count);
    let ahead = ((t + shortest) % rows) * count;
    for (let to = 0; to < count; to++, ahead = ahead + count === score.length ? 0 : ahead + count) {
      const interval = to + shortest;
      const end = t + interval;
      if (end >= n) break;
      if (leave[to] === -Infinity) continue;
      let gain = 0;
      for (let q = 0; q < 4; q++) gain += QUARTERS[q]! * (smooth[t + quarters[4 * to + q]!]! - mean);
      const total = leave[to]! + gain;
      score[ahead + to] = total;
      back[end * count + to] = leaveFrom[to]!;
      if (total > best[end]!) {
        best[end] = total;
        bestAt[end] = to;
      }
    }
  }
  let end = n - 1;
  for (let t = Math.max(0, n - longest); t < n; t++) if (best[t]! > best[end]!) end = t;
  const pulses: number[] = [];
  let k = best[end]! > -Infinity ? bestAt[end]! : -1;
  let t = end;
  if (k >= 0) pulses.push(t);
  while (k >= 0) {
    const from = back[t * count + k]!;
    t -= k + shortest;
    pulses.push(t);
    k = from;
  }
  return Int32Array.from(pulses.reverse());
}
