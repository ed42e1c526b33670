import type { GroupItem, ShapeItem } from '@core/scene';

/** Items of a frame, as plain as they can be. */

export const shapeItem = (item: Pick<ShapeItem, 'path' | 'pathKey' | 'box'> & Partial<ShapeItem>): ShapeItem => ({
  kind: 'shape',
  layerId: 's',
  matrix: [1, 0, 0, 1, 0, 0],
  opacity: 1,
  blend: 'normal',
  fill: { type: 'solid', colour: '#ffffff' },
  stroke: null,
  fingerprint: 's',
  ...item,
});

/** @param side - of the frame, pixels. */
export const wholeGroup = (side: number, item: Partial<GroupItem>): GroupItem => ({
  kind: 'group',
  holds: 'layers',
  layerId: 'g',
  children: [],
  under: [],
  matrix: [1, 0, 0, 1, 0, 0],
  box: [0, 0, side, side],
  opacity: 1,
  blend: 'normal',
  own: '',
  fingerprint: 'g',
  ...item,
});
