/** Time as saving sees it: passed in, so that tests run on a clock of their own. */
export interface Clock {
  /** Milliseconds, never running backwards. */
  now(): number;
  /** Calls back once after some milliseconds; returns what calls it off. */
  after(milliseconds: number, run: () => void): () => void;
}

export const browserClock: Clock = {
  now: () => performance.now(),
  after(milliseconds, run) {
    const timer = setTimeout(run, milliseconds);
    return () => clearTimeout(timer);
  },
};
