import type { Bounds } from './geometry';

/** Where boxes go so that they stand in line, in pixels of the format. */

export const ALIGNMENTS = ['left', 'centre', 'right', 'top', 'middle', 'bottom'] as const;
export type Alignment = (typeof ALIGNMENTS)[number];

/** How far a box is moved to stand at a side (or the middle) of another. */
export function alignedBy(box: Bounds, within: Bounds, to: Alignment): [number, number] {
  switch (to) {
    case 'left':
      return [within.left - box.left, 0];
    case 'centre':
      return [(within.left + within.right - box.left - box.right) / 2, 0];
    case 'right':
      return [within.right - box.right, 0];
    case 'top':
      return [0, within.top - box.top];
    case 'middle':
      return [0, (within.top + within.bottom - box.top - box.bottom) / 2];
    case 'bottom':
      return [0, within.bottom - box.bottom];
  }
}

/**
 * How far each box is moved so that the gaps between them are equal: the outer two stay where they are. Less than three
 * have no gaps to share.
 */
export function distributedBy(boxes: readonly Bounds[], axis: 'x' | 'y'): number[] {
  const span = (b: Bounds): [number, number] => (axis === 'x' ? [b.left, b.right] : [b.top, b.bottom]);
  const order = boxes.map((box, i) => ({ i, span: span(box) }));
  order.sort((a, b) => a.span[0] + a.span[1] - b.span[0] - b.span[1]);
  const by = boxes.map(() => 0);
  const [first, last] = [order[0], order[order.length - 1]];
  if (!first || !last || order.length < 3) return by;
  const filled = order.reduce((sum, { span: [from, to] }) => sum + to - from, 0);
  const gap = (last.span[1] - first.span[0] - filled) / (order.length - 1);
  let at = first.span[0];
  for (const {
    i,
    span: [from, to],
  } of order) {
    by[i] = at - from;
    at += to - from + gap;
  }
  return by;
}
