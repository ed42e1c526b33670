import { boxMeans } from './box-means';
import { standingOut } from './saliency';
import type { Channels } from './small-frame';

/** How far the camera may have moved between two frames, share of the longer side. */
const REACH = 0.08;
/** The first look is at a picture so many times as small; the second about what was found, at every other pixel. */
const COARSE = 4;
/** Less change of light and colour than this is noise. */
const NOISE = 0.03;
/** What differs by more than this is not the camera, but something that crosses the frame. */
const CLIP = 0.1;
/** A move must be this much better for each pixel that it is longer: standing still wins where it is as good. */
const COST_OF_DISTANCE = 0.002;

interface Plane {
  readonly width: number;
  readonly height: number;
  readonly light: Float32Array;
}

/** Mean difference of one plane and another that is shifted against it, over every `stride`th pixel. */
function difference(a: Plane, b: Plane, dx: number, dy: number, stride: number): number {
  const { width, height } = a;
  const [top, bottom] = [Math.max(0, -dy), Math.min(height, height - dy)];
  const [left, right] = [Math.max(0, -dx), Math.min(width, width - dx)];
  let sum = 0;
  let count = 0;
  for (let y = top; y < bottom; y += stride) {
    const row = y * width;
    const other = (y + dy) * width + dx;
    for (let x = left; x < right; x += stride) {
      const change = a.light[row + x]! - b.light[other + x]!;
      const off = change < 0 ? -change : change;
      sum += off < CLIP ? off : CLIP;
      count++;
    }
  }
  return count > 0 ? sum / count : Infinity;
}

function smaller({ width, height, light }: Plane): Plane {
  const w = Math.max(1, Math.floor(width / COARSE));
  const h = Math.max(1, Math.floor(height / COARSE));
  const out = new Float32Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let sum = 0;
      for (let j = 0; j < COARSE; j++)
        for (let i = 0; i < COARSE; i++) sum += light[(y * COARSE + j) * width + x * COARSE + i] ?? 0;
      out[y * w + x] = sum / (COARSE * COARSE);
    }
  return { width: w, height: h, light: out };
}

type Move = readonly [number, number];

/** The best move about one, within a reach of it. */
function bestMove(before: Plane, after: Plane, about: Move, reach: number, stride: number): Move {
  let best = about;
  let least = Infinity;
  for (let dy = about[1] - reach; dy <= about[1] + reach; dy++)
    for (let dx = about[0] - reach; dx <= about[0] + reach; dx++) {
      const cost = difference(before, after, dx, dy, stride) * (1 + COST_OF_DISTANCE * Math.hypot(dx, dy));
      if (cost < least - 1e-9) {
        best = [dx, dy];
        least = cost;
      }
    }
  return best;
}

/** How the whole picture moved from one frame to the next, whole pixels. */
export function cameraMove(before: Channels, after: Channels): Move {
  const planes = [before, after].map(({ width, height, planes: [light] }): Plane => ({ width, height, light }));
  const [a, b] = planes as [Plane, Plane]; // of two frames
  const reach = Math.max(1, Math.ceil((Math.max(a.width, a.height) * REACH) / COARSE));
  const [cx, cy] = bestMove(smaller(a), smaller(b), [0, 0], reach, 1);
  const near: Move = [cx * COARSE, cy * COARSE];
  const found = bestMove(a, b, near, COARSE - 1, 2);
  // Where nothing speaks for a move, coarse or fine, the camera stands.
  return difference(a, b, 0, 0, 2) <= difference(a, b, found[0], found[1], 2) + 1e-4 ? [0, 0] : found;
}

export interface MotionMap {
  /** As of {@link saliencyMap}. */
  readonly map: Float32Array;
  /** Share of the frame that moves against the whole, 0 to 1. */
  readonly share: number;
}

/** What moves against the whole picture from one frame to the next. Both frames have the same sides. */
export function motionMap(before: Channels, after: Channels): MotionMap {
  const { width, height } = after;
  const [dx, dy] = cameraMove(before, after);
  const moved = new Float32Array(width * height);
  let count = 0;
  for (let y = Math.max(0, dy); y < Math.min(height, height + dy); y++)
    for (let x = Math.max(0, dx); x < Math.min(width, width + dx); x++) {
      const here = y * width + x;
      const there = (y - dy) * width + x - dx;
      let change = 0;
      for (let c = 0; c < 3; c++) {
        const off = after.planes[c]![here]! - before.planes[c]![there]!;
        change += off < 0 ? -off : off;
      }
      if (change <= NOISE) continue;
      moved[here] = change;
      count++;
    }
  // What a thing leaves and what it enters both change: its middle lies between.
  const mean = boxMeans(moved, width, height);
  const radius = Math.max(1, Math.round(Math.max(width, height) * 0.03));
  const smooth = new Float32Array(width * height);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) smooth[y * width + x] = mean(x, y, radius);
  return { map: standingOut(smooth), share: count / moved.length };
}
