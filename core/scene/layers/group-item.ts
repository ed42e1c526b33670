import { multiply } from '../../geometry';
import { groupMatrix } from '../../piece';
import type { GroupItem } from '../list/display-list';
import { NO_ACT, wipeEdge } from '../movement/act';
import { INVISIBLE } from '../text/text-at';
import { blurOf } from './effects';
import type { LayerAt } from './layer-at';
import { withBlur } from './layer-reader';
import type { FrameContext } from './frame-context';
import { actOfGroup } from './outer';
import { stackOf } from './stack';
import { restBox } from './rest-box';

/**
 * A group at a time. Its layers lie where it has moved them; opacity, blend mode, blur and what its gestures do beside
 * moving count for the whole.
 */
export function groupItem(at: LayerAt): GroupItem | null {
  const { prepared, read, seconds, outer, context } = at;
  const { layer } = prepared;
  const box = restBox(prepared, context);
  const isMoved = prepared.gestures.length > 0 && !context.isAtRest;
  const { act, em, wash } = isMoved ? actOfGroup(prepared, seconds, context) : { act: NO_ACT, em: 0, wash: null };
  const opacity = at.opacity * act.opacity * act.ink;
  if (opacity < INVISIBLE || act.wipe?.share === 0) return null;
  const inside: FrameContext = prepared.timeInside
    ? { ...context, timed: { group: prepared, seconds, context } }
    : context;
  const children = stackOf(prepared.children, prepared.timeInside?.(seconds) ?? seconds, inside, null);
  if (children.length === 0) return null;
  const standing = multiply(outer.matrix, groupMatrix(read, prepared.place));
  const matrix = act === NO_ACT ? standing : multiply(standing, act.matrix);
  const edge = act.wipe ? wipeEdge({ share: act.wipe.share, box }) : null;
  const clip = act.clip ? { matrix: multiply(standing, act.clip.matrix), box: act.clip.box } : null;
  const own =
    `${opacity}|${layer.blend}|${edge ? `${edge.to[0]}@${matrix.join()}` : ''}|` +
    `${clip ? clip.matrix.join() : ''}|${wash ? wash.colour + wash.share : ''}`;
  const item: GroupItem = {
    kind: 'group',
    holds: 'layers',
    layerId: layer.id,
    children,
    under: [],
    matrix,
    box,
    opacity,
    blend: layer.blend,
    ...(edge ? { wipe: edge } : {}),
    ...(clip ? { clip } : {}),
    ...(wash ? { wash } : {}),
    own,
    fingerprint: `g${own}[${children.map((child) => child.fingerprint).join('~')}]`,
  };
  const blur = Math.hypot(blurOf(at), act.blur * em * prepared.fit) * outer.scale;
  return withBlur(item, blur);
}
