import { beforeEach, describe, expect, it } from '@jest/globals';
import { EMPTY_HISTORY } from '@core/piece';
import type { Layer } from '@core/piece';
import { SONG_HASH, pieceWithSong, steadyAnalysis } from '../../../../tests/helpers/documents';
import { openPiece, selectLayers, setAnalysis, undoEdit, useDesk } from '../../store/desk-store';
import { copiesOnBeats, spreadSelection } from '../desk/spread-commands';
import {
  changeGesture,
  gestureName,
  giveGesture,
  keepAsGesture,
  mirrorEntrance,
  openGesture,
} from './gesture-commands';

const desk = () => useDesk.getState();
const flag = (): Layer => desk().piece!.layers[0]!;

beforeEach(() => {
  setAnalysis(SONG_HASH, null);
  const { piece, layer } = pieceWithSong();
  openPiece(
    { ...piece, layers: [layer, { ...layer, id: 'second' }, { ...layer, id: 'third' }] },
    1,
    EMPTY_HISTORY,
    steadyAnalysis(120, 0.5, 80),
  );
  selectLayers([flag().id]);
});

describe('gestures of a layer', () => {
  it('are given, changed, mirrored and opened up, each a step', () => {
    giveGesture('nova', 'entrance');
    expect(flag().gestures).toMatchObject([{ gesture: 'nova', role: 'entrance' }]);
    changeGesture(flag(), flag().gestures[0]!, { unit: 'whole', parameters: { overshoot: 0.2 } });
    expect(flag().gestures[0]!.parameters).toEqual({ overshoot: 0.2 });
    mirrorEntrance(flag());
    expect(flag().gestures.map((g) => g.role)).toEqual(['entrance', 'exit']);
    openGesture(flag(), flag().gestures[0]!);
    expect(flag().tracks.scale!.keyframes.length).toBeGreaterThan(1);
    // Its opacity has keyframes of its own, so that part goes on as a gesture.
    expect(Object.keys(flag().gestures.find((g) => g.role === 'entrance')!.tracks!)).toEqual(['opacity']);
    undoEdit();
    expect(flag().gestures).toHaveLength(2);
  });
  it('are kept from keyframes of one’s own, and called by their names', () => {
    expect(keepAsGesture(flag(), 'entrance', 'Gust of mine')).toBe(true);
    const own = desk().piece!.gestures[0]!;
    expect(gestureName(own.id)).toBe('Gust of mine');
    expect(gestureName('nova')).toBe('Nova');
    expect(gestureName('constructor')).not.toBe('Object');
  });
});

describe('spreading', () => {
  const starts = () => desk().piece!.layers.map((layer) => desk().times!.timeOf(layer.start));
  it('lays layers and copies on the beats', () => {
    selectLayers(desk().piece!.layers.map((l) => l.id));
    const plan = {
      kind: 'beats' as const,
      from: 4,
      every: 2,
      pattern: 'x',
      step: 1,
      hits: 'low' as const,
      strength: 0,
    };
    spreadSelection(plan as never, 'forward');
    const unique = new Set(starts().map((t) => t.toFixed(3)));
    expect(unique.size).toBe(3);
    selectLayers([flag().id]);
    const before = desk().piece!.layers.length;
    copiesOnBeats(plan as never, 3);
    expect(desk().piece!.layers.length).toBeGreaterThan(before);
  });
});
