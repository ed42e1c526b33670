import { runServer } from '../server/run-server';
import { seedDemo } from './seed';

/** The program that `./start` runs: the server, with the demo in a database that has never had it. */
runServer(seedDemo).catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
