/**
 * The course of a window along one axis: where it holds most of what matters in each frame, moved as a camera is, never
 * faster than a speed nor speeding up faster than a rate. Found by dynamic programming over places and speeds, so that it
 * knows what comes: a camera that only follows is always late.
 */

/** Places along the axis, and the greatest speed, in places a step. */
const PLACES = 97;
const FASTEST = 8;
const SPEEDS = 2 * FASTEST + 1;
/** What a step costs by its speed and by its change of speed, against 0 to 1 for what the window misses. */
const COST_OF_SPEED = 0.004;
const COST_OF_CHANGE = 0.03;

/** How much of what matters a window misses; what is near its edge counts as half missed. */
function missed(mass: Float32Array, middle: number, width: number): number {
  const n = mass.length;
  let inside = 0;
  for (let i = 0; i < n; i++) {
    const off = Math.abs((i + 0.5) / n - middle) / (width / 2);
    if (off < 1) inside += mass[i]! * (1 - off * off);
  }
  return 1 - inside;
}

/**
 * @param masses - of each step: how much matters at each place along the axis; ≥ 0, summing to 1.
 * @param width - of the window, share of the axis, above 0.
 * @returns of each step the window's middle, share of the axis. Middles change from step to step by at most `8 / 96` of
 * the room that the window has, and these changes by at most `1 / 96` of it from one step to the next.
 */
export function windowPath(masses: readonly Float32Array[], width: number): Float64Array {
  const room = 1 - width;
  const steps = masses.length;
  if (room <= 1e-6 || steps === 0) return new Float64Array(steps).fill(0.5);
  const placeAt = (p: number): number => width / 2 + (room * p) / (PLACES - 1);
  const costs = masses.map((mass) => Float64Array.from({ length: PLACES }, (_, p) => missed(mass, placeAt(p), width)));
  let best = new Float64Array(PLACES * SPEEDS).fill(Infinity);
  for (let p = 0; p < PLACES; p++)
    for (let v = 0; v < SPEEDS; v++) best[p * SPEEDS + v] = costs[0]![p]! + COST_OF_SPEED * Math.abs(v - FASTEST);
  const from: Int8Array[] = [];
  for (let step = 1; step < steps; step++) {
    const next = new Float64Array(PLACES * SPEEDS).fill(Infinity);
    const came = new Int8Array(PLACES * SPEEDS);
    for (let p = 0; p < PLACES; p++)
      for (let v = 0; v < SPEEDS; v++) {
        const speed = v - FASTEST;
        const last = p - speed;
        if (last < 0 || last >= PLACES) continue;
        for (let change = -1; change <= 1; change++) {
          const before = v - change;
          if (before < 0 || before >= SPEEDS) continue;
          const cost = best[last * SPEEDS + before]! + COST_OF_CHANGE * Math.abs(change);
          if (cost >= next[p * SPEEDS + v]!) continue;
          next[p * SPEEDS + v] = cost;
          came[p * SPEEDS + v] = change;
        }
        next[p * SPEEDS + v]! += costs[step]![p]! + COST_OF_SPEED * Math.abs(speed);
      }
    best = next;
    from.push(came);
  }
  let state = best.reduce((least, cost, i) => (cost < best[least]! ? i : least), 0);
  const out = new Float64Array(steps);
  for (let step = steps - 1; step >= 0; step--) {
    const [p, v] = [Math.floor(state / SPEEDS), state % SPEEDS];
    out[step] = placeAt(p);
    if (step > 0) state = (p - (v - FASTEST)) * SPEEDS + v - from[step - 1]![state]!;
  }
  return out;
}
