import { describe, expect, it } from '@jest/globals';
import { hitId } from '@core/audio';
import type { SongAnalysis } from '@core/audio';
import { applyEdits, compareHearing, createLayer, listMoments, resolveTimes } from '@core/piece';
import type { Effect, GridCorrection, Piece } from '@core/piece';
import { newGestureUse } from '@core/motion';
import { freeMoment, secondsToBeat } from '@core/time';
import type { Moment } from '@core/time';
import { SONG_HASH, countingIds, pieceWithSong, pin, steadyAnalysis } from '../../../tests/helpers/documents';

/** 80 beats at 120 from 0.25 s, as the first method heard them, and what a later one says. */
const heard = steadyAnalysis(120, 0.25, 80);
const later = (change: Partial<SongAnalysis>): SongAnalysis => ({ ...heard, version: 9, ...change });
const anew = (bpm: number, first: number, count: number, beatsPerBar = 4): SongAnalysis => ({
  ...steadyAnalysis(bpm, first, count, beatsPerBar),
  version: 9,
});

/** A song from 0 s of the piece, and layers that begin at the given moments and never end. */
function pieceOf(starts: readonly Moment[], correction: Partial<GridCorrection> = {}): Piece {
  const { piece } = pieceWithSong();
  const ids = countingIds();
  const music = { ...piece.music!, start: 0, trimStart: 0, trimEnd: null, cuts: [] };
  return {
    ...piece,
    music: { ...music, correction: { ...music.correction, ...correction } },
    markers: [],
    poster: null,
    transitions: [],
    sounds: [],
    end: freeMoment(30),
    layers: starts.map((start) => createLayer('rectangle', { name: 'Plate', start, end: freeMoment(30) }, ids)),
  };
}

function taken(piece: Piece, after: SongAnalysis): { piece: Piece; starts: Moment[]; seconds: number[] } {
  const { rehearing } = compareHearing(piece, heard, after)!; // it has music
  const result = applyEdits(piece, [{ type: 'music.rehear', ...rehearing }], resolveTimes(piece, heard)).piece;
  const times = resolveTimes(result, after);
  const starts = result.layers.map((layer) => layer.start);
  return { piece: result, starts, seconds: starts.map(times.timeOf) };
}
const secondsOf = (piece: Piece) => piece.layers.map((layer) => resolveTimes(piece, heard).timeOf(layer.start));

