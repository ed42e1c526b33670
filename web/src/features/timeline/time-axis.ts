import type { Seconds } from '@core/time';

/** Seconds to pixels of the timeline and back. */
export interface TimeAxis {
  readonly scroll: Seconds;
  readonly pixelsPerSecond: number;
  readonly width: number;
}

export const timeToX = (axis: TimeAxis, seconds: Seconds): number => (seconds - axis.scroll) * axis.pixelsPerSecond;
export const xToTime = (axis: TimeAxis, x: number): Seconds => axis.scroll + x / axis.pixelsPerSecond;

/** Zooms about a pixel, so that what is under the pointer stays there. */
export function zoomAxis(axis: TimeAxis, factor: number, x: number, end: Seconds): TimeAxis {
  const anchor = xToTime(axis, x);
  const fit = axis.width / Math.max(0.5, end);
  const pixelsPerSecond = Math.min(2000, Math.max(fit * 0.4, axis.pixelsPerSecond * factor));
  return {
    ...axis,
    pixelsPerSecond,
    scroll: clampScroll(anchor - x / pixelsPerSecond, { ...axis, pixelsPerSecond }, end),
  };
}

/** Keeps the piece in sight: at most a tenth of the width before its start, half behind its end. */
export function clampScroll(scroll: Seconds, axis: TimeAxis, end: Seconds): Seconds {
  const view = axis.width / axis.pixelsPerSecond;
  return Math.max(-0.1 * view, Math.min(scroll, Math.max(-0.1 * view, end - view * 0.5)));
}

export function fitAxis(width: number, from: Seconds, to: Seconds): TimeAxis {
  const pixelsPerSecond = (width * 0.96) / Math.max(0.1, to - from);
  return { width, pixelsPerSecond, scroll: from - (width * 0.02) / pixelsPerSecond };
}
