import type { News } from '../../../server/db/notify';

/**
 * News from the server (server-sent events): what has changed. One stream serves the page; the browser makes it anew
 * when it is lost.
 */
type Listener = (news: News) => void;

const listeners = new Set<Listener>();
let source: EventSource | null = null;

function open(): void {
  if (source || typeof EventSource === 'undefined') return;
  source = new EventSource('/api/events');
  source.addEventListener('news', ({ data }: MessageEvent<string>) => {
    const all = JSON.parse(data) as News[]; // written by server/http/event-routes.ts
    for (const news of all) for (const listener of listeners) listener(news);
  });
}

/**
 * Listens until the returned function is called. News can be missed while the stream is down: whoever shows something
 * asks again now and then.
 */
export function onNews(listener: Listener): () => void {
  listeners.add(listener);
  open();
  return () => {
    listeners.delete(listener);
    if (listeners.size > 0) return;
    source?.close();
    source = null;
  };
}

/** News may be missed; whoever waits for a file asks after so long. */
const ASK_AGAIN_MS = 2000;

/** Resolves when something may have changed about a file, or after a while. @param hash - of the file. */
export const nextNewsOfMedia = (hash: string): Promise<void> =>
  nextNews((news) => news.topic === 'job' || (news.topic === 'media' && news.id === hash), ASK_AGAIN_MS);

/** Resolves with the next news that are wanted, or after a while without. */
export function nextNews(isWanted: (news: News) => boolean, milliseconds: number): Promise<void> {
  return new Promise((resolve) => {
    const done = () => {
      clearTimeout(timer);
      stop();
      resolve();
    };
    const stop = onNews((news) => isWanted(news) && done());
    const timer = setTimeout(done, milliseconds);
  });
}
