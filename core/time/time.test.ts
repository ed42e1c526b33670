import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  FRAME_RATES,
  barToBeat,
  barsBetween,
  beatMoment,
  beatToBar,
  beatToSeconds,
  beatsBetween,
  constantGrid,
  formatBarBeat,
  frameCount,
  frameMiddle,
  frameRateLabel,
  frameToSeconds,
  frameToTimecode,
  freeMoment,
  nearestIndex,
  overallTempo,
  resolveMoment,
  secondsToBeat,
  secondsToFrame,
  shiftMoment,
  snapMoment,
  tempoAt,
  timecodeToFrame,
} from '@core/time';
import type { BeatGrid, FrameRate, TimeTargets } from '@core/time';

const rates = fc.constantFrom<FrameRate>(...Object.values(FRAME_RATES));
/** Grids with drifting tempo: intervals of 0.25 to 1.2 s. */
const grids = fc
  .record({
    first: fc.double({ min: -3, max: 3, noNaN: true }),
    gaps: fc.array(fc.double({ min: 0.25, max: 1.2, noNaN: true }), { minLength: 1, maxLength: 40 }),
    origin: fc.integer({ min: -3, max: 8 }),
    perBar: fc.integer({ min: 2, max: 7 }),
  })
  .map(({ first, gaps, origin, perBar }): BeatGrid => {
    const beats = [first];
    for (const gap of gaps) beats.push(beats[beats.length - 1]! + gap);
    return { beats, origin, meters: [{ fromBeat: 0, beatsPerBar: perBar }], confidence: beats.map(() => 1) };
  });
const targetsOf = (grid: BeatGrid): TimeTargets => ({
  grid,
  hits: new Map([['h', 1.25]]),
  markers: new Map([['m', 2.5]]),
});

describe('frames', () => {
  it('gives every frame back from its own time, at every rate, over ten minutes', () => {
    fc.assert(
      fc.property(
        rates,
        fc.integer({ min: 0, max: 36000 }),
        (rate, frame) => secondsToFrame(frameToSeconds(frame, rate), rate) === frame,
      ),
    );
  });
  it('counts the frames that start within a duration', () => {
    expect(frameCount(1, FRAME_RATES['30'])).toBe(30);
    expect(frameCount(1.001, FRAME_RATES['30'])).toBe(31);
    expect(frameCount(1001 / 24000, FRAME_RATES['23.976'])).toBe(1);
    expect(frameCount(0, FRAME_RATES['60'])).toBe(0);
  });
  it('names rates as the trade does', () => {
    expect(Object.entries(FRAME_RATES).every(([label, rate]) => frameRateLabel(rate) === label)).toBe(true);
    expect(frameRateLabel({ num: 12, den: 1 })).toBe('12.000');
  });
});

describe('timecode', () => {
  it('skips two numbers a minute but not every tenth at 29.97 (SMPTE ST 12-1)', () => {
    const rate = FRAME_RATES['29.97'];
    expect(frameToTimecode(1799, rate)).toBe('00:00:59;29');
    expect(frameToTimecode(1800, rate)).toBe('00:01:00;02');
    expect(frameToTimecode(17982, rate)).toBe('00:10:00;00');
    expect(timecodeToFrame('00:01:00;00', rate)).toBeNull();
  });
  it('reads back what it writes', () => {
    fc.assert(
      fc.property(
        rates,
        fc.integer({ min: -4000, max: 200000 }),
        (rate, frame) => timecodeToFrame(frameToTimecode(frame, rate), rate) === frame,
      ),
    );
  });
  it('refuses what is no timecode', () => {
    for (const text of ['', '12', '00:61:00:00', '00:00:00:30', 'ab:cd:ef:gh'])
      expect(timecodeToFrame(text, FRAME_RATES['30'])).toBeNull();
  });
});

