import { describe, expect, it } from '@jest/globals';
import type { PropertyId } from '@core/piece';
import fc from 'fast-check';
import { pieceWithSong, steadyAnalysis } from '../../tests/helpers/documents';
import { HEARD_RATE, LISTEN_SOURCES, createLayer, resolveTimes } from '../piece';
import type { Listen, Piece } from '../piece';
import { beatToSeconds, freeMoment } from '../time';
import { prepareScene, propertyAt } from '.';

// 120 beats a minute from half a second on, forty of them.
const analysis = { ...steadyAnalysis(120, 0.5, 40), curveRate: 10, curves: { low: [0], mid: [0], high: [0] } };
const LISTEN: Listen = {
  id: 'l',
  property: 'scale',
  source: 'beats',
  amount: 0.5,
  attack: 0,
  release: 0,
  smoothing: 0,
  curve: 1,
  range: [0, 1],
};

function heard(listen: Partial<Listen>, change: (piece: Piece) => Piece = (piece) => piece) {
  const { piece } = pieceWithSong();
  const end = freeMoment(6);
  let n = 0;
  const layer = createLayer('ellipse', { name: 'Lamp', start: freeMoment(0), end }, () => `n${n++}`);
  layer.listens = [{ ...LISTEN, ...listen }];
  const document = change({ ...piece, end, layers: [layer] });
  const times = resolveTimes(document, analysis);
  const [prepared] = prepareScene(document, times, document.leadFormatId).layers;
  return { times, at: (seconds: number) => propertyAt(prepared!, layer.listens[0]!.property as PropertyId, seconds) };
}
const scaleAt = (value: unknown): number => (value as [number, number])[0];

describe('a property that listens', () => {
  it('gets all of its amount on a beat and none of it between, with a follower that is at once', () => {
    const { times, at } = heard({});
    const beat = beatToSeconds(times.grid, 3);
    expect(scaleAt(at(beat))).toBeCloseTo(1.5, 6);
    expect(scaleAt(at(beat + 0.25))).toBeCloseTo(1, 6);
  });
  it('falls with its release: to a third after one time constant', () => {
    const { times, at } = heard({ release: 0.1 });
    const beat = beatToSeconds(times.grid, 3);
    expect(scaleAt(at(beat + 0.1)) - 1).toBeCloseTo(0.5 / Math.E, 2);
  });
  it('rises with its attack, and gets there although a beat is but a moment', () => {
    const { times, at } = heard({ attack: 0.05, release: 0.1 });
    const beat = beatToSeconds(times.grid, 3);
    const rise = [0, 0.025, 0.05].map((later) => scaleAt(at(beat + later)));
    expect(rise).toEqual([...rise].sort((a, b) => a - b));
    expect(rise[2]).toBeGreaterThan(1 + 0.5 * 0.6);
  });
  it('smoothing takes the edge off on both sides alike, so that nothing comes late', () => {
    const { times, at } = heard({ smoothing: 0.2 });
    const beat = beatToSeconds(times.grid, 3);
    for (const d of [0.02, 0.05, 0.08]) expect(scaleAt(at(beat - d))).toBeCloseTo(scaleAt(at(beat + d)), 6);
    expect(scaleAt(at(beat - 0.05))).toBeGreaterThan(1);
  });
  it('hears bars where bars begin', () => {
    const { times, at } = heard({ source: 'bars' });
    const { beatsPerBar } = times.grid.meters[0]!;
    const first = times.grid.meters[0]!.fromBeat;
    const onBar = beatToSeconds(times.grid, first + beatsPerBar);
    expect(scaleAt(at(onBar))).toBeCloseTo(1.5, 6);
    expect(scaleAt(at(beatToSeconds(times.grid, first + beatsPerBar + 1)))).toBeCloseTo(1, 6);
  });
  it('reads the bands of the song where they are heard, also when the song starts later', () => {
    analysis.curves.low = Array.from({ length: 400 }, (_, i) => (i < 20 ? 0 : 255));
    const at = (start: number) =>
      heard({ source: 'low' }, (piece) => ({ ...piece, music: { ...piece.music!, start, trimStart: 0, cuts: [] } })).at;
    expect([scaleAt(at(0)(1.5)), scaleAt(at(0)(2.5))]).toEqual([1, 1.5]);
    expect([scaleAt(at(1)(2.5)), scaleAt(at(1)(3.5))]).toEqual([1, 1.5]);
  });
  it('is silent where there is no song, but keeps to the beats of the tempo', () => {
    const without = (source: Listen['source']) => heard({ source }, (piece) => ({ ...piece, music: null })).times.heard;
    for (const source of ['low', 'onsets', 'hits', 'energy'] as const)
      expect(Math.max(...without(source).levels(source))).toBe(0);
    expect(Math.max(...without('beats').levels('beats'))).toBe(1);
  });
  it('leaves colours as they are and stays within the bounds of its property', () => {
    expect(heard({ property: 'fill' }).at(1)).toBe('#EEE9DF');
    const { times, at } = heard({ property: 'opacity', amount: 3 });
    expect(at(beatToSeconds(times.grid, 2))).toBe(1);
  });
  it('never leaves the amount it was given, whatever its numbers', () => {
    const seconds = fc.double({ min: 0, max: 2, noNaN: true });
    fc.assert(
      fc.property(
        fc.record({
          source: fc.constantFrom(...LISTEN_SOURCES),
          attack: seconds,
          release: seconds,
          smoothing: seconds,
          curve: fc.double({ min: 0.1, max: 10, noNaN: true }),
          range: fc.tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true })),
        }),
        fc.double({ min: 0, max: 6, noNaN: true }),
        (listen, moment) => {
          const value = scaleAt(heard(listen).at(moment));
          return value >= 1 - 1e-9 && value <= 1.5 + 1e-9;
        },
      ),
      { numRuns: 60 },
    );
  });
  it('has a level for every step of the piece', () => {
    const { times } = heard({});
    for (const source of LISTEN_SOURCES) expect(times.heard.levels(source)).toHaveLength(6 * HEARD_RATE + 1);
  });
});
