import type { HitClass } from '../../audio';
import { beatMoment, beatToBar, beatToSeconds, isFreeTime, secondsToBeat } from '../../time';
import type { Moment, Seconds } from '../../time';
import type { ResolvedTimes } from './resolve-times';

/** What things can be spread on. */
export const SPREAD_KINDS = {
  beat: { label: 'Every beat' },
  second: { label: 'Every second beat' },
  downbeat: { label: 'Downbeats' },
  hit: { label: 'Hits of one kind' },
  pattern: { label: 'Typed rhythm' },
} as const;
export type SpreadKind = keyof typeof SPREAD_KINDS;

export interface SpreadPlan {
  readonly kind: SpreadKind;
  /** For hits: their class, and the weakest that counts, in [0, 1]. */
  readonly hitClass: HitClass;
  readonly weakest: number;
  /** For a rhythm: x is a place, anything else a rest; it is repeated. */
  readonly pattern: string;
  /** For a rhythm: beats a character stands for. */
  readonly step: number;
}

/**
 * A beat's grid time is compared with the start within this tolerance, so that "from here" includes the beat under the
 * playhead.
 */
const EARLY: Seconds = 0.005;

/**
 * The first `count` places of a plan from a time on. Fewer if the hits run out; none for a rhythm without an x.
 * @param hitClassOf - class and strength of a hit by its name.
 */
export function spreadTargets(
  plan: SpreadPlan,
  from: Seconds,
  count: number,
  times: ResolvedTimes,
  hitClassOf: (id: string) => { class: HitClass; strength: number } | undefined,
): Moment[] {
  const { grid, targets } = times;
  if (plan.kind === 'hit') {
    return [...targets.hits]
      .filter(
        ([id, time]) =>
          time >= from - EARLY &&
          hitClassOf(id)?.class === plan.hitClass &&
          (hitClassOf(id)?.strength ?? 0) >= plan.weakest,
      )
      .sort((a, b) => a[1] - b[1])
      .slice(0, count)
      .map(([id, last]): Moment => ({ kind: 'pinned', to: { type: 'hit', id }, last }));
  }
  const start = secondsToBeat(grid, from);
  const out: Moment[] = [];
  if (plan.kind === 'pattern') {
    const marks = [...plan.pattern.trim()];
    if (!marks.some((c) => c === 'x' || c === 'X')) return [];
    const first = Math.ceil(start / plan.step - 1e-3) * plan.step;
    for (let i = 0; out.length < count; i++)
      if (/x/i.test(marks[i % marks.length]!))
        out.push(beatMoment(Math.round((first + i * plan.step) * 1e6) / 1e6, grid));
    return out;
  }
  const every = plan.kind === 'second' ? 2 : 1;
  // A grid of one beat a bar at the least, so this ends.
  for (let beat = Math.ceil(start - 1e-2); out.length < count; beat += plan.kind === 'downbeat' ? 1 : every) {
    if (isFreeTime(grid, beatToSeconds(grid, beat))) continue;
    if (plan.kind === 'downbeat' && Math.abs(beatToBar(grid, beat).beat - 1) > 1e-6) continue;
    out.push(beatMoment(beat, grid));
  }
  return out;
}

export const SPREAD_ORDERS = { forward: 'Forward', backward: 'Backward', ends: 'From both ends' } as const;
export type SpreadOrder = keyof typeof SPREAD_ORDERS;

/** Indices 0…count-1 in the order in which they take their places. */
export function spreadOrder(count: number, order: SpreadOrder): number[] {
  const forward = Array.from({ length: count }, (_, i) => i);
  if (order === 'backward') return forward.reverse();
  if (order === 'ends') return forward.map((i) => (i % 2 === 0 ? i / 2 : count - 1 - (i - 1) / 2));
  return forward;
}
