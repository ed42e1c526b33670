/** Seeded random numbers (mulberry32, T. Ettinger): the same siege on every machine. */
export interface Random {
  /** In [0, 1). */
  unit(): number;
  /** A whole number in [from, to). */
  int(from: number, to: number): number;
  pick<T>(list: readonly T[]): T;
}

export function createRandom(seed: number): Random {
  let state = seed >>> 0;
  const unit = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  const int = (from: number, to: number) => from + Math.floor(unit() * (to - from));
  return { unit, int, pick: (list) => list[int(0, list.length)]! };
}
