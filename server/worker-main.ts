import { LANES } from './db/entities';
import { closeContext, openContext } from './jobs/context';
import { REAP_EVERY_MS, createReaper, runNext } from './jobs/runner';
import { readConfig } from './platform/config';
import { createLog } from './platform/log';
import { keepPaintThread } from './render/paint-pool';
import { AWAKE_EVERY_MS } from './supervise';

/** How often an idle worker looks for parts of renders. */
const HELP_EVERY_MS = 1000;

/** Sending mostly waits: a slow destination holds up no other. */
const SENT_AT_ONCE = 4;

/**
 * A worker process: analyses songs and renders exports. Any number may run, on any machine with the same database and
 * media folder.
 */
async function main(): Promise<void> {
  // The server that started us may be gone at any moment from here on, also before anything is open.
  let stop = (): void => process.exit(0);
  process.on('disconnect', () => stop());
  process.on('SIGTERM', () => stop());
  process.on('SIGINT', () => stop());
  if (process.send && !process.connected) return stop();
  const config = readConfig(process.env);
  const log = createLog(config.logLevel, 'worker');
  if (process.send) setInterval(() => process.connected && process.send?.({ awake: true }), AWAKE_EVERY_MS);
  const context = await openContext(config, log, true);
  keepPaintThread(config.assets);
  let underway = 0;
  for (const lane of LANES)
    for (let n = 0; n < (lane === 'send' ? SENT_AT_ONCE : 1); n++)
      await context.queue.work(lane, async () => {
        underway++;
        await runNext(context, lane).finally(() => underway--);
      });
  // Whoever has nothing of its own to do makes parts of what others render.
  const help = async (): Promise<void> => {
    if (underway === 0 && (await runNext(context, 'part'))) return help();
    setTimeout(() => void help(), HELP_EVERY_MS);
  };
  void help();
  const reap = createReaper(context);
  const reapNow = () => reap().catch((error: unknown) => log.warn({ err: error }, 'could not look for lost jobs'));
  setInterval(() => void reapNow(), REAP_EVERY_MS);
  stop = () => {
    setTimeout(() => process.exit(1), 5000).unref();
    void closeContext(context).finally(() => process.exit(0));
  };
  process.on('unhandledRejection', (error) => log.error({ err: error }, 'unhandled'));
  log.info('ready for work');
}

// Without its database a worker ends; the server starts it again, with growing pauses.
main().catch(() => process.exit(1));
