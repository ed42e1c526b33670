import type { Seconds } from '../time';
import { frameTime } from './spectral-flux';

/** Frames to each side of a beat in which its onset is looked for. */
const REACH = 4;
/** Share of its peak at which an onset counts as begun: soft attacks peak late, but begin when they are heard. */
const BEGUN = 0.15;
/**
 * A rise compared over two hops crosses half its peak this much before the attack (a click does so 1.5 hops before its
 * flux peaks). Measured with clicks at known samples.
 */
const BEGUN_LEAD: Seconds = 0.0125;
/** Beats to each side that a beat's line is laid through. */
const SPAN = 8;

/** When the attack began that an onset curve shows as a peak at a frame. */
export function attackBegin(curve: Float32Array, frame: number): Seconds {
  const peak = curve[frame] ?? 0;
  let i = frame;
  while (i > frame - 5 && i > 0 && (curve[i - 1] ?? 0) >= BEGUN * peak && (curve[i - 1] ?? 0) <= (curve[i] ?? 0) * 1.02)
    i--;
  const [a, b] = [curve[i - 1] ?? 0, curve[i] ?? 0];
  const crossing = b > a ? i - Math.min(1, Math.max(0, (b - BEGUN * peak) / (b - a))) : i;
  return frameTime(crossing) + BEGUN_LEAD;
}

interface Attack {
  readonly time: Seconds;
  readonly strength: number;
}

function attackNear(frame: number, flux: Float32Array, onsets: Float32Array): Attack {
  const centre = Math.round(frame);
  let best = Math.max(1, Math.min(onsets.length - 2, centre));
  // The bend towards the expected place breaks ties between two attacks of one beat (a flam, an arpeggio).
  const value = (i: number) => (onsets[i] ?? 0) * (1 - 0.04 * Math.abs(i - frame));
  for (let i = Math.max(1, centre - REACH); i <= Math.min(onsets.length - 2, centre + REACH); i++)
    if (value(i) > value(best)) best = i;
  return { time: attackBegin(flux, best), strength: onsets[best] ?? 0 };
}

interface Point {
  readonly x: number;
  readonly y: number;
  readonly w: number;
}

/**
 * Weighted least squares of a parabola (of a line with fewer than six points): its value at 0 and the weighted mean
 * square of what is left.
 */
function fitCurve(points: readonly Point[]): { at: (x: number) => number; residual: number } | null {
  if (points.length < 3) return null;
  const degree = points.length >= 6 ? 2 : 1;
  const n = degree + 1;
  const m = Array.from({ length: n }, () => new Float64Array(n + 1));
  for (const { x, y, w } of points)
    for (let r = 0; r < n; r++) {
      for (let c = 0; c < n; c++) m[r]![c]! += w * x ** (r + c);
      m[r]![n]! += w * y * x ** r;
    }
  for (let r = 0; r < n; r++) {
    const pivot = m[r]![r]!;
    if (Math.abs(pivot) < 1e-9) return null;
    for (let k = 0; k < n; k++) {
      if (k === r) continue;
      const share = m[k]![r]! / pivot;
      for (let c = r; c <= n; c++) m[k]![c]! -= share * m[r]![c]!;
    }
  }
  const coefficients = m.map((row, r) => row[n]! / row[r]!);
  const at = (x: number) => coefficients.reduce((sum, k, power) => sum + k * x ** power, 0);
  let [sum, weight] = [0, 0];
  for (const { x, y, w } of points) {
    sum += w * (y - at(x)) ** 2;
    weight += w;
  }
  return { at, residual: sum / weight };
}

/**
 * Robust fit over a window of beats: three rounds, each without the attacks that lie too far off. Null if too few are
 * left.
 */
function fitWindow(
  attacks: readonly Attack[],
  i: number,
  from: number,
  to: number,
): { time: Seconds; residual: number } | null {
  let use = attacks.map((_, j) => j).slice(Math.max(0, from), to + 1);
  let best: { time: Seconds; residual: number } | null = null;
  for (let round = 0; round < 3; round++) {
    const fit = fitCurve(
      use.map((j) => ({
        x: j - i,
        y: attacks[j]!.time,
        w: (0.05 + attacks[j]!.strength) / (1 + Math.abs(j - i) / SPAN),
      })),
    );
    if (!fit) break;
    // What was left out speaks against the window too.
    best = {
      time: fit.at(0),
      residual:
        fit.residual + 2e-4 * (1 - use.length / Math.max(1, Math.min(attacks.length - 1, to) - Math.max(0, from) + 1)),
    };
    const limit = round === 0 ? 0.06 : 0.03;
    const kept = use.filter((j) => Math.abs(attacks[j]!.time - fit.at(j - i)) <= limit);
    if (kept.length < 4) break;
    use = kept;
  }
  return best;
}

/**
 * A one-sided window is taken only if it fits this much better: where the tempo jumps, a beat belongs to its own side.
 */
const ONE_SIDED = 0.3;

/**
 * Beat times below the hop size: the attack near each beat, then a local fit of a parabola over ±8 beats, which
 * averages the jitter of single attacks and still follows a drifting tempo. Attacks farther than 30 ms from the curve
 * (syncopation, nothing played) do not take part.
 * @param frames - of the beats, ascending.
 * @returns Strictly ascending seconds, one a beat.
 */
export function refineBeats(frames: readonly number[], flux: Float32Array, onsets: Float32Array): Seconds[] {
  const attacks = frames.map((frame) => attackNear(frame, flux, onsets));
  const out = attacks.map((attack, i) => {
    let best = fitWindow(attacks, i, i - SPAN, i + SPAN);
    for (const [from, to] of [
      [i - SPAN, i],
      [i, i + SPAN],
    ] as const) {
      if (from < 0 || to >= attacks.length) continue;
      const fit = fitWindow(attacks, i, from, to);
      if (fit && (!best || fit.residual < ONE_SIDED * best.residual - 4e-6)) best = fit;
    }
    return best?.time ?? attack.time;
  });
  for (let i = 1; i < out.length; i++) if (!(out[i]! > out[i - 1]! + 1e-3)) out[i] = out[i - 1]! + 1e-3;
  return out;
}
