import { pino } from 'pino';
import { closeContext, openContext } from './jobs/context';
import { REAP_EVERY_MS, reap, runJob } from './jobs/runner';
import { readConfig } from './platform/config';

/** A worker process: analyses songs and renders exports. Any number may run, on any machine with the same database and media folder. */
async function main(): Promise<void> {
  const config = readConfig(process.env);
  const log = pino({ level: config.logLevel, base: { part: 'worker' } });
  const context = await openContext(config, log);
  await context.queue.work('prepare', (id) => runJob(context, 'prepare', id));
  await context.queue.work('export', (id) => runJob(context, 'export', id));
  const reapNow = () => reap(context).catch((error: unknown) => log.warn({ err: error instanceof Error ? error.message : error }, 'could not look for lost jobs'));
  await reapNow();
  setInterval(reapNow, REAP_EVERY_MS);
  const stop = () => void closeContext(context).finally(() => process.exit(0));
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
  process.on('disconnect', stop); // the server that started us is gone
  log.info('ready for work');
}

main().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
