import { multiply } from '../geometry';
import type { SvgNode } from './nodes';
import { plainPath } from './path-data';
import { measuresIn } from './reader';
import type { Place, Reader } from './reader';
import { shapeNode } from './shape-node';
import { styleOf } from './styles';
import type { Style } from './styles';
import { runsOf } from './text-runs';
import { lengthOf } from './values';
import { baseOf } from './whole';
import type { SvgElement } from './xml';

/** Words as outlines. */

export function textNode(reader: Reader, element: SvgElement, place: Place): SvgNode | null {
  const { runs, left } = runsOf(
    element,
    place.style,
    (child, above) => styleOf(child, above, reader.sheet),
    (style) => measuresIn({ ...place, style }),
  );
  left.forEach((one) => reader.left.add(one));
  const set = runs.map((run) => {
    const names = (run.style['font-family'] ?? '')
      .split(',')
      .map((name) => name.trim().replace(/^["']|["']$/g, ''))
      .filter(Boolean);
    const { family, isKnown } = reader.outliner.familyFor(names);
    if (!isKnown) reader.left.add(`the font ${names[0]!.slice(0, 60)}`); // not known, so there is a name
    const measures = measuresIn({ ...place, style: run.style });
    const size = measures.em;
    const weight = { normal: 400, bold: 700, lighter: 300, bolder: 700 }[run.style['font-weight'] ?? ''];
    const look = {
      family,
      size: Math.max(1e-3, size),
      weight: weight ?? Math.max(1, Math.min(1000, parseFloat(run.style['font-weight'] ?? '400') || 400)),
      isItalic: run.style['font-style'] !== 'normal',
      spacing: lengthOf(run.style['letter-spacing'], 'x', measures) ?? 0,
    };
    // Outlines are rounded: large, then made small.
    const enlarged = 1000 / look.size;
    const large = reader.outliner.outline(run.text, { ...look, size: 1000, spacing: look.spacing * enlarged });
    return { run, d: large.d, k: look.size / 1000, width: large.width / enlarged };
  });
  let [x, y] = [0, 0];
  const children: SvgNode[] = [];
  set.forEach(({ run, d, k, width }, i) => {
    const isChunk = i === 0 || run.x !== null || run.y !== null;
    [x, y] = [(run.x ?? x) + run.dx, (run.y ?? y) + run.dy];
    if (isChunk) {
      let whole = width;
      for (let j = i + 1; j < set.length && set[j]!.run.x === null && set[j]!.run.y === null; j++)
        whole += set[j]!.width + set[j]!.run.dx;
      const anchor = run.style['text-anchor'];
      x -= anchor === 'middle' ? whole / 2 : anchor === 'end' ? whole : 0;
    }
    // Children of the text have no place of their own: what is done to the whole is done once.
    const style = { ...run.style, opacity: '1', 'clip-path': 'none', mask: 'none', filter: 'none' };
    const moved = multiply(place.matrix, [1, 0, 0, 1, x, y]);
    const data = plainPath(d, [k, 0, 0, k, 0, 0]) === null ? null : d;
    const node =
      data === null
        ? null
        : shapeNode(reader, run.element, data, {
            ...place,
            style: scaledStyle(style, k),
            matrix: multiply(moved, [k, 0, 0, k, 0, 0]),
          });
    if (node) children.push({ ...node, name: run.text.trim().slice(0, 40) });
    x += width;
  });
  if (children.length === 0) return null;
  return { ...baseOf(reader, element, place), type: 'group', children };
}

/** Lengths of strokes in coordinates that are made larger. */
function scaledStyle(style: Style, k: number): Style {
  const out: Record<string, string> = { ...style };
  for (const property of ['stroke-width', 'stroke-dashoffset'])
    out[property] = String((parseFloat(style[property] ?? '0') || 0) / k);
  out['stroke-dasharray'] = (style['stroke-dasharray'] ?? 'none').replace(/[\d.]+/g, (n) => String(Number(n) / k));
  return out;
}
