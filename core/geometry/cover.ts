import type { Box } from './matrix';

type Pair = readonly [number, number];

/**
 * Where a picture lies that fills a frame: as large as covers it, enlarged, and its focus as near to the middle of the
 * frame as there is picture around it, so that no edge of it comes into the frame.
 * @param frame - left, top, right, bottom, in any coordinates.
 * @param sides - of the picture, above 0; only their ratio counts.
 * @param focus - a point of the picture in shares of its sides, 0 to 1.
 * @param zoom - 1 just covers; below 1 counts as 1.
 */
export function coveringBox([l, t, r, b]: Box, sides: Pair, focus: Pair, zoom: number): Box {
  const [w, h] = [r - l, b - t];
  const scale = Math.max(w / sides[0], h / sides[1]) * Math.max(1, zoom);
  const [pw, ph] = [sides[0] * scale, sides[1] * scale];
  const along = (from: number, room: number, length: number, at: number): number =>
    Math.min(from, Math.max(from + room - length, from + room / 2 - at * length));
  const x = along(l, w, pw, focus[0]);
  const y = along(t, h, ph, focus[1]);
  return [x, y, x + pw, y + ph];
}
