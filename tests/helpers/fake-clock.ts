import type { Clock } from '../../web/src/saving/clock';

/** A clock that stands still until it is moved; promises get their turn between timers. */
export interface FakeClock extends Clock {
  /** Moves on, running what is due in order. */
  advance(milliseconds: number): Promise<void>;
  /** Lets everything that waits on promises go as far as it can. */
  settle(): Promise<void>;
  readonly waiting: () => number;
}

export function createFakeClock(): FakeClock {
  let now = 0;
  let timers: { at: number; run: () => void }[] = [];
  const settle = async () => {
    for (let i = 0; i < 30; i++) await Promise.resolve();
  };
  return {
    now: () => now,
    after(milliseconds, run) {
      const timer = { at: now + milliseconds, run };
      timers.push(timer);
      return () => {
        timers = timers.filter((t) => t !== timer);
      };
    },
    async advance(milliseconds) {
      const end = now + milliseconds;
      for (;;) {
        await settle();
        const next = timers.filter((t) => t.at <= end).sort((a, b) => a.at - b.at)[0];
        if (!next) break;
        timers = timers.filter((t) => t !== next);
        now = Math.max(now, next.at);
        next.run();
      }
      now = end;
      await settle();
    },
    settle,
    waiting: () => timers.length,
  };
}
