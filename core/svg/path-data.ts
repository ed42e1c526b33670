import svgpath from 'svgpath';
import type { Matrix } from '../geometry';

/** Path data of SVG as the painter takes it: absolute M, L, Q, C and Z. */

/** Longest path data of one shape, UTF-16 units: what a document's layer may hold, and some room for what is put in. */
const MAX_DATA = 150_000;
const PLACES = 1000;
/** What lies farther out is put here, pixels: no frame reaches it, and a layer's box may be twice as wide. */
const FARTHEST = 40_000;
const n = (value: number): string =>
  String(Math.round(Math.max(-FARTHEST, Math.min(FARTHEST, value)) * PLACES) / PLACES);

/** Moves path data by a matrix; null for what is longer than a shape may be or draws nothing. */
export function plainPath(d: string, matrix: Matrix): string | null {
  if (d.length > MAX_DATA) return null;
  // Up to the first mistake it counts (SVG 2, section 9.5.4).
  let path = svgpath(d);
  const { err } = path as unknown as { err: string };
  const mistake = /at pos (\d+)/.exec(err);
  if (mistake) path = svgpath(upTo(d, Number(mistake[1])));
  let out = '';
  path
    .abs()
    .unshort()
    .unarc()
    .abs()
    .matrix([...matrix])
    .iterate((segment, _, x, y) => {
      const [command, ...values] = segment as [string, ...number[]];
      if (command === 'H') out += `L${n(values[0]!)} ${n(y)}`;
      else if (command === 'V') out += `L${n(x)} ${n(values[0]!)}`;
      else out += command + values.map(n).join(' ');
    });
  return out === '' || out.length > MAX_DATA || /NaN|Infinity/.test(out) ? null : out;
}

/** The data before the command or the set of numbers in which a mistake stands. */
function upTo(d: string, position: number): string {
  for (let end = Math.min(position, d.length); end > 0; end--) {
    const { err } = svgpath(d.slice(0, end)) as unknown as { err: string };
    if (!err) return d.slice(0, end);
    if (position - end > 200) break;
  }
  return '';
}
