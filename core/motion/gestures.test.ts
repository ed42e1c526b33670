import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  ACTOR_PROPERTIES,
  GESTURES,
  GESTURE_IDS,
  STAGGER_ORDERS,
  actorAt,
  atRest,
  gestureDefinition,
  gestureUseSchema,
  hashUnit,
  newGestureUse,
  prepareActor,
  rhythmPlaces,
  staggerOffsets,
  staggerRanks,
} from '@core/motion';
import type { ActorState, GestureId, StaggerOrder } from '@core/motion';

const UNIT = { index: 2, count: 5, random: (k: number) => hashUnit(9, k) };
const stateOf = (id: GestureId, u: number, parameters: Record<string, number> = {}): ActorState => {
  const definition = gestureDefinition(id)!;
  const all = Object.fromEntries(
    Object.entries(definition.parameters).map(([name, p]) => [name, parameters[name] ?? p.default]),
  );
  return actorAt(prepareActor(definition.tracks(all, UNIT)), u);
};
const expectRest = (state: ActorState) => {
  for (const [property, value] of Object.entries(atRest())) {
    const got = state[property as keyof ActorState];
    if (Array.isArray(value)) value.forEach((v, i) => expect((got as [number, number])[i]).toBeCloseTo(v, 6));
    else expect(got).toBeCloseTo(value, 6);
  }
};

describe('gestures', () => {
  it('are at least twenty-four that come in or go out and a good few that play while a layer stands', () => {
    expect(
      GESTURE_IDS.filter((id) => !(GESTURES[id].roles as readonly string[]).includes('accent')).length,
    ).toBeGreaterThanOrEqual(24);
    expect(
      GESTURE_IDS.filter((id) => (GESTURES[id].roles as readonly string[]).includes('accent')).length,
    ).toBeGreaterThanOrEqual(6);
  });

  it.each(GESTURE_IDS)('%s ends where its layer rests, at every setting of its parameters', (id) => {
    const definition = gestureDefinition(id)!;
    for (const side of ['min', 'default', 'max'] as const) {
      const parameters = Object.fromEntries(Object.entries(definition.parameters).map(([name, p]) => [name, p[side]]));
      // A push that lasts as long as the layer is the one that does not come back.
      if (definition.every !== 'stay') expectRest(stateOf(id, 1, parameters));
      if (definition.roles.includes('accent')) expectRest(stateOf(id, 0, parameters));
    }
  });

  it.each(
    GESTURE_IDS.filter(
      (id) =>
        (GESTURES[id].roles as readonly string[]).includes('entrance') && gestureDefinition(id)!.does !== 'counts',
    ),
  )('%s begins unseen or away from its place, so that it is seen to come in', (id) => {
    const s = stateOf(id, 0);
    const isAway =
      s.opacity < 0.01 ||
      s.scale[0] * s.scale[1] < 0.01 ||
      s.wipe < 0.01 ||
      s.ink < 0.01 ||
      (s.cover >= 0.5 && Math.abs(s.move[1]) >= 1);
    expect(isAway).toBe(true);
  });

  it.each(GESTURE_IDS)('%s is given to a layer as valid data', (id) => {
    const role = GESTURES[id].roles[0];
    expect(gestureUseSchema.safeParse(newGestureUse(id, role, 'g')).success).toBe(true);
    expect(
      Object.keys(
        gestureDefinition(id)!.tracks(
          Object.fromEntries(Object.entries(gestureDefinition(id)!.parameters).map(([n, p]) => [n, p.default])),
          UNIT,
        ),
      ).every((p) => p in ACTOR_PROPERTIES),
    ).toBe(true);
  });
});

describe('stagger', () => {
  const orders = fc.constantFrom(...(Object.keys(STAGGER_ORDERS) as StaggerOrder[]));
  const places = fc.array(
    fc.record({
      x: fc.double({ min: -1000, max: 1000, noNaN: true }),
      y: fc.double({ min: -1000, max: 1000, noNaN: true }),
    }),
    { minLength: 1, maxLength: 40 },
  );

  it('keeps every unit within the whole, uses it up, and starts the first rank at once', () => {
    fc.assert(
      fc.property(
        places,
        orders,
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0.1, max: 20, noNaN: true }),
        (list, order, overlap, total) => {
          const ranks = staggerRanks(list, { order, seed: 3 });
          expect(Math.min(...ranks)).toBe(0);
          const { offsets, each } = staggerOffsets(ranks, { overlap, easing: { type: 'linear' } }, total);
          expect(Math.min(...offsets)).toBeCloseTo(0, 9);
          expect(Math.max(...offsets) + each).toBeCloseTo(total, 6);
          if (overlap === 1) expect(each).toBeCloseTo(total, 9);
        },
      ),
      { seed: 11 },
    );
  });

  it('runs in the order asked for', () => {
    const row = [0, 1, 2, 3, 4].map((x) => ({ x: -x, y: x }));
    const of = (order: StaggerOrder) => [...staggerRanks(row, { order, seed: 1 })];
    expect(of('forward')).toEqual([0, 1, 2, 3, 4]);
    expect(of('backward')).toEqual([4, 3, 2, 1, 0]);
    expect(of('centre')).toEqual([2, 1, 0, 1, 2]);
    expect(of('edges')).toEqual([0, 1, 2, 1, 0]);
    expect(of('across')).toEqual([4, 3, 2, 1, 0]);
    expect(of('down')).toEqual([0, 1, 2, 3, 4]);
    expect(of('back')).toEqual([0, 1, 2, 3, 4]);
    expect(of('up')).toEqual([4, 3, 2, 1, 0]);
    expect(of('outward')[2]).toBe(0);
    expect(of('outward').slice(0, 2)).toEqual([3, 1]);
    expect([...of('random')].sort()).toEqual([0, 1, 2, 3, 4]);
    expect(of('random')).toEqual(of('random'));
    expect([...staggerRanks(row.slice(0, 4), { order: 'centre', seed: 1 })]).toEqual([1, 0, 0, 1]);
  });

  it('takes the places of a rhythm one after another', () => {
    const ranks = Float64Array.from([0, 1, 2, 3, 4]);
    expect([...rhythmPlaces(ranks, { pattern: 'x', step: 1 })]).toEqual([0, 1, 2, 3, 4]);
    expect([...rhythmPlaces(ranks, { pattern: 'x..x..x.', step: 0.25 })]).toEqual([0, 0.75, 1.5, 2, 2.75]);
    expect([...rhythmPlaces(ranks, { pattern: '...', step: 2 })]).toEqual([0, 2, 4, 6, 8]);
  });
});
