import pg from 'pg';
import type { DataSource } from 'typeorm';
import * as z from 'zod';
import { NEWS_CHANNEL } from './news-channel';

/**
 * News between processes: what has changed, not how. Any process says so through PostgreSQL's NOTIFY; servers listen
 * and tell the browsers that want to know. News that get lost (a dropped connection) only make a browser ask later.
 */
export const newsSchema = z.object({
  topic: z.enum(['job', 'media', 'piece']),
  id: z.string().max(100),
  pieceId: z.string().max(100).nullable().optional(),
});
export type News = z.infer<typeof newsSchema>;
export type Notify = (news: News) => Promise<void>;

/** Telling news must never be why something fails. */
export const createNotify =
  (source: DataSource): Notify =>
  async (news) => {
    await source.query('SELECT pg_notify($1, $2)', [NEWS_CHANNEL, JSON.stringify(news)]).catch(() => {});
  };

const RECONNECT_MS = 1000;

/** Listens on a connection of its own, which is made anew when it is lost. */
export function listenForNews(databaseUrl: string, onNews: (news: News) => void): () => Promise<void> {
  let client: pg.Client | null = null;
  let timer: ReturnType<typeof setTimeout> | null = null;
  let isStopped = false;
  const again = () => {
    if (isStopped || timer) return;
    timer = setTimeout(() => {
      timer = null;
      void connect();
    }, RECONNECT_MS);
  };
  const connect = async () => {
    const next = new pg.Client({ connectionString: databaseUrl, connectionTimeoutMillis: 4000, keepAlive: true });
    next.on('error', again);
    next.on('end', again);
    next.on('notification', ({ payload }) => {
      try {
        const news = newsSchema.safeParse(JSON.parse(payload ?? ''));
        if (news.success) onNews(news.data);
      } catch {
        // somebody else's words
      }
    });
    try {
      await next.connect();
      await next.query(`LISTEN ${NEWS_CHANNEL}`);
      client = next;
    } catch {
      await next.end().catch(() => {});
      again();
    }
  };
  void connect();
  return async () => {
    isStopped = true;
    if (timer) clearTimeout(timer);
    await client?.end().catch(() => {});
  };
}
