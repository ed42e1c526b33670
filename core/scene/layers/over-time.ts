import type { Seconds } from '../../time';
import type { DisplayItem, SmearItem, StillItem } from '../list/display-list';
import type { FrameContext } from './frame-context';
import { stillItem } from './layer-items';
import type { PreparedLayer } from './prepare';

/** What is seen of a layer at more than one time: its motion blur and the copies that follow it. */

/** Times within a frame at which a moving layer is drawn for its motion blur; the picture is their mean. */
const SHUTTER_SAMPLES = 8;

function smeared(prepared: PreparedLayer, seconds: Seconds, context: FrameContext): StillItem | SmearItem | null {
  const item = stillItem(prepared, seconds, context);
  // What is in a group is smeared by itself, along with the movement of the group.
  if (!item || prepared.shutter <= 0 || context.isAtRest || prepared.layer.kind === 'group') return item;
  // The shutter is open about the frame's moment, so that what lands on it is seen there.
  const samples: StillItem[] = [];
  let isMoving = false;
  for (let i = 0; i < SHUTTER_SAMPLES; i++) {
    const at = seconds + ((i + 0.5) / SHUTTER_SAMPLES - 0.5) * prepared.shutter;
    const sample = at < prepared.start || at >= prepared.end ? item : stillItem(prepared, at, context);
    if (!sample) continue;
    if (sample.fingerprint !== item.fingerprint) isMoving = true;
    samples.push(sample);
  }
  if (!isMoving) return item;
  return {
    kind: 'smear',
    layerId: item.layerId,
    samples,
    matrix: item.matrix,
    box: item.box,
    opacity: 1,
    blend: item.blend,
    fingerprint: `m${samples.map((s) => s.fingerprint).join('^')}`,
  };
}

/** A layer as it is seen at a time, with the copies that follow it; null if it is not there. */
export function layerItem(prepared: PreparedLayer, seconds: Seconds, context: FrameContext): DisplayItem | null {
  const { layer, hidden, start, end } = prepared;
  if (hidden || seconds < start || seconds >= end || layer.id === context.skipLayerId) return null;
  // What others are seen by is not seen itself.
  if (context.scene.mattes.has(layer.id)) return null;
  const item = smeared(prepared, seconds, context);
  const { trail } = layer;
  if (!item || !trail || trail.copies === 0) return item;
  const copies: (StillItem | SmearItem)[] = [];
  for (let k = trail.copies; k >= 1; k--) {
    const at = seconds - k * trail.spacing;
    const copy = at < start ? null : stillItem(prepared, at, context);
    // A copy that has come to rest lies under the layer itself and is not seen.
    if (copy && copy.fingerprint !== item.fingerprint) {
      const opacity = copy.opacity * trail.fade ** k;
      const faded = copy.kind === 'group' ? { ...copy, opacity, own: `${copy.own}t${k}` } : { ...copy, opacity };
      copies.push({ ...faded, fingerprint: `${copy.fingerprint}t${k}` });
    }
  }
  if (copies.length === 0) return item;
  return {
    kind: 'trail',
    layerId: item.layerId,
    copies: [...copies, item],
    matrix: item.matrix,
    box: item.box,
    opacity: 1,
    blend: item.blend,
    fingerprint: `${copies.map((c) => c.fingerprint).join('>')}>${item.fingerprint}`,
  };
}
