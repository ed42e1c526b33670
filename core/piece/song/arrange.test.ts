import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  applyEdits,
  createMusic,
  musicSpan,
  parsePiece,
  pieceToSong,
  playedLength,
  rearranged,
  resolveTimes,
  songParts,
  songToPieceAll,
  withRepeat,
  withoutStretch,
  trackOf,
} from '@core/piece';
import type { Music } from '@core/piece';
import { beatToBar, beatToSeconds, groupStartsBetween, secondsToBeat } from '@core/time';
import { pieceWithSong, pin, steadyAnalysis } from '../../../tests/helpers/documents';

const base = createMusic({ id: 'song', hash: 'a'.repeat(64), kind: 'audio', name: 'song.wav', duration: 40 });
const music = (change: Partial<Music>): Music => ({ ...base, ...change });

describe('the song as it is played', () => {
  it('runs over its cuts', () => {
    const m = music({
      start: 1,
      trimStart: 2,
      cuts: [
        { at: 10, to: 20 },
        { at: 24, to: 22 },
      ],
    });
    expect(songParts(m, 40)).toEqual([
      { from: 2, to: 10, at: 1 },
      { from: 20, to: 24, at: 9 },
      { from: 22, to: 40, at: 13 },
    ]);
    expect(playedLength(m, 40)).toBe(30);
    expect(songToPieceAll(m, 23)).toEqual([12, 14]);
    expect(songToPieceAll(m, 15)).toEqual([]);
    expect(pieceToSong(m, 14)).toBe(23);
  });
  it('ignores cuts that make no sense, rather than playing backwards', () => {
    expect(
      songParts(
        music({
          cuts: [
            { at: -3, to: 5 },
            { at: 50, to: 2 },
          ],
        }),
        40,
      ),
    ).toEqual([{ from: 0, to: 40, at: 0 }]);
  });
  it('every heard time leads back to its time of the song', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 1, max: 38 }), fc.integer({ min: 0, max: 38 })), { maxLength: 5 }),
        fc.double({ min: 0, max: 39.9, noNaN: true }),
        (cuts, t) => {
          const m = music({ cuts: cuts.map(([at, to]) => ({ at, to })) });
          for (const heard of songToPieceAll(m, t)) expect(pieceToSong(m, heard)).toBeCloseTo(t, 6);
        },
      ),
    );
  });
  it('leaving out and repeating change the length by just that much, but for scraps shorter than a join', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 30, noNaN: true }),
        fc.double({ min: 0.5, max: 8, noNaN: true }),
        fc.integer({ min: 1, max: 3 }),
        (from, length, times) => {
          const m = music({ cuts: [{ at: 33, to: 36 }] });
          const whole = musicSpan(m, 40);
          const stretch = { from, to: from + length };
          fc.pre(stretch.to < whole.to - 1);
          expect(
            Math.abs(playedLength(rearranged(m, 40, withoutStretch(whole, stretch))!, 40) - (37 - length)),
          ).toBeLessThan(0.061);
          expect(
            Math.abs(playedLength(rearranged(m, 40, withRepeat(whole, stretch, times))!, 40) - (37 + times * length)),
          ).toBeLessThan(0.061);
        },
      ),
    );
  });
});

