import type { Bpm, Seconds } from '../time';
import { ANALYSIS_RATE, HOP, frameTime } from './spectral-flux';

const FRAME_RATE = ANALYSIS_RATE / HOP;
/** Cost of leaving the tempo, per squared log-ratio of intervals; the published value, in units of the normalised onset curve. */
const TIGHTNESS = 100;

/**
 * Beats by dynamic programming: the sequence of frames that maximises the onset strength on the beats minus a penalty for
 * intervals that differ from the given period. @returns Frame indices, ascending.
 * @see D. P. W. Ellis, "Beat Tracking by Dynamic Programming", JNMR 36(1), 2007, section 2.
 */
export function trackBeats(onsets: Float32Array, bpm: Bpm): number[] {
  const n = onsets.length;
  const period = (60 * FRAME_RATE) / bpm;
  if (n < period * 2) return [];
  const smooth = smoothOnsets(onsets, period);
  const nearest = Math.max(1, Math.round(period / 2));
  const farthest = Math.round(period * 2);
  const cost = new Float64Array(farthest + 1);
  for (let d = nearest; d <= farthest; d++) cost[d] = -TIGHTNESS * Math.log(d / period) ** 2;
  const score = new Float64Array(n);
  const back = new Int32Array(n).fill(-1);
  for (let t = 0; t < n; t++) {
    let best = 0; // starting here costs nothing: silence before the music must not bind the phase
    let from = -1;
    for (let d = nearest; d <= farthest && d <= t; d++) {
      const candidate = score[t - d]! + cost[d]!;
      if (candidate > best) {
        best = candidate;
        from = t - d;
      }
    }
    score[t] = smooth[t]! + best;
    back[t] = from;
  }
  let end = n - 1;
  for (let t = Math.max(0, n - farthest); t < n; t++) if (score[t]! > score[end]!) end = t;
  const beats: number[] = [];
  for (let t = end; t >= 0; t = back[t]!) beats.push(t);
  beats.reverse();
  return trimSilentEnds(beats, smooth);
}

/** Gaussian smoothing of 1/32 of a beat, so that hits a little off the grid still support their beat. */
function smoothOnsets(onsets: Float32Array, period: number): Float32Array {
  const sigma = period / 32;
  const radius = Math.ceil(sigma * 3);
  const kernel = Array.from({ length: 2 * radius + 1 }, (_, i) => Math.exp(-0.5 * ((i - radius) / sigma) ** 2));
  const out = new Float32Array(onsets.length);
  for (let i = 0; i < onsets.length; i++) {
    let sum = 0;
    for (let k = -radius; k <= radius; k++) sum += kernel[k + radius]! * (onsets[i + k] ?? 0);
    out[i] = sum;
  }
  return out;
}

/** Beats before the first and after the last that carry hardly any onset are guesses into silence. */
function trimSilentEnds(beats: number[], smooth: Float32Array): number[] {
  const strengths = beats.map((t) => smooth[t]!);
  const rms = Math.sqrt(strengths.reduce((a, s) => a + s * s, 0) / Math.max(1, strengths.length));
  let first = 0;
  let last = beats.length;
  while (first < last && strengths[first]! < 0.25 * rms) first++;
  while (last > first && strengths[last - 1]! < 0.1 * rms) last--;
  return beats.slice(first, last);
}

/**
 * Beat times below the hop size: the parabola through the onset peak near each beat, then a local straight-line fit over
 * ±8 beats, which averages the jitter of single onsets and still follows a drifting tempo. Peaks farther than 30 ms
 * from the line (syncopation, nothing played) do not take part in it.
 */
export function refineBeats(frames: readonly number[], onsets: Float32Array): Seconds[] {
  const peaks = frames.map((frame) => {
    let best = frame;
    for (let t = Math.max(1, frame - 4); t <= Math.min(onsets.length - 2, frame + 4); t++) if (onsets[t]! > onsets[best]!) best = t;
    const [a, b, c] = [onsets[best - 1] ?? 0, onsets[best]!, onsets[best + 1] ?? 0];
    const curvature = a - 2 * b + c;
    const shift = curvature < 0 ? Math.max(-0.5, Math.min(0.5, (0.5 * (a - c)) / curvature)) : 0;
    return { time: frameTime(best + shift), strength: b };
  });
  return peaks.map((peak, i) => {
    let use = peaks.map((_, j) => j).slice(Math.max(0, i - 8), i + 9);
    let fitted = peak.time;
    for (let round = 0; round < 3; round++) {
      const fit = weightedLine(use.map((j) => ({ x: j - i, y: peaks[j]!.time, w: 0.05 + peaks[j]!.strength })));
      if (!fit) break;
      fitted = fit.at0;
      const limit = round === 0 ? 0.06 : 0.03;
      const kept = use.filter((j) => Math.abs(peaks[j]!.time - (fit.at0 + fit.slope * (j - i))) <= limit);
      if (kept.length < 4) break;
      use = kept;
    }
    return fitted;
  });
}

function weightedLine(points: readonly { x: number; y: number; w: number }[]): { at0: number; slope: number } | null {
  let [w, x, y, xx, xy] = [0, 0, 0, 0, 0];
  for (const p of points) {
    w += p.w;
    x += p.w * p.x;
    y += p.w * p.y;
    xx += p.w * p.x * p.x;
    xy += p.w * p.x * p.y;
  }
  const determinant = w * xx - x * x;
  if (points.length < 3 || determinant <= 1e-12) return null;
  const slope = (w * xy - x * y) / determinant;
  return { at0: (y - slope * x) / w, slope };
}
