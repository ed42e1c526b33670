import { channelsOf } from './small-frame';
import type { Channels, SmallFrame } from './small-frame';

const BINS = 8;
/** Half the difference of two histograms, 0 to 1, above which it is another picture. */
const CUT = 0.45;

/** Histogram of light by quarters of the frame: the same things in other places are another picture too. */
function histogram({ width, height, planes: [light] }: Channels): Float32Array {
  const out = new Float32Array(4 * BINS);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const quarter = (y * 2 >= height ? 2 : 0) + (x * 2 >= width ? 1 : 0);
      const bin = Math.min(BINS - 1, Math.floor(light[y * width + x]! * BINS));
      out[quarter * BINS + bin]! += 1 / (width * height);
    }
  return out;
}

/** Indices of frames with which another shot begins; 0 is none of them. */
export function cutsIn(frames: readonly Channels[]): number[] {
  const histograms = frames.map(histogram);
  const cuts: number[] = [];
  for (let i = 1; i < frames.length; i++) {
    const [a, b] = [histograms[i - 1]!, histograms[i]!];
    const apart = a.reduce((sum, value, k) => sum + Math.abs(value - b[k]!), 0) / 2;
    if (apart > CUT) cuts.push(i);
  }
  return cuts;
}

/** {@link cutsIn} of frames as they are looked at. @throws RangeError if the pixels are not as many as the sides say. */
export const shotsIn = (frames: readonly SmallFrame[]): number[] => cutsIn(frames.map(channelsOf));
