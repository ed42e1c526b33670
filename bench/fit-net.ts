import { PARAMETER_NAMES } from '@core/audio';
import type { ReadingNet } from '@core/audio';
import { createRandom } from '../demo/synth';
import type { SongRows } from './meter-rows';

/** A song of which a choice is learnt. */
export interface Take {
  readonly song: SongRows;
  /** Whether it is known where its sound begins. */
  readonly hasStart: boolean;
  /** How right each reading is, in [0, 1]. */
  readonly rewards: Float32Array;
  readonly weight: number;
}

export interface FitSettings {
  /** Hidden units; without them the fit is a conditional logit. */
  readonly units: number;
  readonly seed: number;
}

const WIDTH = PARAMETER_NAMES.length;
/** Too few tatums lie on these places, or they vary too little, for a weight to mean anything. */
const UNUSED = new Set([
  'third.chord',
  'fine.chord',
  'half.chord',
  'beat.chord',
  'fine.rise',
  'third.rise',
  'third.bass',
  'fine.bass',
]);
const IS_USED = PARAMETER_NAMES.map((name) => !UNUSED.has(name));
const IS_OF_START = PARAMETER_NAMES.map((name) => /startsOn/i.test(name));
/** The L2 penalty, chosen by cross-validation. */
const PENALTY = 0.003;
const ROUNDS = 300;
/** Rounds at which all readings are looked at again; between them only the likely and the right ones are. */
const REVIEWS = [1, 3, 8, 20, 50, 100, 180, 240];
const MOST_LIVE = 200;
const MOST_RIGHT = 30;
/** Deviations of the weights that hidden units begin with. */
const FIRST_WEIGHT = 0.1;
const FIRST_GAIN = 0.3;

/** Of each parameter, over all songs: its mean, and the mean of its variance within a song as a deviation. */
export interface Scale {
  readonly means: Float64Array;
  readonly deviations: Float64Array;
}

export function scaleOf(songs: readonly SongRows[]): Scale {
  const [means, squares] = [new Float64Array(WIDTH), new Float64Array(WIDTH)];
  for (const { rows, beatF } of songs) {
    const n = Math.max(1, beatF.length);
    for (let k = 0; k < WIDTH; k++) {
      let [m, square] = [0, 0];
      for (let i = 0; i < beatF.length; i++) m += rows[i * WIDTH + k]! / n;
      for (let i = 0; i < beatF.length; i++) square += (rows[i * WIDTH + k]! - m) ** 2 / n;
      means[k]! += m / songs.length;
      squares[k]! += square / songs.length;
    }
  }
  return { means, deviations: squares.map((v) => Math.sqrt(v) || 1) };
}

/**
 * All numbers of a net in one row: weights of the sum, then of each unit its weights, its bias and its gain. They are of
 * parameters of mean 0 and unit deviation.
 */
const PER_UNIT = WIDTH + 2;
const unitAt = (unit: number): number => WIDTH + unit * PER_UNIT;

function firstValues({ units, seed }: FitSettings): Float64Array {
  const random = createRandom(seed);
  // The sum of twelve even numbers is nearly normal.
  const normal = (): number => Array.from({ length: 12 }, random).reduce((a, b) => a + b, -6);
  const out = new Float64Array(WIDTH + units * PER_UNIT);
  for (let u = 0; u < units; u++) {
    for (let k = 0; k < WIDTH; k++) if (IS_USED[k]) out[unitAt(u) + k] = FIRST_WEIGHT * normal();
    out[unitAt(u) + WIDTH + 1] = FIRST_GAIN * normal();
  }
  return out;
}

function dot(a: Float64Array, from: number, b: Float64Array | Float32Array, fromB: number): number {
  let sum = 0;
  for (let k = 0; k < WIDTH; k++) sum += a[from + k]! * b[fromB + k]!;
  return sum;
}

/** Score of a row; what the units say is put into `hidden`. */
function scoreRow(net: Float64Array, rows: Float32Array, from: number, hidden: Float64Array): number {
  let score = dot(net, 0, rows, from);
  for (let u = 0; u < hidden.length; u++) {
    const at = unitAt(u);
    hidden[u] = Math.tanh(net[at + WIDTH]! + dot(net, at, rows, from));
    score += net[at + WIDTH + 1]! * hidden[u]!;
  }
  return score;
}

function scaledRows(take: Take, { means, deviations }: Scale, chosen: readonly number[]): Float32Array {
  const { rows } = take.song;
  const out = new Float32Array(chosen.length * WIDTH);
  chosen.forEach((i, j) => {
    for (let k = 0; k < WIDTH; k++) {
      if (!IS_USED[k]) continue;
      const value = IS_OF_START[k] && !take.hasStart ? 0 : rows[i * WIDTH + k]!;
      out[j * WIDTH + k] = (value - means[k]!) / deviations[k]!;
    }
  });
  return out;
}

