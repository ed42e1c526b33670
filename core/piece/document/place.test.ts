import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { createLayer, fitIn, pivotOf, positionAt, safeBox } from '@core/piece';
import type { Constraints, Format, Layer } from '@core/piece';
import { pin } from '../../../tests/helpers/documents';

const side = fc.integer({ min: 200, max: 4000 });
const format = (id: string) => fc.record({ id: fc.constant(id), name: fc.constant(id), width: side, height: side });
const place = fc.tuple(fc.integer({ min: -900, max: 900 }), fc.integer({ min: -900, max: 900 }));
const held = fc.record({
  horizontal: fc.constantFrom('left', 'centre', 'right', 'both', 'share'),
  vertical: fc.constantFrom('top', 'middle', 'bottom', 'both', 'share'),
  within: fc.constantFrom('frame', 'safe-area'),
  scales: fc.constantFrom('fit', 'width', 'height', 'reading', 'not'),
}) satisfies fc.Arbitrary<Constraints>;

const layer = (constraints: Constraints | null): Layer => ({
  ...createLayer('rectangle', { name: 'Plate', start: pin(0), end: pin(4) }, () => 'plate'),
  constraints,
});
const WIDE: Format = { id: 'wide', name: 'Wide', width: 1920, height: 1080 };
const TALL: Format = { id: 'tall', name: 'Tall', width: 1080, height: 1920 };
const roomOf = (constraints: Constraints, f: Format) =>
  constraints.within === 'frame' ? ([0, 0, f.width, f.height] as const) : safeBox(f);

describe('constraints', () => {
  it('change nothing in the lead format', () => {
    fc.assert(
      fc.property(format('lead'), held, place, (lead, constraints, at) => {
        const [plain, fit] = [null, constraints].map((c) => pivotOf(at, fitIn(layer(c), lead, lead)));
        fit!.forEach((v, i) => expect(v).toBeCloseTo(plain![i]!, 6));
      }),
    );
  });
  it('keep the distance from the edge that holds, as large as the layer is', () => {
    fc.assert(
      fc.property(format('lead'), format('other'), held, place, (lead, other, constraints, at) => {
        const fit = fitIn(layer(constraints), lead, other);
        const [home, there] = [pivotOf(at, fitIn(layer(constraints), lead, lead)), pivotOf(at, fit)];
        const [a, b] = [roomOf(constraints, lead), roomOf(constraints, other)];
        const edge = { left: 0, right: 2, top: 1, bottom: 3 } as const;
        for (const [axis, hold] of [constraints.horizontal, constraints.vertical].entries()) {
          if (!(hold in edge)) continue;
          const i = edge[hold as keyof typeof edge];
          expect(there[axis]! - b[i]).toBeCloseTo((home[axis]! - a[i]) * fit.factor, 4);
        }
      }),
    );
  });
  it('keep the share of the room, where that holds', () => {
    const constraints = { horizontal: 'share', vertical: 'share', within: 'frame', scales: 'not' } as const;
    const [x, y] = pivotOf([-480, 270], fitIn(layer(constraints), WIDE, TALL));
    expect(x).toBeCloseTo(TALL.width / 4, 9);
    expect(y).toBeCloseTo((TALL.height * 3) / 4, 9);
  });
  it('of both edges make a layer as much longer as there is room', () => {
    const constraints = { horizontal: 'both', vertical: 'bottom', within: 'frame', scales: 'reading' } as const;
    const { stretch, factor } = fitIn(layer(constraints), WIDE, TALL);
    expect((1920 - 100 + stretch[0]) * factor).toBeCloseTo(1080 - 100 * factor, 6);
    expect(stretch[1]).toBe(0);
  });
  it('leave room for what lies over tall video', () => {
    const [l, t, r, b] = safeBox(TALL);
    expect([l, t, r, b].map(Math.round)).toEqual([54, 154, 940, 1536]);
  });
  it('know the way back from a place to a position', () => {
    fc.assert(
      fc.property(format('lead'), format('other'), held, place, (lead, other, constraints, at) => {
        const fit = fitIn(layer(constraints), lead, other);
        const [x, y] = positionAt(...(pivotOf(at, fit) as [number, number]), fit);
        expect(x).toBeCloseTo(at[0], 4);
        expect(y).toBeCloseTo(at[1], 4);
      }),
    );
  });
});
