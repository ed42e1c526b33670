import { describe, expect, it } from '@jest/globals';
import { newGestureUse } from '@core/motion';
import { createLayer, openingSeconds, resolveTimes } from '@core/piece';
import type { Layer, Piece } from '@core/piece';
import { freeMoment } from '@core/time';
import { countingIds, newPiece } from '../../../tests/helpers/documents';

const ids = countingIds('opening');
const layer = (start: number, change: Partial<Layer> = {}): Layer =>
  ({
    ...createLayer('ellipse', { name: 'Lamp', start: freeMoment(start), end: freeMoment(8) }, ids),
    ...change,
  }) as Layer; // fields of every kind
const opened = (layers: Layer[], change: Partial<Piece> = {}): number => {
  const piece = { ...newPiece('Opened'), end: freeMoment(8), layers, ...change };
  return openingSeconds(piece, resolveTimes(piece, null));
};

describe('a piece is opened', () => {
  it('at its start where it is empty or something is seen there', () => {
    expect(opened([])).toBe(0);
    expect(opened([layer(0), layer(2)])).toBe(0);
  });
  it('where things have come in, if its first frame shows nothing yet', () => {
    expect(opened([layer(2)])).toBe(3);
    expect(opened([layer(0, { gestures: [newGestureUse('dawn', 'entrance', 'in')] })])).toBe(3);
    expect(opened([layer(0, { hidden: true })])).toBe(3);
  });
  it('at its poster, where one is chosen, on a frame', () => {
    expect(opened([layer(0)], { poster: freeMoment(5.01) })).toBeCloseTo(5, 9);
  });
});
