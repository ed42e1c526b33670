/** Screen pixels between two numbers of a ruler, at least. */
const NUMBER_ROOM = 56;

export interface Tick {
  readonly at: number;
  readonly isNumbered: boolean;
}

/** The steps of a ruler: 1, 2 or 5 times a power of ten, so that numbers have room; five ticks a step. */
export function ticksOf(from: number, to: number, zoom: number): Tick[] {
  const least = NUMBER_ROOM / zoom;
  const power = 10 ** Math.floor(Math.log10(least));
  const step = Math.max(1, [1, 2, 5, 10].map((k) => k * power).find((s) => s >= least) ?? power * 10);
  const small = step >= 5 ? step / 5 : step;
  const ticks: Tick[] = [];
  const each = Math.round(step / small);
  for (let i = Math.ceil(from / small); i * small <= to; i++) ticks.push({ at: i * small, isNumbered: i % each === 0 });
  return ticks;
}
