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

/** Weights by x to the power of 0 to 4, and by y as well to that of 0 to 2, summed over points. */
type Moments = [w0: number, w1: number, w2: number, w3: number, w4: number, y0: number, y1: number, y2: number];

type Coefficients = [a: number, b: number, c: number];

/** Weighted least squares of a line. Null if the points don't determine one. */
function lineOf([w0, w1, w2, , , y0, y1]: Moments): Coefficients | null {
  const line = w0 * w2 - w1 * w1;
  if (Math.abs(w0) < 1e-9 || Math.abs(line / w0) < 1e-9) return null;
  return [(w2 * y0 - w1 * y1) / line, (w0 * y1 - w1 * y0) / line, 0];
}

/** Weighted least squares of a parabola a + bx + cx². Null if the points don't determine one. */
function parabolaOf([w0, w1, w2, w3, w4, y0, y1, y2]: Moments): Coefficients | null {
  const line = w0 * w2 - w1 * w1;
  // What is left of x² behind the line through it.
  const p = (w2 * w2 - w1 * w3) / line;
  const q = (w0 * w3 - w1 * w2) / line;
  const bend = w4 - p * w2 - q * w3;
  if (Math.abs(bend) < 1e-9) return null;
  const c = (y2 - p * y0 - q * y1) / bend;
  const rest = lineOf([w0, w1, w2, w3, w4, y0 - c * w2, y1 - c * w3, y2]);
  return rest && [rest[0], rest[1], c];
}

const weightOf = ({ strength }: Attack, x: number): number => (0.05 + strength) / (1 + Math.abs(x) / SPAN);

interface Curve {
  readonly at: (x: number) => number;
  /** Weighted mean square of what is left. */
  readonly residual: number;
}

/** A curve through the attacks of the beats `use`, counted from beat `i`: a parabola, with fewer than six a line. */
function fitCurve(attacks: readonly Attack[], use: readonly number[], i: number): Curve | null {
  if (use.length < 3) return null;
  const m: Moments = [0, 0, 0, 0, 0, 0, 0, 0];
  for (const j of use) {
    const x = j - i;
    const w = weightOf(attacks[j]!, x);
    const y = w * attacks[j]!.time;
    m[0] += w;
    m[1] += w * x;
    m[2] += w * x * x;
    m[3] += w * x * x * x;
    m[4] += w * x * x * x * x;
    m[5] += y;
    m[6] += y * x;
    m[7] += y * x * x;
  }
  const curve = use.length >= 6 ? parabolaOf(m) : lineOf(m);
  if (!curve) return null;
  const [a, b, c] = curve;
  const at = (x: number) => a + b * x + c * x * x;
  let [sum, weight] = [0, 0];
  for (const j of use) {
    const w = weightOf(attacks[j]!, j - i);
    const left = attacks[j]!.time - at(j - i);
    sum += w * left * left;
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
    const fit = fitCurve(attacks, use, i);
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

/** Times of which each is at least a millisecond after the one before it. */
export function ascending(times: readonly Seconds[]): Seconds[] {
  const out = [...times];
  for (let i = 1; i < out.length; i++) if (!(out[i]! > out[i - 1]! + 1e-3)) out[i] = out[i - 1]! + 1e-3;
  return out;
}

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
  return ascending(out);
}
