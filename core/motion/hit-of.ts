/**
 * When a movement is seen to hit. The eye takes sudden changes of speed for events: a movement that sets off at full
 * speed is seen when it starts, one that comes in at full speed and stops is seen when it lands, and one that swells
 * and fades at its fastest. A movement that shoots past its goal (a spring, a bounce) is seen when it first gets there,
 * one that goes out and comes back when it is farthest out.
 */
export type HitKind = 'start' | 'peak' | 'landing';

/** An end speed of this share of the greatest counts as full speed. */
const FULL_SPEED = 0.75;

/** Where in [0, 1] of its duration a movement hits, from its course: values at even steps. Null for no movement. */
export function hitOf<T>(
  course: readonly T[],
  distance: (a: T, b: T) => number,
): { kind: HitKind; share: number } | null {
  const n = course.length - 1;
  const whole = distance(course[0]!, course[n]!);
  const steps = Array.from({ length: n }, (_, i) => distance(course[i]!, course[i + 1]!));
  const top = steps.reduce((a, v) => Math.max(a, v), 0);
  if (!(top > 0)) return null;
  const way = steps.reduce((a, v) => a + v, 0);
  const away = course.map((v) => distance(course[0]!, v));
  // A jump: everything happens in one step, which a held keyframe has at its end.
  const jump = steps.indexOf(top);
  if (top > 0.9 * way) return { kind: 'landing', share: jump === n - 1 ? 1 : (jump + 0.5) / n };
  if (whole > 0) {
    // A bounce only touches its goal between two samples.
    const reached = away.findIndex((d) => d >= whole * 0.985);
    const overshoots =
      away.some((d) => d > whole * 1.02) ||
      (reached >= 0 && reached < n * 0.9 && away.slice(reached).some((d) => d < whole * 0.96));
    if (overshoots && reached > 0) return { kind: 'landing', share: reached / n };
  }
  if (whole < 0.01 * way) {
    // There and back: it hits where it is farthest out.
    const farthest = away.reduce((a, d) => Math.max(a, d), 0);
    return { kind: 'peak', share: away.findIndex((d) => d >= 0.999 * farthest) / n };
  }
  const edge = Math.max(1, Math.round(n / 60));
  const mean = (from: number, to: number) => steps.slice(from, to).reduce((a, v) => a + v, 0) / (to - from);
  if (mean(n - edge, n) >= FULL_SPEED * top) return { kind: 'landing', share: 1 };
  if (mean(0, edge) >= FULL_SPEED * top) return { kind: 'start', share: 0 };
  return { kind: 'peak', share: (jump + 0.5) / n };
}
