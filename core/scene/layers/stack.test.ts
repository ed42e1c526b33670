import { describe, expect, it } from '@jest/globals';
import { createLayer, effectTrackId, resolveTimes } from '@core/piece';
import type { GroupTime, Layer, Piece } from '@core/piece';
import { heardValueAt, prepareScene, sceneAt } from '@core/scene';
import type { DisplayItem, GroupItem } from '@core/scene';
import { flattenPath, tightBox } from '@core/geometry';
import { freeMoment } from '@core/time';
import { pieceWithSong, steadyAnalysis } from '../../../tests/helpers/documents';

const analysis = steadyAnalysis(120, 0.5, 60);
const span = { start: freeMoment(1), end: freeMoment(9) };
const noText = () => ({ letters: [] }) as never;
function framesOf(layers: readonly Layer[]) {
  const piece: Piece = { ...pieceWithSong().piece, layers: [...layers], end: freeMoment(10) };
  const times = resolveTimes(piece, analysis);
  const scene = prepareScene(piece, times, piece.leadFormatId);
  return { piece, times, scene, at: (seconds: number) => sceneAt(scene, seconds, noText).items };
}
const moving = (id: string, parentId: string | null = null): Layer =>
  ({
    ...createLayer('rectangle', { name: id, ...span }, () => id),
    parentId,
    tracks: {
      position: {
        value: [0, 0],
        keyframes: [
          { id: 'a', at: freeMoment(1), value: [0, 0], easing: { type: 'linear' } },
          { id: 'b', at: freeMoment(9), value: [800, 0], easing: { type: 'linear' } },
        ],
      },
    },
  }) as Layer;
const xOf = (items: readonly DisplayItem[]): number => {
  const [item] = items;
  const shape = item?.kind === 'group' ? item.children[0] : item;
  return shape!.matrix[4];
};

describe('time inside a group', () => {
  const group = (time: GroupTime | null, change: Partial<Layer> = {}): Layer =>
    ({ ...createLayer('group', { name: 'G', ...span, content: { time } }, () => 'g'), ...change }) as Layer;
  const plain = framesOf([moving('r', 'g'), group(null)]);
  const timed = (time: Partial<GroupTime>, change?: Partial<Layer>) =>
    framesOf([moving('r', 'g'), group({ speed: 1, repeat: null, turns: false, freeze: null, ...time }, change)]);
  const alike = (a: ReturnType<typeof framesOf>, at: number, inside: number) =>
    expect(xOf(a.at(at))).toBeCloseTo(xOf(plain.at(inside)), 6);

  it('goes slower and faster from its start on', () => {
    alike(timed({ speed: 0.5 }), 5, 3);
    alike(timed({ speed: 2 }), 3, 5);
    alike(timed({ speed: 0 }), 7, 1);
  });
  it('plays again, and there and back, in beats or seconds', () => {
    alike(timed({ repeat: { unit: 'seconds', value: 2 } }), 6.5, 2.5);
    // Four beats at 120 BPM are two seconds.
    alike(timed({ repeat: { unit: 'beats', value: 4 } }), 6.5, 2.5);
    alike(timed({ repeat: { unit: 'seconds', value: 2 }, turns: true }), 3.5, 2.5);
    alike(timed({ repeat: { unit: 'seconds', value: 2 }, turns: true }), 5.5, 1.5);
  });
  it('stands still from a moment on', () => {
    alike(timed({ freeze: { unit: 'seconds', value: 1.5 } }), 8, 2.5);
    alike(timed({ freeze: { unit: 'seconds', value: 1.5 } }), 2, 2);
  });
  it('is that of the inside only: the group itself moves on', () => {
    const own = moving('g').tracks;
    const both = timed({ speed: 0 }, { tracks: own });
    const alone = framesOf([moving('r', 'g'), group(null, { tracks: own })]);
    const start = xOf(both.at(1));
    // Half of what both moves make: the rectangle stands, the group goes.
    expect(xOf(both.at(5)) - start).toBeCloseTo(400, 6);
    expect(xOf(alone.at(5)) - start).toBeCloseTo(800, 6);
  });
  it('asks each frame alone', () => {
    const a = timed({ speed: 0.3, repeat: { unit: 'beats', value: 3 }, turns: true });
    const forward = [2, 3.3, 7.7].map((t) => xOf(a.at(t)));
    const back = [7.7, 3.3, 2].map((t) => xOf(a.at(t))).reverse();
    expect(back).toEqual(forward);
  });
});

