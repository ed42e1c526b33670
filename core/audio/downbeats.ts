import type { Seconds } from '../time';
import type { OnsetBands } from './spectral-flux';
import { timeFrame } from './spectral-flux';

/** Beats a bar that are tried, with a prior: most music that is cut to pictures runs in four. */
const METERS = [{ beatsPerBar: 4, prior: 1 }, { beatsPerBar: 3, prior: 0.87 }] as const;

/** Sum of a curve over a few frames around a time. */
function around(curve: Float32Array, seconds: Seconds, before: number, after: number): number {
  const centre = Math.round(timeFrame(seconds));
  let sum = 0;
  for (let i = centre - before; i <= centre + after; i++) sum += curve[i] ?? 0;
  return sum;
}

/** Mean chroma between two times, scaled to unit length. */
function chromaBetween(chroma: Float32Array, from: Seconds, to: Seconds): Float64Array {
  const out = new Float64Array(12);
  const a = Math.max(0, Math.round(timeFrame(from)));
  const b = Math.min(chroma.length / 12, Math.round(timeFrame(to)));
  for (let frame = a; frame < b; frame++) for (let p = 0; p < 12; p++) out[p]! += chroma[frame * 12 + p]!;
  const norm = Math.hypot(...out) || 1;
  return out.map((v) => v / norm);
}

function zScores(values: readonly number[]): number[] {
  const mean = values.reduce((a, b) => a + b, 0) / Math.max(1, values.length);
  const deviation = Math.sqrt(values.reduce((a, b) => a + (b - mean) ** 2, 0) / Math.max(1, values.length)) || 1;
  return values.map((v) => (v - mean) / deviation);
}

/**
 * Which beats begin a bar: bass onsets fall and harmony changes on downbeats more than elsewhere. Each beat gets the sum
 * of both as z-scores; the meter and phase whose beats score highest on average win.
 * @returns The index of the first downbeat (below beatsPerBar) and the beats a bar.
 */
export function findDownbeats(beats: readonly Seconds[], bands: OnsetBands): { first: number; beatsPerBar: number } {
  if (beats.length < 6) return { first: 0, beatsPerBar: 4 };
  const bass = zScores(beats.map((t) => around(bands.low, t, 2, 3)));
  const change = zScores(
    beats.map((t, i) => {
      const before = beats[i - 1];
      const after = beats[i + 1];
      if (before === undefined || after === undefined) return 0;
      const p = chromaBetween(bands.chroma, before, t - 0.02);
      const q = chromaBetween(bands.chroma, t + 0.03, after);
      let dot = 0;
      for (let k = 0; k < 12; k++) dot += p[k]! * q[k]!;
      return 1 - dot;
    }),
  );
  let best = { first: 0, beatsPerBar: 4, score: -Infinity };
  for (const { beatsPerBar, prior } of METERS) {
    for (let phase = 0; phase < beatsPerBar; phase++) {
      let sum = 0;
      let count = 0;
      for (let i = phase; i < beats.length; i += beatsPerBar) {
        sum += Math.min(2.5, bass[i]!) + 1.2 * Math.min(2.5, change[i]!);
        count++;
      }
      const score = (sum / count) * prior;
      if (score > best.score) best = { first: phase, beatsPerBar, score };
    }
  }
  return { first: best.first, beatsPerBar: best.beatsPerBar };
}
