import { boxMeans } from './box-means';
import type { Channels } from './small-frame';

/** Radius of what is one thing, and of what is around it, as shares of the longer side. */
const THING = 0.02;
const AROUND = 0.18;
/** Standard deviation of the preference for the middle, as a share of the side: mild, since people place by thirds. */
const MIDDLE = 0.55;

/**
 * How much each part of a frame stands out: by its colour against the whole frame, and against what is around it. What
 * stands out less than most of the frame counts nothing.
 * @returns [height × width], row-major, ≥ 0, summing to 1; all alike where nothing stands out.
 * @see R. Achanta et al., "Frequency-tuned Salient Region Detection", CVPR 2009 (against the whole); L. Itti, C. Koch, E.
 * Niebur, "A Model of Saliency-Based Visual Attention", PAMI 20(11), 1998 (centre and surround).
 */
export function saliencyMap({ width, height, planes }: Channels): Float32Array {
  const longer = Math.max(width, height);
  const [thing, around] = [Math.max(1, Math.round(longer * THING)), Math.max(3, Math.round(longer * AROUND))];
  const out = new Float32Array(width * height);
  for (const plane of planes) {
    const mean = boxMeans(plane, width, height);
    const whole = plane.reduce((sum, value) => sum + value, 0) / plane.length;
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const here = mean(x, y, thing);
        out[y * width + x]! += (here - whole) ** 2 + (here - mean(x, y, around)) ** 2;
      }
  }
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [dx, dy] = [(x + 0.5) / width - 0.5, (y + 0.5) / height - 0.5];
      const i = y * width + x;
      out[i] = Math.sqrt(out[i]!) * Math.exp(-(dx * dx + dy * dy) / (2 * MIDDLE * MIDDLE));
    }
  return standingOut(out);
}

/** What is above the mean by half a standard deviation, scaled to sum to 1. Changes `map`. */
export function standingOut(map: Float32Array): Float32Array {
  const mean = map.reduce((sum, value) => sum + value, 0) / map.length;
  const deviation = Math.sqrt(map.reduce((sum, value) => sum + (value - mean) ** 2, 0) / map.length);
  const floor = mean + deviation / 2;
  let sum = 0;
  for (let i = 0; i < map.length; i++) {
    map[i] = Math.max(0, map[i]! - floor);
    sum += map[i]!;
  }
  // A frame of one colour has rounding left, and no subject.
  if (sum < 1e-6 || deviation < 1e-4) return map.fill(1 / map.length);
  for (let i = 0; i < map.length; i++) map[i]! /= sum;
  return map;
}