/** The readings that matter: the likely ones and the right ones. Their rows lie together. */
interface Live {
  readonly rows: Float32Array;
  readonly rewards: Float64Array;
}

function liveOf(take: Take, scale: Scale, net: Float64Array, units: number): Live {
  const all = [...take.rewards.keys()];
  const rows = scaledRows(take, scale, all);
  const hidden = new Float64Array(units);
  const scores = Float64Array.from(all, (i) => scoreRow(net, rows, i * WIDTH, hidden));
  const top = (by: ArrayLike<number>, count: number) => [...all].sort((a, b) => by[b]! - by[a]!).slice(0, count);
  const chosen = [...new Set([...top(scores, MOST_LIVE), ...top(take.rewards, MOST_RIGHT)])];
  return { rows: scaledRows(take, scale, chosen), rewards: Float64Array.from(chosen, (i) => take.rewards[i]!) };
}

/** Adds the gradient of minus the log of a take's expected reward. */
function addGradient(gradient: Float64Array, net: Float64Array, live: Live, share: number, units: number): void {
  const { rows, rewards } = live;
  const p = new Float64Array(rewards.length);
  const said = Array.from({ length: rewards.length }, () => new Float64Array(units));
  let top = -Infinity;
  for (let j = 0; j < p.length; j++) {
    p[j] = scoreRow(net, rows, j * WIDTH, said[j]!);
    if (p[j]! > top) top = p[j]!;
  }
  let [sum, good] = [0, 0];
  for (let j = 0; j < p.length; j++) {
    p[j] = Math.exp(p[j]! - top);
    sum += p[j]!;
    good += p[j]! * rewards[j]!;
  }
  for (let j = 0; j < p.length; j++) {
    const pull = p[j]! * (1 / sum - rewards[j]! / (good + 1e-12)) * share;
    if (Math.abs(pull) < 1e-8) continue;
    const from = j * WIDTH;
    for (let k = 0; k < WIDTH; k++) gradient[k]! += pull * rows[from + k]!;
    for (let u = 0; u < units; u++) {
      const at = unitAt(u);
      const value = said[j]![u]!;
      const inner = pull * net[at + WIDTH + 1]! * (1 - value * value);
      gradient[at + WIDTH + 1]! += pull * value;
      gradient[at + WIDTH]! += inner;
      for (let k = 0; k < WIDTH; k++) gradient[at + k]! += inner * rows[from + k]!;
    }
  }
}

/** In the units of the parameters themselves. */
function unscaled(net: Float64Array, { means, deviations }: Scale, units: number): ReadingNet {
  const weightsAt = (at: number): number[] => Array.from(deviations, (d, k) => net[at + k]! / d);
  return {
    linear: weightsAt(0),
    hidden: Array.from({ length: units }, (_, u) => {
      const at = unitAt(u);
      const weights = weightsAt(at);
      return {
        gain: net[at + WIDTH + 1]!,
        bias: weights.reduce((bias, w, k) => bias - w * means[k]!, net[at + WIDTH]!),
        weights,
      };
    }),
  };
}

/**
 * Maximises the mean log of the expected reward under the softmax of the scores, less the penalty.
 * @see D. P. Kingma, J. Ba, "Adam: A Method for Stochastic Optimization", ICLR 2015
 */
export function fitNet(takes: readonly Take[], scale: Scale, settings: FitSettings): ReadingNet {
  const { units } = settings;
  const net = firstValues(settings);
  const m = new Float64Array(net.length);
  const v = new Float64Array(net.length);
  let live: Live[] = [];
  const all = takes.reduce((sum, take) => sum + take.weight, 0);
  for (let round = 1; round <= ROUNDS; round++) {
    const g = net.map((x) => 2 * PENALTY * x);
    if (REVIEWS.includes(round)) live = takes.map((take) => liveOf(take, scale, net, units));
    live.forEach((one, i) => addGradient(g, net, one, takes[i]!.weight / all, units));
    const rate = round > ROUNDS * 0.6 ? 0.01 : 0.02;
    for (let k = 0; k < net.length; k++) {
      m[k] = 0.9 * m[k]! + 0.1 * g[k]!;
      v[k] = 0.99 * v[k]! + 0.01 * g[k]! * g[k]!;
      net[k]! -= (rate * m[k]!) / (1 - 0.9 ** round) / (Math.sqrt(v[k]! / (1 - 0.99 ** round)) + 1e-8);
    }
  }
  return unscaled(net, scale, units);
}
