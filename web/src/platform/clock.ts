/** The playhead outside React: a time that components subscribe to and draw from directly. */
type Listener = (seconds: number) => void;

export interface Clock {
  readonly seconds: number;
  set(seconds: number): void;
  subscribe(listener: Listener): () => void;
}

export function createClock(): Clock {
  let now = 0;
  const listeners = new Set<Listener>();
  return {
    get seconds() {
      return now;
    },
    set(seconds) {
      now = seconds;
      for (const listener of listeners) listener(seconds);
    },
    subscribe(listener) {
      listeners.add(listener);
      listener(now);
      return () => void listeners.delete(listener);
    },
  };
}

export const playhead = createClock();
