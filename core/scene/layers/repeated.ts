import { IDENTITY, multiply, transformBox, unionBox } from '../../geometry';
import type { Box, Matrix } from '../../geometry';
import { pivotOf } from '../../piece';
import type { Repeat } from '../../piece';
import type { GroupItem, StillItem } from '../list/display-list';
import type { FrameContext } from './frame-context';
import type { LayerReader } from './layer-reader';
import type { PreparedLayer } from './prepare';

/** Copies of a layer beside itself: in a line, round a circle, in a grid. */

const turned = (degrees: number): Matrix => {
  const angle = (degrees * Math.PI) / 180;
  return [Math.cos(angle), Math.sin(angle), -Math.sin(angle), Math.cos(angle), 0, 0];
};
const moved = (x: number, y: number): Matrix => [1, 0, 0, 1, x, y];

/** Where the i-th copy lies, from the layer's own place, about its position. @param fit - pixels of the format a pixel makes. */
export function copyMatrix(repeat: Repeat, i: number, fit: number): Matrix {
  const { way, count, columns, turn, scale } = repeat;
  const [dx, dy] = [repeat.step[0] * fit, repeat.step[1] * fit];
  const grown = scale ** i;
  const own = multiply(turned(turn * i), [grown, 0, 0, grown, 0, 0]);
  if (way === 'line') return multiply(moved(dx * i, dy * i), own);
  if (way === 'grid') return multiply(moved(dx * (i % columns), dy * Math.floor(i / columns)), own);
  const radius = repeat.radius * fit;
  const round = multiply(multiply(moved(0, radius), turned((360 * i) / count)), moved(0, -radius));
  return multiply(round, own);
}

/**
 * @param draw - the layer at a time, within a context.
 */
export function repeatedItem(
  prepared: PreparedLayer,
  read: LayerReader,
  repeat: Repeat,
  seconds: number,
  context: FrameContext,
  draw: (seconds: number, context: FrameContext) => StillItem | null,
): GroupItem | null {
  const { layer, place, start } = prepared;
  const origin = pivotOf(read.vector('position'), place);
  const children: StillItem[] = [];
  let box: Box | null = null;
  for (let i = 0; i < repeat.count; i++) {
    const at = prepared.copyAt?.(seconds, i) ?? seconds;
    if (at < start && i > 0) break;
    const fade = repeat.fade ** i;
    if (fade <= 0) break;
    const about = multiply(
      multiply(moved(...origin), copyMatrix(repeat, i, place.factor)),
      moved(-origin[0], -origin[1]),
    );
    const item = draw(at, i === 0 ? context : { ...context, moved: { layer: prepared, matrix: about } });
    if (!item) continue;
    const opacity = item.opacity * fade;
    children.push({
      ...(item.kind === 'group' ? { ...item, own: `${item.own}r${fade}` } : item),
      opacity,
      blend: 'normal',
      fingerprint: `${item.fingerprint}r${opacity}`,
    });
    const own = transformBox(item.matrix, item.box);
    box = box ? unionBox(box, own) : own;
  }
  if (!box) return null;
  return {
    kind: 'group',
    holds: 'parts',
    layerId: layer.id,
    children,
    under: [],
    matrix: IDENTITY,
    box,
    opacity: 1,
    blend: layer.blend,
    own: `r${layer.blend}`,
    fingerprint: `r${layer.blend}[${children.map((child) => child.fingerprint).join('~')}]`,
  };
}
