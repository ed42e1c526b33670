/**
 * A scale of which one side is set and the other keeps its proportion to it; within the bounds of the property.
 * A side of 0 has no proportion: both get the value.
 */
export function linkedScale(
  [x, y]: readonly [number, number],
  side: 0 | 1,
  value: number,
  { min = -Infinity, max = Infinity }: { readonly min?: number; readonly max?: number },
): [number, number] {
  const [old, other] = side === 0 ? [x, y] : [y, x];
  const clip = (n: number) => Math.min(max, Math.max(min, n));
  const next = old === 0 ? value : clip((other * value) / old);
  return side === 0 ? [value, next] : [next, value];
}
