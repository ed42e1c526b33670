/**
 * Previews share the page's time: the one that is looked at is painted in every turn, the others one after another, so
 * that thirty of them cost no more than two.
 */
export interface Turn {
  /** Paints what is shown at a time, in seconds. */
  readonly paint: (seconds: number) => void;
  readonly isInView: () => boolean;
  readonly isWatched: () => boolean;
}

const turns = new Set<Turn>();
let frame = 0;
let next = 0;
let before = 0;
/** Shortest time between two rounds, milliseconds: thirty a second are enough to choose by. */
const ROUND = 32;

function round(now: number): void {
  frame = turns.size > 0 ? requestAnimationFrame(round) : 0;
  if (now - before < ROUND) return;
  before = now;
  const seen = [...turns].filter((turn) => turn.isInView());
  for (const turn of seen) if (turn.isWatched()) turn.paint(now / 1000);
  const others = seen.filter((turn) => !turn.isWatched());
  others[next++ % Math.max(1, others.length)]?.paint(now / 1000);
}

/** @returns what ends it. */
export function takeTurns(turn: Turn): () => void {
  turns.add(turn);
  if (frame === 0) frame = requestAnimationFrame(round);
  return () => void turns.delete(turn);
}
