import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { createPainter, itemExtent } from '@core/paint';
import type { DisplayItem, DisplayList, GroupItem, ItemMask, ShapeItem } from '@core/scene';
import { createSkiaHost, createSkiaSurface } from '../../server/render/skia-host';
import { shapeItem, wholeGroup } from '../../tests/helpers/display-items';

/** What is drawn straight onto what is below it looks as it would from a surface of its own. */

const SIDE = 64;

/** The frame, and how many surfaces were made for it. */
function painted(...items: DisplayItem[]): { at: (x: number, y: number) => number[]; surfaces: number } {
  const host = createSkiaHost();
  let surfaces = 0;
  const counting = {
    ...host,
    createSurface: (width: number, height: number, isOpaque?: boolean) => {
      surfaces++;
      return host.createSurface(width, height, isOpaque);
    },
  };
  const list: DisplayList = { width: SIDE, height: SIDE, background: '#000000', items };
  const surface = createSkiaSurface(SIDE, SIDE);
  createPainter(counting).paint(surface.context, list);
  const data = surface.canvas.data();
  return { at: (x, y) => [...data.subarray((y * SIDE + x) * 4, (y * SIDE + x) * 4 + 3)], surfaces };
}

const square = (x: number, y: number, side: number, more: Partial<ShapeItem> = {}): ShapeItem =>
  shapeItem({
    path: `M0 0L${side} 0L${side} ${side}L0 ${side}Z`,
    pathKey: `square ${side}`,
    matrix: [1, 0, 0, 1, x, y],
    box: [0, 0, side, side],
    ...more,
  });
const group = (children: DisplayItem[], more: Partial<GroupItem> = {}): GroupItem =>
  wholeGroup(SIDE, { children, ...more });

describe('a group that is faded', () => {
  it('is as light wherever one of its parts is, whether or not they lie over each other', () => {
    const squares = fc.array(
      fc.record({
        x: fc.integer({ min: 0, max: 48 }),
        y: fc.integer({ min: 0, max: 48 }),
        side: fc.integer({ min: 2, max: 16 }),
      }),
      { minLength: 1, maxLength: 6 },
    );
    fc.assert(
      fc.property(squares, fc.double({ min: 0.1, max: 0.9, noNaN: true }), (parts, opacity) => {
        const { at } = painted(
          group(
            parts.map(({ x, y, side }) => square(x, y, side)),
            { opacity },
          ),
        );
        for (let y = 1; y < SIDE; y += 4)
          for (let x = 1; x < SIDE; x += 4) {
            const isOn = parts.some((p) => x >= p.x && x < p.x + p.side && y >= p.y && y < p.y + p.side);
            expect(Math.abs(at(x, y)[0]! - (isOn ? opacity * 255 : 0))).toBeLessThanOrEqual(1);
          }
      }),
      { numRuns: 40 },
    );
  });
  it('needs no surface where they lie apart, in groups within it too', () => {
    const apart = [square(2, 2, 10), group([square(30, 30, 10), square(50, 2, 10)], { layerId: 'h' })];
    expect(painted(group(apart, { opacity: 0.5 })).surfaces).toBe(0);
    expect(painted(group([...apart, square(35, 35, 10)], { opacity: 0.5 })).surfaces).toBeGreaterThan(0);
  });
  it('keeps to itself what blends in it, and blurs what is blurred', () => {
    const lit = square(2, 2, 10, { blend: 'screen' });
    expect(painted(group([lit], { opacity: 0.5 })).surfaces).toBeGreaterThan(0);
    const soft = painted(group([square(20, 20, 20, { blur: 4 })], { opacity: 0.5 }));
    expect(soft.at(18, 30)[0]).toBeGreaterThan(10);
    expect(soft.at(18, 30)[0]).toBeLessThan(110);
  });
});

describe('a gradient whose circle is drawn out', () => {
  const gradient = {
    shape: 'radial' as const,
    stops: [
      { at: 0, colour: '#ff0000' },
      { at: 1, colour: '#0000ff' },
    ],
    spread: 'pad' as const,
    focus: [0, 0] as const,
    matrix: [1, 0, 0, 1, 0, 0] as const,
  };
  const fill = { type: 'gradient', gradient, matrix: [40, 0, 10, 20, 32, 32] } as unknown as NonNullable<
    ShapeItem['fill']
  >;
  it('has its colours where its matrix leads them, on no surface of its own, at any opacity', () => {
    const { at, surfaces } = painted(square(4, 4, 56, { fill, opacity: 0.6, matrix: [1, 0, 0, 1, 4, 4] }));
    expect(surfaces).toBe(0);
    for (let y = 6; y < 58; y += 5)
      for (let x = 6; x < 58; x += 5) {
        // The inverse of the matrix by hand, at the middle of the pixel in the square's coordinates.
        const v = (y + 0.5 - 4 - 32) / 20;
        const u = (x + 0.5 - 4 - 32 - 10 * v) / 40;
        const t = Math.min(1, Math.hypot(u, v));
        const [r, , b] = at(x, y);
        expect(Math.abs(r! - 255 * (1 - t) * 0.6)).toBeLessThanOrEqual(2);
        expect(Math.abs(b! - 255 * t * 0.6)).toBeLessThanOrEqual(2);
      }
    expect(at(2, 2)).toEqual([0, 0, 0]);
    expect(at(61, 32)).toEqual([0, 0, 0]);
  });
});

describe('what is seen through a matte or masks', () => {
  const mask = (x: number, more: Partial<ItemMask> = {}): ItemMask => ({
    mode: 'add',
    inverted: false,
    path: 'M0 0L10 0L10 10L0 10Z',
    pathKey: 'mask',
    rule: 'nonzero',
    matrix: [1, 0, 0, 1, x, 20],
    opacity: 1,
    feather: 0,
    expansion: 0,
    ...more,
  });
  const all = square(0, 0, SIDE);
  it('reaches no farther than they do', () => {
    const matte = (inverted: boolean) => ({ items: [square(20, 20, 8)], channel: 'alpha' as const, inverted });
    expect(itemExtent(group([all], { matte: matte(false) }))).toEqual([20, 20, 28, 28]);
    expect(itemExtent(group([all], { matte: matte(true) }))).toEqual([0, 0, SIDE, SIDE]);
    expect(itemExtent(group([all], { masks: [mask(4), mask(30, { expansion: 2 })] }))).toEqual([4, 18, 42, 32]);
    expect(itemExtent(group([all], { masks: [mask(20, { feather: 2 })] }))).toEqual([14, 14, 36, 36]);
    expect(itemExtent(group([all], { masks: [mask(20, { mode: 'subtract' }), mask(4)] }))).toEqual([0, 0, SIDE, SIDE]);
    expect(itemExtent(group([all], { masks: [mask(20, { inverted: true })] }))).toEqual([0, 0, SIDE, SIDE]);
  });
  it('is the same by one mask alone as by that mask and one that adds nothing', () => {
    const one = painted(group([all], { masks: [mask(20, { expansion: 3 })] }));
    const two = painted(group([all], { masks: [mask(20, { expansion: 3 }), mask(20, { opacity: 0 })] }));
    for (let y = 0; y < SIDE; y++) for (let x = 0; x < SIDE; x++) expect(one.at(x, y)).toEqual(two.at(x, y));
    expect([one.at(18, 25)[0], one.at(35, 25)[0]]).toEqual([255, 0]);
  });
});
