/** The share of true times that have a found one within 70 ms. */
export const foundShare = (truth: readonly number[], found: readonly number[]): number =>
  truth.filter((t) => found.some((x) => Math.abs(x - t) < 0.07)).length / truth.length;
