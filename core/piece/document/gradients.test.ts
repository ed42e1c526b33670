import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { colourBetween, gradientPoints, newGradient, widestGap, withPoint, withStop } from '@core/piece';
import type { Gradient } from '@core/piece';

const literal = (colour: string) => ({ '@lamp': '#ffb74a' })[colour] ?? colour;
const place = fc.double({ min: 0, max: 1, noNaN: true });
const stops = fc
  .array(fc.record({ at: place, colour: fc.constantFrom('#000000', '#ffffff', '#ff6f5980', '@lamp') }), {
    minLength: 1,
    maxLength: 8,
  })
  .map((list) => list.sort((a, b) => a.at - b.at));

describe('stops', () => {
  it('that are added lie in order and change nothing of what is between', () => {
    fc.assert(
      fc.property(stops, place, place, (list, at, anywhere) => {
        const more = withStop(list, at, literal)!;
        expect(more.stops.map((stop) => stop.at)).toEqual([...more.stops.map((stop) => stop.at)].sort((a, b) => a - b));
        expect(more.stops[more.index]!.at).toBe(at);
        const before = literal(colourBetween(list, anywhere, literal));
        const after = literal(colourBetween(more.stops, anywhere, literal));
        for (const i of [1, 3, 5]) {
          const byte = (colour: string) => parseInt(colour.slice(i, i + 2), 16);
          // Two stops at one place are an edge: beside it either side may be met.
          if (!list.some((stop) => Math.abs(stop.at - anywhere) < 1e-6) && Math.abs(at - anywhere) > 1e-6)
            expect(Math.abs(byte(before) - byte(after))).toBeLessThanOrEqual(2);
        }
      }),
    );
  });
  it('mix what roles stand for', () => {
    const list: Gradient['stops'] = [
      { at: 0, colour: '@lamp' },
      { at: 1, colour: '#000000' },
    ];
    expect(colourBetween(list, 0.5, literal)).toBe('#805c25');
    expect(colourBetween(list, 0, literal)).toBe('@lamp');
  });
  it('have an end', () => {
    const full = Array.from({ length: 64 }, (_, i) => ({ at: i / 63, colour: '#000000' }));
    expect(withStop(full, 0.5, literal)).toBeNull();
    expect(
      widestGap([
        { at: 0.1, colour: '#000' },
        { at: 0.2, colour: '#000' },
      ]),
    ).toBeCloseTo(0.6);
  });
});

describe('points of a gradient', () => {
  const size: [number, number] = [400, 200];
  const ends = (gradient: Gradient) => gradientPoints(gradient);
  it('of a linear one go where they are put, and colours run at right angles to the line', () => {
    fc.assert(
      fc.property(place, place, (x, y) => {
        fc.pre(Math.hypot(x - 1, y - 0.5) > 0.05);
        const moved = withPoint(newGradient('linear', '#000000', '#ffffff'), 'from', [x, y], size);
        const { from, to, across } = ends(moved);
        expect(from).toEqual([x, y]);
        expect(to[0]).toBeCloseTo(1, 9);
        expect(to[1]).toBeCloseTo(0.5, 9);
        const along = [(to[0] - from[0]) * 400, (to[1] - from[1]) * 200] as const;
        const side = [(across[0] - from[0]) * 400, (across[1] - from[1]) * 200] as const;
        expect(along[0] * side[0] + along[1] * side[1]).toBeCloseTo(0, 6);
      }),
    );
  });
  it('of a radial one move it as a whole by its middle, and keep how round it is by its edge', () => {
    const oval = withPoint(newGradient('radial', '#000000', '#ffffff'), 'across', [0.5, 0.75], size);
    const moved = withPoint(oval, 'from', [0.2, 0.3], size);
    expect(ends(moved).to[0] - 0.2).toBeCloseTo(0.5);
    const turned = withPoint(oval, 'to', [0.5, 1], size);
    const { from, to, across } = ends(turned);
    const length = (p: readonly number[]) => Math.hypot((p[0]! - from[0]) * 400, (p[1]! - from[1]) * 200);
    const before = ends(oval);
    const was = (p: readonly number[]) => Math.hypot((p[0]! - 0.5) * 400, (p[1]! - 0.5) * 200);
    expect(length(across) / length(to)).toBeCloseTo(was(before.across) / was(before.to), 6);
  });
});
