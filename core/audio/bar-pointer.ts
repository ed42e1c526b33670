import { METERS, PLACES, placeOf } from './meter';
import type { Meter, Reading } from './meter';
import { FEATURE_COUNT, TATUM_FEATURES } from './tatum-features';
import type { TatumGrid } from './tatum-features';

/**
 * Where in the bar every tatum lies: a hidden Markov model decoded by Viterbi. A state is a number of beats a bar and a
 * position in it, in tatums; from one tatum to the next the pointer moves on by one. It may leap to another beat (an
 * extra beat, a shortened bar), to another place within the beat (a slip of the pulse) or into another meter at a bar's
 * end, each at a cost, so that only lasting evidence makes it leap. What a tatum says for a place in the bar is weighed
 * with the same weights as the choice of the reading.
 * @see N. Whiteley, A. T. Cemgil, S. Godsill, "Bayesian Modelling of Temporal Structure in Musical Audio", ISMIR 2006
 */

/**
 * Costs in the units of the evidence, which is scaled so that this many seconds of music weigh as much as a song in the
 * fit.
 */
const LEAP_COST = 5;
const SLIP_COST = 8;
const METER_COST = 7;
/** What a leap or a slip costs behind a rest: nobody hears there how long it was. */
const REST_COST = 3;
/** A rest has no onsets for this many beats. */
const REST_BEATS = 1.4;
/** Onsets this little above the weakest are none, in deviations. */
const NO_ONSET = 0.15;
const EVIDENCE_SECONDS = 27;
/**
 * What it is worth to stay with the reading from begin to end: it was chosen by more than the tatums of a place say, such as
 * where the song begins, and a song that lies beside it all through is another reading.
 */
const STAY_WORTH = 3;
const ONSETS = TATUM_FEATURES.indexOf('all');

export interface BarPosition {
  /** Position in the bar in tatums, 0 on a downbeat. */
  readonly position: number;
  readonly meter: Meter;
}

/** Of each tatum, whether it ends a rest. */
function endsRest(grid: TatumGrid, perBeat: number): Uint8Array {
  const n = grid.frames.length;
  const onsets = Float32Array.from({ length: n }, (_, i) => grid.features[i * FEATURE_COUNT + ONSETS]!);
  const none = onsets.reduce((least, v) => Math.min(least, v), Infinity) + NO_ONSET;
  const out = new Uint8Array(n);
  let still = 0;
  for (let i = 0; i < n; i++) {
    if (onsets[i]! <= none) still++;
    else {
      if (still >= REST_BEATS * perBeat) out[i] = 1;
      still = 0;
    }
  }
  return out;
}

/**
 * @param tatum - seconds.
 * @returns One entry a tatum.
 */
export function followBars(
  grid: TatumGrid,
  reading: Reading,
  tatum: number,
  weights: ArrayLike<number>,
): BarPosition[] {
  const { perBeat } = reading;
  const n = grid.frames.length;
  const meters = [reading.meter, ...METERS.filter((m) => m !== reading.meter)];
  // How many of a minute's tatums lie on a place of the chosen meter: turns the weight of a mean into that of one
  // tatum.
  const bar = perBeat * reading.meter.beats;
  const perPlace = new Float64Array(PLACES.length);
  for (let p = 0; p < bar; p++) perPlace[placeOf(p, perBeat, reading.meter)]! += EVIDENCE_SECONDS / tatum / bar;
  const evidence = new Float64Array(n * PLACES.length);
  for (let i = 0; i < n; i++) {
    for (let place = 0; place < PLACES.length; place++) {
      let sum = 0;
      for (let f = 0; f < FEATURE_COUNT; f++)
        sum += weights[place * FEATURE_COUNT + f]! * grid.features[i * FEATURE_COUNT + f]!;
      evidence[i * PLACES.length + place] = perPlace[place]! > 0 ? sum / perPlace[place]! : 0;
    }
  }
  const starts: number[] = [];
  let states = 0;
  for (const m of meters) {
    starts.push(states);
    states += m.beats * perBeat;
  }
  const meterOf = new Int8Array(states);
  const place = new Int8Array(states);
  meters.forEach((m, k) => {
    for (let p = 0; p < m.beats * perBeat; p++) {
      meterOf[starts[k]! + p] = k;
      place[starts[k]! + p] = placeOf(p, perBeat, m);
    }
  });
  let score = new Float64Array(states);
  let next = new Float64Array(states);
  const back = new Int16Array(n * states);
  for (let s = 0; s < states; s++)
    score[s] =
      (meterOf[s] === 0 ? 0 : -METER_COST) - (s === (bar - reading.phase) % bar ? 0 : LEAP_COST) + evidence[place[s]!]!;
  const afterRest = endsRest(grid, perBeat);
  for (let i = 1; i < n; i++) {
    const leap = afterRest[i] ? REST_COST : LEAP_COST;
    const slip = afterRest[i] ? REST_COST : SLIP_COST;
    // Leaps land on any position, from the best state of the same place within the beat (or, as a slip, of any).
    const bestInBeat = new Int32Array(perBeat).fill(-1);
    let best = 0;
    for (let s = 0; s < states; s++) {
      if (score[s]! > score[best]!) best = s;
      const phase = (s - starts[meterOf[s]!]!) % perBeat;
      if (bestInBeat[phase]! < 0 || score[s]! > score[bestInBeat[phase]!]!) bestInBeat[phase] = s;
    }
    for (let s = 0; s < states; s++) {
      const k = meterOf[s]!;
      const p = s - starts[k]!;
      let from = p === 0 ? starts[k]! + meters[k]!.beats * perBeat - 1 : s - 1;
      let value = score[from]!;
      const consider = (candidate: number, cost: number) => {
        if (score[candidate]! - cost > value) {
          value = score[candidate]! - cost;
          from = candidate;
        }
      };
      consider(
        bestInBeat[(p + perBeat - 1) % perBeat]!,
        leap + (k === meterOf[bestInBeat[(p + perBeat - 1) % perBeat]!]! ? 0 : METER_COST),
      );
      consider(best, slip + (k === meterOf[best]! ? 0 : METER_COST));
      const stays = k === 0 && p === (i + bar - reading.phase) % bar;
      next[s] = value + evidence[i * PLACES.length + place[s]!]! + (stays ? STAY_WORTH / n : 0);
      back[i * states + s] = from;
    }
    [score, next] = [next, score];
  }
  let state = 0;
  for (let s = 1; s < states; s++) if (score[s]! > score[state]!) state = s;
  const out: BarPosition[] = new Array<BarPosition>(n);
  for (let i = n - 1; i >= 0; i--) {
    out[i] = { position: state - starts[meterOf[state]!]!, meter: meters[meterOf[state]!]! };
    state = back[i * states + state]!;
  }
  return out;
}
