import { beforeEach, describe, expect, it } from '@jest/globals';
import { EMPTY_HISTORY, applyEdits, resolveTimes } from '@core/piece';
import type { Layer } from '@core/piece';
import { beatToSeconds, freeMoment } from '@core/time';
import { pieceWithSong, pin, steadyAnalysis } from '../../../../tests/helpers/documents';
import { playhead } from '../../platform/clock';
import {
  edit,
  openPiece,
  redoEdit,
  selectLayers,
  setAnalysis,
  setView,
  undoEdit,
  useDesk,
} from '../../store/desk-store';
import * as adding from '../layers/add-layers';
import * as clipboard from './clipboard';
import * as commands from './commands';

const analysis = steadyAnalysis(120, 0.5, 60);
const desk = () => useDesk.getState();
const layers = (): readonly Layer[] => desk().piece!.layers;
const keysOf = (index: number, property: 'opacity' | 'position' = 'opacity') =>
  layers()[index]!.tracks[property]!.keyframes;
const seconds = (key: { at: Layer['start'] }) => desk().times!.timeOf(key.at);

beforeEach(() => {
  openPiece(pieceWithSong().piece, 1, EMPTY_HISTORY, analysis);
  setView({ isSnapping: true, division: 0.5, loop: null });
  playhead.set(0);
});

describe('adding things', () => {
  it('places a new layer on the playhead’s beat for two bars, and selects it', () => {
    playhead.set(0.5 + 4.2 * 0.5);
    adding.addRectangle();
    const layer = layers()[1]!;
    expect(layer.start).toMatchObject({ kind: 'pinned', to: { beat: 4 } });
    expect(layer.end).toMatchObject({ kind: 'pinned', to: { beat: 12 } });
    expect(desk().selectedLayers).toEqual([layer.id]);
  });
  it('without snapping takes the playhead’s own time, free', () => {
    setView({ isSnapping: false });
    playhead.set(1.234);
    adding.addEllipse();
    expect(layers()[1]!.start).toEqual(freeMoment(1.234));
  });
  it('keeps a picture within the frame and in proportion', () => {
    adding.addPicture({
      id: 'm',
      hash: 'e'.repeat(64),
      kind: 'picture',
      name: 'harbour.png',
      width: 4000,
      height: 1000,
    });
    const [w, h] = layers()[1]!.tracks.dimensions!.value as [number, number];
    expect(w / h).toBeCloseTo(4, 1);
    expect(w).toBeLessThanOrEqual(1920);
    expect(desk().history.done).toHaveLength(1);
  });
});

describe('values and keyframes', () => {
  it('sets the standing value of what is not animated, and a keyframe of what is', () => {
    const [layer] = layers();
    commands.setValue(layer!, 'rotation', 30, null);
    expect(layers()[0]!.tracks.rotation).toEqual({ value: 30, keyframes: [] });
    playhead.set(beatToSeconds(desk().times!.grid, 3));
    commands.setValue(layers()[0]!, 'opacity', 0.25, null);
    expect(keysOf(0).find((k) => k.at.kind === 'pinned' && k.at.to.type === 'beat' && k.at.to.beat === 3)?.value).toBe(
      0.25,
    );
  });
  it('puts a star with the present value, and takes it away at the same place', () => {
    playhead.set(beatToSeconds(desk().times!.grid, 1));
    commands.toggleKey(layers()[0]!, 'position');
    expect(keysOf(0, 'position')).toMatchObject([{ value: [0, 0], at: { kind: 'pinned', to: { beat: 1 } } }]);
    commands.toggleKey(layers()[0]!, 'position');
    expect(keysOf(0, 'position')).toEqual([]);
  });
  it('goes to the keyframes of the selection, one after the other', () => {
    selectLayers([layers()[0]!.id]);
    const times = [...keysOf(0)].map(seconds).sort((a, b) => a - b);
    for (const t of times) {
      commands.goToKey(1);
      expect(playhead.seconds).toBeCloseTo(t, 9);
    }
    commands.goToKey(-1);
    expect(playhead.seconds).toBeCloseTo(times[times.length - 2]!, 9);
  });
  it('pastes copied keyframes at the playhead of another layer, pinned where they were pinned', () => {
    const first = layers()[0]!;
    setView({
      selectedLayers: [first.id],
      selectedKeys: [
        { layerId: first.id, property: 'opacity', keyId: 'k-beat' },
        { layerId: first.id, property: 'opacity', keyId: 'k-fraction' },
      ],
    });
    clipboard.copySelection();
    adding.addEllipse();
    playhead.set(beatToSeconds(desk().times!.grid, 8));
    clipboard.pasteSelection();
    expect(keysOf(1).map((k) => (k.at.kind === 'pinned' && k.at.to.type === 'beat' ? k.at.to.beat : null))).toEqual([
      8, 10.75,
    ]);
    expect(keysOf(1).map((k) => k.easing.type)).toEqual(['linear', 'hold']);
    expect(desk().selectedKeys).toHaveLength(2);
  });
  it('pastes a copied layer with all its times moved', () => {
    selectLayers([layers()[0]!.id]);
    clipboard.copySelection();
    playhead.set(2.5);
    const before = [...keysOf(0)].map(seconds);
    clipboard.pasteSelection();
    const shift = 2.5 - desk().times!.timeOf(layers()[0]!.start);
    expect([...keysOf(1)].map(seconds)).toEqual(before.map((t) => expect.closeTo(t + shift, 6)));
  });
});