describe('the beat grid', () => {
  it('converts beats to seconds and back, inside and far outside the known beats', () => {
    fc.assert(
      fc.property(
        grids,
        fc.double({ min: -60, max: 120, noNaN: true }),
        (grid, beat) => Math.abs(secondsToBeat(grid, beatToSeconds(grid, beat)) - beat) < 1e-6,
      ),
    );
  });
  it('rises strictly: a later beat is a later time', () => {
    fc.assert(
      fc.property(
        grids,
        fc.double({ min: -20, max: 60, noNaN: true }),
        fc.double({ min: 0.001, max: 5, noNaN: true }),
        (grid, beat, step) => beatToSeconds(grid, beat + step) > beatToSeconds(grid, beat),
      ),
    );
  });
  it('starts bar n on the beat that is beat 1 of bar n', () => {
    fc.assert(
      fc.property(grids, fc.integer({ min: -10, max: 40 }), (grid, bar) => {
        const position = beatToBar(grid, barToBeat(grid, bar));
        return position.bar === bar && Math.abs(position.beat - 1) < 1e-9;
      }),
    );
  });
  it('follows a change of beats a bar', () => {
    const grid: BeatGrid = {
      ...constantGrid(120, 4, 0),
      meters: [
        { fromBeat: 0, beatsPerBar: 4 },
        { fromBeat: 8, beatsPerBar: 3 },
      ],
    };
    expect(beatToBar(grid, 7)).toMatchObject({ bar: 2, beat: 4 });
    expect(beatToBar(grid, 8)).toMatchObject({ bar: 3, beat: 1, beatsPerBar: 3 });
    expect(beatToBar(grid, 11)).toMatchObject({ bar: 4, beat: 1 });
    expect(barToBeat(grid, 4)).toBe(11);
  });
  it('lists beats and bars of a span, the end excluded', () => {
    const grid = constantGrid(120, 4, 0);
    expect(beatsBetween(grid, 0, 2)).toEqual([0, 1, 2, 3]);
    expect(beatsBetween(grid, 0.1, 0.6, 0.5)).toEqual([0.5, 1]);
    expect(barsBetween(grid, 0, 4.1)).toEqual([1, 2, 3]);
  });
  it('knows its tempo', () => {
    expect(overallTempo(constantGrid(118, 4, 0.2))).toBeCloseTo(118, 9);
    expect(tempoAt({ ...constantGrid(120, 4, 0), beats: [0, 0.5, 1.1] }, 0.7)).toBeCloseTo(100, 9);
  });
  it('refuses a tempo that is none', () => {
    expect(() => constantGrid(0, 4, 0)).toThrow(RangeError);
    expect(() => constantGrid(100, 0, 0)).toThrow(RangeError);
  });
  it('writes positions as bar, beat and fraction', () => {
    const grid = constantGrid(120, 4, 0);
    expect(formatBarBeat(beatToBar(grid, 5.5))).toBe('2.2½');
    expect(formatBarBeat(beatToBar(grid, 8))).toBe('3.1');
  });
});

describe('moments', () => {
  const grid = constantGrid(120, 4, 1);
  it('resolves beats with fractions and offsets of both kinds', () => {
    const targets = targetsOf(grid);
    expect(resolveMoment(beatMoment(2.5, grid), targets)).toEqual({ seconds: 2.25, missing: false });
    expect(
      resolveMoment(
        { kind: 'pinned', to: { type: 'beat', beat: 4 }, offset: { unit: 'beats', value: -0.5 }, last: 0 },
        targets,
      ).seconds,
    ).toBeCloseTo(2.75, 12);
    expect(
      resolveMoment(
        { kind: 'pinned', to: { type: 'hit', id: 'h' }, offset: { unit: 'seconds', value: 0.05 }, last: 0 },
        targets,
      ).seconds,
    ).toBeCloseTo(1.3, 12);
  });
  it('keeps the last time of a pin whose target is gone, and says so', () => {
    expect(resolveMoment({ kind: 'pinned', to: { type: 'marker', id: 'gone' }, last: 7.5 }, targetsOf(grid))).toEqual({
      seconds: 7.5,
      missing: true,
    });
  });
  it('moves by exactly the seconds asked for, pinned or free', () => {
    const pins = fc.oneof(
      fc.double({ min: 0, max: 9, noNaN: true }).map(freeMoment),
      fc.double({ min: -4, max: 30, noNaN: true }).map((b) => beatMoment(b, grid)),
    );
    fc.assert(
      fc.property(pins, fc.double({ min: -3, max: 3, noNaN: true }), (moment, delta) => {
        const targets = targetsOf(grid);
        const moved = shiftMoment(moment, delta, targets);
        return (
          moved.kind === moment.kind &&
          Math.abs(resolveMoment(moved, targets).seconds - resolveMoment(moment, targets).seconds - delta) < 1e-9
        );
      }),
    );
  });
});

