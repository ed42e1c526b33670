/**
 * Music made on a grid keeps its tempo to the end, but what sounds strongest on it changes: behind hats on the half beats a
 * kick sets in on the beats, and a pulse that follows the onsets moves over by half an interval. Where such a pulse is
 * even, and of the same interval and another phase behind every leap, and the music goes on sounding through it, the leap
 * is the pulse's own and not the music's. Then the whole song is on one grid.
 */

/** Pulses over which an interval is first measured. */
const LAG = 32;
/** Pulses lie as near as this to the grid of their stretch, in intervals. */
const NEAR = 0.07;
/** A stretch of fewer pulses says nothing. */
const SHORTEST = 8;
/** Stretches hold at least this share of all pulses; the others lie in the leaps between them. */
const HELD_SHARE = 0.85;
/** The longest stretch holds at least this share of all pulses: it is the one whose grid counts. */
const LONGEST_SHARE = 0.4;
/** Phases that differ by less are one. */
const LEAP = 0.2;
/** A rest before the leap that is longer than this, in intervals, is the music's own. */
const REST = 1.3;
/** Onsets weaker than this are none. They have unit deviation. */
const NOTHING = 0.15;

interface Stretch {
  /** Indices [from, to) in the pulses. */
  readonly from: number;
  readonly to: number;
  /** Mean place in the interval, in intervals. */
  readonly phase: number;
}

const turned = (x: number): number => x - Math.round(x);
const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1] ?? 0;

/** Stretches of pulses that lie on a grid of the interval, the same one throughout each. */
function stretchesOf(pulses: Int32Array, interval: number): Stretch[] {
  const out: Stretch[] = [];
  const phaseAt = (i: number): number => pulses[i]! / interval;
  for (let from = 0; from < pulses.length;) {
    let sum = 0;
    let to = from;
    while (to < pulses.length && Math.abs(turned(phaseAt(to) - phaseAt(from) - sum / Math.max(1, to - from))) < NEAR) {
      sum += turned(phaseAt(to) - phaseAt(from));
      to++;
    }
    if (to - from >= SHORTEST) out.push({ from, to, phase: turned(phaseAt(from) + sum / (to - from)) });
    from = to - from >= SHORTEST ? to : from + 1;
  }
  return out;
}

/** Slope of the pulses of a stretch, by least squares. */
function slopeOf(pulses: Int32Array, { from, to }: Stretch): number {
  const [middle, count] = [(from + to - 1) / 2, to - from];
  let [above, below, mean] = [0, 0, 0];
  for (let i = from; i < to; i++) mean += pulses[i]! / count;
  for (let i = from; i < to; i++) {
    above += (i - middle) * (pulses[i]! - mean);
    below += (i - middle) ** 2;
  }
  return above / below;
}

const longestOf = (stretches: readonly Stretch[]): Stretch | undefined =>
  [...stretches].sort((a, b) => b.to - b.from - (a.to - a.from))[0];

/** Whether nothing sets in for most of an interval somewhere between two frames. */
function hasRest(onsets: Float32Array, from: number, to: number, interval: number): boolean {
  let still = 0;
  for (let i = Math.max(0, Math.round(from)); i < Math.min(onsets.length, Math.round(to)); i++) {
    still = onsets[i]! < NOTHING ? still + 1 : 0;
    if (still > REST * interval) return true;
  }
  return false;
}

/**
 * @param pulses - frames, ascending.
 * @param onsets - normalised onset strength, one value a frame.
 * @returns Frames of the pulses on one grid if they leap though the music doesn't; otherwise as they were.
 */
export function steadyPulse(pulses: Int32Array, onsets: Float32Array): ArrayLike<number> {
  const lag = Math.min(LAG, pulses.length >> 1);
  if (lag < SHORTEST) return pulses;
  let interval = median(Array.from({ length: pulses.length - lag }, (_, i) => (pulses[i + lag]! - pulses[i]!) / lag));
  let stretches = stretchesOf(pulses, interval);
  for (let round = 0; round < 3; round++) {
    const longest = longestOf(stretches);
    if (!longest) return pulses;
    interval = slopeOf(pulses, longest);
    stretches = stretchesOf(pulses, interval);
  }
  const longest = longestOf(stretches);
  const held = stretches.reduce((sum, { from, to }) => sum + to - from, 0);
  if (!longest || held < HELD_SHARE * pulses.length || longest.to - longest.from < LONGEST_SHARE * pulses.length)
    return pulses;
  const leaps = stretches.slice(1).filter(({ phase }, i) => Math.abs(turned(phase - stretches[i]!.phase)) > LEAP);
  if (leaps.length === 0) return pulses;
  const isOfTheMusic = leaps.some((stretch) => {
    const before = stretches[stretches.indexOf(stretch) - 1]!;
    const [from, to] = [pulses[before.to - 1]!, pulses[stretch.from]!];
    return hasRest(onsets, from - 2 * interval, to + 2 * interval, interval);
  });
  if (isOfTheMusic) return pulses;
  const first = (longest.phase - Math.floor(longest.phase)) * interval;
  return Float64Array.from(
    { length: Math.max(0, Math.ceil((onsets.length - first) / interval)) },
    (_, i) => first + i * interval,
  );
}
