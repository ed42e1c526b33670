import { multiply } from '../../geometry';
import { groupMatrix } from '../../piece';
import type { LayerOf } from '../../piece';
import type { StillItem } from '../list/display-list';
import { INVISIBLE } from '../text/text-at';
import { combinedItem } from './combined';
import { blurOf } from './effects';
import type { FrameContext } from './frame-context';
import type { LayerAt } from './layer-at';
import { withBlur } from './layer-reader';
import { actOfGroup } from './outer';
import { restBox } from './rest-box';
import { stackOf } from './stack';
import { UNMOVED, wholeItem } from './whole-item';

/**
 * A group at a time. Its layers lie where it has moved them; opacity, blend mode, blur and what its gestures do beside
 * moving count for the whole.
 */
export function groupItem(at: LayerAt, layer: LayerOf<'group'>): StillItem | null {
  const { prepared, read, seconds, outer, context } = at;
  const isMoved = prepared.gestures.length > 0 && !context.isAtRest;
  const acted = isMoved ? actOfGroup(prepared, seconds, context) : UNMOVED;
  const { act, em } = acted;
  const opacity = at.opacity * act.opacity * act.ink;
  if (opacity < INVISIBLE || act.wipe?.share === 0) return null;
  const inside: FrameContext = prepared.timeInside
    ? { ...context, timed: { group: prepared, seconds, context } }
    : context;
  const then = prepared.timeInside?.(seconds) ?? seconds;
  const standing = multiply(outer.matrix, groupMatrix(read, prepared.place));
  const blur = Math.hypot(blurOf(at), act.blur * em * prepared.fit) * outer.scale;
  if (layer.content.combine) return combinedItem({ at, operation: layer.content.combine, then, standing, acted, blur });
  const children = stackOf(prepared.children, then, inside, null);
  if (children.length === 0) return null;
  const box = restBox(prepared, context);
  return withBlur(wholeItem({ prepared, holds: 'layers', children, standing, box, opacity, acted }), blur);
}