describe('a look', () => {
  const look = (change: Partial<Layer> = {}): Layer =>
    ({
      ...createLayer('look', { name: 'Look', ...span }, () => 'look'),
      effects: [{ id: 'e', kind: 'grey', isOn: true, seed: 0, parameters: {} }],
      ...change,
    }) as Layer;
  const above = createLayer('ellipse', { name: 'A', ...span }, () => 'above');

  it('does over what lies below it and the ground, and leaves what is above', () => {
    const { at } = framesOf([moving('r'), look(), above]);
    const [done, top] = at(2) as [GroupItem, DisplayItem];
    expect(done).toMatchObject({ kind: 'group', layerId: 'look', effects: [{ kind: 'grey' }] });
    const inside = done.children[0] as GroupItem;
    expect(inside.children.map((child) => child.layerId)).toEqual(['look', 'r']);
    expect(inside.children[0]).toMatchObject({ kind: 'shape', box: [0, 0, 1920, 1080] });
    expect(top.layerId).toBe('above');
    expect(at(2)).toHaveLength(2);
  });
  it('is there in its own time only, and not where it does nothing', () => {
    expect(framesOf([moving('r'), look({ end: freeMoment(2) })]).at(4)).toHaveLength(1);
    expect(framesOf([moving('r'), look({ end: freeMoment(2) })]).at(4)[0]!.layerId).toBe('r');
    expect(framesOf([moving('r'), look({ effects: [] })]).at(2)[0]!.layerId).toBe('r');
    expect(framesOf([moving('r'), look({ hidden: true })]).at(2)[0]!.layerId).toBe('r');
  });
  it('that does something half lies over what it does over', () => {
    const half = { opacity: { value: 0.5, keyframes: [] } };
    const items = framesOf([moving('r'), look({ tracks: half })]).at(2);
    expect(items.map((item) => [item.layerId, item.opacity])).toEqual([
      ['r', 1],
      ['look', 0.5],
    ]);
  });
  it('in a group does over that group alone', () => {
    const group = createLayer('group', { name: 'G', ...span }, () => 'g');
    const items = framesOf([above, moving('r', 'g'), look({ parentId: 'g' }), group]).at(2);
    expect(items.map((item) => item.layerId)).toEqual(['above', 'g']);
    const [done] = (items[1] as GroupItem).children as [GroupItem];
    expect((done.children[0] as GroupItem).children.map((child) => child.layerId)).toEqual(['r']);
  });
  it('blurs all of it', () => {
    const blurred = look({
      effects: [{ id: 'e', kind: 'blur', isOn: true, seed: 0, parameters: { radius: { value: 9, keyframes: [] } } }],
    });
    const [done] = framesOf([moving('r'), blurred]).at(2);
    expect(done).toMatchObject({ layerId: 'look', kind: 'group', blur: 9 });
  });
});

describe('forms of a drawn shape', () => {
  const shape = (form: number): Layer =>
    createLayer(
      'path',
      {
        name: 'P',
        ...span,
        content: {
          d: 'M0 0L100 0L100 100L0 100Z',
          box: [100, 100],
          forms: [
            { id: 'f1', name: 'Form 1', d: 'M0 0L200 0L200 100L0 100Z' },
            { id: 'f2', name: 'Form 2', d: 'M0 0L200 0L200 300L0 300Z' },
          ],
        },
        values: { form, dimensions: [100, 100] },
      },
      () => 'p',
    );
  const boxAt = (form: number) => {
    const [item] = framesOf([shape(form)]).at(2);
    return item?.kind === 'shape' ? tightBox(item.path)! : null;
  };
  it('lead from one to the next', () => {
    expect(boxAt(0)).toEqual([0, 0, 100, 100]);
    expect(boxAt(0.5)).toEqual([0, 0, 150, 100]);
    expect(boxAt(1)).toEqual([0, 0, 200, 100]);
    expect(boxAt(1.25)).toEqual([0, 0, 200, 150]);
    // Beyond the last it is the last.
    expect(boxAt(9)).toEqual([0, 0, 200, 300]);
  });
  it('have prints of their own, so that each is painted', () => {
    const print = (form: number) => framesOf([shape(form)]).at(2)[0]!.fingerprint;
    expect(new Set([0, 0.25, 0.5, 1].map(print)).size).toBe(4);
    const [item] = framesOf([shape(0.3)]).at(2);
    expect(item?.kind === 'shape' && flattenPath(item.path)[0]!.isClosed).toBe(true);
  });
});

describe('a parameter of an effect that listens', () => {
  const layer = {
    ...createLayer('ellipse', { name: 'L', ...span }, () => 'l'),
    effects: [{ id: 'e', kind: 'glow', isOn: true, seed: 0, parameters: { radius: { value: 10, keyframes: [] } } }],
    listens: [
      {
        id: 'h',
        property: effectTrackId('e', 'radius'),
        source: 'beats',
        amount: 30,
        attack: 0,
        release: 0.1,
        smoothing: 0,
        curve: 1,
        range: [0, 1],
      },
    ],
  } as Layer;
  it('adds what it hears, within its bounds, in the frame as well', () => {
    const { scene, at } = framesOf([layer]);
    const prepared = scene.layers[0]!;
    const heard = (seconds: number) => heardValueAt(prepared, effectTrackId('e', 'radius'), seconds) as number;
    const beat = 0.5 + 4 * 0.5;
    expect(heard(beat + 0.01)).toBeGreaterThan(30);
    expect(heard(beat + 0.45)).toBeLessThan(heard(beat + 0.01) - 10);
    const [item] = at(beat + 0.01) as [GroupItem];
    expect(item.effects![0]!.values.radius).toBeCloseTo(heard(beat + 0.01), 6);
  });
});
