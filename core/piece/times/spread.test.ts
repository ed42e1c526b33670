import { describe, expect, it } from '@jest/globals';
import { visibleHits } from '@core/checks';
import { applyEdits, resolveTimes, spreadOrder, spreadTargets, trackOf } from '@core/piece';
import type { Piece, SpreadPlan } from '@core/piece';
import { evaluateEasing, hitOf } from '@core/motion';
import type { Easing } from '@core/motion';
import { freeMoment } from '@core/time';
import { pieceWithSong, pin, steadyAnalysis } from '../../../tests/helpers/documents';

const analysis = steadyAnalysis(120, 0.25, 76);
const { piece, layer } = pieceWithSong();
const times = resolveTimes(piece, analysis);
const hitFacts = (id: string) => analysis.hits[Number(id.split(':')[1])];
const plan = (change: Partial<SpreadPlan>): SpreadPlan => ({
  kind: 'beat',
  hitClass: 'low',
  weakest: 0,
  pattern: '',
  step: 0.25,
  ...change,
});
const beatsOf = (p: SpreadPlan, from: number, count: number) =>
  spreadTargets(p, from, count, times, hitFacts).map((m) =>
    m.kind === 'pinned' && m.to.type === 'beat'
      ? m.to.beat
      : m.kind === 'pinned' && m.to.type === 'hit'
        ? m.to.id
        : NaN,
  );

describe('places to spread on', () => {
  it('beats, every second beat, downbeats, from the one under the playhead on', () => {
    expect(beatsOf(plan({}), 1.25, 4)).toEqual([2, 3, 4, 5]);
    expect(beatsOf(plan({ kind: 'second' }), 1.3, 3)).toEqual([3, 5, 7]);
    expect(beatsOf(plan({ kind: 'downbeat' }), 1.25, 3)).toEqual([4, 8, 12]);
  });
  it('hits of one kind, pinned to the hits themselves', () => {
    expect(beatsOf(plan({ kind: 'hit', hitClass: 'mid' }), 0, 3)).toEqual(['aaaaaaaa:1', 'aaaaaaaa:3', 'aaaaaaaa:5']);
    expect(spreadTargets(plan({ kind: 'hit', hitClass: 'high' }), 0, 3, times, hitFacts)).toEqual([]);
  });
  it('a typed rhythm, repeated', () => {
    expect(beatsOf(plan({ kind: 'pattern', pattern: 'x..x..x.' }), 0.25, 5)).toEqual([0, 0.75, 1.5, 2, 2.75]);
    expect(beatsOf(plan({ kind: 'pattern', pattern: 'X-', step: 0.5 }), 0.25, 3)).toEqual([0, 1, 2]);
    expect(beatsOf(plan({ kind: 'pattern', pattern: '....' }), 0, 3)).toEqual([]);
  });
  it('takes things in order, from the last, or from both ends, each exactly once', () => {
    expect(spreadOrder(5, 'ends')).toEqual([0, 4, 1, 3, 2]);
    for (const order of ['forward', 'backward', 'ends'] as const)
      for (const n of [0, 1, 2, 7])
        expect([...spreadOrder(n, order)].sort((a, b) => a - b)).toEqual(Array.from({ length: n }, (_, i) => i));
  });
  it('a layer that is placed keeps its inner rhythm on the beats', () => {
    const next = applyEdits(piece, [{ type: 'layer.place', places: [{ id: layer.id, at: pin(8) }] }], times).piece
      .layers[0]!;
    expect(next.start).toMatchObject({ to: { beat: 8 } });
    expect(trackOf(next, 'opacity')!.keyframes.find((k) => k.id === 'k-fraction')!.at).toMatchObject({
      to: { beat: 12.75 },
    });
    expect(trackOf(next, 'opacity')!.keyframes.find((k) => k.id === 'k-free')!.at).toEqual(freeMoment(7.3));
  });
});

describe('the visible hit of a movement', () => {
  const apart = (a: number, b: number) => Math.abs(a - b);
  const course = (easing: Easing) =>
    hitOf(
      Array.from({ length: 241 }, (_, i) => 100 * evaluateEasing(easing, i / 240)),
      apart,
    );
  it('is its start if it sets off at full speed, its landing if it comes in so, its middle if it swells', () => {
    expect(course({ type: 'named', name: 'quint-out' })).toEqual({ kind: 'start', share: 0 });
    expect(course({ type: 'named', name: 'cubic-in' })).toEqual({ kind: 'landing', share: 1 });
    const middle = course({ type: 'named', name: 'ease-in-out' })!;
    expect(middle.kind).toBe('peak');
    expect(middle.share).toBeCloseTo(0.5, 1);
  });
  it('of a held value is the jump; of a bounce, the first touch', () => {
    expect(course({ type: 'hold' })).toEqual({ kind: 'landing', share: 1 });
    const bounce = course({ type: 'bounce', bounces: 3, restitution: 0.5 })!;
    expect(bounce.kind).toBe('landing');
    expect(bounce.share).toBeGreaterThan(0.2);
    expect(bounce.share).toBeLessThan(0.7);
  });
  it('of nothing that moves is none', () => {
    expect(hitOf([1, 1, 1, 1], apart)).toBeNull();
  });
  const moving = (from: number, to: number, easing: Easing): Piece => ({
    ...piece,
    layers: [
      {
        ...layer,
        tracks: {
          ...layer.tracks,
          opacity: {
            value: 1,
            keyframes: [
              { id: 'a', at: freeMoment(from), value: 0, easing },
              { id: 'b', at: freeMoment(to), value: 1, easing },
            ],
          },
        },
      },
    ],
  });
  it('is told in milliseconds and frames from the nearest place of the lattice', () => {
    const p = moving(1.29, 1.8, { type: 'named', name: 'quint-out' });
    const [hit] = visibleHits(p, resolveTimes(p, analysis));
    expect(hit).toMatchObject({ kind: 'start', beat: 2, isPinned: false });
    expect(hit!.late).toBeCloseTo(0.04, 6);
    expect(hit!.frames).toBeCloseTo(1.2, 6);
  });
  it('lands when it is moved by what it was late', () => {
    const p = moving(0.9, 1.33, { type: 'named', name: 'cubic-in' });
    const before = visibleHits(p, resolveTimes(p, analysis));
    const next = applyEdits(
      p,
      [{ type: 'keys.shift', shifts: before.flatMap((h) => h.keys.map((ref) => ({ ref, seconds: -h.late }))) }],
      resolveTimes(p, analysis),
    ).piece;
    const [after] = visibleHits(next, resolveTimes(next, analysis));
    expect(after!.kind).toBe('landing');
    expect(Math.abs(after!.late)).toBeLessThan(1e-6);
  });
});
