/**
 * A song fitted to a number of bars by leaving out or repeating whole bars, where the music is most alike.
 *
 * Dynamic programming over (bar played last, bars played so far): going on to the next bar is free, jumping from the
 * end of bar i to the start of bar j costs how unlike j is to the bar that would have followed, and i to the bar before
 * j, plus a price for every jump. The first and the last bar are always played, so that the song begins as it begins
 * and comes to its own end.
 * @see S. Wenner et al., "Scalable Music: Automatic Music Retargeting and Synthesis", Eurographics 2013 (the idea of
 * jumps between like bars)
 */

/** Price of a jump, in the distance of two bars of one song (their rows differ by 0.3 to 1.5 in most songs). */
const JUMP_PRICE = 0.25;
/** Bars played between two jumps at least. */
const BETWEEN_JUMPS = 2;

export interface BarRange {
  /** Bars [from, to) of the song. */
  readonly from: number;
  readonly to: number;
}

/**
 * @param rows - what each bar sounds like; equal lengths.
 * @param wanted - number of bars to play, at least 2.
 * @returns The ranges of bars to play in turn; null if it can't be done (fewer than three bars, or one of other lengths
 * wanted).
 */
export function fitToBars(rows: readonly (readonly number[])[], wanted: number): BarRange[] | null {
  const n = rows.length;
  if (n < 3 || wanted < 2 || !Number.isInteger(wanted) || wanted > 4 * n) return null;
  if (wanted === n) return [{ from: 0, to: n }];
  const distance = (a: number, b: number) => {
    let sum = 0;
    for (let k = 0; k < rows[a]!.length; k++) sum += (rows[a]![k]! - (rows[b]![k] ?? 0)) ** 2;
    return Math.sqrt(sum);
  };
  const price = new Float64Array(n * n).fill(Infinity);
  for (let i = 0; i + 1 < n; i++) {
    for (let j = 1; j < n; j++) {
      if (j === i + 1) continue;
      price[i * n + j] = JUMP_PRICE + distance(i + 1, j) + 0.7 * distance(i, j - 1);
    }
  }
  // cost[(bar * BETWEEN_JUMPS + run)]: run counts the bars since the last jump, up to BETWEEN_JUMPS - 1.
  const states = n * BETWEEN_JUMPS;
  const free = BETWEEN_JUMPS - 1;
  let cost = new Float64Array(states).fill(Infinity);
  cost[free] = 0; // bar 0, free to jump
  const back = Array.from({ length: wanted }, () => new Int32Array(states).fill(-1));
  for (let count = 1; count < wanted; count++) {
    const next = new Float64Array(states).fill(Infinity);
    const from = back[count]!;
    for (let i = 0; i < n; i++) {
      for (let run = 0; run < BETWEEN_JUMPS; run++) {
        const here = cost[i * BETWEEN_JUMPS + run]!;
        if (here === Infinity) continue;
        const on = (i + 1) * BETWEEN_JUMPS + Math.min(free, run + 1);
        if (i + 1 < n && here < next[on]!) {
          next[on] = here;
          from[on] = i * BETWEEN_JUMPS + run;
        }
        if (run < free) continue;
        for (let j = 1; j < n; j++) {
          const total = here + price[i * n + j]!;
          if (total < next[j * BETWEEN_JUMPS]!) {
            next[j * BETWEEN_JUMPS] = total;
            from[j * BETWEEN_JUMPS] = i * BETWEEN_JUMPS + run;
          }
        }
      }
    }
    cost = next;
  }
  let state = -1;
  for (let run = 0; run < BETWEEN_JUMPS; run++) {
    const s = (n - 1) * BETWEEN_JUMPS + run;
    if (cost[s]! < Infinity && (state < 0 || cost[s]! < cost[state]!)) state = s;
  }
  if (state < 0) return null;
  const played: number[] = [];
  for (let count = wanted - 1; count >= 0; count--) {
    played.push(Math.floor(state / BETWEEN_JUMPS));
    state = back[count]![state]!;
  }
  played.reverse();
  const ranges: { from: number; to: number }[] = [];
  for (const bar of played) {
    const last = ranges[ranges.length - 1];
    if (last && last.to === bar) last.to = bar + 1;
    else ranges.push({ from: bar, to: bar + 1 });
  }
  return ranges;
}