describe('cutting the song of a piece', () => {
  const analysis = steadyAnalysis(120, 0.25, 76);
  const { piece } = pieceWithSong();
  const before = resolveTimes(piece, analysis);
  const whole = musicSpan(piece.music!, analysis.duration);
  const cut = (fromBeat: number, toBeat: number) =>
    applyEdits(
      piece,
      [
        {
          type: 'music.arrange',
          duration: analysis.duration,
          stretches: withoutStretch(whole, {
            from: beatToSeconds(before.grid, fromBeat),
            to: beatToSeconds(before.grid, toBeat),
          }),
        },
      ],
      before,
    ).piece;

  it('keeps an even beat over the join, and the bars', () => {
    const after = resolveTimes(cut(8, 16), analysis);
    for (let beat = 0; beat < 40; beat++)
      expect(beatToSeconds(after.grid, beat + 1) - beatToSeconds(after.grid, beat)).toBeCloseTo(0.5, 6);
    expect(beatToBar(after.grid, 8)).toMatchObject({ bar: 3, beat: 1 });
  });
  it('moves pins behind the cut with their music, and those inside it to the join', () => {
    const next = cut(1, 5);
    const keys = trackOf(next.layers[0]!, 'opacity')!.keyframes;
    const beatOf = (id: string) => keys.find((k) => k.id === id)!.at;
    expect(beatOf('k-beat')).toMatchObject({ to: { beat: 1 } });
    expect(beatOf('k-offset')).toMatchObject({ to: { beat: 2 } });
    expect(next.markers[0]!.at).toMatchObject({ to: { beat: 5 } });
    expect(beatOf('k-free')).toEqual(keys.find((k) => k.id === 'k-free')!.at);
  });
  it('a cut of an odd number of beats leaves one short bar, and bars go on from "one" behind it', () => {
    const after = resolveTimes(cut(6, 9), analysis);
    const place = beatToBar(after.grid, 6);
    expect(place.bar).toBe(2);
    expect(beatToBar(after.grid, 9).beat).toBe(1);
  });
  it('a part split off the beat is left out or repeated: pins behind it stay on the beat of the music they were on', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 40 }),
        fc.double({ min: 0.05, max: 0.95, noNaN: true }),
        fc.double({ min: 1.1, max: 9, noNaN: true }),
        fc.boolean(),
        (beat, off, length, isRepeat) => {
          const from = beatToSeconds(before.grid, beat + off);
          const stretch = { from, to: from + length };
          fc.pre(stretch.to < whole.to - 2);
          const pinned = {
            ...piece,
            markers: Array.from({ length: 74 }, (_, i) => ({ id: `m${i}`, name: '', colour: '#ffffff', at: pin(i) })),
          };
          const next = applyEdits(
            pinned,
            [
              {
                type: 'music.arrange',
                duration: analysis.duration,
                stretches: isRepeat ? withRepeat(whole, stretch, 1) : withoutStretch(whole, stretch),
              },
            ],
            before,
          ).piece;
          const after = resolveTimes(next, analysis);
          for (let i = Math.ceil(beat + off + length * 2) + 1; i < 74; i++) {
            const was = pieceToSong(piece.music!, beatToSeconds(before.grid, i));
            const is = pieceToSong(next.music!, after.timeOf(next.markers[i]!.at));
            expect(Math.abs(is - was)).toBeLessThan(0.031);
          }
        },
      ),
      { seed: 11 },
    );
  });
  it('whatever is cut, trimmed or corrected, there is a rising grid to count by', () => {
    const wild = fc.double({ min: -50, max: 90, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(wild, wild), { maxLength: 6 }),
        fc.double({ min: 0, max: 60, noNaN: true }),
        fc.option(fc.double({ min: 0.01, max: 60, noNaN: true })),
        wild,
        fc.constantFrom(0.5 as const, 1 as const, 2 as const),
        (pairs, trimStart, trimEnd, shift, factor) => {
          const cuts = pairs.map(([at, to]) => ({ at, to }));
          const music: Music = {
            ...piece.music!,
            cuts,
            trimStart,
            trimEnd,
            correction: {
              ...piece.music!.correction,
              shift,
              factor,
              moves: cuts,
              spans: pairs.map(([start, end]) => ({ start, end, beats: 7 })),
              bars: pairs.map(([at]) => ({ at, beatsPerBar: 3, groups: [] })),
            },
          };
          const { grid } = resolveTimes({ ...piece, music }, analysis);
          expect(grid.beats.length).toBeGreaterThanOrEqual(2);
          for (let i = 1; i < grid.beats.length; i++) expect(grid.beats[i]!).toBeGreaterThan(grid.beats[i - 1]!);
          expect(Number.isFinite(beatToSeconds(grid, 5)) && Number.isFinite(secondsToBeat(grid, 5))).toBe(true);
        },
      ),
      { seed: 12 },
    );
  });
  it('a song that plays one part twice with its front left out can still be opened', () => {
    const music: Music = { ...piece.music!, trimStart: 10, trimEnd: 14, cuts: [{ at: 14, to: 10 }] };
    const left = { ...music, trimStart: music.trimStart + 12 };
    const times = resolveTimes({ ...piece, music: left }, analysis);
    expect(times.grid.beats.length).toBeGreaterThanOrEqual(2);
    expect(beatToBar(times.grid, 0).bar).toBe(1);
  });
  it('moves the song under the piece and leaves what was set where it is', () => {
    const next = applyEdits(piece, [{ type: 'music.place', start: 1.5, beatShift: -3 }], before).piece;
    const after = resolveTimes(next, analysis);
    expect(after.timeOf(next.layers[0]!.start)).toBeCloseTo(before.timeOf(piece.layers[0]!.start), 6);
    expect(secondsToBeat(after.grid, 1.75)).toBeCloseTo(0, 6);
  });
});

