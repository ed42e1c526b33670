import type { FootageRef, LayerOf, ResolvedTimes } from '../../piece';
import { framesPerSecond } from '../../time';
import type { Seconds } from '../../time';
import type { Source } from '../list/display-list';
import { timeInside } from '../movement/group-time';
import type { PreparedLayer } from './prepare';

/** A moment that lies so little before a frame's own is that frame: sums of seconds are not exact. Share of a frame. */
const NEARLY = 1e-4;

/**
 * The frame of footage that is seen so long after its first. Its last one stands a frame's length longer, so that a layer
 * that ends with the footage shows no gap; beyond that, and before the first, there is none.
 */
export function frameOf({ frameRate, frames }: FootageRef, seconds: Seconds): number | null {
  const frame = Math.floor(seconds * framesPerSecond(frameRate) + NEARLY);
  return frame < 0 || frame > frames ? null : Math.min(frames - 1, frame);
}

/** The frame of footage that a layer shows at each moment of the piece; null where it shows none. */
export function framesOf(
  { start, content }: LayerOf<'picture'>,
  footage: FootageRef,
  times: ResolvedTimes,
): (at: Seconds) => number | null {
  const from = times.timeOf(start);
  const inside = timeInside(content.time, from, times);
  return (at) => frameOf(footage, (inside?.(at) ?? at) - from + content.from);
}

/** What a layer shows of its file at a moment; null if it shows none. */
export function sourceOf(prepared: PreparedLayer, seconds: Seconds): Source | null {
  const { mediaHash, footage, layer } = prepared;
  if (mediaHash === null) return null;
  if (!footage) return { hash: mediaHash, frame: null };
  const from = layer.kind === 'picture' ? layer.content.from : 0;
  const frame = frameOf(footage, (prepared.timeInside?.(seconds) ?? seconds) - prepared.start + from);
  return frame === null ? null : { hash: mediaHash, frame };
}
