import * as z from 'zod';
import { textSchema } from '../time';
import { idsOf } from './table-ids';
import { easingSchema, evaluateEasing } from './easing';
import { RHYTHM_STEP } from './length-bounds';

/** How a gesture runs through the letters, words or lines of a text. */
export const STAGGER_ORDERS = {
  forward: 'First to last',
  backward: 'Last to first',
  centre: 'From centre',
  edges: 'From both ends',
  random: 'Random',
  across: 'Left to right',
  back: 'Right to left',
  down: 'Top to bottom',
  up: 'Bottom to top',
  outward: 'By distance from centre',
} as const;
export type StaggerOrder = keyof typeof STAGGER_ORDERS;

export const rhythmSchema = z.strictObject({
  /** `x` is a place, anything else a rest; repeated. */
  pattern: textSchema(64).min(1),
  /** Beats a character stands for. */
  step: z.number().min(RHYTHM_STEP.min).max(RHYTHM_STEP.max),
});

export const staggerSchema = z.strictObject({
  order: z.enum(idsOf(STAGGER_ORDERS)),
  /** 0: one after another. 1: all at once. */
  overlap: z.number().min(0).max(1),
  seed: z.number().int().min(-2147483648).max(2147483647),
  /** How the starts are spread over the time: even, or closer at one end. */
  easing: easingSchema,
  /** On the beats: each unit takes the next place of the rhythm. */
  rhythm: rhythmSchema.nullable(),
});
export type Stagger = z.infer<typeof staggerSchema>;

export const DEFAULT_STAGGER: Stagger = {
  order: 'forward',
  overlap: 0.8,
  seed: 1,
  easing: { type: 'linear' },
  rhythm: null,
};

/**
 * A number in [0, 1) from two integers, the same on every machine.
 * @see splitmix32, a 32-bit mixing function with the constants of MurmurHash3's finaliser (A. Appleby, 2011).
 */
export function hashUnit(seed: number, index: number): number {
  let h = (Math.imul(seed | 0, 0x9e3779b9) + Math.imul(index + 1, 0x85ebca6b)) | 0;
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296;
}

/** Where a unit stands, for orders that go by place. */
export interface UnitPlace {
  readonly x: number;
  readonly y: number;
}

/** The rank of each unit, 0 first; units that go at the same time share a rank. */
export function staggerRanks(places: readonly UnitPlace[], stagger: Pick<Stagger, 'order' | 'seed'>): Float64Array {
  const n = places.length;
  const ranks = new Float64Array(n);
  const bySort = (value: (i: number) => number) => {
    const order = Array.from({ length: n }, (_, i) => i).sort((a, b) => value(a) - value(b) || a - b);
    order.forEach((unit, rank) => (ranks[unit] = rank));
  };
  switch (stagger.order) {
    case 'forward':
      for (let i = 0; i < n; i++) ranks[i] = i;
      break;
    case 'backward':
      for (let i = 0; i < n; i++) ranks[i] = n - 1 - i;
      break;
    case 'centre':
      for (let i = 0; i < n; i++) ranks[i] = Math.abs(i - (n - 1) / 2) - ((n - 1) % 2) / 2;
      break;
    case 'edges':
      for (let i = 0; i < n; i++) ranks[i] = Math.min(i, n - 1 - i);
      break;
    case 'random':
      bySort((i) => hashUnit(stagger.seed, i));
      break;
    case 'across':
      bySort((i) => places[i]!.x);
      break;
    case 'back':
      bySort((i) => -places[i]!.x);
      break;
    case 'down':
      bySort((i) => places[i]!.y);
      break;
    case 'up':
      bySort((i) => -places[i]!.y);
      break;
    case 'outward': {
      const mean = (of: (p: UnitPlace) => number) => places.reduce((sum, p) => sum + of(p), 0) / Math.max(1, n);
      const [x, y] = [mean((p) => p.x), mean((p) => p.y)];
      bySort((i) => Math.hypot(places[i]!.x - x, places[i]!.y - y));
      break;
    }
  }
  return ranks;
}

/**
 * When each unit sets off and how long it takes, within a total duration: the last one ends exactly at the end.
 * @returns Offsets in [0, total − each], seconds if the total is.
 */
export function staggerOffsets(
  ranks: Float64Array,
  stagger: Pick<Stagger, 'overlap' | 'easing'>,
  total: number,
): { offsets: Float64Array; each: number } {
  const last = ranks.reduce((a, r) => Math.max(a, r), 0);
  const each = total / (1 + last * (1 - stagger.overlap));
  return {
    offsets: ranks.map((rank) => (last === 0 ? 0 : evaluateEasing(stagger.easing, rank / last) * (total - each))),
    each,
  };
}

/** The place in beats of each rank on a rhythm: rank 0 takes the first x. A rhythm without an x counts every step. */
export function rhythmPlaces(ranks: Float64Array, rhythm: z.infer<typeof rhythmSchema>): Float64Array {
  const marks = [...rhythm.pattern].flatMap((c, i) => (/x/i.test(c) ? [i] : []));
  const places = marks.length > 0 ? marks : [0];
  const length = marks.length > 0 ? [...rhythm.pattern].length : 1;
  return ranks.map((rank) => {
    const k = Math.floor(rank);
    return (Math.floor(k / places.length) * length + places[k % places.length]! - places[0]!) * rhythm.step;
  });
}
