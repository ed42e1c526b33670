import { ANALYSIS_RATE } from '@core/audio';
import { DEMO_RATE } from '../../demo/synth';
import type { Mix } from '../../demo/synth';

/** Mono at the analysis rate: pairs of frames averaged, which is filter enough here. */
export function toAnalysis({ left, right }: Mix): Float32Array {
  const factor = DEMO_RATE / ANALYSIS_RATE;
  return Float32Array.from(
    { length: Math.floor(left.length / factor) },
    (_, i) => (left[factor * i]! + left[factor * i + 1]! + right[factor * i]! + right[factor * i + 1]!) / 8,
  );
}
