import { transformBox, unionBox } from '../../geometry';
import type { Box } from '../../geometry';
import type { FrameContext } from './frame-context';
import { momentWithin } from './moment-within';
import type { PreparedLayer } from './prepare';

const known = new WeakMap<FrameContext['layoutText'], WeakMap<PreparedLayer, Box>>();

/**
 * The box of what is in a group, pixels of the format as they are without the group: where its layers lie in the middle
 * of its time, without their gestures. It does not change while they move, so that a group turns about one point.
 */
export function restBox(group: PreparedLayer, context: FrameContext): Box {
  let boxes = known.get(context.layoutText);
  if (!boxes) known.set(context.layoutText, (boxes = new WeakMap()));
  let box = boxes.get(group);
  if (!box) boxes.set(group, (box = measure(group, context)));
  return box;
}

function measure(group: PreparedLayer, context: FrameContext): Box {
  const middle = (group.start + group.end) / 2;
  const still: FrameContext = { ...context, isAtRest: true, within: group, around: null, skipLayerId: null };
  let all: Box | null = null;
  for (const child of group.children) {
    if (child.hidden) continue;
    const item = context.draw.still(child, momentWithin(child, middle), still);
    if (!item) continue;
    const box = transformBox(item.matrix, item.box);
    all = all ? unionBox(all, box) : box;
  }
  const { centre } = group.place;
  return all ?? [centre[0], centre[1], centre[0], centre[1]];
}
