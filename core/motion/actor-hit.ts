import { actorAt } from './actor';
import type { ActorState, PreparedActor } from './actor';
import { hitOf } from './hit-of';
import type { HitKind } from './hit-of';

/** Steps at which the course of an actor is looked at: over a movement of two seconds, one each 2 ms. */
const STEPS = 960;

/**
 * How far apart two states look in each thing that they show: an em of movement, twice the size and a quarter turn count
 * alike.
 */
type Apart = (a: ActorState, b: ActorState) => number;
const COMPONENTS: readonly Apart[] = [
  (a, b) => Math.hypot(a.move[0] - b.move[0], a.move[1] - b.move[1]),
  (a, b) => Math.hypot(a.scale[0] - b.scale[0], a.scale[1] - b.scale[1]),
  (a, b) => Math.abs(a.rotation - b.rotation) / 90,
  (a, b) => Math.abs(a.skew - b.skew) / 45,
  (a, b) => Math.abs(a.opacity - b.opacity) * 0.5,
  (a, b) => Math.abs(a.blur - b.blur) * 0.5,
  (a, b) => Math.abs(a.tint - b.tint) * 0.7,
  (a, b) => Math.abs(a.spread - b.spread) * 2,
  (a, b) => Math.abs(a.weight - b.weight) / 400,
  (a, b) => Math.abs(a.draw - b.draw),
  (a, b) => Math.abs(a.ink - b.ink) * 0.5,
  (a, b) => Math.abs(a.wipe - b.wipe),
  (a, b) => Math.abs(a.scramble - b.scramble),
];

const looksApart: Apart = (a, b) => Math.hypot(...COMPONENTS.map((apart) => apart(a, b)));

const courseOf = (actor: PreparedActor, isBackwards: boolean): ActorState[] =>
  Array.from({ length: STEPS + 1 }, (_, k) => actorAt(actor, isBackwards ? 1 - k / STEPS : k / STEPS));

/**
 * When an actor's movement is seen to hit, from its course. @param isBackwards - as an exit runs. Null if nothing
 * moves.
 */
export function actorHit(actor: PreparedActor, isBackwards: boolean): { kind: HitKind; share: number } | null {
  return hitOf(courseOf(actor, isBackwards), looksApart);
}

/** Within this share of all that it moves, a component counts as arrived. */
const ARRIVED = 0.015;
/** How much more what moves little counts for less, and how much more what arrives late counts. */
const [BY_AMOUNT, BY_LATENESS] = [3, 12];

/**
 * When in [0, 1] of its duration an actor first arrives where it ends: the latest first arrival of what moves in it.
 * What moves little counts for little, by degrees, so that no parameter makes the moment leap. Null if nothing moves.
 * @param isBackwards - as an exit runs.
 */
export function actorArrival(actor: PreparedActor, isBackwards: boolean): number | null {
  const course = courseOf(actor, isBackwards);
  const end = course[STEPS]!;
  const arrivals = COMPONENTS.flatMap((apart) => {
    const left = course.map((state) => apart(state, end));
    const amount = left.reduce((a, v) => Math.max(a, v), 0);
    if (!(amount > 1e-6)) return [];
    const begun = left.findIndex((v) => v > amount * ARRIVED);
    const there = left.findIndex((v, k) => k > begun && v <= amount * ARRIVED);
    return [{ amount, at: there / STEPS }];
  });
  const most = arrivals.reduce((a, { amount }) => Math.max(a, amount), 0);
  if (!(most > 0)) return null;
  let [sum, weights] = [0, 0];
  for (const { amount, at } of arrivals) {
    const weight = (amount / most) ** BY_AMOUNT * Math.exp(BY_LATENESS * at);
    sum += weight * at;
    weights += weight;
  }
  return sum / weights;
}
