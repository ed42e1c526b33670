import { multiply, scaleOf } from '../../geometry';
import type { Box, Matrix } from '../../geometry';
import type { Colour } from '../../colour';
import { evaluateTrack } from '../../motion';
import type { LayerOf } from '../../piece';
import type { GroupItem, ItemMask, StillItem } from '../list/display-list';
import { INVISIBLE } from '../text/text-at';
import { actOfWhole } from './act-of-whole';
import { blurOf } from './effects';
import type { FrameContext } from './frame-context';
import type { LayerAt } from './layer-at';
import { withBlur } from './layer-reader';
import { matrixOf } from './matrix-of';
import { groundItem, stackOf } from './stack';
import { UNMOVED, placedBy, wholeItem } from './whole-item';

/** From the pixels of a piece to those of a box about its middle that shows all of it. */
function fittedInto([w, h]: readonly [number, number], width: number, height: number): Matrix {
  const k = Math.min(w / width, h / height);
  return [k, 0, 0, k, (-width * k) / 2, (-height * k) / 2];
}

/**
 * Cuts at the edges of a frame. Edges that are turned are cut by a mask: the softened edges of a clip are not the same on
 * every host.
 */
function cutTo(matrix: Matrix, box: Box): Pick<GroupItem, 'clip'> | Pick<GroupItem, 'masks'> {
  if (matrix[1] === 0 && matrix[2] === 0) return { clip: { matrix, box } };
  const [, , w, h] = box;
  const path = `M0 0L${w} 0L${w} ${h}L0 ${h}Z`;
  const mask: ItemMask = {
    mode: 'add',
    inverted: false,
    path,
    pathKey: `m${path}`,
    rule: 'nonzero',
    matrix,
    opacity: 1,
    feather: 0,
    expansion: 0,
  };
  return { masks: [mask] };
}

/** A piece within this one, at the moment of its own that is seen; it is one thing, cut off at its frame. */
export function pieceItem(at: LayerAt, layer: LayerOf<'piece'>): StillItem | null {
  const { prepared, read, outer, context } = at;
  const { within } = prepared;
  if (!within) return null;
  const { scene, end } = within;
  const outside = prepared.timeInside?.(at.seconds) ?? at.seconds;
  const seconds = outside - prepared.start + layer.content.from;
  if (seconds < 0 || seconds >= end) return null;
  const [w, h] = prepared.fills ?? read.vector('dimensions');
  const isMoved = prepared.gestures.length > 0 && !context.isAtRest;
  const acted = isMoved ? actOfWhole(prepared, [-w / 2, -h / 2, w / 2, h / 2], at.seconds) : UNMOVED;
  const { act, em } = acted;
  const opacity = at.opacity * act.opacity * act.ink;
  if (opacity < INVISIBLE || act.wipe?.share === 0) return null;
  const { width, height } = scene.format;
  const standing = matrixOf(at);
  const matrix = multiply(placedBy(standing, acted), fittedInto([w, h], width, height));
  const inside: FrameContext = {
    ...context,
    scene,
    skipLayerId: null,
    isAtRest: false,
    within: null,
    moved: null,
    timed: null,
    around: { matrix, scale: scaleOf(matrix) },
  };
  // A colour track.
  const ground = layer.content.showsGround ? (evaluateTrack(scene.background, seconds) as Colour) : null;
  const layers = stackOf(scene.layers, seconds, inside, ground);
  const children = ground === null ? layers : [groundItem(layer.id, ground, inside), ...layers];
  if (children.length === 0) return null;
  const box: Box = [0, 0, width, height];
  const frame = {
    ...wholeItem({ prepared, holds: 'parts', children, standing: matrix, box, opacity: 1, acted: UNMOVED }),
    blend: 'normal' as const,
    ...cutTo(matrix, box),
  };
  const framed = { ...frame, fingerprint: `f${matrix.join()}${frame.fingerprint}` };
  const blur = Math.hypot(blurOf(at), act.blur * em * prepared.fit) * outer.scale;
  const whole = {
    ...wholeItem({ prepared, holds: 'parts', children: [framed], standing, box, opacity, acted }),
    matrix,
  };
  return withBlur(whole, blur);
}
