import { bezierPoint } from '../motion';
import { lastAtOrBefore } from '../time';

/** A contour of a path as a chain of points, with the length walked up to each. Coordinates alternate: x, y, x, y … */
export interface Contour {
  readonly points: Float64Array;
  /** Length from the first point to each, ascending; as many as points. */
  readonly lengths: Float64Array;
  readonly isClosed: boolean;
}

/** Chords a curve is cut into: lengths are within 0.5 % for letters. */
const CHORDS = 12;

/** Cuts SVG path data (absolute M, L, Q, C, Z) into contours of straight pieces. */
export function flattenPath(d: string, chords = CHORDS): Contour[] {
  const out: Contour[] = [];
  let points: number[] = [];
  const finish = (isClosed: boolean) => {
    if (points.length >= 4) {
      if (isClosed) points.push(points[0]!, points[1]!);
      const lengths = new Float64Array(points.length / 2);
      for (let i = 1; i < lengths.length; i++)
        lengths[i] =
          lengths[i - 1]! + Math.hypot(points[2 * i]! - points[2 * i - 2]!, points[2 * i + 1]! - points[2 * i - 1]!);
      out.push({ points: Float64Array.from(points), lengths, isClosed });
    }
    points = [];
  };
  let [x, y] = [0, 0];
  for (const [, command, args] of d.matchAll(/([MLQCZz])([^MLQCZz]*)/g)) {
    const n =
      (args ?? '').trim() === ''
        ? []
        : (args ?? '')
            .trim()
            .split(/[\s,]+/)
            .map(Number);
    if (command === 'Z' || command === 'z') {
      [x, y] = [points[0] ?? x, points[1] ?? y];
      finish(true);
      continue;
    }
    const size = command === 'C' ? 6 : command === 'Q' ? 4 : 2;
    for (let i = 0; i + size <= n.length; i += size) {
      const [ex, ey] = [n[i + size - 2]!, n[i + size - 1]!];
      if (command === 'M' && i === 0) finish(false);
      else if (points.length === 0) points.push(x, y); // what follows a close begins where it closed
      if (size > 2) {
        for (let k = 1; k < chords; k++) {
          const t = k / chords;
          const s = 1 - t;
          const control = [n[i]!, n[i + 1]!] as const;
          if (size === 6) points.push(...bezierPoint([[x, y], control, [n[i + 2]!, n[i + 3]!], [ex, ey]], t));
          else
            points.push(
              s * s * x + 2 * s * t * control[0] + t * t * ex,
              s * s * y + 2 * s * t * control[1] + t * t * ey,
            );
        }
      }
      points.push(ex, ey);
      [x, y] = [ex, ey];
    }
  }
  finish(false);
  return out;
}

export const lengthOf = (contour: Contour): number => contour.lengths[contour.lengths.length - 1] ?? 0;

/**
 * The place a length along a contour, and the direction it runs there in radians. A closed contour goes round again;
 * beyond the ends of an open one the way goes straight on.
 */
export function placeAlong(contour: Contour, length: number): { x: number; y: number; angle: number } {
  const { points, lengths, isClosed } = contour;
  const whole = lengthOf(contour);
  const at = isClosed && whole > 0 ? length - Math.floor(length / whole) * whole : length;
  const low = Math.min(lengths.length - 2, Math.max(0, lastAtOrBefore(lengths, at)));
  const [x, y, x2, y2] = [points[2 * low]!, points[2 * low + 1]!, points[2 * low + 2]!, points[2 * low + 3]!];
  const chord = lengths[low + 1]! - lengths[low]!;
  const share = chord > 0 ? (at - lengths[low]!) / chord : 0;
  return { x: x + (x2 - x) * share, y: y + (y2 - y) * share, angle: Math.atan2(y2 - y, x2 - x) };
}
