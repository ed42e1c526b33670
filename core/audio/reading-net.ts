import { READING_NETS } from './reading-weights';

/** What a small network makes of the parameters of a reading: a sum of its own, and a few hidden units. */
export interface ReadingNet {
  /** One weight for each of PARAMETER_NAMES, in nats for one unit of the parameter. */
  readonly linear: readonly number[];
  /** gain · tanh(bias + weights · parameters) is added for each. */
  readonly hidden: readonly { readonly gain: number; readonly bias: number; readonly weights: readonly number[] }[];
}

function dot(weights: ArrayLike<number>, values: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += weights[i]! * values[i]!;
  return sum;
}

/**
 * How well a reading fits, in nats (only differences mean anything): the mean of several networks that were fitted from
 * different starts, and of one without hidden units. A weighted sum alone can't know that a snare on every second beat tells more than the harmony where
 * there are drums, and nothing where there are none.
 * @param parameters - one for each of PARAMETER_NAMES.
 * @see L. K. Hansen, P. Salamon, "Neural Network Ensembles", IEEE PAMI 1990
 */
export function scoreReading(parameters: Float64Array, nets: readonly ReadingNet[] = READING_NETS): number {
  let score = 0;
  for (const { linear, hidden } of nets) {
    score += dot(linear, parameters);
    for (const { gain, bias, weights } of hidden) score += gain * Math.tanh(bias + dot(weights, parameters));
  }
  return score / nets.length;
}
