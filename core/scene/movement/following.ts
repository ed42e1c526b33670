import type { TrackValue, Vector } from '../../motion';
import type { Follow, PropertyId } from '../../piece';
import type { Seconds } from '../../time';

/** Values that a layer takes over from another one, later and with less haste. */

/** Moments at which a damped value looks back; they thin out with age. */
const LOOKS = 40;
/** How far back it looks: what is left after so many time constants is below a thousandth. */
const CONSTANTS = 7;
/** After so long the damping leaves its share of the way, seconds. */
const PER = 0.1;

/** Weights and ages of an exponential follower (a first-order low pass), so that any moment can be asked for on its own. */
const tapsOf = new Map<number, readonly (readonly [age: Seconds, weight: number])[]>();
function taps(damping: number): readonly (readonly [Seconds, number])[] {
  let known = tapsOf.get(damping);
  if (!known) {
    const constant = PER / -Math.log(Math.min(0.999, damping));
    const made: [number, number][] = [];
    let sum = 0;
    for (let i = 0; i < LOOKS; i++) {
      // Equal shares of the weight e^(−t): every look counts the same.
      const share = ((i + 0.5) / LOOKS) * (1 - Math.exp(-CONSTANTS));
      made.push([-constant * Math.log(1 - share), 1]);
      sum += 1;
    }
    if (tapsOf.size > 200) tapsOf.clear();
    tapsOf.set(damping, (known = made.map(([age, weight]) => [age, weight / sum])));
  }
  return known;
}

const mean = (values: readonly (readonly [TrackValue, number])[]): TrackValue => {
  const [first] = values[0]!; // never empty
  if (typeof first === 'string') return first;
  if (typeof first === 'number') return values.reduce((sum, [v, w]) => sum + (v as number) * w, 0);
  return values.reduce<Vector>(([x, y], [v, w]) => [x + (v as Vector)[0] * w, y + (v as Vector)[1] * w], [0, 0]);
};

/** What is followed, at a time: delayed by `delay` seconds and damped. @param at - its own value at a time. */
export function followed(
  follow: Follow,
  seconds: Seconds,
  delayed: (seconds: Seconds) => Seconds,
  at: (seconds: Seconds) => TrackValue,
): TrackValue {
  if (follow.damping <= 0) return at(delayed(seconds));
  return mean(taps(follow.damping).map(([age, weight]) => [at(delayed(seconds - age)), weight] as const));
}

const FACTORS: ReadonlySet<PropertyId> = new Set(['scale', 'opacity']);

/** The layer's own value with what it follows: added, or for factors multiplied. */
export function joined(property: PropertyId, own: TrackValue, taken: TrackValue): TrackValue {
  const one = (a: number, b: number): number => (FACTORS.has(property) ? a * b : a + b);
  if (typeof own === 'number' && typeof taken === 'number') return one(own, taken);
  if (Array.isArray(own) && Array.isArray(taken)) return [one(own[0], taken[0]), one(own[1], taken[1])];
  return taken;
}

/** Degrees clockwise from the direction of x, in which one place sees another. */
export const directionTo = ([x, y]: Readonly<Vector>, [tx, ty]: Readonly<Vector>): number =>
  (Math.atan2(ty - y, tx - x) * 180) / Math.PI;
