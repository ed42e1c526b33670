import { safeBox } from '@core/piece';
import type { Format, GuideLine } from '@core/piece';
import type { Bounds } from './geometry';

/** What a dragged box is drawn to, in pixels of the format. */

/** A line that was met, or the gaps that came out equal. */
export type Guide =
  | { readonly kind: 'line'; readonly axis: 'x' | 'y'; readonly at: number }
  | {
      readonly kind: 'gaps';
      /** Along which the gaps lie. */
      readonly axis: 'x' | 'y';
      readonly gaps: readonly (readonly [number, number])[];
      /** Where they are drawn across it. */
      readonly across: number;
    };

export interface Lines {
  readonly x: readonly number[];
  readonly y: readonly number[];
}

/** Edges, centre, thirds and safe area of a frame, its grid, one's own guides, and edges and middles of others. */
export function linesOf(
  frame: Pick<Format, 'width' | 'height'>,
  guides: readonly GuideLine[],
  others: readonly Bounds[],
): Lines {
  const [left, top, right, bottom] = safeBox(frame);
  const safe = { x: [left, right], y: [top, bottom] };
  const along = (side: number, axis: 'x' | 'y'): number[] => [
    ...[0, 1 / 2, 1, 1 / 3, 2 / 3].map((share) => share * side),
    ...safe[axis],
    ...guides.filter((guide) => guide.axis === axis).map((guide) => guide.at * side),
  ];
  return {
    x: [...along(frame.width, 'x'), ...others.flatMap((o) => [o.left, (o.left + o.right) / 2, o.right])],
    y: [...along(frame.height, 'y'), ...others.flatMap((o) => [o.top, (o.top + o.bottom) / 2, o.bottom])],
  };
}

interface Found {
  readonly by: number;
  readonly guide: Guide;
}

const nearer = (a: Found | null, b: Found): Found => (a && Math.abs(a.by) <= Math.abs(b.by) ? a : b);

/** One axis of a box: its begin and end there, and those across it. */
type Span = readonly [from: number, to: number, acrossFrom: number, acrossTo: number];
const spanX = (b: Bounds): Span => [b.left, b.right, b.top, b.bottom];
const spanY = (b: Bounds): Span => [b.top, b.bottom, b.left, b.right];

/** The nearest place where the gaps between the box and two of its neighbours in a row are equal. */
function nearestGap(box: Span, others: readonly Span[], axis: 'x' | 'y', radius: number): Found | null {
  const [from, to, acrossFrom, acrossTo] = box;
  const length = to - from;
  const beside = others
    .filter((o) => o[2] < acrossTo && o[3] > acrossFrom)
    .sort((a, b) => a[0] - b[0])
    .slice(0, MOST_NEIGHBOURS);
  let found: Found | null = null;
  const offer = (begin: number, gaps: readonly (readonly [number, number])[]) => {
    const by = begin - from;
    if (Math.abs(by) > radius) return;
    found = nearer(found, { by, guide: { kind: 'gaps', axis, gaps, across: (acrossFrom + acrossTo) / 2 } });
  };
  for (let i = 0; i < beside.length; i++)
    for (let k = i + 1; k < beside.length; k++) {
      const [a, b] = [beside[i]!, beside[k]!];
      const gap = b[0] - a[1];
      if (gap <= 0) continue;
      const own: readonly [number, number] = [a[1], b[0]];
      offer(b[1] + gap, [own, [b[1], b[1] + gap]]);
      offer(a[0] - gap - length, [[a[0] - gap, a[0]], own]);
      const room = (gap - length) / 2;
      if (room > 0) {
        const begin = a[1] + room;
        offer(begin, [
          [a[1], begin],
          [begin + length, b[0]],
        ]);
      }
    }
  return found;
}
const MOST_NEIGHBOURS = 40;

function nearestLine(
  own: readonly number[],
  targets: readonly number[],
  axis: 'x' | 'y',
  radius: number,
): Found | null {
  let found: Found | null = null;
  for (const at of targets)
    for (const edge of own) {
      const by = at - edge;
      if (Math.abs(by) <= radius && (!found || Math.abs(by) < Math.abs(found.by)))
        found = { by, guide: { kind: 'line', axis, at } };
    }
  return found;
}

/**
 * Snaps a moved box: its edges and middle to each line within the radius, or the box to where gaps are equal; the
 * nearest per axis, and a line before a gap that is as near.
 * @returns The correction to add, and what was met.
 */
export function snapBox(
  box: Bounds,
  lines: Lines,
  others: readonly Bounds[],
  radius: number,
): { dx: number; dy: number; guides: Guide[] } {
  const one = (axis: 'x' | 'y', span: (b: Bounds) => Span): Found | null => {
    const own = span(box);
    const line = nearestLine([own[0], (own[0] + own[1]) / 2, own[1]], lines[axis], axis, radius);
    const gap = nearestGap(own, others.map(span), axis, radius);
    return gap ? nearer(line, gap) : line;
  };
  const x = one('x', spanX);
  const y = one('y', spanY);
  return { dx: x?.by ?? 0, dy: y?.by ?? 0, guides: [x, y].flatMap((f) => (f ? [f.guide] : [])) };
}

/** The nearest multiples of the grid for a box's left top corner. */
export const snapToGrid = (box: Bounds, step: number): { dx: number; dy: number } => ({
  dx: Math.round(box.left / step) * step - box.left,
  dy: Math.round(box.top / step) * step - box.top,
});
