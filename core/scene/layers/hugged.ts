import { invert, isFlat, pathBounds, transformBox, unionBoxes } from '../../geometry';
import type { Box } from '../../geometry';
import type { TrackValue } from '../../motion';
import { positionAt } from '../../piece';
import type { PropertyId } from '../../piece';
import type { DisplayItem } from '../list/display-list';
import type { FrameContext } from './frame-context';
import { LayerReader } from './layer-reader';
import { momentWithin } from './moment-within';
import type { Outer } from './outer';
import type { PreparedLayer } from './prepare';

/** A shape that is laid about what another layer shows. */

/** The box of what is drawn in an item, pixels of the format, without strokes; null for nothing. */
export function inkBox(item: DisplayItem): Box | null {
  const parts = (items: readonly DisplayItem[]): Box | null => unionBoxes(items.map(inkBox));
  switch (item.kind) {
    case 'shape': {
      const box = pathBounds(item.pathKey, item.path);
      return box && transformBox(item.matrix, box);
    }
    case 'picture':
      return transformBox(item.matrix, item.box);
    case 'group':
      return parts(item.children);
    case 'smear':
      return parts(item.samples);
    case 'trail':
      return parts(item.copies.slice(-1));
  }
}

/** Layers whose boxes are being looked for: one that hugs what hugs it has none. */
const underWay = new Set<string>();

/**
 * Position and size of a shape that hugs another layer, in place of its own: where that layer comes to lie, without its
 * gestures, so that the plate stands still while words move in. Null if it hugs none, or one that shows nothing.
 */
export function huggingValues(
  prepared: PreparedLayer,
  seconds: number,
  outer: Outer,
  context: FrameContext,
): ReadonlyMap<PropertyId, TrackValue> | null {
  const { hug } = prepared.layer;
  const target = hug && context.scene.byId.get(hug.layerId);
  if (!hug || !target || underWay.has(prepared.layer.id) || isFlat(outer.matrix)) return null;
  underWay.add(prepared.layer.id);
  try {
    const at = momentWithin(target, seconds);
    const item = context.draw.still(target, at, { ...context, isAtRest: true, skipLayerId: null, moved: null });
    const ink = item && inkBox(item);
    if (!ink) return null;
    // In the pixels of the group that the plate is in.
    const [l, t, r, b] = transformBox(invert(outer.matrix), ink);
    const { place } = prepared;
    const k = 1 / place.factor;
    const [x, y] = positionAt((l + r) / 2, (t + b) / 2, place);
    const [w, h] = [Math.max(0, (r - l) * k + 2 * hug.padX), Math.max(0, (b - t) * k + 2 * hug.padY)];
    const own = new LayerReader(prepared, seconds);
    const [ownX, ownY] = own.vector('position');
    const [ownW, ownH] = own.vector('dimensions');
    return new Map<PropertyId, TrackValue>([
      ['position', [hug.axes === 'y' ? ownX : x, hug.axes === 'x' ? ownY : y]],
      ['dimensions', [hug.axes === 'y' ? ownW : w, hug.axes === 'x' ? ownH : h]],
      ['anchor', [0, 0]],
      ['rotation', 0],
      ['skew', 0],
      ['scale', [1, 1]],
    ]);
  } finally {
    underWay.delete(prepared.layer.id);
  }
}
