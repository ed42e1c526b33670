import type { News } from '../../../server/db/notify';

/**
 * News from the server (server-sent events): what has changed. One stream serves the page, however often somebody begins
 * or stops to listen; it is opened again when it is lost, refused or silent.
 */
interface Listener {
  readonly onNews: (news: News) => void;
  /** News may have been missed: the stream was down. */
  readonly onMissed: () => void;
}

const listeners = new Set<Listener>();
let source: EventSource | null = null;
/** Whether this page ever had a stream that worked. */
let wasOpen = false;
let failures = 0;
let timer: ReturnType<typeof setTimeout> | undefined;

/** The server says something every 15 seconds; a stream that is silent for longer than this is dead. */
const SILENT_MS = 40_000;
/** Pauses before a lost stream is opened again: they grow up to this. */
const [FIRST_PAUSE_MS, MAX_PAUSE_MS] = [500, 30_000];
/** The stream is closed when nobody has listened for so long: between two polls it stays. */
const IDLE_MS = 60_000;
let idle: ReturnType<typeof setTimeout> | undefined;

function close(): void {
  clearTimeout(timer);
  source?.close();
  source = null;
}

function reopen(): void {
  close();
  timer = setTimeout(open, Math.min(MAX_PAUSE_MS, FIRST_PAUSE_MS * 2 ** failures++));
}

/** Sets the watch for silence anew. */
function heard(): void {
  clearTimeout(timer);
  timer = setTimeout(reopen, SILENT_MS);
}

function open(): void {
  if (source || typeof EventSource === 'undefined') return;
  const stream = new EventSource('/api/events');
  source = stream;
  heard();
  stream.addEventListener('ready', () => {
    heard();
    failures = 0;
    if (wasOpen) for (const listener of [...listeners]) listener.onMissed();
    wasOpen = true;
  });
  stream.addEventListener('alive', heard);
  stream.addEventListener('news', ({ data }: MessageEvent<string>) => {
    heard();
    const all = JSON.parse(data) as News[]; // written by server/http/event-routes.ts
    for (const news of all) for (const listener of [...listeners]) listener.onNews(news);
  });
  // A browser tries again by itself after a broken connection, but not after a refusal (a server that restarts).
  stream.addEventListener('error', () => {
    if (stream === source && stream.readyState === EventSource.CLOSED) reopen();
  });
}

/**
 * Listens until the returned function is called.
 * @param onMissed - called when the stream works again after it was down: whoever shows something asks again.
 */
export function onNews(listener: Listener['onNews'], onMissed: Listener['onMissed'] = () => {}): () => void {
  const own = { onNews: listener, onMissed };
  listeners.add(own);
  clearTimeout(idle);
  open();
  return () => {
    listeners.delete(own);
    clearTimeout(idle);
    if (source) idle = setTimeout(() => listeners.size === 0 && close(), IDLE_MS);
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
