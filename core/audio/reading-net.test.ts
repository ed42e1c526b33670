import { PARAMETER_NAMES } from './meter';
import { scoreReading } from './reading-net';
import { READING_NETS } from './reading-weights';

/** Parameters of which only the first ones are not 0. */
function row(...first: readonly number[]): Float64Array {
  const out = new Float64Array(PARAMETER_NAMES.length);
  out.set(first);
  return out;
}
const weights = (...first: readonly number[]): number[] => [...row(...first)];

describe('the score of a reading', () => {
  it('is the weighted sum of the parameters where a net has no hidden units', () => {
    expect(scoreReading(row(2, 3), [{ linear: weights(0.5, -1), hidden: [] }])).toBeCloseTo(-2, 12);
  });

  it('adds what the hidden units make of them', () => {
    const hidden = [{ gain: 4, bias: 0.5, weights: weights(1, 1) }];
    expect(scoreReading(row(2, -3), [{ linear: weights(), hidden }])).toBeCloseTo(4 * Math.tanh(-0.5), 12);
  });

  it('is the mean over all nets', () => {
    const nets = [1, 3, 8].map((weight) => ({ linear: weights(weight), hidden: [] }));
    expect(scoreReading(row(2), nets)).toBeCloseTo(8, 12);
  });

  it('has a weight for each parameter in every net that ships, and nothing that is not a number', () => {
    for (const { linear, hidden } of READING_NETS) {
      expect(linear).toHaveLength(PARAMETER_NAMES.length);
      for (const unit of hidden) {
        expect(unit.weights).toHaveLength(PARAMETER_NAMES.length);
        expect([unit.gain, unit.bias, ...unit.weights].every(Number.isFinite)).toBe(true);
      }
    }
  });
});
