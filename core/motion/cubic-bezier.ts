/**
 * Timing function of a cubic Bézier through (0,0), (x1,y1), (x2,y2), (1,1): y at the curve point whose x is given.
 * x1 and x2 must lie in [0, 1] so that x(s) is monotone. Newton's method, bisection where the slope is flat.
 * @see CSS Easing Functions Level 1, section 2.2 (the same definition).
 */
export function cubicBezier(x1: number, y1: number, x2: number, y2: number, x: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  const cx = 3 * x1;
  const bx = 3 * (x2 - x1) - cx;
  const ax = 1 - cx - bx;
  const cy = 3 * y1;
  const by = 3 * (y2 - y1) - cy;
  const ay = 1 - cy - by;
  let s = x;
  for (let i = 0; i < 8; i++) {
    const error = ((ax * s + bx) * s + cx) * s - x;
    if (Math.abs(error) < 1e-9) return ((ay * s + by) * s + cy) * s;
    const slope = (3 * ax * s + 2 * bx) * s + cx;
    if (Math.abs(slope) < 1e-6) break;
    s -= error / slope;
  }
  let lo = 0;
  let hi = 1;
  s = Math.min(1, Math.max(0, s));
  for (let i = 0; i < 60; i++) {
    const error = ((ax * s + bx) * s + cx) * s - x;
    if (Math.abs(error) < 1e-10) break;
    if (error < 0) lo = s;
    else hi = s;
    s = (lo + hi) / 2;
  }
  return ((ay * s + by) * s + cy) * s;
}
