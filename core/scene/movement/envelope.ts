import { HEARD_RATE } from '../../piece';
import type { Heard, Listen } from '../../piece';
import type { Seconds } from '../../time';

/** What a listening property hears over the whole piece, in [0, 1]. */
export type Envelope = (seconds: Seconds) => number;

/** How far a follower comes in one step on its way of a time constant: all the way at once if that is nothing. */
const share = (constant: Seconds): number => (constant > 0 ? 1 - Math.exp(-1 / (HEARD_RATE * constant)) : 1);

/**
 * A peak follower: it rises and falls with its own time constants. With no attack a mark of one step is reached at once;
 * with some the mark is held as long as the attack takes, else it would never be reached.
 */
function followed(levels: Float32Array, attack: Seconds, release: Seconds): Float32Array {
  const [rise, fall] = [share(attack), share(release)];
  const hold = Math.round(attack * HEARD_RATE);
  const out = new Float32Array(levels.length);
  let value = 0;
  let target = 0;
  let held = 0;
  for (let i = 0; i < levels.length; i++) {
    const level = levels[i]!;
    if (level >= target || held <= 0) {
      target = level;
      held = hold;
    } else held--;
    value += (target - value) * (target > value ? rise : fall);
    out[i] = value;
  }
  return out;
}

/** A moving mean about each step, so that nothing comes late. */
function smoothed(levels: Float32Array, width: Seconds): Float32Array {
  const half = Math.round((width * HEARD_RATE) / 2);
  if (half === 0) return levels;
  const sums = new Float64Array(levels.length + 1);
  for (let i = 0; i < levels.length; i++) sums[i + 1] = sums[i]! + levels[i]!;
  return levels.map((_, i) => {
    const [from, to] = [Math.max(0, i - half), Math.min(levels.length, i + half + 1)];
    return (sums[to]! - sums[from]!) / (to - from);
  });
}

/** The envelope of a listening property: followed, smoothed, spread over its range and bent by its curve. */
export function envelopeOf(listen: Listen, heard: Heard): Envelope {
  const levels = smoothed(followed(heard.levels(listen.source), listen.attack, listen.release), listen.smoothing);
  const [low, high] = listen.range;
  const last = levels.length - 1;
  return (seconds) => {
    const x = Math.max(0, Math.min(last, seconds * HEARD_RATE));
    const i = Math.floor(x);
    const level = levels[i]! + ((levels[i + 1] ?? levels[i]!) - levels[i]!) * (x - i);
    const spread = high > low ? (level - low) / (high - low) : Number(level >= high);
    return Math.max(0, Math.min(1, spread)) ** listen.curve;
  };
}
