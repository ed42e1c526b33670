import { describe, expect, it } from '@jest/globals';
import { FRAME_RATES, frameMiddle } from '@core/time';
import { secondsHeardAt } from './heard-clock';
import { PlayingLoop } from './playing-loop';

const TURN = 1000 / 60;
const passes = [{ since: 0, from: 0, to: 60 }];

/** A screen of sixty turns a second, on which a painted frame is seen from the turn after it is done on. */
function play(rate: '30' | '60', painting: number, turns = 240) {
  let now = 0;
  let next: (() => void) | null = null;
  const seen: { since: number; seconds: number }[] = [];
  const loop = new PlayingLoop({
    now: () => now,
    nextTurn: (run) => void (next = run),
    paint(seconds) {
      seen.push({ since: (Math.floor((now + painting) / TURN + 1e-6) + 1) * TURN, seconds });
      now += painting;
      return painting;
    },
  });
  loop.play({ passes, frameRate: FRAME_RATES[rate] });
  for (let i = 0; i < turns; i++) {
    now = Math.max(now, (Math.floor(now / TURN + 1e-6) + 1) * TURN);
    const run = next as (() => void) | null;
    next = null;
    run?.();
  }
  return { seen, loop, later: () => next };
}
/** How late frames are in the mean while they are on the screen, milliseconds, once it has settled. */
function lateness(seen: readonly { since: number; seconds: number }[]): number {
  let [sum, count] = [0, 0];
  for (let at = 1000; at < seen.at(-1)!.since; at += 0.5) {
    const shown = seen.findLast(({ since }) => since <= at);
    if (!shown) continue;
    sum += secondsHeardAt(passes, at) * 1000 - shown.seconds * 1000;
    count++;
  }
  return sum / count;
}

describe('painting while sound plays', () => {
  it.each([
    ['30', 2],
    ['60', 2],
    ['60', 11],
    ['30', 21],
    ['60', 40],
  ] as const)('shows what is heard: %s frames a second that take %d ms', (rate, painting) => {
    expect(Math.abs(lateness(play(rate, painting).seen))).toBeLessThan(9);
  });
  it('paints each frame once, in its middle, and again when something in it has changed', () => {
    const { seen, loop } = play('30', 1);
    expect(new Set(seen.map(({ seconds }) => seconds)).size).toBe(seen.length);
    expect(seen.every(({ seconds }) => Math.abs(((seconds * 30) % 1) - 0.5) < 1e-3)).toBe(true);
    expect(seen[0]!.seconds).toBe(frameMiddle(Math.round(seen[0]!.seconds * 30 - 0.5), FRAME_RATES['30']));
    expect(() => loop.again()).not.toThrow();
  });
  it('ends when it is stopped', () => {
    const { loop, later, seen } = play('30', 1, 10);
    loop.stop();
    later()?.();
    const before = seen.length;
    later()?.();
    expect(seen.length).toBe(before);
  });
});
