import type { Seconds } from '../../time';

/**
 * Gives every phrase a stretch of time. Places where a phrase may begin or end are given, each with how good a
 * beginning it is; every phrase must stand at least as long as it takes to read, and none may begin before the one
 * before it has ended. Among all such layings the cheapest is found by dynamic programming (the line is the order of
 * the phrases, the state is where the last one ended): good beginnings, lengths near the wished ones, few gaps.
 */
export interface PhraseNeed {
  /** Seconds it takes to read. */
  readonly least: Seconds;
  /** Seconds it should have; shares of the whole time by reading time. */
  readonly wished: Seconds;
  /** A locked phrase stays where it is. */
  readonly fixed: { readonly start: Seconds; readonly end: Seconds } | null;
}

export interface Place {
  readonly at: Seconds;
  /** In [0, 1]: how good it is to begin there. */
  readonly goodness: number;
}

export interface Stretched {
  /** Indices into the places. */
  readonly start: number;
  readonly end: number;
}

const START_WEIGHT = 1;
const LENGTH_WEIGHT = 2;
/** Cost of a gap as long as an average phrase. */
const GAP_WEIGHT = 1.5;
const SAME: Seconds = 1e-4;

/**
 * The cost of one phrase and of the gap before it; what the laying minimises the sum of. Infinite where it may not
 * stand.
 */
export function phraseCost(need: PhraseNeed, start: Place, end: Place): number {
  const length = end.at - start.at;
  if (need.fixed)
    return Math.abs(start.at - need.fixed.start) < SAME && Math.abs(end.at - need.fixed.end) < SAME ? 0 : Infinity;
  if (length < need.least - SAME || length <= 0) return Infinity;
  return START_WEIGHT * (1 - start.goodness) + LENGTH_WEIGHT * ((length - need.wished) / need.wished) ** 2;
}

export const gapCost = (seconds: Seconds, meanWished: Seconds): number => (GAP_WEIGHT * seconds) / meanWished;

/**
 * @param places - ascending; the first and the last bound the time there is. Locked phrases must begin and end at
 * places.
 * @returns One stretch a phrase, or null if no laying gives every phrase its reading time.
 */
export function layPhrases(
  needs: readonly PhraseNeed[],
  places: readonly Place[],
): { stretches: Stretched[]; cost: number } | null {
  const n = needs.length;
  const k = places.length;
  if (n === 0) return { stretches: [], cost: 0 };
  if (k < 2) return null;
  const mean = needs.reduce((sum, need) => sum + need.wished, 0) / n;
  // best[e]: cheapest way in which the phrases so far end at place e at the latest reached; before the first, the time
  // begins at place 0.
  let best = new Float64Array(k).fill(Infinity);
  best[0] = 0;
  const startOf: Int32Array[] = [];
  const endBefore: Int32Array[] = [];
  for (const need of needs) {
    // Cheapest to begin at s: the end before it that makes cost plus gap least. A running minimum, because gaps cost
    // evenly.
    const toStart = new Float64Array(k).fill(Infinity);
    const before = new Int32Array(k).fill(-1);
    let least = Infinity;
    let at = -1;
    for (let s = 0; s < k; s++) {
      const value = best[s]! - gapCost(places[s]!.at, mean);
      if (value < least) [least, at] = [value, s];
      if (at >= 0) {
        toStart[s] = least + gapCost(places[s]!.at, mean);
        before[s] = at;
      }
    }
    const next = new Float64Array(k).fill(Infinity);
    const starts = new Int32Array(k).fill(-1);
    for (let s = 0; s < k; s++) {
      if (toStart[s] === Infinity) continue;
      for (let e = s + 1; e < k; e++) {
        const cost = toStart[s]! + phraseCost(need, places[s]!, places[e]!);
        if (cost < next[e]!) {
          next[e] = cost;
          starts[e] = s;
        }
      }
    }
    startOf.push(starts);
    endBefore.push(before);
    best = next;
  }
  let end = -1;
  let cost = Infinity;
  for (let e = 0; e < k; e++) {
    const value = best[e]! + gapCost(places[k - 1]!.at - places[e]!.at, mean);
    if (value < cost) [end, cost] = [e, value];
  }
  if (end < 0 || cost === Infinity) return null;
  const stretches: Stretched[] = [];
  for (let i = n - 1; i >= 0; i--) {
    const start = startOf[i]![end]!;
    stretches.unshift({ start, end });
    end = endBefore[i]![start]!;
  }
  return { stretches, cost };
}
