import type { FrameIndex, Seconds } from './units';

/** A frame rate as an exact rational: 30000/1001 has no rounding anywhere. */
export interface FrameRate {
  num: number;
  den: number;
}

/** The rates a piece can have, by the label the trade uses for them. */
export const FRAME_RATES = {
  '23.976': { num: 24000, den: 1001 },
  '24': { num: 24, den: 1 },
  '25': { num: 25, den: 1 },
  '29.97': { num: 30000, den: 1001 },
  '30': { num: 30, den: 1 },
  '50': { num: 50, den: 1 },
  '59.94': { num: 60000, den: 1001 },
  '60': { num: 60, den: 1 },
} as const satisfies Record<string, FrameRate>;
export type FrameRateLabel = keyof typeof FRAME_RATES;

/**
 * A time within this fraction of a frame before a frame boundary counts as on it: float64 seconds of an hour are exact
 * to 1e-12.
 */
const FRAME_EPSILON = 1e-6;

export function frameToSeconds(frame: FrameIndex, rate: FrameRate): Seconds {
  return (frame * rate.den) / rate.num;
}

/**
 * The moment a frame shows: the middle of the time it stands on screen, so that what is pinned between two frame starts
 * is seen on the nearer one. What falls exactly on a middle counts as reached: sums of float64 seconds lie on either
 * side of it by chance.
 */
export function frameMiddle(frame: FrameIndex, rate: FrameRate): Seconds {
  return ((frame + 0.5 + FRAME_EPSILON) * rate.den) / rate.num;
}

/** The frame on screen at a time: the last one that starts at or before it. */
export function secondsToFrame(seconds: Seconds, rate: FrameRate): FrameIndex {
  return Math.floor((seconds * rate.num) / rate.den + FRAME_EPSILON);
}

export function nearestFrame(seconds: Seconds, rate: FrameRate): FrameIndex {
  return Math.round((seconds * rate.num) / rate.den);
}

/** How many frames start within [0, duration): the length of an export. */
export function frameCount(duration: Seconds, rate: FrameRate): number {
  return Math.max(0, Math.ceil((duration * rate.num) / rate.den - FRAME_EPSILON));
}

export function framesPerSecond(rate: FrameRate): number {
  return rate.num / rate.den;
}

/** The trade label of a rate ("29.97"), or the decimal if it has none. */
export function frameRateLabel(rate: FrameRate): string {
  for (const [label, known] of Object.entries(FRAME_RATES)) {
    if (known.num * rate.den === rate.num * known.den) return label;
  }
  return framesPerSecond(rate).toFixed(3);
}
