import type { GridFacts } from './grid-facts';
import { METERS, meterOfBars } from './meter';
import type { Meter, Reading } from './meter';
import { parametersByPhase, scorePlaces } from './reading-parameters';
import { FEATURE_COUNT } from './tatum-features';

/**
 * Bars of several lengths that come round: three bars of four and one of two. A reading has bars of one length, of which
 * none fits such a song; but it is alike after as many beats as all of the pattern, much more than after any number of
 * equal bars, and its bars begin alike. Both must be so, and what sounds on the places must say so as well.
 */

/** Bars but for one are of these lengths, and the odd one of those. */
const USUAL = [3, 4, 5];
const ODD = [2, 3, 4, 5, 6];
const MOST_BARS = 4;
/** Patterns of so few beats are bars of their own. */
const LONGEST_METER = 7;

const PATTERNS: readonly Meter[] = USUAL.flatMap((usual) =>
  ODD.filter((odd) => odd !== usual).flatMap((odd) =>
    Array.from({ length: MOST_BARS - 1 }, (_, i) => meterOfBars([odd, ...new Array<number>(i + 1).fill(usual)])),
  ),
).filter(({ beats }) => beats > LONGEST_METER);

/** Beats after which a song of equal bars is alike. */
const EQUAL_LAGS = [3, 4, 5, 6, 7, 8, 12, 16];
/** What likeness counts beside the evidence of the places, in nats. */
const LIKENESS_WEIGHT = 6;
/** What a length of bars costs that is rare beside others, by its beats. */
const RARE: Readonly<Record<number, number>> = { 5: 1.5, 6: 2 };
/** By so much (in nats, and in likeness) a pattern must be better than equal bars. No song of equal bars on the bench comes near both. */
const MIN_GAIN = 1;
const MIN_LIKENESS_GAIN = 0.04;
/** So often it must come round. */
const MIN_ROUNDS = 3;

/** How alike the bars of a pattern are from their begins on, up to the shorter one's end. */
function barsLikeness(facts: GridFacts, { perBeat, meter, phase }: Reading): number {
  const length = perBeat * meter.beats;
  const { sums, counts } = facts.residues(length);
  const lengths = (meter.bars ?? []).map((beats) => beats * perBeat);
  const starts = lengths.map((_, i) => lengths.slice(0, i).reduce((a, b) => a + b, phase));
  let [all, count] = [0, 0];
  for (const [i, start] of starts.entries())
    for (let j = i + 1; j < starts.length; j++)
      for (let k = 0; k < Math.min(lengths[i]!, lengths[j]!); k++) {
        const [a, b] = [(start + k) % length, (starts[j]! + k) % length];
        for (let f = 0; f < FEATURE_COUNT; f++)
          all += (sums[a * FEATURE_COUNT + f]! / counts[a]!) * (sums[b * FEATURE_COUNT + f]! / counts[b]!);
        count += FEATURE_COUNT;
      }
  return all / count;
}

/** @returns The same beats with bars that come round in a pattern, if that is clearly better than equal bars; else null. */
export function patternOf(facts: GridFacts, reading: Reading, weights: ArrayLike<number>): Reading | null {
  const { perBeat } = reading;
  const first = reading.phase % perBeat;
  /** The bars from each beat on, and what sounds on their places, in nats. */
  const placed = (meter: Meter): { readonly candidate: Reading; readonly fit: number }[] => {
    const parametersOf = parametersByPhase(facts, perBeat, meter);
    return Array.from({ length: meter.beats }, (_, beat) => {
      const phase = first + beat * perBeat;
      return { candidate: { perBeat, meter, phase }, fit: scorePlaces(parametersOf(phase), weights) };
    });
  };
  const isAlike = Math.max(...EQUAL_LAGS.map((beats) => facts.likeness(beats * perBeat))) + MIN_LIKENESS_GAIN;
  const possible = PATTERNS.filter(
    ({ beats }) =>
      facts.grid.frames.length >= MIN_ROUNDS * beats * perBeat && facts.likeness(beats * perBeat) >= isAlike,
  );
  if (possible.length === 0) return null;
  const equal = Math.max(...METERS.filter((m) => m.beats > 2).flatMap((m) => placed(m).map(({ fit }) => fit)));
  let [best, most]: [Reading | null, number] = [null, -Infinity];
  for (const meter of possible) {
    const rare = [...new Set(meter.bars)].reduce((cost, beats) => cost + (RARE[beats] ?? 0), 0);
    for (const { candidate, fit } of placed(meter)) {
      const gain = fit - equal;
      if (gain < MIN_GAIN) continue;
      const worth =
        gain - rare + LIKENESS_WEIGHT * (barsLikeness(facts, candidate) + facts.likeness(meter.beats * perBeat));
      if (worth > most) [best, most] = [candidate, worth];
    }
  }
  return best;
}
