import { HIT_CLASSES } from './analysis';
import type { Hit, HitClass } from './analysis';
import { attackBegin } from './refine-beats';
import type { OnsetBands } from './spectral-flux';

/** A peak is a hit if it tops its surroundings (±3 frames) and stands this far above their mean over ±0.25 s. */
const THRESHOLD = 2.2;
/**
 * Rises below this are the ripple of steady tones under log compression, not onsets: a click 40 dB below full scale
 * rises by 0.5.
 */
const FLOOR = 0.5;
/**
 * A hit reaches this share of its class's strong hits; log compression makes a third of the rise a few percent of the
 * energy.
 */
const SHARE_OF_STRONG = { low: 0.35, mid: 0.2, high: 0.2 } as const;
/** Drums rise as much above 1.5 kHz as below; a plucked or sung note, mostly below. */
const NOISY_SHARE = 0.42;
const LOCAL = 3;
const SURROUND = 25;
/** Hits of one class closer than this are one. */
const MIN_GAP = 0.07;

function peaksOf(curve: Float32Array, share: number, classOf: (frame: number) => HitClass): Hit[] {
  const sorted = Float32Array.from(curve).sort();
  const typical = sorted[Math.floor(sorted.length * 0.98)] ?? 0;
  if (typical <= 0) return [];
  const sums = new Float64Array(curve.length + 1);
  for (let i = 0; i < curve.length; i++) sums[i + 1] = sums[i]! + curve[i]!;
  const out: Hit[] = [];
  for (let i = 1; i + 1 < curve.length; i++) {
    const value = curve[i]!;
    if (value < FLOOR || value < share * typical) continue;
    let isTop = true;
    for (let k = -LOCAL; k <= LOCAL && isTop; k++) if (k !== 0 && (curve[i + k] ?? 0) > value) isTop = false;
    if (!isTop) continue;
    const [a, b] = [Math.max(0, i - SURROUND), Math.min(curve.length, i + SURROUND + 1)];
    if (value < (THRESHOLD * (sums[b]! - sums[a]!)) / (b - a)) continue;
    const time = Math.max(0, attackBegin(curve, i));
    const hit: Hit = { time, class: classOf(i), strength: Math.min(1, value / typical) };
    const last = out[out.length - 1];
    if (last && time - last.time < MIN_GAP) {
      if (hit.strength > last.strength) out[out.length - 1] = hit;
    } else out.push(hit);
  }
  return out;
}

/**
 * Onsets by class, ascending by time (ties in the order of the classes). Strength is relative to the strong hits of the
 * song.
 */
export function findHits(bands: OnsetBands): Hit[] {
  const middle = bands.mid.map((v, i) => v + bands.snap[i]!);
  const isNoisy = (i: number) => {
    let [body, snap] = [0, 0];
    for (let k = Math.max(0, i - 2); k <= i + 2 && k < middle.length; k++) {
      body += bands.mid[k]!;
      snap += bands.snap[k]!;
    }
    return snap >= NOISY_SHARE * (body + snap);
  };
  const all = [
    ...peaksOf(bands.low, SHARE_OF_STRONG.low, () => 'low'),
    ...peaksOf(middle, SHARE_OF_STRONG.mid, (i) => (isNoisy(i) ? 'mid' : 'tonal')),
    ...peaksOf(bands.high, SHARE_OF_STRONG.high, () => 'high'),
  ];
  return all.sort((a, b) => a.time - b.time || HIT_CLASSES.indexOf(a.class) - HIT_CLASSES.indexOf(b.class));
}
