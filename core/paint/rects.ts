/** Pixel rectangle, integers: left, top, right, bottom (exclusive). */
export type Rect = readonly [number, number, number, number];

/** Rectangles a frame is repainted in at most; more are merged, because every item is tested against each. */
const MAX_RECTS = 4;

export const overlap = (a: Rect, b: Rect): boolean => a[0] < b[2] && b[0] < a[2] && a[1] < b[3] && b[1] < a[3];
/** What two have in common; null for nothing. */
export function common(a: Rect, b: Rect): Rect | null {
  const [l, t, r, bottom] = [Math.max(a[0], b[0]), Math.max(a[1], b[1]), Math.min(a[2], b[2]), Math.min(a[3], b[3])];
  return l < r && t < bottom ? [l, t, r, bottom] : null;
}
/** Whether a rectangle, or one that is unknown, touches any of others. */
export const touchesAny = (rect: Rect | null, rects: readonly Rect[]): boolean =>
  rect === null || rects.some((other) => overlap(rect, other));
export const union = (a: Rect, b: Rect): Rect => [
  Math.min(a[0], b[0]),
  Math.min(a[1], b[1]),
  Math.max(a[2], b[2]),
  Math.max(a[3], b[3]),
];
export const area = (r: Rect): number => Math.max(0, r[2] - r[0]) * Math.max(0, r[3] - r[1]);

/** SVG path data of a rectangle. */
export const rectPath = ([l, t, r, b]: Rect): string => `M${l} ${t}L${r} ${t}L${r} ${b}L${l} ${b}Z`;

/** Adds a rectangle to a list of disjoint ones, joined with those it overlaps. */
export function addRect(rects: Rect[], rect: Rect): void {
  let grown = rect;
  for (let i = 0; i < rects.length;) {
    if (overlap(rects[i]!, grown)) {
      grown = union(rects[i]!, grown);
      rects.splice(i, 1);
      i = 0;
    } else i++;
  }
  rects.push(grown);
  while (rects.length > MAX_RECTS) {
    // Merge the pair whose union wastes least.
    let best: [number, number, number] = [0, 1, Infinity];
    for (let i = 0; i < rects.length; i++)
      for (let j = i + 1; j < rects.length; j++) {
        const waste = area(union(rects[i]!, rects[j]!)) - area(rects[i]!) - area(rects[j]!);
        if (waste < best[2]) best = [i, j, waste];
      }
    const [second] = rects.splice(best[1], 1);
    const [first] = rects.splice(best[0], 1);
    addRect(rects, union(first!, second!)); // both indices are within the list
  }
}
