import { describe, expect, it } from '@jest/globals';
import { createLayer } from '@core/piece';
import type { Layer } from '@core/piece';
import { freeMoment } from '@core/time';
import { ROW } from './row-size';
import { dropAt, treeRows } from './tree-rows';

const layer = (kind: 'rectangle' | 'group', id: string, parentId: string | null = null): Layer =>
  createLayer(kind, { name: id, start: freeMoment(0), end: freeMoment(1), parentId }, () => id);
/** Back to front: back, (inside 1, inside 2) in the group, front. */
const LAYERS = [
  layer('rectangle', 'back'),
  layer('rectangle', 'in1', 'group'),
  layer('rectangle', 'in2', 'group'),
  layer('group', 'group'),
  layer('rectangle', 'front'),
];
const rows = treeRows(LAYERS, [], []);
const at = (row: number, share: number, dragged: string) => dropAt(rows, (row + share) * ROW, new Set([dragged]));

describe('rows of the timeline', () => {
  it('run from the front to the back, what is in a group moved in below it', () => {
    expect(rows.map((r) => [r.layer.id, r.depth, r.top / ROW])).toEqual([
      ['front', 0, 0],
      ['group', 0, 1],
      ['in2', 1, 2],
      ['in1', 1, 3],
      ['back', 0, 4],
    ]);
    expect(treeRows(LAYERS, [], ['group']).map((r) => r.layer.id)).toEqual(['front', 'group', 'back']);
  });
  it('say where a name that is dropped comes to lie', () => {
    // On a group: into it, in front of all that is in it.
    expect(at(1, 0.5, 'back')).toMatchObject({ parentId: 'group', behind: 'in2', line: null });
    // On its upper edge: in front of the group.
    expect(at(1, 0.1, 'back')).toMatchObject({ parentId: null, behind: 'group' });
    // Between two that are in it.
    expect(at(2, 0.9, 'front')).toMatchObject({ parentId: 'group', behind: 'in1', depth: 1 });
    // Below the last of all: furthest back.
    expect(at(4, 0.9, 'front')).toMatchObject({ parentId: null, behind: null });
    // Never into itself.
    expect(at(1, 0.5, 'group')?.parentId).not.toBe('group');
  });
});
