import { IDENTITY, transformBox, unionBoxes } from '../../geometry';
import type { Colour } from '../../colour';
import type { Seconds } from '../../time';
import type { DisplayItem, GroupItem, ShapeItem } from '../list/display-list';
import { composed } from './composed';
import { blurOf } from './effects';
import type { FrameContext } from './frame-context';
import { layerAt } from './layer-at';
import { withBlur } from './layer-reader';
import type { PreparedLayer } from './prepare';

/**
 * What layers that lie over one another draw, bottom to top. A look draws nothing: what lies below it is done over by its
 * effects.
 * @param ground - the colour under all of them, which a look does over as well; null where there is none.
 */
export function stackOf(
  layers: readonly PreparedLayer[],
  seconds: Seconds,
  context: FrameContext,
  ground: Colour | null,
): DisplayItem[] {
  let items: DisplayItem[] = [];
  for (const prepared of layers) {
    if (prepared.layer.kind === 'look') items = looked(items, prepared, seconds, context, ground);
    else {
      const item = context.draw.layer(prepared, seconds, context);
      if (item) items.push(item);
    }
  }
  return items;
}

/** The ground as a shape over the whole frame. */
export function groundItem(layerId: string, colour: Colour, { scene, around }: FrameContext): ShapeItem {
  const { width, height } = scene.format;
  return {
    kind: 'shape',
    layerId,
    path: `M0 0L${width} 0L${width} ${height}L0 ${height}Z`,
    pathKey: `ground${width},${height}`,
    matrix: around?.matrix ?? IDENTITY,
    box: [0, 0, width, height],
    opacity: 1,
    blend: 'normal',
    fill: { type: 'solid', colour },
    stroke: null,
    fingerprint: `ground${width},${height}${colour}${around?.matrix.join() ?? ''}`,
  };
}

function looked(
  below: DisplayItem[],
  look: PreparedLayer,
  seconds: Seconds,
  context: FrameContext,
  ground: Colour | null,
): DisplayItem[] {
  const { layer, hidden, start, end } = look;
  if (hidden || context.isAtRest || seconds < start || seconds >= end) return below;
  if (context.scene.mattes.has(layer.id)) return below;
  const at = layerAt(look, seconds, context);
  const children = ground === null ? below : [groundItem(layer.id, ground, context), ...below];
  if (!at || children.length === 0) return below;
  const box = unionBoxes(children.map((child) => transformBox(child.matrix, child.box))) ?? [0, 0, 0, 0];
  const item: GroupItem = {
    kind: 'group',
    holds: 'layers',
    layerId: layer.id,
    children,
    under: [],
    matrix: IDENTITY,
    box,
    opacity: at.opacity,
    blend: layer.blend,
    own: `k${at.opacity}|${layer.blend}`,
    fingerprint: `k${at.opacity}|${layer.blend}[${children.map((child) => child.fingerprint).join('~')}]`,
  };
  const done = composed(at, withBlur(item, blurOf(at) * at.outer.scale));
  if (!done || done.fingerprint === item.fingerprint) return below;
  // What is only partly done over stays below.
  const isWhole = at.opacity >= 1 && layer.blend === 'normal' && look.masks.length === 0 && layer.matte === null;
  return isWhole ? [done] : [...below, done];
}
