import { multiply } from '../../geometry';
import type { Box, Matrix } from '../../geometry';
import type { DisplayItem, GroupItem } from '../list/display-list';
import { NO_ACT, wipeEdge } from '../movement/act';
import type { WholeAct } from './act-of-whole';
import type { PreparedLayer } from './prepare';

/** What a layer that holds others is made of. */
interface Whole {
  readonly prepared: PreparedLayer;
  readonly holds: GroupItem['holds'];
  readonly children: readonly DisplayItem[];
  /** Where it stands without its gestures. */
  readonly standing: Matrix;
  readonly box: Box;
  readonly opacity: number;
  readonly acted: WholeAct;
}

/** A layer that is not moved. */
export const UNMOVED: WholeAct = { act: NO_ACT, em: 0, wash: null };

/** Where a layer that holds others lies, with what its gestures make of it. */
export const placedBy = (standing: Matrix, { act }: WholeAct): Matrix =>
  act === NO_ACT ? standing : multiply(standing, act.matrix);

/** Several items as one: opacity, blend mode, and what gestures do beside moving count for the whole. */
export function wholeItem({ prepared, holds, children, standing, box, opacity, acted }: Whole): GroupItem {
  const { layer } = prepared;
  const { act, wash } = acted;
  const matrix = placedBy(standing, acted);
  const edge = act.wipe ? wipeEdge({ share: act.wipe.share, box }) : null;
  const clip = act.clip ? { matrix: multiply(standing, act.clip.matrix), box: act.clip.box } : null;
  const own =
    `${opacity}|${layer.blend}|${edge ? `${edge.to[0]}@${matrix.join()}` : ''}|` +
    `${clip ? clip.matrix.join() : ''}|${wash ? wash.colour + wash.share : ''}`;
  return {
    kind: 'group',
    holds,
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
}
