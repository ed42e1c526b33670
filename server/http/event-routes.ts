import { Hono } from 'hono';
import { streamSSE } from 'hono/streaming';
import type { News } from '../db/notify';
import { AppError } from '../platform/errors';
import type { Events } from './events';
import { addressOf } from './guard';

/** Longest time between two messages: proxies and browsers give up on silent streams. */
const KEEP_ALIVE_MS = 15_000;
/** News of one thing within this time are told once. */
const GATHER_MS = 150;

/** Server-sent events: what has changed, for pages that show it (HTML Standard, section 9.2). */
/** Streams that an address may have open: a page has one. */
const MAX_STREAMS = 64;

export function eventRoutes(events: Events) {
  const open = new Map<string, number>();
  return new Hono().get('/', (c) => {
    const address = addressOf(c);
    const count = open.get(address) ?? 0;
    if (count >= MAX_STREAMS) throw new AppError('TOO_MANY_REQUESTS');
    open.set(address, count + 1);
    const leave = (): void => {
      const left = (open.get(address) ?? 1) - 1;
      if (left > 0) open.set(address, left);
      else open.delete(address);
    };
    return streamSSE(c, async (stream) => {
      try {
        const waiting = new Map<string, News>();
        let wake: () => void = () => {};
        const stop = events.subscribe((news) => {
          waiting.set(`${news.topic}/${news.id}`, news);
          wake();
        });
        let isOpen = true;
        stream.onAbort(() => {
          isOpen = false;
          stop();
          wake();
        });
        await stream.writeSSE({ event: 'ready', data: '{}' });
        while (isOpen) {
          if (waiting.size === 0) {
            await new Promise<void>((resolve) => {
              const timer = setTimeout(resolve, KEEP_ALIVE_MS);
              wake = () => {
                clearTimeout(timer);
                resolve();
              };
            });
          }
          if (!isOpen) break;
          if (waiting.size === 0) {
            await stream.writeSSE({ event: 'alive', data: '{}' });
            continue;
          }
          const news = [...waiting.values()];
          waiting.clear();
          await stream.writeSSE({ event: 'news', data: JSON.stringify(news) });
          await stream.sleep(GATHER_MS);
        }
        stop();
      } finally {
        leave();
      }
    });
  });
}