describe('corrections by hand', () => {
  const analysis = steadyAnalysis(120, 0.25, 76);
  const { piece } = pieceWithSong();
  const corrected = (correction: Partial<Music['correction']>) =>
    resolveTimes(
      { ...piece, music: { ...piece.music!, correction: { ...piece.music!.correction, ...correction } } },
      analysis,
    ).grid;

  it('a dragged beat takes its neighbours along, less and less', () => {
    const { beats } = corrected({ moves: [{ at: 10.25, to: 10.33 }] });
    expect(beats[20]).toBeCloseTo(10.33, 6);
    expect(beats[21]! - 10.75).toBeCloseTo(0.06, 6);
    expect(beats[23]! - 11.75).toBeCloseTo(0.02, 6);
    expect(beats[24]).toBeCloseTo(12.25, 6);
    expect(beats[16]).toBeCloseTo(8.25, 6);
  });
  it('beats stay in order however they are dragged', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double({ min: 0, max: 37, noNaN: true }), fc.double({ min: -2, max: 2, noNaN: true })), {
          maxLength: 8,
        }),
        (moves) => {
          const { beats } = corrected({ moves: moves.map(([at, by]) => ({ at, to: at + by })) });
          for (let i = 1; i < beats.length; i++) expect(beats[i]!).toBeGreaterThan(beats[i - 1]!);
        },
      ),
    );
  });
  it('"this is one" starts bars of a new length from there on', () => {
    const grid = corrected({ bars: [{ at: 10.25, beatsPerBar: 3, groups: [] }] });
    expect(beatToBar(grid, 20)).toMatchObject({ beat: 1, beatsPerBar: 3 });
    expect(beatToBar(grid, 23).beat).toBe(1);
    expect(beatToBar(grid, 16)).toMatchObject({ beat: 1, beatsPerBar: 4 });
  });
  it('beats group as was heard, or as is said; a bar that is cut short does not', () => {
    const heard = corrected({ bars: [{ at: 10.25, beatsPerBar: 5, groups: [3, 2] }] });
    expect(groupStartsBetween(heard, 0, 12.6)).toEqual([23]);
    expect(groupStartsBetween(corrected({ beatsPerBar: 7, groups: [2, 2, 3] }), 0, 4.2)).toEqual([2, 4]);
    // Three beats, and then anew: these bars are not of five.
    const cut = corrected({ bars: [10.25, 11.75].map((at) => ({ at, beatsPerBar: 5, groups: [3, 2] })) });
    expect(groupStartsBetween(cut, 10, 12.6)).toEqual([]);
    expect(groupStartsBetween(corrected({ beatsPerBar: 4, groups: [3, 2] }), 0, 12)).toEqual([]);
    // Said for the whole song, groups leave bars where they were heard.
    const fives = { ...analysis, bars: analysis.bars.map((bar) => ({ ...bar, beatsPerBar: 5, groups: [3, 2] })) };
    const heardSo = (groups: number[] | null) =>
      resolveTimes(
        { ...piece, music: { ...piece.music!, correction: { ...piece.music!.correction, groups } } },
        { ...fives, beats: fives.beats.slice(0, 5), bars: fives.bars.slice(0, 1) },
      ).grid;
    expect(groupStartsBetween(heardSo(null), 0, 2.4)).toEqual([3]);
    expect(groupStartsBetween(heardSo([2, 3]), 0, 2.4)).toEqual([2]);
    expect(groupStartsBetween(heardSo([]), 0, 2.4)).toEqual([]);
    expect(groupStartsBetween(heardSo([2, 2, 3]), 0, 2.4)).toEqual([3]);
  });
  it('between two anchors lie as many beats as are said', () => {
    const { beats } = corrected({ spans: [{ start: 10.25, end: 14.25, beats: 6 }] });
    const inside = beats.filter((t) => t > 10.2 && t < 14.3);
    expect(inside).toHaveLength(7);
    expect(inside[0]).toBeCloseTo(10.25, 6);
    expect(inside[6]).toBeCloseTo(14.25, 6);
  });
  it('tapped beats take the place of the found ones, and free time is carried along', () => {
    const tapped = Array.from({ length: 20 }, (_, i) => 1 + i * 0.75);
    const grid = corrected({ tapped, free: [{ start: 3, end: 5 }] });
    expect(grid.beats).toEqual(tapped);
    expect(grid.free).toEqual([{ start: 3, end: 5 }]);
  });
  it('twice the beats keep their bars half as long in time', () => {
    const grid = corrected({ factor: 2 });
    expect(grid.beats[1]! - grid.beats[0]!).toBeCloseTo(0.25, 6);
    expect(beatToBar(grid, 8)).toMatchObject({ bar: 2, beat: 1 });
    expect(beatToBar(corrected({ factor: 0.5 }), 4)).toMatchObject({ bar: 2, beat: 1 });
  });
  it('an edit of one correction leaves the others alone', () => {
    const first = applyEdits(
      piece,
      [{ type: 'music.correct', correction: { moves: [{ at: 1.25, to: 1.3 }], shift: 0.01 } }],
      resolveTimes(piece, analysis),
    ).piece;
    const second = applyEdits(
      first,
      [{ type: 'music.correct', correction: { bars: [{ at: 2.25, beatsPerBar: 3, groups: [] }] } }],
      resolveTimes(first, analysis),
    ).piece;
    expect(second.music!.correction).toMatchObject({
      moves: [{ at: 1.25, to: 1.3 }],
      shift: 0.01,
      bars: [{ at: 2.25, beatsPerBar: 3, groups: [] }],
    });
  });
  it('documents from before these corrections are read as having none', () => {
    expect(pin(1).kind).toBe('pinned');
    const { cuts: _c, fadeInCurve: _i, fadeOutCurve: _o, ...old } = piece.music!;
    const { moves: _m, bars: _b, spans: _s, free: _f, tapped: _t, ...oldCorrection } = old.correction;
    const text = JSON.parse(JSON.stringify({ ...piece, music: { ...old, correction: oldCorrection } })) as unknown;
    expect(parsePiece(text)).toMatchObject({
      ok: true,
      piece: { music: { cuts: [], fadeInCurve: 'even', correction: { moves: [], tapped: null } } },
    });
  });
});
