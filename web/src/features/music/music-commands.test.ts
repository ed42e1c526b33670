import { beforeEach, describe, expect, it } from '@jest/globals';
import { EMPTY_HISTORY, musicSpan, playedLength, splitParts } from '@core/piece';
import { beatToBar, beatToSeconds, secondsToBeat } from '@core/time';
import { SONG_HASH, pieceWithSong, steadyAnalysis } from '../../../../tests/helpers/documents';
import { playhead } from '../../platform/clock';
import { openPiece, selectLayers, setAnalysis, setView, undoEdit, useDesk } from '../../store/desk-store';
import { anchorStretch, changeBeats, dragBeat, freeStretch, nudgeGrid, tap, thisIsOne } from './beat-commands';
import { goToMarker, hitAtPlayhead, hitFacts, markEvery, pinSelectionTo } from './marker-commands';
import {
  fitSongTo,
  keepStretch,
  leaveOutPart,
  leaveOutStretch,
  markedStretch,
  putHere,
  repeatPart,
  repeatStretch,
  splitSong,
  uncutSong,
} from './song-commands';

const analysis = {
  ...steadyAnalysis(120, 0.5, 80),
  sections: [
    { start: 0, end: 16.5, label: 'intro' as const, energy: 0.2 },
    { start: 16.5, end: 41, label: 'main' as const, energy: 0.9 },
  ],
};
const desk = () => useDesk.getState();
const music = () => desk().piece!.music!;
const grid = () => desk().times!.grid;
const interval = () => beatToSeconds(grid(), 1) - beatToSeconds(grid(), 0);

beforeEach(() => {
  setAnalysis(SONG_HASH, null);
  openPiece(pieceWithSong().piece, 1, EMPTY_HISTORY, analysis);
  setView({ loop: null, notice: null });
  playhead.set(0);
});

describe('putting beats right', () => {
  it('halves and doubles, and each takes the other back', () => {
    changeBeats('half');
    expect(interval()).toBeCloseTo(1, 6);
    changeBeats('double');
    expect(interval()).toBeCloseTo(0.5, 6);
    changeBeats('double');
    expect(interval()).toBeCloseTo(0.25, 6);
    undoEdit();
    expect(interval()).toBeCloseTo(0.5, 6);
  });
  it('shifts all beats by half a beat, as it is heard before', () => {
    const [before, step] = [beatToSeconds(grid(), 4), interval()];
    changeBeats('shift');
    expect(beatToSeconds(grid(), 4) - before).toBeCloseTo(step / 2, 6);
  });
  it('nudges the grid by milliseconds, several in a row being one step', () => {
    for (let i = 0; i < 3; i++) nudgeGrid(5);
    expect(music().correction.shift).toBeCloseTo(0.015, 9);
    undoEdit();
    expect(music().correction.shift).toBe(0);
  });
  it('says where one is, drags a beat, anchors a stretch and frees one', () => {
    playhead.set(beatToSeconds(grid(), 6) + 0.05);
    thisIsOne(3);
    expect(beatToBar(grid(), secondsToBeat(grid(), 3.5)).beatsPerBar).toBe(3);
    const beat = beatToSeconds(grid(), 20);
    dragBeat(beat, beat + 0.06, [], 'drag');
    dragBeat(beat, beat + 0.09, [], 'drag');
    expect(music().correction.moves).toHaveLength(1);
    expect(beatToSeconds(grid(), 20)).toBeCloseTo(beat + 0.09, 6);
    setView({ loop: { from: 8, to: 12 } });
    anchorStretch(6);
    expect(music().correction.spans).toEqual([expect.objectContaining({ beats: 6 })]);
    freeStretch();
    expect(grid().free).toHaveLength(1);
  });
  it('asks to play before it takes taps', () => {
    tap(0);
    expect(desk().notice).toContain('Play the music');
    setAnalysis(SONG_HASH, null);
    tap(0);
    expect(desk().notice).toContain('Import a song first');
  });
});

describe('cutting the song', () => {
  const played = () => playedLength(music(), analysis.duration);
  it('asks for a stretch first', () => {
    for (const command of [leaveOutStretch, repeatStretch, keepStretch]) {
      setView({ notice: null });
      command();
      expect(desk().notice).toContain('Select a range first');
    }
  });
  it('draws the marked stretch to its beats, leaves it out, plays it twice, plays only it', () => {
    setView({ loop: { from: 4.1, to: 8.2 } });
    expect(markedStretch()).toEqual({ from: 4, to: 8 });
    const before = played();
    repeatStretch();
    expect(played()).toBeCloseTo(before + 4, 1);
    undoEdit();
    setView({ loop: { from: 4.1, to: 8.2 } });
    leaveOutStretch();
    expect(played()).toBeCloseTo(before - 4, 1);
    expect(desk().notice).toContain('Cut 4.00 s');
    undoEdit();
    setView({ loop: { from: 4.1, to: 8.2 } });
    keepStretch();
    expect(played()).toBeCloseTo(4, 1);
    uncutSong();
    expect(played()).toBeCloseTo(before, 1);
  });
  it('splits, repeats and leaves out parts', () => {
    playhead.set(10.1);
    splitSong('beat');
    expect(splitParts(music(), analysis.duration).map((p) => p.to)).toEqual([10, analysis.duration]);
    playhead.set(20.13);
    splitSong('here');
    expect(splitParts(music(), analysis.duration)).toHaveLength(3);
    const before = played();
    repeatPart(1);
    expect(played()).toBeCloseTo(before + 10.13, 1);
    leaveOutPart(0);
    expect(played()).toBeCloseTo(before + 0.13, 1);
  });
  it('fits a length by whole bars, or says that it cannot', () => {
    fitSongTo(20);
    const span = musicSpan(music(), analysis.duration);
    expect(span.to - span.from).toBeGreaterThan(16);
    expect(span.to - span.from).toBeLessThan(24);
  });
  it('puts a time of the song under the playhead, the rest staying on its beat', () => {
    const { layers } = desk().piece!;
    const at = desk().times!.timeOf(layers[0]!.start);
    playhead.set(6);
    putHere(4.5);
    expect(music().start).toBeCloseTo(1.5, 6);
    expect(desk().times!.timeOf(desk().piece!.layers[0]!.start)).toBeCloseTo(at, 1);
  });
});

describe('markers', () => {
  it('are set on every bar, beat or part in one step', () => {
    const before = desk().piece!.markers.length;
    markEvery('bar');
    expect(desk().piece!.markers.length).toBeGreaterThan(before);
    undoEdit();
    expect(desk().piece!.markers).toHaveLength(before);
  });
  it('are gone to, before and after the playhead', () => {
    playhead.set(0);
    goToMarker(1);
    expect(playhead.seconds).toBeCloseTo(5, 6);
    playhead.set(7);
    goToMarker(-1);
    expect(playhead.seconds).toBeCloseTo(5, 6);
  });
  it('take selected layers along, and know the hit at the playhead', () => {
    const [layer] = desk().piece!.layers;
    selectLayers([layer!.id]);
    pinSelectionTo(desk().piece!.markers[0]!);
    expect(desk().piece!.layers[0]!.start).toMatchObject({ kind: 'pinned', to: { type: 'marker', id: 'drop' } });
    playhead.set(2.51);
    const hit = hitAtPlayhead()!;
    expect(hit.songSeconds).toBeCloseTo(2.5, 6);
    expect(hitFacts(hit.id)).toMatchObject({ class: 'low' });
    expect(hitFacts('nothing:999')).toBeUndefined();
  });
});
