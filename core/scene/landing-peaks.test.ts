import { describe, expect, it } from '@jest/globals';
import { GESTURES, GESTURE_IDS, newGestureUse } from '@core/motion';
import type { GestureRole, GestureUse } from '@core/motion';
import { createLayer, createPiece, resolveTimes } from '@core/piece';
import type { Layer } from '@core/piece';
import { castGesture, castState, prepareGesture } from '@core/scene';
import type { CastGesture } from '@core/scene';
import { FRAME_RATES, beatMoment, freeMoment } from '@core/time';
import { countingIds } from '../../tests/helpers/documents';

const ids = countingIds('peak');
const piece = createPiece(
  { name: 'p', formats: [{ id: 'wide', name: 'Wide', width: 640, height: 360 }], frameRate: FRAME_RATES['30'] },
  ids,
);
const times = resolveTimes(piece, null);
const layer: Layer = createLayer('rectangle', { name: 'Flag', start: freeMoment(0), end: freeMoment(9) }, ids);
const BEAT = 4;
const MOMENT = 2; // beat 4 at 120 beats a minute

const castOf = (use: GestureUse): CastGesture =>
  castGesture(prepareGesture(use, layer, [], times), [{ x: 0, y: 0 }], () => 0);

/** Parameters at their least, their greatest and as they come, each of them alone and all together. */
function extremes(id: keyof typeof GESTURES): Record<string, number>[] {
  const parameters = Object.entries(GESTURES[id].parameters as Record<string, { min: number; max: number }>);
  const all = (of: (p: { min: number; max: number }) => number) =>
    Object.fromEntries(parameters.map(([key, p]) => [key, of(p)]));
  return [
    {},
    all((p) => p.min),
    all((p) => p.max),
    ...parameters.flatMap(([key, p]) => [{ [key]: p.min }, { [key]: p.max }]),
  ];
}

describe('a gesture that lands its peak on a beat', () => {
  const cases = GESTURE_IDS.flatMap((id) =>
    (GESTURES[id].roles as readonly GestureRole[]).map((role) => [id, role] as const),
  );
  it.each(cases)('%s as %s has the hit of its course there, with any parameters', (id, role) => {
    for (const parameters of extremes(id)) {
      const use: GestureUse = {
        ...newGestureUse(id, role, ids()),
        duration: { unit: 'beats', value: Math.max(1, GESTURES[id].beats) },
        parameters,
        at: beatMoment(BEAT, times.grid),
        landing: 'peak',
        every: null,
      };
      const cast = castOf(use);
      const hit = cast.hitOf(0);
      if (!hit) continue;
      expect(Math.abs(cast.starts[0]! + hit.share * cast.each - MOMENT)).toBeLessThan(1e-9);
    }
  });

  /**
   * Independent of the heuristics: the first time the scale of a burst, or the height of a fall, reaches its goal, on a
   * grid of 0.1 ms.
   */
  const reaches = (use: GestureUse, isThere: (state: NonNullable<ReturnType<typeof castState>>) => boolean): number => {
    const cast = castOf(use);
    for (let t = cast.starts[0]!; t < cast.starts[0]! + cast.each; t += 1e-4) {
      const state = castState(cast, 0, t);
      if (!state || isThere(state)) return t;
    }
    return cast.starts[0]! + cast.each;
  };
  it.each([0, 0.02, 0.15, 0.3, 0.5, 0.8, 1])(
    'Nova with an overshoot of %d is at its full size on the beat',
    (overshoot) => {
      const use: GestureUse = {
        ...newGestureUse('nova', 'entrance', ids()),
        parameters: { overshoot },
        at: beatMoment(BEAT, times.grid),
        landing: 'peak',
      };
      expect(Math.abs(reaches(use, (s) => s.scale[0] >= 0.985) - MOMENT)).toBeLessThan(0.004);
    },
  );
  it.each([0.2, 0.5, 0.8, 1])('Gravity with a bounce of %d touches the ground on the beat', (bounce) => {
    const use: GestureUse = {
      ...newGestureUse('gravity', 'entrance', ids()),
      parameters: { bounce },
      at: beatMoment(BEAT, times.grid),
      landing: 'peak',
    };
    const from = castState(castOf(use), 0, castOf(use).starts[0]! + 1e-6)!.move;
    const height = Math.hypot(from[0], from[1]);
    expect(Math.abs(reaches(use, (s) => Math.hypot(s.move[0], s.move[1]) <= height * 0.02) - MOMENT)).toBeLessThan(
      0.004,
    );
  });
  /** Parameters go in steps of a hundredth of their range, which is less than a hand on a slider does. */
  const STEPS = 100;
  const LEAP = 0.13;
  it.each(cases)('%s as %s: no parameter makes its landing leap', (id, role) => {
    const parameters = Object.entries(GESTURES[id].parameters as Record<string, { min: number; max: number }>);
    for (const [key, { min, max }] of parameters) {
      let before: number | null = null;
      for (let step = 0; step <= STEPS; step++) {
        const cast = castOf({
          ...newGestureUse(id, role, 'leap'),
          unit: 'whole',
          parameters: { [key]: min + ((max - min) * step) / STEPS },
          at: beatMoment(BEAT, times.grid),
          landing: 'peak',
          every: null,
        });
        const share: number | null = cast.hitOf(0)?.share ?? null;
        if (share !== null && before !== null) expect(Math.abs(share - before)).toBeLessThan(LEAP);
        before = share;
      }
    }
  });
});
