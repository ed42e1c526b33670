import { HIT_CLASSES } from './analysis';
import type { Hit, HitClass } from './analysis';
import { frameTime } from './spectral-flux';
import type { OnsetBands } from './spectral-flux';

/** A peak is a hit if it tops its surroundings (±3 frames) and stands this far above their mean over ±0.25 s, in robust deviations. */
const THRESHOLD = 2.2;
/** Rises below this are the ripple of steady tones under log compression, not onsets: a click 40 dB below full scale rises by 0.5. */
const FLOOR = 0.5;
/** A hit reaches this share of its class's strong hits; log compression makes a third of the rise a few percent of the energy. */
const SHARE_OF_STRONG = { low: 0.35, mid: 0.2, high: 0.2 } as const satisfies Record<HitClass, number>;
const LOCAL = 3;
const SURROUND = 25;
/** Hits of one class closer than this are one. */
const MIN_GAP = 0.07;

function peaksOf(curve: Float32Array, cls: HitClass): Hit[] {
  const sorted = Float32Array.from(curve).sort();
  const typical = sorted[Math.floor(sorted.length * 0.98)] ?? 0;
  if (typical <= 0) return [];
  const out: Hit[] = [];
  for (let i = 1; i + 1 < curve.length; i++) {
    const value = curve[i]!;
    if (value < FLOOR || value < SHARE_OF_STRONG[cls] * typical) continue;
    let isTop = true;
    for (let k = -LOCAL; k <= LOCAL && isTop; k++) if (k !== 0 && (curve[i + k] ?? 0) > value) isTop = false;
    if (!isTop) continue;
    let mean = 0;
    let count = 0;
    for (let k = -SURROUND; k <= SURROUND; k++) {
      const v = curve[i + k];
      if (v !== undefined) {
        mean += v;
        count++;
      }
    }
    if (value < THRESHOLD * (mean / count)) continue;
    const [a, c] = [curve[i - 1]!, curve[i + 1]!];
    const curvature = a - 2 * value + c;
    const time = Math.max(0, frameTime(i + (curvature < 0 ? (0.5 * (a - c)) / curvature : 0)));
    const strength = Math.min(1, value / typical);
    const last = out[out.length - 1];
    if (last && time - last.time < MIN_GAP) {
      if (strength > last.strength) out[out.length - 1] = { time, class: cls, strength };
      continue;
    }
    out.push({ time, class: cls, strength });
  }
  return out;
}

/** Onsets by class, ascending by time (ties in the order of the classes). Strength is relative to the strong hits of the song. */
export function findHits(bands: OnsetBands): Hit[] {
  const all = HIT_CLASSES.flatMap((cls) => peaksOf(bands[cls], cls));
  return all.sort((a, b) => a.time - b.time || HIT_CLASSES.indexOf(a.class) - HIT_CLASSES.indexOf(b.class));
}