describe('moving about', () => {
  it('steps by frame, beat and bar, and never leaves the piece', () => {
    commands.step('beat', 1);
    expect(playhead.seconds).toBeCloseTo(0.5, 9);
    commands.step('bar', 1);
    expect(playhead.seconds).toBeCloseTo(2.5, 9);
    commands.step('frame', -1);
    expect(playhead.seconds).toBeCloseTo(74 / 30, 9);
    commands.step('beat', -1);
    expect(playhead.seconds).toBeCloseTo(2, 9);
    for (let i = 0; i < 40; i++) commands.step('bar', 1);
    expect(playhead.seconds).toBe(desk().times!.end);
    for (let i = 0; i < 40; i++) commands.step('bar', -1);
    expect(playhead.seconds).toBe(0);
  });
});

describe('the desk', () => {
  it('undoes and redoes, says what, and drops what no longer exists from the selection', () => {
    adding.addRectangle();
    const id = layers()[1]!.id;
    undoEdit();
    expect(layers()).toHaveLength(1);
    expect(desk().selectedLayers).not.toContain(id);
    expect(desk().notice).toBe('Undone: Add layer');
    redoEdit();
    expect(layers()[1]!.id).toBe(id);
  });
  it('does not call an edit that changes nothing a change', () => {
    expect(edit([{ type: 'layer.rename', id: 'nobody', name: 'x' }])).toBe(false);
    expect(desk().history.done).toHaveLength(0);
  });
  it('re-times everything when the analysis arrives', () => {
    setAnalysis('a'.repeat(64), null);
    expect(desk().times!.timeOf(pin(2))).toBeCloseTo(1, 9);
    setAnalysis('a'.repeat(64), analysis);
    expect(desk().times!.timeOf(pin(2))).toBeCloseTo(1.5, 9);
  });
  it('trims, nudges, restacks, duplicates and deletes the selection', () => {
    selectLayers([layers()[0]!.id]);
    commands.duplicateSelection();
    expect(layers().map((l) => l.name)).toEqual(['Flag', 'Flag copy']);
    commands.restack(-1);
    expect(layers().map((l) => l.name)).toEqual(['Flag copy', 'Flag']);
    playhead.set(1.5);
    commands.trimToPlayhead('start');
    expect(desk().times!.timeOf(layers()[0]!.start)).toBeCloseTo(1.5, 9);
    commands.nudgeSelection(3, -2);
    expect(layers()[0]!.tracks.position!.value).toEqual([3, -2]);
    commands.deleteSelection();
    expect(layers().map((l) => l.name)).toEqual(['Flag']);
  });
  it('holds the same piece after every command is undone', () => {
    const start = desk().piece;
    adding.addText('Nine days');
    adding.addWave();
    commands.addMarkerHere();
    commands.duplicateSelection();
    edit([{ type: 'music.correct', correction: { bpm: 90 } }]);
    while (desk().history.done.length > 0) undoEdit();
    expect(desk().piece).toEqual(start);
    expect(applyEdits(desk().piece!, [], resolveTimes(desk().piece!, analysis)).patches).toEqual([]);
  });
});