describe('a song that is heard anew', () => {
  it('at twice the tempo leaves everything at its time, on the beats that are there now', () => {
    const piece = pieceOf([pin(8), pin(8.5), pin(8, { unit: 'beats', value: 2 }), pin(9.25), freeMoment(3.3)]);
    const { starts, seconds } = taken(piece, anew(240, 0.25, 160));
    secondsOf(piece).forEach((before, i) => expect(seconds[i]).toBeCloseTo(before, 9));
    expect(starts.slice(0, 4)).toMatchObject([
      { to: { beat: 16 } },
      { to: { beat: 17 } },
      { to: { beat: 16 }, offset: { unit: 'beats', value: 4 } },
      { to: { beat: 18.5 } },
    ]);
  });
  it('at twice the tempo lets movements, delays and rhythms last as long as they did', () => {
    const piece = pieceOf([pin(8)]);
    const [plate] = piece.layers;
    const uses = [
      { ...newGestureUse('dawn', 'entrance', 'a'), duration: { unit: 'beats' as const, value: 2 } },
      { ...newGestureUse('pulsar', 'accent', 'b'), duration: { unit: 'seconds' as const, value: 0.5 }, every: 40 },
    ];
    const strobe: Effect = {
      id: 's',
      kind: 'strobe',
      isOn: true,
      seed: 0,
      parameters: { rate: { value: 4, keyframes: [] } },
    };
    const moving = { ...piece, layers: [{ ...plate!, gestures: uses, effects: [strobe] }] };
    expect(taken(moving, anew(240, 0.25, 160)).piece.layers[0]!.effects[0]!.parameters.rate!.value).toBe(2);
    const { gestures } = taken(moving, anew(240, 0.25, 160)).piece.layers[0]!;
    expect(gestures.map((use) => [use.duration.value, use.every])).toEqual([
      [4, null],
      [0.5, 64],
    ]);
    expect(taken(moving, anew(121, 0.25, 80)).piece.layers[0]!.gestures).toEqual(uses);
  });
  it('with beats a little later takes along what is pinned to them', () => {
    const piece = pieceOf([pin(8), pin(8.5), freeMoment(3.3)]);
    const after = anew(120, 0.29, 80);
    const { seconds, starts } = taken(piece, after);
    expect(seconds.map((t, i) => t - secondsOf(piece)[i]!)).toEqual([
      expect.closeTo(0.04, 9),
      expect.closeTo(0.04, 9),
      0,
    ]);
    expect(starts[0]).toMatchObject({ to: { beat: 8 } });
    const { moved, fresh, gone, barsMoved, moments } = compareHearing(piece, heard, after)!;
    expect([moved.length, fresh, gone, barsMoved]).toEqual([60, [], [], false]);
    expect(moments.map(({ where }) => where)).toEqual(['start', 'start']);
    expect(moments[0]!.after - moments[0]!.before).toBeCloseTo(0.04, 9);
  });
  it('with "one" elsewhere counts anew, and nothing moves', () => {
    const piece = pieceOf([pin(8), pin(9)]);
    const after = later({
      downbeats: heard.beats.filter((_, i) => i % 4 === 2),
      bars: heard.beats.flatMap((_, beat) => (beat % 4 === 2 ? [{ beat, beatsPerBar: 4, groups: [], sound: [] }] : [])),
    });
    const { starts, seconds } = taken(piece, after);
    expect(seconds).toEqual(secondsOf(piece));
    expect(starts).toMatchObject([{ to: { beat: 6 } }, { to: { beat: 7 } }]);
    expect(compareHearing(piece, heard, after)).toMatchObject({ moved: [], gone: [], barsMoved: true, moments: [] });
  });
  it('takes pins to its hits along by their time and class; what has no hit any more comes loose where it stood', () => {
    const hit = (index: number): Moment => ({
      kind: 'pinned',
      to: { type: 'hit', id: hitId(SONG_HASH, index) },
      last: 0,
    });
    const piece = pieceOf([hit(4), hit(5), hit(6)]);
    const hits = heard.hits.flatMap((h, i) =>
      i === 6 ? [] : [{ ...h, time: h.time + 0.01 }, ...(i === 4 ? [{ ...h, class: 'high' as const }] : [])],
    );
    const { starts, seconds } = taken(piece, later({ hits: [{ ...hits[0]!, time: 0.01 }, ...hits] }));
    expect(starts).toMatchObject([
      { to: { id: hitId(SONG_HASH, 5) } },
      { to: { id: hitId(SONG_HASH, 7) } },
      { kind: 'free', seconds: heard.hits[6]!.time },
    ]);
    expect(seconds[0]).toBeCloseTo(heard.hits[4]!.time + 0.01, 9);
  });
  it('keeps the tempo that twice the beats were chosen for', () => {
    const piece = pieceOf([pin(8)], { factor: 2 });
    const { piece: result, starts } = taken(piece, anew(240, 0.25, 160));
    expect(result.music!.correction.factor).toBe(1);
    expect(starts[0]).toMatchObject({ to: { beat: 8 } });
    expect(taken(piece, later({})).piece.music!.correction.factor).toBe(2);
  });
  it('keeps beats where they were dragged to, and forgets drags that are not needed any more', () => {
    const moves = [
      { at: 4.25, to: 4.3 },
      { at: 10.25, to: 10.35 },
    ];
    const after = later({ beats: heard.beats.map((t) => (t === 4.25 ? 4.302 : t === 10.25 ? 10.28 : t)) });
    const { piece: result } = taken(pieceOf([pin(8)], { moves }), after);
    expect(result.music!.correction.moves).toEqual([{ at: 10.28, to: 10.35 }]);
    expect(resolveTimes(result, after).grid.beats).toContain(10.35);
  });
  it('is one step back from what was', () => {
    const piece = pieceOf([pin(8), pin(8.5)], { factor: 2 });
    const { rehearing } = compareHearing(piece, heard, anew(240, 0.25, 160))!;
    const edit = { type: 'music.rehear' as const, ...rehearing };
    const { piece: changed } = applyEdits(piece, [edit], resolveTimes(piece, heard));
    expect(changed.music!.analysisVersion).toBe(9);
    expect(piece.music!.analysisVersion).toBeNull();
    expect(listMoments(changed)).toHaveLength(listMoments(piece).length);
  });
  it('heard the same changes nothing', () => {
    const piece = pieceOf([pin(8), pin(8.5), pin(3, { unit: 'seconds', value: 0.1 })]);
    const { moved, fresh, gone, barsMoved, moments } = compareHearing(piece, heard, later({}))!;
    expect([moved, fresh, gone, barsMoved, moments]).toEqual([[], [], [], false, []]);
    expect(secondsToBeat(resolveTimes(piece, heard).grid, 0.25)).toBe(0);
  });
});
