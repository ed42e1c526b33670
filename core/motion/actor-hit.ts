import { actorAt } from './actor';
import type { ActorState, PreparedActor } from './actor';
import { hitOf } from './hit-of';
import type { HitKind } from './hit-of';

/** Steps at which the course of an actor is looked at: over a movement of two seconds, one each 2 ms. */
const STEPS = 960;

/** How far apart two states look: an em of movement, twice the size and a quarter turn count alike. */
function looksApart(a: ActorState, b: ActorState): number {
  return Math.hypot(
    a.move[0] - b.move[0],
    a.move[1] - b.move[1],
    a.scale[0] - b.scale[0],
    a.scale[1] - b.scale[1],
    (a.rotation - b.rotation) / 90,
    (a.skew - b.skew) / 45,
    (a.opacity - b.opacity) * 0.5,
    (a.blur - b.blur) * 0.5,
    (a.tint - b.tint) * 0.7,
    (a.spread - b.spread) * 2,
    (a.weight - b.weight) / 400,
    a.draw - b.draw,
    (a.ink - b.ink) * 0.5,
    a.wipe - b.wipe,
    a.scramble - b.scramble,
  );
}

/**
 * When an actor's movement is seen to hit, from its course. @param isBackwards - as an exit runs. Null if nothing
 * moves.
 */
export function actorHit(actor: PreparedActor, isBackwards: boolean): { kind: HitKind; share: number } | null {
  return hitOf(
    Array.from({ length: STEPS + 1 }, (_, k) => actorAt(actor, isBackwards ? 1 - k / STEPS : k / STEPS)),
    looksApart,
  );
}
