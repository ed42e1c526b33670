import { createRandom as createUnits } from '../../demo/synth';

/** Seeded random numbers: the same siege on every machine. */
export interface Random {
  /** In [0, 1). */
  unit(): number;
  /** A whole number in [from, to). */
  int(from: number, to: number): number;
  pick<T>(list: readonly T[]): T;
}

export function createRandom(seed: number): Random {
  const unit = createUnits(seed);
  const int = (from: number, to: number) => from + Math.floor(unit() * (to - from));
  return { unit, int, pick: (list) => list[int(0, list.length)]! };
}
