import type { TextAlong } from '../../piece';
import type { TextLayout } from '../../text';
import { applyMatrix, flattenPath, lengthOf, placeAlong } from '../../geometry';
import type { Box, Contour, Matrix } from '../../geometry';

/**
 * A straight line of letters bent: what stood upright at `x` on the line stands at `frame(x)` on the curve,
 * undistorted.
 */
export interface BentLine {
  /** Rigid move of what stands at x, in layout units. */
  frame(x: number): Matrix;
}

/** Curves that text runs along are cut finer than those that are only measured: the turn of a letter is seen. */
const CHORDS = 48;
const contours = new WeakMap<TextAlong, Contour | null>();

function contourOf(along: Extract<TextAlong, { shape: 'path' }>): Contour | null {
  let contour = contours.get(along);
  if (contour === undefined) {
    contour = flattenPath(along.d, CHORDS).reduce<Contour | null>(
      (a, b) => (a && lengthOf(a) >= lengthOf(b) ? a : b),
      null,
    );
    contours.set(along, contour);
  }
  return contour;
}

/** Turned by an angle so that (x, y) of the line comes to (px, py). */
function rigid(angle: number, x: number, y: number, px: number, py: number): Matrix {
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return [cos, sin, -sin, cos, px - cos * x + sin * y, py - sin * x - cos * y];
}

/**
 * @param bend - angle that an arc spans, degrees; positive lifts the middle.
 * @param shift - how far the words are moved along, as a share of the curve's length (of a line's width for an arc).
 * @param k - pixels a layout unit has.
 * @returns Null where there is nothing to bend along.
 */
export function bentLine(
  along: TextAlong,
  layout: TextLayout,
  bend: number,
  shift: number,
  k: number,
): BentLine | null {
  const [left, , right] = layout.box;
  // On a circle or a path the last line stands with its baseline; an arc leaves the middle of the words where it was.
  const base = layout.lines[layout.lines.length - 1]?.baseline ?? 0;
  switch (along.shape) {
    case 'arc': {
      const angle = (bend * Math.PI) / 180;
      const middle = (left + right) / 2;
      if (Math.abs(angle) < 1e-4 || right <= left)
        return shift === 0 ? null : { frame: () => [1, 0, 0, 1, shift * (right - left), 0] };
      const radius = (right - left) / angle;
      return {
        frame: (x) => {
          const turn = (x - middle) / radius + shift * angle;
          return rigid(turn, x, 0, middle + radius * Math.sin(turn), radius - radius * Math.cos(turn));
        },
      };
    }
    case 'circle': {
      const radius = along.radius / k;
      return {
        frame: (x) => {
          const turn = x / radius + shift * 2 * Math.PI;
          return along.inside
            ? rigid(-turn, x, base, radius * Math.sin(turn), radius * Math.cos(turn))
            : rigid(turn, x, base, radius * Math.sin(turn), -radius * Math.cos(turn));
        },
      };
    }
    case 'path': {
      const contour = contourOf(along);
      if (!contour) return null;
      const whole = lengthOf(contour);
      const [w, h] = along.box;
      // Left-aligned words begin where the path begins, centred ones have their middle in its middle.
      const start = left >= 0 ? 0 : right <= 0 ? whole : whole / 2;
      return {
        frame: (x) => {
          const place = placeAlong(contour, start + x * k + shift * whole);
          return rigid(place.angle, x, base, (place.x - w / 2) / k, (place.y - h / 2) / k);
        },
      };
    }
  }
}

/** Steps a straight edge is cut into when it is bent. */
const EDGE_STEPS = 24;

/** A box on the line as it comes to lie along the curve: SVG path data in layout units. */
export function bentBox(bent: BentLine, [left, top, right, bottom]: Box): string {
  const edge = (y: number, from: number, to: number) =>
    Array.from({ length: EDGE_STEPS + 1 }, (_, i) => {
      const x = from + ((to - from) * i) / EDGE_STEPS;
      const [px, py] = applyMatrix(bent.frame(x), x, y);
      return `${Math.round(px * 100) / 100} ${Math.round(py * 100) / 100}`;
    });
  return `M${[...edge(top, left, right), ...edge(bottom, right, left)].join('L')}Z`;
}
