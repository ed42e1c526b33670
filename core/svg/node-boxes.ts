import { tightBox, transformBox, unionBoxes } from '../geometry';
import type { Box } from '../geometry';
import { strokeReach } from '../piece';
import type { SvgNode, SvgShape } from './nodes';

/** Where nodes lie, pixels of the place. */

function unionOf(node: SvgNode, of: (shape: SvgShape) => Box | null): Box | null {
  if (node.type === 'shape') return of(node);
  return unionBoxes(node.children.map((child) => unionOf(child, of)));
}

/** The box of the paths of a node; null for none. */
export const geometryBox = (node: SvgNode): Box | null =>
  unionOf(node, ({ d, matrix }) => {
    const box = tightBox(d);
    return box && transformBox(matrix, box);
  });

/** Where a node may paint, without blur; null for nowhere. */
export const paintedBox = (node: SvgNode): Box | null =>
  unionOf(node, (shape) => {
    const box = tightBox(shape.d);
    const by = shape.stroke ? strokeReach(shape.stroke.width, shape.stroke.style) : 0;
    return box && transformBox(shape.matrix, [box[0] - by, box[1] - by, box[2] + by, box[3] + by]);
  });

/** Whether a node certainly paints within a box. */
export function staysWithin(node: SvgNode, [l, t, r, b]: Box): boolean {
  const painted = paintedBox(node);
  return !painted || (painted[0] >= l && painted[1] >= t && painted[2] <= r && painted[3] <= b);
}
