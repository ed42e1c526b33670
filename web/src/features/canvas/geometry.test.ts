import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { boundsOf, isInside, snapBox } from './geometry';
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
    const snapped = snapBox({ left: 3, right: 103, top: 500, bottom: 578 }, lines, 6);
    expect(snapped).toEqual({
      dx: -3,
      dy: 1,
      guides: [
        { axis: 'x', at: 0 },
        { axis: 'y', at: 540 },
      ],
    });
  });
  it('leaves alone what is farther than the radius', () => {
    expect(snapBox({ left: 20, right: 120, top: 200, bottom: 250 }, lines, 6)).toEqual({ dx: 0, dy: 0, guides: [] });
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
