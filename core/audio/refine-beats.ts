import type { Seconds } from '../time';
import { frameTime } from './spectral-flux';

/** Frames to each side of a beat in which its onset is looked for. */
const REACH = 4;
/** Share of its peak at which an onset counts as begun: soft attacks peak late, but begin when they are heard. */
const BEGUN = 0.15;
/**
 * A rise compared over two hops crosses half its peak this much before the attack (a click does so 1.5 hops before its flux peaks).
 * Measured with clicks at known samples.
 */
const BEGUN_LEAD: Seconds = 0.0125;
/** Beats to each side that a beat's line is laid through. */
const SPAN = 8;

interface Attack {
  readonly time: Seconds;
  readonly strength: number;
}

function attackNear(frame: number, flux: Float32Array, onsets: Float32Array): Attack {
  const centre = Math.round(frame);
  let best = Math.max(1, Math.min(onsets.length - 2, centre));
  // The bend towards the expected place breaks ties between two attacks of one beat (a flam, an arpeggio).
  const value = (i: number) => (onsets[i] ?? 0) * (1 - 0.04 * Math.abs(i - frame));
  for (let i = Math.max(1, centre - REACH); i <= Math.min(onsets.length - 2, centre + REACH); i++) if (value(i) > value(best)) best = i;
  const peak = flux[best] ?? 0;
  let i = best;
  while (i > best - 5 && i > 0 && (flux[i - 1] ?? 0) >= BEGUN * peak && (flux[i - 1] ?? 0) <= (flux[i] ?? 0) * 1.02) i--;
  const [a, b] = [flux[i - 1] ?? 0, flux[i] ?? 0];
  const crossing = b > a ? i - Math.min(1, Math.max(0, (b - BEGUN * peak) / (b - a))) : i;
  return { time: frameTime(crossing) + BEGUN_LEAD, strength: onsets[best] ?? 0 };
}

interface Point {
  readonly x: number;
  readonly y: number;
  readonly w: number;
}

function weightedLine(points: readonly Point[]): { at0: number; slope: number } | null {
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

/**
 * Beat times below the hop size: the attack near each beat, then a local straight-line fit over ±8 beats, which averages
 * the jitter of single attacks and still follows a drifting tempo. Attacks farther than 30 ms from the line (syncopation,
 * nothing played) do not take part; a beat of a tempo that changes at once keeps its own side of the change.
 * @param frames - of the beats, ascending.
 * @returns Strictly ascending seconds, one a beat.
 */
export function refineBeats(frames: readonly number[], flux: Float32Array, onsets: Float32Array): Seconds[] {
  const attacks = frames.map((frame) => attackNear(frame, flux, onsets));
  const out = attacks.map((attack, i) => {
    let use = attacks.map((_, j) => j).slice(Math.max(0, i - SPAN), i + SPAN + 1);
    let fitted = frameTime(frames[i]!);
    for (let round = 0; round < 3; round++) {
      const fit = weightedLine(use.map((j) => ({ x: j - i, y: attacks[j]!.time, w: (0.05 + attacks[j]!.strength) / (1 + Math.abs(j - i) / SPAN) })));
      if (!fit) return attack.time;
      fitted = fit.at0;
      const limit = round === 0 ? 0.06 : 0.03;
      const kept = use.filter((j) => Math.abs(attacks[j]!.time - (fit.at0 + fit.slope * (j - i))) <= limit);
      if (kept.length < 4) break;
      use = kept;
    }
    return fitted;
  });
  for (let i = 1; i < out.length; i++) if (!(out[i]! > out[i - 1]! + 1e-3)) out[i] = out[i - 1]! + 1e-3;
  return out;
}
