import { fork } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import { serve } from '@hono/node-server';
import { pino } from 'pino';
import { seedDemo } from '../demo/seed';
import { migrate, openDatabase } from './db/data-source';
import { createApp } from './http/app';
import { closeContext, openContext } from './jobs/context';
import { readConfig } from './platform/config';

/** Starts a worker process again whenever it ends, with a pause that grows while it keeps failing at once. */
function superviseWorker(file: string, onStart: (child: ChildProcess) => void): () => void {
  let stopped = false;
  let child: ChildProcess | null = null;
  let pause = 200;
  const start = () => {
    const startedAt = Date.now();
    child = fork(file);
    onStart(child);
    child.on('exit', () => {
      if (stopped) return;
      pause = Date.now() - startedAt > 10_000 ? 200 : Math.min(10_000, pause * 2);
      setTimeout(() => !stopped && start(), pause);
    });
  };
  start();
  return () => {
    stopped = true;
    child?.kill('SIGTERM');
  };
}

async function main(): Promise<void> {
  const config = readConfig(process.env);
  const log = pino({ level: config.logLevel, base: { part: 'server' } });
  await mkdir(config.dataDir, { recursive: true });
  const source = await openDatabase(config.databaseUrl);
  await migrate(source);
  await source.destroy();
  const context = await openContext(config, log);
  const app = createApp(context);
  const server = serve({ fetch: app.fetch, port: config.port, hostname: '127.0.0.1' }, (info) => {
    if (process.send) process.send({ listening: info.port });
    console.log(`Estrella is at http://127.0.0.1:${info.port}`);
  });
  server.on('error', (error: Error) => {
    console.error(`cannot serve on port ${config.port}: ${error.message}`);
    process.exit(1);
  });
  const stopWorkers = Array.from({ length: config.workers }, () => superviseWorker(join(config.assets.serverDir, 'worker-main.js'), (child) => log.info({ pid: child.pid }, 'worker started')));
  if (config.seed) await seedDemo(context).catch((error: unknown) => log.error({ err: error }, 'the demo could not be made'));
  let stopping = false;
  const stop = () => {
    if (stopping) return;
    stopping = true;
    for (const stopWorker of stopWorkers) stopWorker();
    server.close();
    void closeContext(context).finally(() => process.exit(0));
  };
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
  // A database that goes away shows as 503 on requests; it must not end the server.
  process.on('unhandledRejection', (error) => log.error({ err: error }, 'unhandled'));
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
