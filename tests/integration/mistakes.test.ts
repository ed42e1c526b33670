import { describe, expect, it } from '@jest/globals';
import { createLayer } from '@core/piece';
import type { Piece } from '@core/piece';
import { freeMoment } from '@core/time';
import { Cancelled } from '../../server/platform/errors';
import { mistakesIn } from '../../server/render/mistakes-in';
import { countingIds, newPiece } from '../helpers/documents';
import { BUILT } from '../helpers/server';

/** What keeps a row of a roster from being rendered. */
function flashing(rate: number): Piece {
  const layer = createLayer(
    'rectangle',
    { name: 'Lamp', start: freeMoment(0), end: freeMoment(2), values: { dimensions: [4000, 4000], fill: '#FFFFFF' } },
    countingIds(),
  );
  const value = (of: number) => ({ value: of, keyframes: [] });
  layer.effects = [
    { id: 'e', kind: 'strobe', isOn: true, seed: 0, parameters: { rate: value(rate), shown: value(50) } },
  ];
  return { ...newPiece('Lamp'), end: freeMoment(2), layers: [layer] };
}
const told = (piece: Piece, signal?: AbortSignal) =>
  mistakesIn({ piece, analysis: null, formatId: piece.leadFormatId, files: {} }, BUILT, signal);

describe('mistakes in what is to be rendered', () => {
  it('are flashes too, beside what can be told without painting', async () => {
    expect((await told(flashing(8))).join()).toMatch(/flash/i);
    expect(await told(flashing(0.5))).toEqual([]);
  });
  it('are looked for no longer than anybody waits', async () => {
    await expect(told(flashing(8), AbortSignal.abort())).rejects.toBeInstanceOf(Cancelled);
  });
});
