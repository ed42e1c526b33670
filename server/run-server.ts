import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import type { Logger } from 'pino';
import { serve } from '@hono/node-server';
import { awaitDatabase, migrate } from './db/data-source';
import { listenForNews } from './db/notify';
import { createApp } from './http/app';
import { createEvents } from './http/events';
import { COLLECT_EVERY_MS, collect } from './jobs/collect';
import { closeContext, openContext } from './jobs/context';
import type { ServerContext } from './jobs/context';
import { REAP_EVERY_MS, createReaper } from './jobs/runner';
import { readConfig } from './platform/config';
import type { Config } from './platform/config';
import { turn } from './platform/turns';
import { asAppError } from './platform/errors';
import { createLog } from './platform/log';
import { superviseWorkers } from './supervise';

/** Runs work again and again, each time after the last has ended; what fails is logged and tried again. */
function repeat(everyMs: number, work: () => Promise<unknown>, onError: (error: unknown) => void): () => void {
  let timer: ReturnType<typeof setTimeout> | null = null;
  let isStopped = false;
  const run = () => {
    work()
      .catch(onError)
      .finally(() => {
        if (!isStopped) timer = setTimeout(run, everyMs);
      });
  };
  run();
  return () => {
    isStopped = true;
    if (timer) clearTimeout(timer);
  };
}

/** Pieces stored before there were summaries get theirs, some at a time. */
async function completeSummaries(context: ServerContext): Promise<void> {
  while ((await context.pieces.resummarise(null)) > 0) await turn();
}

/**
 * Waits for the database, brings its tables up to date and opens everything. A database that goes away in the midst of
 * it is waited for again.
 */
async function openPrepared(config: Config, log: Logger): Promise<ServerContext> {
  for (let attempt = 1; ; attempt++) {
    const source = await awaitDatabase(config.databaseUrl);
    try {
      await migrate(source);
      return await openContext(config, log);
    } catch (error) {
      if (asAppError(error).code !== 'DATABASE_AWAY' || attempt >= MOST_STARTS) throw error;
      log.warn({ err: error }, 'the database went away while starting');
    } finally {
      await source.destroy().catch(() => {});
    }
  }
}
const MOST_STARTS = 10;

/** Longest time a stop may take before it is forced. */
const STOP_MS = 8000;

/**
 * Runs the server until it is told to stop. @param seed - fills a database that has never held anything; its failure is
 * logged and keeps nobody from working.
 */
export async function runServer(seed: (context: ServerContext) => Promise<void>): Promise<void> {
  const config = readConfig(process.env);
  const log = createLog(config.logLevel, 'server');
  await mkdir(config.dataDir, { recursive: true });
  const context = await openPrepared(config, log);
  const events = createEvents();
  const stopNews = listenForNews(config.databaseUrl, events.publish);
  const app = createApp(context, { events });
  const server = serve({ fetch: app.fetch, port: config.port, hostname: config.access.listen }, (info) => {
    if (process.send) process.send({ listening: info.port });
    console.log(
      `Estrella is at http://${config.access.listen === '127.0.0.1' ? '127.0.0.1' : config.access.listen}:${info.port}`,
    );
  });
  server.on('error', (error: Error) => {
    console.error(`cannot serve on port ${config.port}: ${error.message}`);
    process.exit(1);
  });
  const stops = [superviseWorkers(join(config.assets.serverDir, 'worker-main.js'), config.workers, log)];
  if (config.seed)
    await seed(context).catch((error: unknown) => log.error({ err: error }, 'the demo could not be made'));
  await completeSummaries(context).catch((error: unknown) => log.warn({ err: error }, 'summaries are not complete'));
  stops.push(
    repeat(REAP_EVERY_MS, createReaper(context), (error) => log.warn({ err: error }, 'could not look for lost jobs')),
  );
  stops.push(
    repeat(
      COLLECT_EVERY_MS,
      async () => {
        const collected = await collect(context);
        const uploads = await app.uploads.cleanUp();
        log.info({ ...collected, uploads }, 'cleaned up');
      },
      (error) => log.warn({ err: error }, 'could not clean up'),
    ),
  );
  let stopping = false;
  const stop = () => {
    if (stopping) return;
    stopping = true;
    setTimeout(() => process.exit(1), STOP_MS).unref();
    for (const end of stops) end();
    server.close();
    void Promise.allSettled([stopNews(), app.stop(), closeContext(context)]).then(() => process.exit(0));
  };
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
  // A database that goes away shows as 503 on requests; it must not end the server.
  process.on('unhandledRejection', (error) => log.error({ err: error }, 'unhandled'));
}
