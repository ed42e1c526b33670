/** A point of a course: seconds, and the place then. */
export interface CoursePoint {
  readonly at: number;
  readonly place: readonly [number, number];
}

/**
 * The fewest points of a course that, joined by straight lines, leave it nowhere by more than a tolerance along either
 * axis (Ramer 1972, Douglas & Peucker 1973, with the distance taken at the same time).
 * @param course - in order of time.
 */
export function simplifyCourse(course: readonly CoursePoint[], tolerance: number): CoursePoint[] {
  const kept = new Set<number>();
  const stretches: [number, number][] = course.length > 0 ? [[0, course.length - 1]] : [];
  for (let next = stretches.pop(); next; next = stretches.pop()) {
    const [from, to] = next;
    kept.add(from).add(to);
    const [a, b] = [course[from]!, course[to]!];
    let worst = tolerance;
    let split = -1;
    for (let i = from + 1; i < to; i++) {
      const { at, place } = course[i]!;
      const share = (at - a.at) / Math.max(1e-9, b.at - a.at);
      const off = Math.max(
        ...place.map((value, axis) => Math.abs(value - a.place[axis]! - share * (b.place[axis]! - a.place[axis]!))),
      );
      if (off <= worst) continue;
      worst = off;
      split = i;
    }
    if (split > 0) stretches.push([from, split], [split, to]);
  }
  return course.filter((_, i) => kept.has(i));
}