describe('snapping', () => {
  const targets = targetsOf(constantGrid(120, 4, 0));
  const options = { radius: 0.05, division: 0.5, others: [3.11], frameRate: FRAME_RATES['30'] };
  it('pins near a beat division', () => {
    expect(snapMoment(0.77, targets, options)).toMatchObject({ kind: 'pinned', to: { type: 'beat', beat: 1.5 } });
  });
  it('meets other edges without pinning, else the nearest frame', () => {
    expect(snapMoment(3.12, targets, options)).toEqual(freeMoment(3.11));
    expect(snapMoment(3.4, targets, options)).toEqual(freeMoment(102 / 30));
  });
  it('an edge of the piece wins over a beat that is farther off, and a beat that lies on it pins', () => {
    const shifted = targetsOf(constantGrid(120, 4, 0.1));
    const edges = [0, 3.96];
    const wide = { ...options, radius: 0.2, edges };
    // Beats lie at 0.1 and every half second from there: a clip dragged to the start leaves no empty frames.
    expect(snapMoment(0.04, shifted, wide)).toEqual(freeMoment(0));
    expect(snapMoment(0.09, shifted, wide)).toMatchObject({ kind: 'pinned' });
    expect(snapMoment(3.97, shifted, wide)).toEqual(freeMoment(3.96));
    expect(snapMoment(0.04, targets, wide)).toMatchObject({ kind: 'pinned', to: { beat: 0 } });
  });
  it('only goes to frames when the radius is nothing', () => {
    expect(snapMoment(0.501, targets, { ...options, radius: 0 })).toEqual(freeMoment(0.5));
  });
});

it('finds the nearest element, the earlier one on a tie', () => {
  expect(nearestIndex([0, 1, 2], 0.5)).toBe(0);
  expect(nearestIndex([0, 1, 2], 1.6)).toBe(2);
  expect(nearestIndex([], 1)).toBe(-1);
});

describe('the moment a frame shows', () => {
  it('puts what falls on the lattice on the frame that is nearest, at all rates and tempi, wherever the first beat lies', () => {
    const rateList = Object.values(FRAME_RATES);
    for (const rate of rateList) {
      for (const bpm of [60, 75, 90, 100, 120, 125, 150, 180, 187.5, 200]) {
        for (const first of [0, 0.2, 0.5, 1 / 3]) {
          const grid = constantGrid(bpm, 4, first);
          for (let beat = 0; beat < 80; beat++) {
            const at = beatToSeconds(grid, beat);
            // Exact, in integers: of the frames whose middle (2k + 1) · den / (2 · num) is at or behind the beat, the
            // first.
            const position = at * (rate.num / rate.den) - 0.5;
            const expected =
              Math.abs(position - Math.round(position)) < 1e-7 ? Math.round(position) : Math.ceil(position);
            let seen = Math.max(0, expected - 3);
            while (frameMiddle(seen, rate) < at) seen++;
            expect(seen).toBe(Math.max(0, expected));
            expect(Math.abs(frameToSeconds(seen, rate) - at) * (rate.num / rate.den)).toBeLessThanOrEqual(0.5 + 1e-5);
          }
        }
      }
    }
  });
});
