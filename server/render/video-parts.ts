import { framesPerSecond } from '@core/time';
import type { FrameRate } from '@core/time';
import type { FrameSpan } from '@core/piece';
import { KEYFRAME_SECONDS } from './video-recipes';

/** A run of frames that is encoded by itself: [first, end). */
export interface VideoPart {
  readonly index: number;
  readonly first: number;
  readonly end: number;
}

/** Seconds of a part: long enough that its borders cost nothing, short enough that little is lost with a worker. */
const PART_SECONDS = 5 * KEYFRAME_SECONDS;

/**
 * The parts of a video. They are the same wherever they are made, and begin where a whole frame is due anyway: so a
 * video of parts made by several is, to the bit, the one made of the same parts by one.
 */
export function videoParts({ first, count }: FrameSpan, rate: FrameRate): VideoPart[] {
  const length = Math.round(framesPerSecond(rate) * KEYFRAME_SECONDS) * (PART_SECONDS / KEYFRAME_SECONDS);
  const parts: VideoPart[] = [];
  for (let from = 0; from < count; from += length)
    parts.push({ index: parts.length, first: first + from, end: first + Math.min(count, from + length) });
  return parts;
}
