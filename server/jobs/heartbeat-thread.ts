import { parentPort, workerData } from 'node:worker_threads';
import pg from 'pg';
import { NEWS_CHANNEL } from '../db/news-channel';
import { BEAT_ALL } from '../features/jobs/job-sql';

/** The thread that reports what its process is at work on: see heartbeat.ts. */

/** Why a job is no longer an attempt's. */
export type BeatAnswer = 'canceled' | 'paused' | 'lost';
/** A key is the job's id and the number of the attempt, with a dot between. */
export type ToHeart =
  | { readonly type: 'progress'; readonly key: string; readonly progress: number }
  | { readonly type: 'stop'; readonly key: string };
export type FromHeart =
  | { readonly type: 'answer'; readonly key: string; readonly answer: BeatAnswer }
  | { readonly type: 'trouble'; readonly why: string };
export interface HeartData {
  readonly databaseUrl: string;
  readonly everyMs: number;
}

/** Rows of BEAT_ALL. */
interface BeatRow {
  readonly id: string;
  readonly attempt: number;
  readonly state: string | null;
  readonly now_at: number | null;
  readonly piece_id: string | null;
}

const { databaseUrl, everyMs } = workerData as HeartData; // sent by heartbeat.ts, which builds it from typed values
const underway = new Map<string, { progress: number; told: number }>();
let client: pg.Client | null = null;
let isBeating = false;
const tell = (message: FromHeart): void => parentPort?.postMessage(message);

/** A busy machine takes its time: a connection is waited for, since giving it up would only begin it again. */
const CONNECT_MS = 20_000;

async function connected(): Promise<pg.Client> {
  if (client) return client;
  const next = new pg.Client({
    connectionString: databaseUrl,
    connectionTimeoutMillis: CONNECT_MS,
    query_timeout: CONNECT_MS,
    keepAlive: true,
  });
  const drop = (): void => {
    if (client === next) client = null;
  };
  next.on('error', drop);
  next.on('end', drop);
  await next.connect();
  client = next;
  return next;
}

const answerOf = ({ state, now_at, attempt }: BeatRow): BeatAnswer =>
  now_at === attempt && (state === 'canceled' || state === 'paused') ? state : 'lost';

async function beat(): Promise<void> {
  if (isBeating || underway.size === 0) return;
  isBeating = true;
  try {
    const own = await connected();
    const asked = [...underway].map(([key, { progress }]) => {
      const [id, attempt] = key.split('.');
      return { id, attempt: Number(attempt), progress };
    });
    const { rows } = await own.query<BeatRow>(BEAT_ALL, [JSON.stringify(asked)]);
    for (const row of rows) {
      const key = `${row.id}.${row.attempt}`;
      const known = underway.get(key);
      if (!known) continue;
      if (row.state !== 'running' || row.now_at !== row.attempt) {
        underway.delete(key);
        tell({ type: 'answer', key, answer: answerOf(row) });
      } else if (known.progress !== known.told) {
        known.told = known.progress;
        const news = { topic: 'job', id: row.id, pieceId: row.piece_id };
        await own.query('SELECT pg_notify($1, $2)', [NEWS_CHANNEL, JSON.stringify(news)]).catch(() => {});
      }
    }
  } catch (error) {
    const broken = client;
    client = null;
    void broken?.end().catch(() => {});
    tell({ type: 'trouble', why: error instanceof Error ? error.message : String(error) });
  } finally {
    isBeating = false;
  }
}

parentPort?.on('message', (message: ToHeart) => {
  if (message.type === 'stop') {
    underway.delete(message.key);
    return;
  }
  const known = underway.get(message.key);
  if (known) known.progress = Math.max(known.progress, message.progress);
  else underway.set(message.key, { progress: message.progress, told: -1 });
});
setInterval(() => void beat(), everyMs);
