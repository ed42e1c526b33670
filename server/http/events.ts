import type { News } from '../db/notify';

/** Passes news on to the browsers that listen. */
export interface Events {
  publish(news: News): void;
  /** Returns what ends listening. */
  subscribe(listener: (news: News) => void): () => void;
}

export function createEvents(): Events {
  const listeners = new Set<(news: News) => void>();
  return {
    publish: (news) => {
      for (const listener of listeners) listener(news);
    },
    subscribe(listener) {
      listeners.add(listener);
      return () => void listeners.delete(listener);
    },
  };
}
