/** Index of the last element ≤ x in an ascending list, -1 if x is before the first. O(log n). */
export function lastAtOrBefore(sorted: ArrayLike<number>, x: number): number {
  let lo = 0;
  let hi = sorted.length;
  while (lo < hi) {
    const mid = (lo + hi) >>> 1;
    if (sorted[mid]! <= x) lo = mid + 1;
    else hi = mid;
  }
  return lo - 1;
}

/** Index of the element nearest to x (the earlier one on a tie), -1 for an empty list. */
export function nearestIndex(sorted: ArrayLike<number>, x: number): number {
  const i = lastAtOrBefore(sorted, x);
  if (i < 0) return sorted.length > 0 ? 0 : -1;
  if (i + 1 < sorted.length && sorted[i + 1]! - x < x - sorted[i]!) return i + 1;
  return i;
}
