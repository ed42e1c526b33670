import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { alignedBy, distributedBy } from './align';
import { boundsOf, isInside } from './geometry';
import type { Bounds } from './geometry';
import { ticksOf } from './ruler-ticks';
import { linesOf, snapBox } from './snapping';
import { clampScroll, fitAxis, timeToX, xToTime, zoomAxis } from '../timeline/time-axis';

describe('hit testing', () => {
  const diamond = [
    [0, -10],
    [10, 0],
    [0, 10],
    [-10, 0],
  ] as const;
  it('knows inside from outside in either turning sense', () => {
    for (const corners of [diamond, [...diamond].reverse()]) {
      expect(isInside(corners, [0, 0])).toBe(true);
      expect(isInside(corners, [8, 8])).toBe(false);
    }
    expect(boundsOf(diamond)).toEqual({ left: -10, top: -10, right: 10, bottom: 10 });
  });
});

describe('snapping on the canvas', () => {
  const lines = { x: [0, 960, 1920], y: [0, 540, 1080] };
  it('moves the nearest edge or middle onto a line and names the line', () => {
    const snapped = snapBox({ left: 3, right: 103, top: 500, bottom: 578 }, lines, [], 6);
    expect(snapped).toEqual({
      dx: -3,
      dy: 1,
      guides: [
        { kind: 'line', axis: 'x', at: 0 },
        { kind: 'line', axis: 'y', at: 540 },
      ],
    });
  });
  it('leaves alone what is farther than the radius', () => {
    expect(snapBox({ left: 20, right: 120, top: 200, bottom: 250 }, lines, [], 6)).toEqual({
      dx: 0,
      dy: 0,
      guides: [],
    });
  });
  it('knows thirds, the safe area and one’s own guides', () => {
    const own = linesOf({ width: 900, height: 600 }, [{ id: 'g', axis: 'y', at: 0.4 }], []);
    expect(own.x).toEqual(expect.arrayContaining([300, 600, 45, 855]));
    expect(own.y).toContain(240);
    expect(own.x).not.toContain(360);
  });
  it('makes gaps equal: behind two in a row, before them, and between them', () => {
    const row: Bounds[] = [
      { left: 100, right: 200, top: 0, bottom: 100 },
      { left: 260, right: 360, top: 0, bottom: 100 },
    ];
    const at = (left: number): Bounds => ({ left, right: left + 20, top: 40, bottom: 60 });
    const none = { x: [], y: [] };
    expect(snapBox(at(417), none, row, 6).dx).toBe(3);
    expect(snapBox(at(23), none, row, 6).dx).toBe(-3);
    expect(snapBox(at(222), none, row, 6)).toMatchObject({
      dx: -2,
      guides: [
        {
          kind: 'gaps',
          axis: 'x',
          gaps: [
            [200, 220],
            [240, 260],
          ],
        },
      ],
    });
    // What does not stand beside it does not count.
    expect(snapBox({ ...at(417), top: 140, bottom: 160 }, none, row, 6).dx).toBe(0);
  });
});

describe('the time axis', () => {
  const axes = fc.record({
    scroll: fc.double({ min: -5, max: 60, noNaN: true }),
    pixelsPerSecond: fc.double({ min: 5, max: 2000, noNaN: true }),
    width: fc.integer({ min: 200, max: 2000 }),
  });
  it('turns pixels into times and back', () => {
    fc.assert(
      fc.property(
        axes,
        fc.double({ min: -10, max: 100, noNaN: true }),
        (axis, t) => Math.abs(xToTime(axis, timeToX(axis, t)) - t) < 1e-6,
      ),
    );
  });
  it('keeps what is under the pointer there when it zooms within the piece', () => {
    const axis = fitAxis(1000, 0, 60);
    const zoomed = zoomAxis(axis, 4, 500, 60);
    expect(xToTime(zoomed, 500)).toBeCloseTo(xToTime(axis, 500), 6);
  });
  it('never loses the piece out of sight', () => {
    fc.assert(
      fc.property(axes, fc.double({ min: 1, max: 600, noNaN: true }), (axis, end) => {
        const scroll = clampScroll(axis.scroll * 100, axis, end);
        return timeToX({ ...axis, scroll }, end) > 0 && timeToX({ ...axis, scroll }, 0) < axis.width;
      }),
    );
  });
});

describe('standing in line', () => {
  const box = fc
    .tuple(fc.integer({ min: -500, max: 500 }), fc.integer({ min: -500, max: 500 }), fc.nat(300), fc.nat(300))
    .map(([left, top, w, h]): Bounds => ({ left, top, right: left + w, bottom: top + h }));
  it('brings each side where it is meant to be and moves along one axis only', () => {
    fc.assert(
      fc.property(box, box, (a, about) => {
        expect(a.left + alignedBy(a, about, 'left')[0]).toBe(about.left);
        expect(a.bottom + alignedBy(a, about, 'bottom')[1]).toBe(about.bottom);
        const [dx, dy] = alignedBy(a, about, 'centre');
        expect([a.left + a.right + 2 * dx, dy]).toEqual([about.left + about.right, 0]);
      }),
    );
  });
  it('shares the gaps out, and leaves the outer two where they are', () => {
    fc.assert(
      fc.property(fc.array(box, { minLength: 3, maxLength: 9 }), (boxes) => {
        const by = distributedBy(boxes, 'x');
        const moved = boxes
          .map((b, i) => ({ left: b.left + by[i]!, right: b.right + by[i]!, middle: b.left + b.right }))
          .sort((a, b) => a.middle - b.middle);
        const gaps = moved.slice(1).map((b, i) => b.left - moved[i]!.right);
        for (const gap of gaps) expect(gap).toBeCloseTo(gaps[0]!, 6);
        expect(distributedBy(boxes.slice(0, 2), 'x')).toEqual([0, 0]);
      }),
    );
  });
});

describe('rulers', () => {
  it('number round steps that have room, at any zoom', () => {
    for (const zoom of [0.05, 0.3, 1, 4, 32]) {
      const ticks = ticksOf(-100, 2000, zoom);
      const numbers = ticks.filter((tick) => tick.isNumbered).map((tick) => tick.at);
      expect(numbers).toContain(0);
      expect((numbers[1]! - numbers[0]!) * zoom).toBeGreaterThanOrEqual(zoom >= 32 ? 32 : 50);
      expect(ticks.length).toBeLessThan(2101);
    }
  });
});
